// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shelf/dose.h"
#include "cli/verb.h"
#include "core/domain/words.h"
#include "core/physics/bond_line.h"
#include "core/shelf/class_defaults.h"
#include "store/json/json_text.h"
#include "words/words.h"

#include <fmt/format.h>
#include <fmt/ostream.h>
#include <memory>
#include <nlohmann/json.hpp>

namespace ibuki {
namespace {

using Json = nlohmann::ordered_json;

struct DoseArguments {
    double width = 0;
    double length = 0;
    std::string kind = "paste";
    std::optional<double> bondLineUm, density, yieldPa, forceN, largestUm, volumeMm3, massG, tubeG, price;
    double allowance = 0.5;
    double bore = 8.66;
    double reach = 0;
    double residue = 0;
    double cell = 0.1;
    std::string pattern = "dot";
    std::string currency;
    bool json = false;
};

constexpr std::array<std::pair<std::string_view, Pattern>, 5> patterns{{{"dot", Pattern::dot},
                                                                        {"line", Pattern::line},
                                                                        {"cross", Pattern::cross},
                                                                        {"five-dots", Pattern::fiveDots},
                                                                        {"film", Pattern::film}}};

Pattern patternFrom(const std::string& name) {
    for (const auto& [word, pattern] : patterns)
        if (word == name) return pattern;
    throw UsageError(
        words::say("--pattern: \"{name}\" is none of dot, line, cross, five-dots, film", {{"name", name}}));
}

struct Outcome {
    DoseInput input;
    std::string bondLineFrom;
    Dose dose;
    Spread spread;
    double fillingMm3 = 0;
    std::optional<int> uses;
};

/// Given, else from yield stress and force, else the class's usual value.
void setBondLine(const DoseArguments& arguments, const ClassDefaults& typical, Outcome& outcome) {
    constexpr std::array from{"scaling law", "largest particle", "yield stop"};
    if (arguments.bondLineUm) {
        outcome.input.bondLineUm = *arguments.bondLineUm;
        outcome.bondLineFrom = "given";
    } else if (arguments.yieldPa && arguments.forceN) {
        const double area = arguments.width * arguments.length;
        const BondLine line =
            restingBondLine({*arguments.yieldPa, *arguments.forceN / area * 1e6, *arguments.forceN, 0,
                             arguments.width, arguments.length, arguments.largestUm});
        outcome.input.bondLineUm = line.um;
        outcome.bondLineFrom = from.at(static_cast<std::size_t>(line.limit));
    } else {
        outcome.input.bondLineUm = typical.bondLineUm;
        outcome.bondLineFrom = "default of the class";
    }
}

Outcome compute(const DoseArguments& arguments) {
    const auto kind = fromWord<MaterialClass>(arguments.kind);
    if (!kind)
        throw UsageError(
            words::say("--class: \"{kind}\" is no class of material", {{"kind", arguments.kind}}));
    if (arguments.price && arguments.currency.empty())
        throw UsageError(words::say("--price needs --currency"));
    const ClassDefaults& typical = classDefaults(*kind);
    Outcome outcome;
    outcome.input.widthMm = arguments.width;
    outcome.input.lengthMm = arguments.length;
    outcome.input.densityGPerMl = arguments.density.value_or(typical.densityGPerMl);
    outcome.input.allowance = arguments.allowance;
    outcome.input.boreMm = arguments.bore;
    outcome.input.pattern = patternFrom(arguments.pattern);
    outcome.input.reachMm = arguments.reach > 0
                                ? arguments.reach
                                : typicalReachMm(outcome.input.pattern, arguments.width, arguments.length);
    setBondLine(arguments, typical, outcome);
    outcome.dose = dose(outcome.input);
    if (arguments.massG)
        outcome.dose = doseOfVolume(outcome.input, 1e3 * *arguments.massG / outcome.input.densityGPerMl);
    if (arguments.volumeMm3) outcome.dose = doseOfVolume(outcome.input, *arguments.volumeMm3);
    const SpreadInput spreading = spreadInput(outcome.input, outcome.dose.volumeMm3, arguments.cell);
    outcome.spread = spread(spreading);
    outcome.fillingMm3 = fillingVolumeMm3(spreading);
    if (arguments.tubeG) outcome.uses = usesOf(*arguments.tubeG, arguments.residue, outcome.dose.massG);
    return outcome;
}

template <class T> Json orNull(const std::optional<T>& value) { return value ? Json(*value) : Json(nullptr); }
Json orNull(double value) { return value > 0 ? Json(value) : Json(nullptr); }

Json toJson(const DoseArguments& arguments, const Outcome& outcome) {
    const Dose& dose = outcome.dose;
    Json price = nullptr;
    if (arguments.price && arguments.tubeG && *arguments.tubeG > 0)
        price = {{"amount", *arguments.price * dose.massG / *arguments.tubeG},
                 {"currency", arguments.currency}};
    return {{"face_mm2", outcome.input.widthMm * outcome.input.lengthMm},
            {"bond_line_um", outcome.input.bondLineUm},
            {"bond_line_from", outcome.bondLineFrom},
            {"density_g_per_ml", outcome.input.densityGPerMl},
            {"allowance", outcome.input.allowance},
            {"volume_mm3", dose.volumeMm3},
            {"mass_g", dose.massG},
            {"stroke_mm", dose.strokeMm},
            {"pattern", arguments.pattern},
            {"reach_mm", orNull(outcome.input.reachMm)},
            {"dot_diameter_mm", orNull(dose.dotDiameterMm)},
            {"bead_width_mm", orNull(dose.beadWidthMm)},
            {"film_um", orNull(dose.filmUm)},
            {"coverage", outcome.spread.coverage},
            {"outside", outcome.spread.outside},
            {"trapped_pockets", outcome.spread.trappedPockets},
            {"trapped_mm2", outcome.spread.trappedMm2},
            {"filling_volume_mm3", outcome.fillingMm3},
            {"filling_mass_g", outcome.fillingMm3 * 1e-3 * outcome.input.densityGPerMl},
            {"uses", orNull(outcome.uses)},
            {"price_per_use", price}};
}

void printOutcome(std::ostream& out, const DoseArguments& arguments, const Outcome& outcome) {
    const Dose& dose = outcome.dose;
    fmt::print(out, "{}\n",
               words::say("bond line {bondLineUm:.1f} µm ({bondLineFrom})\n{volumeMm3:.1f} mm³, {massG:.3f} "
                          "g, stroke {strokeMm:.2f} mm in a bore of {boreMm} mm",
                          {{"bondLineUm", outcome.input.bondLineUm},
                           {"bondLineFrom", outcome.bondLineFrom},
                           {"volumeMm3", dose.volumeMm3},
                           {"massG", dose.massG},
                           {"strokeMm", dose.strokeMm},
                           {"boreMm", outcome.input.boreMm}}));
    if (dose.dotDiameterMm > 0)
        fmt::print(out, "{}\n",
                   words::say("dot {dotDiameterMm:.1f} mm across, as a half ball",
                              {{"dotDiameterMm", dose.dotDiameterMm}}));
    if (dose.beadWidthMm > 0)
        fmt::print(
            out, "{}\n",
            words::say("bead {beadWidthMm:.1f} mm wide, half round", {{"beadWidthMm", dose.beadWidthMm}}));
    if (dose.filmUm > 0)
        fmt::print(out, "{}\n",
                   words::say("film {filmUm:.0f} µm before pressing", {{"filmUm", dose.filmUm}}));
    fmt::print(out, "{}\n",
               words::say("{pattern}: covers {coverage:.1f} %, {outside:.1f} % goes over the edge, "
                          "{trappedPockets} pockets of air",
                          {{"pattern", arguments.pattern},
                           {"coverage", 100 * outcome.spread.coverage},
                           {"outside", 100 * outcome.spread.outside},
                           {"trappedPockets", outcome.spread.trappedPockets}}));
    fmt::print(out, "{}\n",
               words::say("fills the face from {volume:.1f} mm³ ({densityGPerMl:.3f} g) up",
                          {{"volume", outcome.fillingMm3},
                           {"densityGPerMl", outcome.fillingMm3 * 1e-3 * outcome.input.densityGPerMl}}));
    if (outcome.uses)
        fmt::print(
            out, "{}\n",
            words::say("{uses} uses in {tube} g", {{"uses", *outcome.uses}, {"tube", *arguments.tubeG}}));
    fmt::print(
        out, "{}\n",
        words::say("Volume and mass are physics; the allowance and the spread model are rules of thumb."));
}

} // namespace

VerbBody addDose(Options options) {
    auto a = std::make_shared<DoseArguments>();
    options.add("--width", a->width, words::say("Face, mm")).required();
    options.add("--length", a->length, words::say("Face, mm")).required();
    options.add("--class", a->kind, words::say("Class of material, for what is not given (default paste)"));
    options.add("--bond-line-um", a->bondLineUm, words::say("Bond line, µm"));
    options.add("--yield-Pa", a->yieldPa, words::say("Yield stress: with --force-N gives the bond line"));
    options.add("--force-N", a->forceN, words::say("Force of all screws together"));
    options.add("--largest-um", a->largestUm, words::say("Largest filler particle, µm"));
    options.add("--density", a->density, words::say("g/mL"));
    options.add("--allowance", a->allowance, words::say("Squeezed out and lost, as a share (default 0.5)"));
    options.add("--bore-mm", a->bore, words::say("Bore of the syringe (default 8.66)"));
    options.add("--pattern", a->pattern, words::say("dot, line, cross, five-dots or film"));
    options.add("--reach-mm", a->reach, words::say("Half a line, half a cross, distance of the outer dots"));
    const Option volume =
        options.add("--volume-mm3", a->volumeMm3, words::say("Amount, instead of the dose"));
    options.add("--mass-g", a->massG, words::say("Amount, instead of the dose")).excludes(volume);
    options.add("--cell-mm", a->cell, words::say("Grid of the spread (default 0.1)"));
    options.add("--tube-g", a->tubeG, words::say("Content of a tube, g"));
    options.add("--residue", a->residue, words::say("Share that stays in the tube"));
    options.add("--price", a->price, words::say("Of the tube; needs --currency"));
    options.add("--currency", a->currency, words::say("Such as NOK"));
    options.addJson(a->json);
    options.example("ibuki-cli dose --width 30 --length 30 --bond-line-um 40 --pattern five-dots");
    return [a](std::ostream& out) {
        const Outcome outcome = compute(*a);
        if (a->json)
            out << jsonText(toJson(*a, outcome));
        else
            printOutcome(out, *a, outcome);
    };
}

} // namespace ibuki
