// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/json/heat_path_json.h"

#include "store/json/json_fields.h"
#include "store/json/optional_json.h"

#include <algorithm>

namespace ibuki {
namespace {

using Json = nlohmann::ordered_json;

constexpr JsonFieldErrors heatPathFields{"docs/cli.md, \"heatpath\""};
constexpr std::size_t mostLayers = 99;

HeatSource sourceFrom(JsonFields fields) {
    HeatSource source;
    fields.take("x_mm", source.xMm);
    fields.take("y_mm", source.yMm);
    source.size = {fields.needNumber("width_mm", aboveZero), fields.needNumber("length_mm", aboveZero)};
    source.powerW = fields.needNumber("power_W", notNegative);
    fields.finish();
    return source;
}

PathSolid solidFrom(JsonFields& fields, std::string name) {
    PathSolid solid;
    solid.name = std::move(name);
    solid.size = {fields.needNumber("width_mm", aboveZero), fields.needNumber("length_mm", aboveZero)};
    solid.thicknessMm = fields.needNumber("thickness_mm", aboveZero);
    solid.conductivity = fields.needNumber("k_W_per_mK", aboveZero);
    return solid;
}

PathInterface interfaceFrom(JsonFields& fields, std::string name) {
    PathInterface interface;
    interface.name = std::move(name);
    std::optional<double> r, bondLine, conductivity, contact, gap;
    fields.take("r_mm2K_per_W", r, notNegative);
    fields.take("bond_line_um", bondLine, aboveZero);
    fields.take("k_W_per_mK", conductivity, aboveZero);
    fields.take("contact_mm2K_per_W", contact, notNegative);
    fields.take("gap_um", gap, aboveZero);
    if (r.has_value() == bondLine.has_value() || (r && (conductivity || contact)))
        fields.refuse("heat-path-field.interface");
    if (bondLine && !conductivity) fields.refuse("json-field.missing", "k_W_per_mK");
    interface.rMm2KPerW = r ? *r : *bondLine / *conductivity + contact.value_or(0);
    interface.gapUm = gap.value_or(bondLine.value_or(typicalGapUm));
    if (interface.gapUm > 0) interface.gapUm = std::max(interface.gapUm, bondLine.value_or(0));
    return interface;
}

void layerFrom(JsonFields fields, HeatPath& path) {
    std::string name;
    fields.take("name", name);
    const auto isSolid = fields.takeWord<bool>("kind", {{"solid", true}, {"interface", false}});
    if (!isSolid) fields.refuse("json-field.missing", "kind");
    const bool solidIsDue = path.solids.size() == path.interfaces.size();
    if (*isSolid != solidIsDue) fields.refuse("heat-path-field.alternate", "kind");
    if (solidIsDue)
        path.solids.push_back(solidFrom(fields, name));
    else
        path.interfaces.push_back(interfaceFrom(fields, name));
    fields.finish();
}

Json solidJson(const PathSolid& solid, const SolidStep& step) {
    return {{"name", solid.name},       {"kind", "solid"},
            {"R_K_per_W", step.rKPerW}, {"spreading_K_per_W", orNull(step.spreadingKPerW)},
            {"delta_K", step.deltaK},   {"hot_C", step.hotC},
            {"cold_C", step.coldC}};
}

Json interfaceLayerJson(const PathInterface& interface, const InterfaceStep& step) {
    return {{"name", interface.name},       {"kind", "interface"},    {"R_K_per_W", step.rKPerW},
            {"spreading_K_per_W", nullptr}, {"delta_K", step.deltaK}, {"hot_C", step.hotC},
            {"cold_C", step.coldC}};
}

Json fieldJson(const ConductionField& field) {
    return {{"mean_C", field.powered.meanC},  {"max_C", field.powered.maxC},
            {"sources_C", field.sourcesC},    {"cells", field.cells},
            {"iterations", field.iterations}, {"energy_error", field.energyError}};
}

} // namespace

HeatPath heatPathFromJson(const nlohmann::json& json, const std::string& fileName) {
    JsonFields fields(json, fileName, heatPathFields);
    HeatPath path;
    path.powerW = fields.needNumber("power_W", notNegative);
    path.ambientC = fields.needNumber("ambient_C");
    path.coolerKPerW = fields.needNumber("cooler_K_per_W", notNegative);
    fields.take("board_K_per_W", path.boardKPerW, aboveZero);
    const auto inside = [&](const nlohmann::json& one, const std::string& at) {
        return JsonFields(one, fileName, heatPathFields, at);
    };
    fields.each("sources", mostLayers, [&](const auto& one, const std::string& at) {
        path.sources.push_back(sourceFrom(inside(one, at)));
    });
    fields.each("layers", mostLayers,
                [&](const auto& one, const std::string& at) { layerFrom(inside(one, at), path); });
    fields.finish();
    if (path.solids.size() != path.interfaces.size() + 1)
        fields.refuse("heat-path-field.alternate", "layers");
    return path;
}

Json toJson(const HeatPath& path, const HeatPathSteps& steps, const ConductionField* field) {
    Json layers = Json::array(), interfaces = Json::array();
    for (std::size_t i = 0; i < path.solids.size(); ++i) {
        layers.push_back(solidJson(path.solids[i], steps.solids[i]));
        if (i == path.interfaces.size()) break;
        const PathInterface& interface = path.interfaces[i];
        const InterfaceStep& step = steps.interfaces[i];
        layers.push_back(interfaceLayerJson(interface, step));
        interfaces.push_back({{"name", interface.name},
                              {"r_mm2K_per_W", interface.rMm2KPerW},
                              {"overlap_mm2", step.overlapMm2},
                              {"effective_area_mm2",
                               orNull(field ? field->interfaces[i].effectiveAreaMm2 : step.effectiveAreaMm2)},
                              {"covered", step.covered}});
    }
    return {{"layers", layers},
            {"cooler", {{"R_K_per_W", path.coolerKPerW}, {"delta_K", steps.coolerDeltaK}}},
            {"total_K_per_W", steps.totalKPerW},
            {"junction_mean_C", steps.junctionMeanC},
            {"interfaces", interfaces},
            {"field", field ? fieldJson(*field) : Json(nullptr)}};
}

} // namespace ibuki
