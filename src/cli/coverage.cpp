// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/verb.h"
#include "core/base/input_error.h"
#include "store/atomic_file.h"
#include "store/json/coverage_json.h"
#include "store/json/json_text.h"
#include "store/picture/photograph_file.h"
#include "store/picture/png.h"
#include "words/words.h"

#include <charconv>
#include <cmath>
#include <fmt/format.h>
#include <fmt/ostream.h>
#include <memory>

namespace ibuki {
namespace {

struct CoverageArguments {
    std::string picture;
    std::string mask;
    std::string face;
    std::string corners;
    std::string site;
    std::string maskOut;
    bool json = false;
};

/// Numbers between separators that are any of `apart`; nothing where something else stands there.
std::optional<std::vector<double>> numbers(const std::string& text, const std::string& apart) {
    std::vector<double> found;
    for (std::size_t at = text.find_first_not_of(apart); at != std::string::npos;
         at = text.find_first_not_of(apart, at)) {
        const std::size_t end = std::min(text.find_first_of(apart, at), text.size());
        double value = 0;
        const auto read = std::from_chars(text.data() + at, text.data() + end, value);
        if (read.ec != std::errc() || read.ptr != text.data() + end || !std::isfinite(value))
            return std::nullopt;
        found.push_back(value);
        at = end;
    }
    return found;
}

Extent faceOf(const std::string& text) {
    const auto size = numbers(text, "xX*");
    if (!size || size->size() != 2 || !(size->at(0) > 0) || !(size->at(1) > 0))
        throw UsageError(
            words::say("--face {face}: width and length in mm are due, such as 30x25", {{"face", text}}));
    return {size->at(0), size->at(1)};
}

FaceCorners cornersOf(const std::string& text) {
    const auto places = numbers(text, ", ;");
    if (!places || places->size() != 8)
        throw UsageError(words::say(
            "--corners {corners}: four corners in pixels are due, such as \"10,12 90,11 92,80 9,82\"",
            {{"corners", text}}));
    FaceCorners corners;
    for (std::size_t i = 0; i < 4; ++i) corners[i] = {places->at(2 * i), places->at(2 * i + 1)};
    return corners;
}

FaceSurface surfaceOf(const std::string& site) {
    if (site == "bare-die") return FaceSurface::bareDie;
    if (site == "lid") return FaceSurface::lid;
    if (site == "plate") return FaceSurface::plate;
    return FaceSurface::notStated;
}

void print(std::ostream& out, const CoverageFigures& figures, const MeasuredFace* measured) {
    const auto line = [&](const std::string& what, const std::string& value) {
        fmt::print(out, "{:<28} {}\n", what, value);
    };
    const auto share = [](double value) { return fmt::format("{:.1f} %", 100 * value); };
    line(words::say("covered"), measured ? words::say("{covered} ({low} to {high} by the threshold)",
                                                      {{"covered", share(figures.covered)},
                                                       {"low", share(measured->covered.low)},
                                                       {"high", share(measured->covered.high)}})
                                         : share(figures.covered));
    line(words::say("centre"), share(figures.centre));
    line(words::say("edge"), share(figures.edge));
    line(words::say("corners, clockwise"),
         fmt::format("{} {} {} {}", share(figures.corners[0]), share(figures.corners[1]),
                     share(figures.corners[2]), share(figures.corners[3])));
    line(words::say("largest bare circle, mm"), fmt::format("{:.2f}", figures.largestBareCircleMm));
    line(words::say("trapped voids"), std::to_string(figures.trappedVoids));
    if (measured) line(words::say("squeezed out, mm²"), fmt::format("{:.1f}", measured->film.outsideMm2));
    for (const BareRegion& region : figures.voids)
        line(words::say("bare"),
             words::say(region.touchesEdge ? "{area:.2f} mm² at {x:+.1f}, {y:+.1f} mm, at the edge"
                                           : "{area:.2f} mm² at {x:+.1f}, {y:+.1f} mm",
                        {{"area", region.areaMm2}, {"x", region.xMm}, {"y", region.yMm}}));
    if (!measured) return;
    for (const LookFlag flag : measured->flags)
        line(words::say("look at it"), words::text(Message{codeOf(flag), {}}));
}

void measureMask(const CoverageArguments& arguments, const Extent& face, std::ostream& out) {
    if (!arguments.picture.empty() || !arguments.corners.empty())
        throw UsageError(words::say("--mask is a finished mask: give no picture and no corners with it"));
    const GreyPicture mask = readGreyPng(arguments.mask);
    const CoverageFigures figures = coverageFigures(mask, face);
    if (!arguments.maskOut.empty()) {
        refuseInputAsTarget(arguments.maskOut, {arguments.mask});
        writeFileAtomically(arguments.maskOut, pngBytes(mask));
    }
    if (arguments.json)
        out << jsonText(maskJson(mask, face, figures));
    else
        print(out, figures, nullptr);
}

void measurePicture(const CoverageArguments& arguments, const Extent& face, std::ostream& out) {
    if (arguments.picture.empty())
        throw UsageError(words::say("Give a picture, or a finished mask with --mask"));
    MeasureFaceOptions options;
    if (!arguments.corners.empty()) options.corners = cornersOf(arguments.corners);
    options.film.surface = surfaceOf(arguments.site);
    if (!arguments.maskOut.empty()) refuseInputAsTarget(arguments.maskOut, {arguments.picture});
    MeasuredFace measured;
    const RgbPicture photograph = readPhotograph(arguments.picture);
    try {
        measured = measureFace(photograph, face, options);
    } catch (const InputError& error) {
        throw InputError({arguments.picture, {}, {}}, error.message);
    }
    if (!measured.corners) {
        if (arguments.json) out << jsonText(toJson(measured, face, std::nullopt));
        throw InputError("look-corners-not-found", {arguments.picture, {}, {}});
    }
    const CoverageFigures figures = coverageFigures(measured.mask, face);
    if (!arguments.maskOut.empty()) writeFileAtomically(arguments.maskOut, pngBytes(measured.mask));
    if (arguments.json)
        out << jsonText(toJson(measured, face, figures));
    else
        print(out, figures, &measured);
}

} // namespace

VerbBody addCoverage(Options options) {
    auto arguments = std::make_shared<CoverageArguments>();
    options.add("PICTURE", arguments->picture, words::say("Photograph of the face (PNG or JPEG)"));
    options.add("--mask", arguments->mask, words::say("A finished mask instead (PNG): bright is covered"));
    options.add("--face", arguments->face, words::say("Width and length of the face in mm, such as 30x25"))
        .required();
    options.add("--corners", arguments->corners,
                words::say("\"X,Y X,Y X,Y X,Y\": the face's corners in pixels, clockwise from its upper "
                           "left; looked for unless said"));
    options
        .add("--site", arguments->site,
             words::say("What is bare there: dark silicon, neutral metal, copper or nickel"))
        .oneOf({"bare-die", "lid", "plate"});
    options.add("--mask-out", arguments->maskOut, words::say("Mask to write (PNG)"));
    options.addJson(arguments->json);
    options.example("ibuki-cli coverage lid.jpg --face 30x30 --site lid --mask-out lid-mask.png --json");
    return [arguments](std::ostream& out) {
        const Extent face = faceOf(arguments->face);
        if (arguments->mask.empty())
            measurePicture(*arguments, face, out);
        else
            measureMask(*arguments, face, out);
    };
}

} // namespace ibuki
