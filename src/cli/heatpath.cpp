// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/verb.h"
#include "core/base/input_error.h"
#include "core/physics/conduction_field.h"
#include "store/atomic_file.h"
#include "store/json/heat_path_json.h"
#include "store/json/json_text.h"
#include "store/json/simulate_json.h"
#include "store/picture/field_picture.h"
#include "words/words.h"

#include <algorithm>
#include <fmt/format.h>
#include <fmt/ostream.h>
#include <memory>

namespace ibuki {
namespace {

struct HeatpathArguments {
    std::string stack;
    std::string spreading = "series";
    std::optional<double> cell;
    std::vector<std::string> masks; ///< INTERFACE=FILE
    std::string picture;
    bool field = false;
    bool json = false;
};

/// The interface's name and the mask's file. A name may itself hold a "=".
std::pair<std::string, std::string> partsOf(const std::string& mask, const HeatPath& path) {
    for (std::size_t at = mask.find('='); at != std::string::npos; at = mask.find('=', at + 1)) {
        const std::string name = mask.substr(0, at);
        for (const PathInterface& interface : path.interfaces)
            if (interface.name == name) return {name, mask.substr(at + 1)};
    }
    throw UsageError(words::say("--mask {mask}: INTERFACE=MASK.png is due, with an interface of the stack",
                                {{"mask", mask}}));
}

void printLayer(std::ostream& out, const std::string& name, double r, std::optional<double> spreading,
                double delta, double hotC) {
    fmt::print(out, "{:<24} {:>9.5f} {:>9} {:>8.2f} {:>8.1f}\n", name, r,
               spreading ? fmt::format("{:.5f}", *spreading) : "-", delta, hotC);
}

void print(std::ostream& out, const HeatPath& path, const HeatPathSteps& steps,
           const ConductionField* field) {
    fmt::print(out, "{:<24} {:>9} {:>9} {:>8} {:>8}\n", "layer", "K/W", "spread", "K", "hot C");
    for (std::size_t i = 0; i < path.solids.size(); ++i) {
        const SolidStep& solid = steps.solids[i];
        printLayer(out, path.solids[i].name, solid.rKPerW, solid.spreadingKPerW, solid.deltaK, solid.hotC);
        if (i == path.interfaces.size()) break;
        const InterfaceStep& interface = steps.interfaces[i];
        printLayer(out, path.interfaces[i].name, interface.rKPerW, std::nullopt, interface.deltaK,
                   interface.hotC);
    }
    printLayer(out, words::say("cooler"), path.coolerKPerW, std::nullopt, steps.coolerDeltaK,
               path.ambientC + steps.coolerDeltaK);
    fmt::print(out, "{}\n",
               words::say("Total {total:.5f} K/W; the powered face is at {junction:.2f} °C in the mean",
                          {{"total", steps.totalKPerW}, {"junction", steps.junctionMeanC}}));
    if (field)
        fmt::print(
            out, "{}\n",
            words::say("Field of {cells} cells: {mean:.2f} °C in the mean, {max:.2f} °C at its hottest",
                       {{"cells", static_cast<std::int64_t>(field->cells)},
                        {"mean", field->powered.meanC},
                        {"max", field->powered.maxC}}));
}

void runHeatpath(const HeatpathArguments& arguments, std::ostream& out) {
    if (!arguments.field && !arguments.picture.empty())
        throw UsageError(words::say("--picture shows the field: give --field too"));
    HeatPath path = heatPathFromJson(readJsonFile(arguments.stack), arguments.stack);
    std::vector<std::filesystem::path> inputs{arguments.stack};
    for (const std::string& mask : arguments.masks) {
        const auto [name, file] = partsOf(mask, path);
        inputs.emplace_back(file);
        for (PathInterface& interface : path.interfaces)
            if (interface.name == name) interface.mask = coverageMaskOf(readGreyPng(file));
    }
    if (!arguments.picture.empty()) refuseInputAsTarget(arguments.picture, inputs);
    HeatPathSteps steps;
    std::optional<ConductionField> field;
    try {
        const auto form = arguments.spreading == "lee" ? SpreadingForm::lee : SpreadingForm::series;
        steps = solveChain(path, form);
        addEffectiveAreas(path, steps, form);
        FieldOptions options;
        if (arguments.cell) options.grid.cellMm = *arguments.cell;
        if (arguments.field) field = solveField(path, options);
    } catch (const InputError& error) {
        throw InputError({arguments.stack, {}, {}}, error.message);
    }
    if (!arguments.picture.empty())
        writeFileAtomically(arguments.picture, pngBytes(fieldPicture(field->powered)));
    const ConductionField* shown = field ? &*field : nullptr;
    if (arguments.json)
        out << jsonText(toJson(path, steps, shown));
    else
        print(out, path, steps, shown);
}

} // namespace

VerbBody addHeatpath(Options options) {
    auto arguments = std::make_shared<HeatpathArguments>();
    options.add("STACK", arguments->stack, words::say("Layers, power and cooler (JSON)")).required();
    options.add("--spreading", arguments->spreading, words::say("Spreading by the series or by Lee's form"))
        .oneOf({"series", "lee"})
        .tellDefault();
    options.addFlag("--field", arguments->field, words::say("The conduction field of the solids too"));
    options.add("--cell", arguments->cell, words::say("Widest cell of the field, mm (0.5 unless said)"));
    options
        .add("--mask", arguments->masks, words::say("INTERFACE=MASK.png: bright is covered; may be repeated"))
        .repeated();
    options.add("--picture", arguments->picture, words::say("Picture of the powered face to write (PNG)"));
    options.addJson(arguments->json);
    options.example("ibuki-cli heatpath stack.json --field --cell 0.5 --mask lid-plate=mask.png --json");
    return [arguments](std::ostream& out) { runHeatpath(*arguments, out); };
}

} // namespace ibuki
