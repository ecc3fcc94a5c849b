// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/json/simulate_json.h"

#include "core/base/input_error.h"
#include "store/json/json_fields.h"
#include "store/json/json_limits.h"
#include "store/log/mapped_file.h"

#include <algorithm>
#include <fmt/format.h>
#include <set>

namespace ibuki {
namespace {

constexpr std::size_t mostParts = 1'000;

constexpr JsonFieldErrors simulateFields{"docs/file-format.md, \"Simulated bench\""};
constexpr std::size_t mostJsonBytes = std::size_t{64} << 20U;

void leakageIn(JsonFields& fields, Leakage& leakage) {
    fields.take("at_reference_W", leakage.atReferenceW);
    fields.take("reference_C", leakage.referenceC);
    fields.take("per_K", leakage.perK);
}
void fanIn(JsonFields& fields, SimulatedFan& fan) {
    fields.take("from_C", fan.fromC);
    fields.take("to_C", fan.toC);
    fields.take("least_duty", fan.leastDuty);
    fields.take("slew_per_s", fan.slewPerS);
    fields.take("fixed_K_per_W", fan.fixedKPerW);
    fields.take("air_K_per_W", fan.airKPerW);
    fields.take("full_rpm", fan.fullRpm);
}
void neighbourIn(JsonFields& fields, SimulatedNeighbour& other) {
    fields.take("power_W", other.powerW);
    fields.take("layer", other.layer);
    fields.take("K_per_W", other.kPerW);
}
void wettingIn(JsonFields& fields, SimulatedWetting& wetting) {
    fields.take("unwetted_K_per_W", wetting.unwettedKPerW);
    fields.take("melt_C", wetting.meltC);
    fields.take("tau_s", wetting.tauS);
    fields.take("wetted", wetting.wetted);
}
void pumpOutIn(JsonFields& fields, SimulatedPumpOut& pumpOut) {
    fields.take("amplitude", pumpOut.amplitude);
    fields.take("cycles", pumpOut.cycles);
    fields.take("before", pumpOut.before);
}
void dryOutIn(JsonFields& fields, SimulatedDryOut& dryOut) {
    fields.take("K_per_W_per_sqrt_h", dryOut.kPerWPerRootH);
    fields.take("before_h", dryOut.before);
}

template <class Part>
void takePart(JsonFields& fields, const char* name, std::optional<Part>& part,
              void (*read)(JsonFields&, Part&)) {
    auto own = fields.object(name);
    if (!own) return;
    read(*own, part.emplace());
    own->finish();
}

SimulatedPart partIn(JsonFields fields) {
    SimulatedPart part;
    std::string role = "memory";
    fields.take("column", part.column);
    fields.take("role", role);
    fields.take("layer", part.layer);
    fields.take("share_of_power", part.shareOfPower);
    fields.take("K_per_W", part.kPerW);
    fields.take("lag_s", part.lagS);
    fields.finish();
    const auto known = roleFromName(role);
    if (!known || !isTemperature(*known)) fields.refuse("json-field.temperature-role", "role");
    part.role = *known;
    if (part.column.empty()) part.column = role == "vrm" ? "Power Stages [°C]" : "Memory [°C]";
    return part;
}

void takeLayers(JsonFields& fields, const std::string& fileName, SimulatedBench& bench) {
    std::vector<LadderNode> layers;
    fields.each("layers", mostParts, [&](const auto& layer, const std::string& at) {
        LadderNode node;
        JsonFields layerFields(layer, fileName, simulateFields, at);
        std::string name;
        layerFields.take("name", name);
        layerFields.take("capacity_J_per_K", node.capacityJPerK);
        layerFields.take("to_next_K_per_W", node.toNextKPerW);
        layerFields.finish();
        layers.push_back(node);
    });
    if (!layers.empty()) bench.layers = std::move(layers);
}

void takeRoom(JsonFields& fields, SimulatedBench& bench) {
    fields.take("room_C", bench.ambientC);
    fields.take("room_drift_K_per_h", bench.ambientDriftKPerH);
    fields.take("room_swing_K", bench.ambientSwingK);
    fields.take("room_swing_period_s", bench.ambientSwingPeriodS);
    fields.take("room_noise_K", bench.ambientNoiseK);
    fields.take("room_step_K", bench.ambientStepK);
    fields.take("room_logged", bench.ambientLogged);
}

} // namespace

SimulatedBench benchFromJson(const nlohmann::json& json, const std::string& fileName) {
    SimulatedBench bench;
    JsonFields fields(json, fileName, simulateFields);
    takeLayers(fields, fileName, bench);
    fields.take("interface_after_layer", bench.interfaceAfter);
    fields.take("interface_K_per_W", bench.interfaceKPerW);
    fields.take("cores", bench.cores);
    fields.take("core_spread_K", bench.coreSpreadK);
    fields.take("core_seed", bench.coreSeed);
    fields.take("hot_spot_K_per_W", bench.hotSpotKPerW);
    fields.take("sensor_lag_s", bench.sensorLagS);
    fields.take("sensor_noise_K", bench.sensorNoiseK);
    fields.take("sensor_step_K", bench.sensorStepK);
    takeRoom(fields, bench);
    fields.take("idle_W", bench.idleW);
    fields.take("power_noise_W", bench.powerNoiseW);
    fields.take("limit_C", bench.limitC);
    fields.take("clock_MHz", bench.clockMHz);
    fields.take("idle_clock_MHz", bench.idleClockMHz);
    fields.take("fan_rpm", bench.fanRpm);
    fields.take("fan_noise_rpm", bench.fanNoiseRpm);
    fields.take("dropouts_per_h", bench.dropoutsPerH);
    fields.take("dropout_s", bench.dropoutS);
    double coolant = -1;
    fields.take("coolant_layer", coolant);
    if (coolant >= 0) bench.coolantLayer = static_cast<std::size_t>(coolant);
    takePart(fields, "leakage", bench.leakage, leakageIn);
    takePart(fields, "automatic_fan", bench.fan, fanIn);
    takePart(fields, "neighbour", bench.neighbour, neighbourIn);
    takePart(fields, "wetting", bench.wetting, wettingIn);
    takePart(fields, "pump_out", bench.pumpOut, pumpOutIn);
    takePart(fields, "dry_out", bench.dryOut, dryOutIn);
    fields.each("parts", mostParts, [&](const auto& one, const std::string& at) {
        bench.parts.push_back(partIn({one, fileName, simulateFields, at}));
    });
    fields.finish();
    return bench;
}

SimulatedProtocol protocolFromJson(const nlohmann::json& json, const std::string& fileName) {
    SimulatedProtocol protocol;
    JsonFields fields(json, fileName, simulateFields);
    std::string start;
    fields.take("idle_s", protocol.idleS);
    fields.take("load_s", protocol.loadS);
    fields.take("cooldown_s", protocol.cooldownS);
    fields.take("power_W", protocol.powerW);
    fields.take("interval_s", protocol.intervalS);
    fields.take("start", start);
    fields.finish();
    if (!start.empty()) {
        protocol.start = parseInstant(start);
        if (!protocol.start) fields.refuse("json-field.time", "start");
    }
    return protocol;
}

nlohmann::json readJsonFile(const std::string& path) {
    const MappedFile file(path);
    const std::string_view text = file.bytes();
    if (text.size() > mostJsonBytes) throw InputError("json-syntax.large", {path, {}, {}});
    try {
        if (isSoundJson(text)) return nlohmann::json::parse(text);
        [[maybe_unused]] const auto wrong = nlohmann::json::parse(text); // says where
    } catch (const nlohmann::json::parse_error& error) {
        const auto upTo = text.substr(0, std::min(text.size(), error.byte));
        throw InputError("json-syntax", {path, std::count(upTo.begin(), upTo.end(), '\n') + 1, {}});
    } catch (const nlohmann::json::exception&) { // a number that no machine holds
        throw InputError("json-syntax.number", {path, {}, {}});
    }
    throw InputError("json-syntax.deep", {path, {}, {}});
}

} // namespace ibuki
