// SPDX-License-Identifier: GPL-3.0-or-later
#include "sample_looks.h"

#include "core/domain/edit.h"
#include "core/domain/lookup.h"
#include "core/simulate/made_up_look.h"
#include "store/picture/photograph_file.h"
#include "store/picture/png.h"

#include <fmt/format.h>

namespace ibuki {
namespace {

struct TakenPicture {
    JointPicture picture;
    StoredFile photograph;
    std::optional<StoredFile> mask;
};

TakenPicture taken(const Document& document, const JointInspection& look, const Site& site,
                   const PhotographScene& scene, LookSide side, const std::string& name) {
    TakenPicture made;
    made.picture.look = look.id;
    made.picture.side = side;
    made.picture.fileName = name;
    const std::string bytes = keptPhotograph(photographOf(scene).picture, 900);
    made.photograph = storedFile(bytes);
    made.picture.sha256 = made.photograph.sha256;
    made.picture.bytes = static_cast<std::int64_t>(bytes.size());
    const RgbPicture photograph = photographFrom(bytes, name);
    made.picture.width = photograph.width;
    made.picture.height = photograph.height;
    MeasureFaceOptions options = measureOptions(document, look, side);
    options.find.guess.reset(); // another view each time
    const Extent face = faceOf(document, site).size;
    const MeasuredFace measured = measureFace(photograph, face, options);
    putMeasured(made.picture, measured, face);
    if (measured.corners) {
        made.mask = storedFile(pngBytes(measured.mask));
        made.picture.maskSha256 = made.mask->sha256;
    }
    return made;
}

/// What the hands noticed goes with what the picture shows.
void see(JointInspection& look, const JointPicture& picture, int number) {
    const double covered = picture.covered.value_or(1);
    look.spread = covered > 0.9;
    look.dry = covered < 0.75;
    look.residue = number % 3 == 0;
    look.cameOff = number % 4 == 1 ? CameOff::twisted
                   : number == 6   ? CameOff::pulledChipOut
                                   : CameOff::lifted;
    look.effort = number == 6 ? 5 : 2 + number % 2;
    look.cleanMinutes = 3 + number % 4;
    look.wipes = 3 + number % 3;
    if (number == 6) look.damage = "two pins bent, straightened again";
}

} // namespace

void addLooks(Project& project, Id<Study> study, int most) {
    int number = 0;
    for (const Slot* slot : slotsOf(project.document(), study)) {
        if (!slot->mount || number == most) continue;
        const Document document = project.document();
        const Mount* mount = document.find(*slot->mount);
        const auto at = lookedSite(document, *firstQuestion(document, study), *mount);
        const Site* site = at ? document.find(*at) : nullptr;
        if (!site) continue;
        MadeUpLook made;
        made.seed = static_cast<std::uint64_t>(40 + number);
        made.lean = mount->rejected ? 0.5 : 0.14;
        const auto scene = madeUpScene(document, mount->id, *site, made);
        if (!scene) continue;
        Edit edit(document, Message{"Look at the joint of {mount}", {{"mount", mount->name}}});
        JointInspection look;
        look.mount = mount->id;
        look.site = site->id;
        look.at = mount->at;
        if (look.at) look.at->ms += 55 * 60'000; // behind its run, before the next mount
        look.id = edit.add(look);
        Acquired acquired;
        const auto put = [&](const TakenPicture& in) {
            edit.add(in.picture);
            acquired.files.push_back(in.photograph);
            if (in.mask) acquired.files.push_back(*in.mask);
        };
        const TakenPicture chip =
            taken(document, look, *site, *scene, LookSide::chip, fmt::format("{} chip.jpg", mount->name));
        put(chip);
        if (number % 4 == 0) {
            made.side = LookSide::plate;
            put(taken(document, look, *site, *madeUpScene(document, mount->id, *site, made), LookSide::plate,
                      fmt::format("{} plate.jpg", mount->name)));
        }
        see(look, chip.picture, number);
        edit.put(look);
        if (const Application* on = applicationAt(document, mount->id, site->id);
            on && on->amount && on->pattern == ApplicationPattern::notStated) {
            Application drawn = *on;
            drawn.pattern = ApplicationPattern::dot;
            edit.put(drawn);
        }
        project.apply(edit.finish(), acquired);
        ++number;
    }
}

} // namespace ibuki
