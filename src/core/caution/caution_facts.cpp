// SPDX-License-Identifier: GPL-3.0-or-later
// What the document knows, as facts for the rules. Facts that nobody stated are left out.

#include "core/caution/caution.h"
#include "core/domain/joint_inspection.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/words.h"
#include "core/physics/pad.h"
#include "core/shelf/shelf.h"

#include <algorithm>
#include <functional>

namespace ibuki {
namespace {

void put(Facts& facts, const char* name, YesNo answer) {
    if (answer != YesNo::notStated) facts[name] = answer == YesNo::yes;
}

void put(Facts& facts, const char* name, Metal metal) {
    if (metal != Metal::unknown) facts[name] = std::string(word(metal));
}

void putMaterial(Facts& facts, const Material& material) {
    const MaterialFacts known = factsOf(material);
    facts["material.class"] = std::string(word(material.kind));
    facts["material.gallium"] = known.gallium.value;
    facts["material.conducts"] = known.conducts.value;
    facts["material.hottest"] = known.maxC.value;
    if (known.meltsC) facts["melts.plus5"] = known.meltsC->value + 5;
}

void putSite(Facts& facts, const Site& site) {
    facts["site.kind"] = std::string(word(site.kind));
    put(facts, "face.lower", site.lowerFace);
    put(facts, "face.upper", site.upperFace);
    put(facts, "near.aluminium", site.aluminiumNear);
    put(facts, "near.contacts", site.contactsNear);
}

/// One piece against the face by their sides, either way round; by areas where only those are stated. What
/// nobody has measured counts as cut to the face: only a stated size can be wrong.
void putPiece(Facts& facts, const Application* application, const Site& site) {
    if (!site.width || !site.length) return;
    const auto sides = [](double a, double b) { return std::pair{std::min(a, b), std::max(a, b)}; };
    const auto face = sides(site.width->value, site.length->value);
    bool overhangs = false;
    bool small = false;
    if (application && application->pieceWidth && application->pieceLength) {
        const auto piece = sides(application->pieceWidth->value, application->pieceLength->value);
        overhangs = piece.first > face.first || piece.second > face.second;
        small = piece.first < face.first || piece.second < face.second;
    } else if (application && application->area) {
        const double mm2 = application->area->value
                           / (std::max(1, site.alike) * std::max(1, application->layers.value_or(1)));
        overhangs = mm2 > face.first * face.second;
        small = mm2 < face.first * face.second;
    }
    facts["piece.overhangs"] = overhangs;
    facts["piece.small"] = small;
}

/// How far a pad of this material is pressed in the site's gap, and its share of the mount's force.
void putPad(Facts& facts, const Material& material, const Site& site, const Configuration* configuration) {
    const MaterialFacts known = factsOf(material);
    if (!site.gap || site.gap->value <= 0) return;
    const double thicknessMm = known.bondLineUm.value / 1000;
    if (thicknessMm <= 0) return;
    facts["pad.strain"] = 1 - site.gap->value / thicknessMm;
    if (!known.modulusMPa || !site.width || !site.length || !configuration || !configuration->mountForce)
        return;
    PadAtSite pad{site.name,
                  site.gap->value,
                  thicknessMm,
                  known.modulusMPa->value,
                  site.width->value * site.length->value,
                  site.alike};
    facts["pad.loadShare"] = padState(pad).forceN / configuration->mountForce->value;
}

/// What was seen in each run at its hottest, °C, the hottest run first.
struct HottestFirst {
    std::vector<std::pair<double, Id<Run>>> runs;
};

HottestFirst hottestFirst(const Document& document) {
    HottestFirst seen;
    for (const auto& [id, stored] : document.all<RunReduction>())
        if (stored.hottestC) seen.runs.emplace_back(*stored.hottestC, stored.run);
    std::sort(seen.runs.begin(), seen.runs.end(), std::greater());
    return seen;
}

/// The hottest that anything on the configuration was seen, °C. Most often the first run tells.
std::optional<double> hottestMeasured(const Document& document, Id<Configuration> configuration) {
    const auto& seen = document.once<HottestFirst>([&] { return hottestFirst(document); });
    for (const auto& [hottest, id] : seen.runs) {
        const Run* run = document.find(id);
        const Mount* mount = run ? document.find(run->mount) : nullptr;
        const Recording* recording = run ? document.find(run->recording) : nullptr;
        if (mount && recording && !recording->withdrawn && mount->configuration == configuration)
            return hottest;
    }
    return std::nullopt;
}

bool pulledBefore(const Document& document, Id<Bench> bench) {
    for (const auto& [id, look] : document.all<JointInspection>()) {
        if (look.cameOff != CameOff::pulledChipOut) continue;
        const Mount* mount = document.find(look.mount);
        const Bench* on = mount ? benchOf(document, *mount) : nullptr;
        if (on && on->id == bench) return true;
    }
    return false;
}

void putConfiguration(Facts& facts, const Document& document, const Configuration& configuration) {
    facts["chip.lid"] = std::string(word(configuration.lid));
    facts["fan.turns"] = configuration.fan != FanSetting::none;
    put(facts, "chip.pins", configuration.pinsOnChip);
    std::optional<double> hottest = hottestMeasured(document, configuration.id);
    if (!hottest && configuration.temperatureLimit) hottest = configuration.temperatureLimit->value;
    if (hottest) facts["bench.hottest"] = *hottest;
    facts["bench.pulledBefore"] = pulledBefore(document, configuration.bench);
}

/// The application of the subject's mount at its site.
const MountApplication* placed(const Document& document, const CautionSubject& subject) {
    if (!subject.mount) return nullptr;
    for (const MountApplication* link : document.where(&MountApplication::mount, subject.mount->id)) {
        const Application* application = document.find(link->application);
        if (application && (!subject.site || application->site == subject.site->id)) return link;
    }
    return nullptr;
}

} // namespace

Facts cautionFacts(const Document& document, const CautionSubject& subject, Instant now) {
    Facts facts;
    facts["subject.material"] = subject.material != nullptr;
    facts["subject.bench"] = subject.configuration != nullptr;
    if (!subject.material) { // nothing to be conductive or gallium
        facts["material.class"] = std::string("none");
        facts["material.gallium"] = false;
        facts["material.conducts"] = false;
    } else {
        putMaterial(facts, *subject.material);
    }
    if (subject.site) putSite(facts, *subject.site);
    if (subject.material && subject.site)
        putPad(facts, *subject.material, *subject.site, subject.configuration);
    if (subject.configuration) putConfiguration(facts, document, *subject.configuration);
    if (subject.lot) {
        facts["lot.expired"] = lotState(document, *subject.lot, now).expired;
        facts["lot.condition"] = std::string(word(subject.lot->condition));
        if (subject.site) facts["lot.tooLittle"] = tooLittleFor(document, *subject.lot, *subject.site, now);
    }
    const Application* application = nullptr;
    if (const MountApplication* link = placed(document, subject)) {
        facts["application.again"] = link->use == ApplicationUse::laidAgain;
        application = document.find(link->application);
        if (application) facts["pad.layers"] = static_cast<double>(application->layers.value_or(1));
    }
    if (subject.site) putPiece(facts, application, *subject.site);
    return facts;
}

const Acknowledgement* acknowledgementOf(const Document& document, std::string_view rule,
                                         const CautionSubject& subject) {
    const auto matches = [](const auto& stated, const auto* thing) {
        return !stated || (thing && *stated == thing->id);
    };
    const Acknowledgement* newest = nullptr;
    for (const auto& [id, given] : document.all<Acknowledgement>())
        if (given.rule == rule && matches(given.material, subject.material) && matches(given.lot, subject.lot)
            && matches(given.site, subject.site) && matches(given.mount, subject.mount))
            newest = &given;
    return newest;
}

} // namespace ibuki
