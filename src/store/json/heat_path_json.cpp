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

/// A number that must be there.
double needed(JsonFields& fields, const char* name) {
    std::optional<double> value;
    fields.take(name, value);
    if (!value) fields.refuse("json-field.missing", name);
    return *value;
}

HeatSource sourceFrom(const nlohmann::json& json, const std::string& file) {
    JsonFields fields(json, file, heatPathFields);
    HeatSource source;
    fields.take("x_mm", source.xMm);
    fields.take("y_mm", source.yMm);
    source.size = {needed(fields, "width_mm"), needed(fields, "length_mm")};
    source.powerW = needed(fields, "power_W");
    fields.finish();
    return source;
}

PathSolid solidFrom(JsonFields& fields, std::string name) {
    PathSolid solid;
    solid.name = std::move(name);
    solid.size = {needed(fields, "width_mm"), needed(fields, "length_mm")};
    solid.thicknessMm = needed(fields, "thickness_mm");
    solid.conductivity = needed(fields, "k_W_per_mK");
    return solid;
}

PathInterface interfaceFrom(JsonFields& fields, std::string name) {
    PathInterface interface;
    interface.name = std::move(name);
    std::optional<double> r, bondLine, conductivity, contact, gap;
    fields.take("r_mm2K_per_W", r);
    fields.take("bond_line_um", bondLine);
    fields.take("k_W_per_mK", conductivity);
    fields.take("contact_mm2K_per_W", contact);
    fields.take("gap_um", gap);
    if (r.has_value() == bondLine.has_value() || (r && (conductivity || contact)))
        fields.refuse("heat-path-field.interface", interface.name);
    if (bondLine && !conductivity) fields.refuse("json-field.missing", "k_W_per_mK");
    if (bondLine && !(*bondLine > 0 && *conductivity > 0 && contact.value_or(0) >= 0))
        fields.refuse("heat-path-field.bond-line", interface.name);
    interface.rMm2KPerW = r ? *r : *bondLine / *conductivity + contact.value_or(0);
    interface.gapUm = gap.value_or(bondLine.value_or(usualGapUm));
    if (interface.gapUm > 0) interface.gapUm = std::max(interface.gapUm, bondLine.value_or(0));
    return interface;
}

void layerFrom(const nlohmann::json& json, const std::string& file, HeatPath& path) {
    JsonFields fields(json, file, heatPathFields);
    std::string name, kind;
    fields.take("name", name);
    fields.take("kind", kind);
    const bool solidIsDue = path.solids.size() == path.interfaces.size();
    if (kind != "solid" && kind != "interface") fields.refuse("heat-path-field.kind", name);
    if ((kind == "solid") != solidIsDue) fields.refuse("heat-path-field.alternate", name);
    if (solidIsDue)
        path.solids.push_back(solidFrom(fields, name));
    else
        path.interfaces.push_back(interfaceFrom(fields, name));
    fields.finish();
}

const nlohmann::json& listOf(const JsonFields& fields, const nlohmann::json& json, const char* name) {
    if (!json.is_array() || json.size() > mostLayers) fields.refuse("json-field.list", name);
    return json;
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
    nlohmann::json layers, sources = nlohmann::json::array();
    path.powerW = needed(fields, "power_W");
    path.ambientC = needed(fields, "ambient_C");
    path.coolerKPerW = needed(fields, "cooler_K_per_W");
    fields.take("board_K_per_W", path.boardKPerW);
    fields.take("layers", layers);
    fields.take("sources", sources);
    fields.finish();
    for (const auto& source : listOf(fields, sources, "sources"))
        path.sources.push_back(sourceFrom(source, fileName));
    for (const auto& layer : listOf(fields, layers, "layers")) layerFrom(layer, fileName, path);
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
