// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/look_section.h"

#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/inspect/looks.h"
#include "store/paper/ladder_svg.h"
#include "store/picture/photograph_file.h"
#include "store/picture/png.h"
#include "words/words.h"

#include <fmt/format.h>
#include <openssl/evp.h>

namespace ibuki {
namespace {

constexpr int thumbnailPx = 150; // of the face's longer side
constexpr std::size_t mostShown = 24;

std::string base64(const std::string& bytes) {
    std::string made(4 * ((bytes.size() + 2) / 3) + 1, '\0'); // EVP ends it with a zero
    const int written =
        EVP_EncodeBlock(reinterpret_cast<unsigned char*>(made.data()),
                        reinterpret_cast<const unsigned char*>(bytes.data()), static_cast<int>(bytes.size()));
    made.resize(static_cast<std::size_t>(written));
    return made;
}

std::size_t placeOf(int column, int row, int width) {
    return static_cast<std::size_t>(row) * static_cast<std::size_t>(width) + static_cast<std::size_t>(column);
}

/// Film dark, bare light, thin between: as on the contact sheet.
std::uint8_t inkOf(std::uint8_t level) { return level >= maskFromHere ? 90 : level == maskThin ? 190 : 245; }

} // namespace

std::string lookThumbnail(const JointPicture& picture, const ProjectFiles& files) {
    const auto corners = cornersOf(picture);
    if (!corners || picture.maskSha256.empty() || !picture.faceWidth || !picture.faceLength) return {};
    try {
        const RgbPicture photograph = photographFrom(files(picture.sha256), picture.fileName);
        const GreyPicture mask = greyFromPng(files(picture.maskSha256), picture.fileName);
        const FaceView view(*corners, {picture.faceWidth->value, picture.faceLength->value});
        const FacePicture face = rectified(photograph, view, {thumbnailPx, 0});
        constexpr int gap = 6;
        RgbPicture both{2 * face.picture.width + gap, face.picture.height, {}};
        both.rgb.assign(static_cast<std::size_t>(both.width) * static_cast<std::size_t>(both.height) * 3,
                        255);
        for (int row = 0; row < both.height; ++row)
            for (int column = 0; column < face.picture.width; ++column) {
                const std::size_t from = 3 * placeOf(column, row, face.picture.width);
                const std::size_t to = 3 * placeOf(column, row, both.width);
                const int x = std::min(mask.width - 1, column * mask.width / face.picture.width);
                const int y = std::min(mask.height - 1, row * mask.height / face.picture.height);
                const std::uint8_t ink = inkOf(mask.grey[placeOf(x, y, mask.width)]);
                for (std::size_t c = 0; c < 3; ++c) {
                    both.rgb[to + c] = face.picture.rgb[from + c];
                    both.rgb[to + 3 * static_cast<std::size_t>(face.picture.width + gap) + c] = ink;
                }
            }
        return keptPhotograph(both);
    } catch (const InputError&) { // a report tells what it has
        return {};
    }
}

std::string seenText(const JointInspection& look) {
    using words::say;
    std::vector<std::string> seen;
    const std::pair<bool JointInspection::*, std::string> signs[] = {
        {&JointInspection::spread, say("spread well")},
        {&JointInspection::dry, say("dry")},
        {&JointInspection::cracked, say("cracked")},
        {&JointInspection::torn, say("torn")},
        {&JointInspection::slipped, say("slipped")},
        {&JointInspection::overhung, say("overhung")},
        {&JointInspection::pumpedOut, say("pumped out")},
        {&JointInspection::residue, say("residue")},
        {&JointInspection::stained, say("stains on metal")},
        {&JointInspection::bowed, say("bowed")},
        {&JointInspection::imprintUneven, say("imprint uneven")}};
    for (const auto& [member, text] : signs)
        if (look.*member) seen.push_back(text);
    if (look.cameOff != CameOff::notStated) seen.push_back(words::term(word(look.cameOff)));
    if (look.effort) seen.push_back(say("effort {effort} of 5", {{"effort", *look.effort}}));
    if (look.cleanMinutes)
        seen.push_back(say("cleaned in {minutes:g} min", {{"minutes", *look.cleanMinutes}}));
    if (!look.damage.empty()) seen.push_back(say("damage: {what}", {{"what", look.damage}}));
    if (!look.note.empty()) seen.push_back(look.note);
    return fmt::format("{}", fmt::join(seen, ", "));
}

std::string looksHtml(const Document& document, const Question& question, const LookThumbnails& thumbnails) {
    using words::say;
    std::string rows;
    std::size_t shown = 0, left = 0;
    for (const Slot* slot : slotsOf(document, question.study)) {
        const Mount* mount = slot->mount ? document.find(*slot->mount) : nullptr;
        const auto site = mount ? lookedSite(document, question, *mount) : std::nullopt;
        const JointInspection* look = site ? lookAt(document, mount->id, *site) : nullptr;
        if (!look) continue;
        if (++shown > mostShown) {
            ++left;
            continue;
        }
        std::string pictures, covered;
        for (const JointPicture* picture : picturesOf(document, look->id)) {
            if (const std::string bytes = thumbnails(*picture); !bytes.empty())
                pictures +=
                    fmt::format("<img src=\"data:image/jpeg;base64,{}\" height=\"75\"> ", base64(bytes));
            if (picture->covered)
                covered += say("{side}: {covered:.0f} % ({low:.0f} to {high:.0f})",
                               {{"side", Term{word(picture->side)}},
                                {"covered", 100 * *picture->covered},
                                {"low", 100 * picture->coveredLow.value_or(*picture->covered)},
                                {"high", 100 * picture->coveredHigh.value_or(*picture->covered)}})
                           + "<br>";
        }
        std::string reported = seenText(*look);
        if (look->rejects)
            reported += (reported.empty() ? "" : "; ")
                        + (look->figureKnown ? say("rejected by look, when its figure was known already")
                                             : say("rejected by look, before its figure was known"));
        rows += fmt::format("<tr><td>{}</td><td>{}</td><td>{}</td><td>{}</td></tr>\n", xmlText(mount->name),
                            pictures, covered, xmlText(reported));
    }
    if (rows.empty()) return {};
    std::string html =
        fmt::format("<h2>{}</h2>\n<table><tr><th>{}</th><th>{}</th><th>{}</th><th>{}</th></tr>\n{}</table>\n",
                    xmlText(say("What the joints looked like")), xmlText(say("Mount")),
                    xmlText(say("Face and mask")), xmlText(say("Covered")), xmlText(say("Seen")), rows);
    if (left > 0)
        html += fmt::format("<p class=\"q\">{}</p>\n",
                            xmlText(words::sayMany("and {count} more look", "and {count} more looks",
                                                   static_cast<long>(left))));
    return html;
}

} // namespace ibuki
