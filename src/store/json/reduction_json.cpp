// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/json/reduction_json.h"

#include "core/base/input_error.h"
#include "store/json/message_json.h"
#include "store/json/optional_json.h"

#include <algorithm>
#include <array>
#include <utility>

namespace ibuki {
namespace {

using Json = nlohmann::ordered_json;

std::optional<double> number(const Json& json) {
    return json.is_null() ? std::nullopt : std::optional(json.get<double>());
}
std::optional<Interval> interval(const Json& json) {
    return json.is_null() ? std::nullopt : std::optional(Interval{json.at(0), json.at(1)});
}

constexpr std::array<std::pair<AmbientSource, const char*>, 3> sources{{{AmbientSource::column, "column"},
                                                                        {AmbientSource::probe, "probe"},
                                                                        {AmbientSource::entered, "entered"}}};

Json sourceJson(AmbientSource source) {
    for (const auto& [value, name] : sources)
        if (value == source) return name;
    return nullptr;
}

AmbientSource sourceFrom(const Json& json) {
    for (const auto& [value, name] : sources)
        if (json == name) return value;
    return AmbientSource::none;
}

Json phasesJson(const std::vector<Phase>& phases) {
    Json array = Json::array();
    for (const Phase& phase : phases)
        array.push_back({{"name", phase.name}, {"start_s", phase.startS}, {"end_s", phase.endS}});
    return array;
}

Json windowJson(const std::optional<Phase>& window) {
    if (!window) return nullptr;
    return {{"start_s", window->startS}, {"end_s", window->endS}};
}

Json steadyJson(const Steady& steady) {
    return {{"reached", orNull(steady.reached)},
            {"slope_K_per_h", orNull(steady.slopeKPerH)},
            {"slope_ci_K_per_h", orNull(steady.slopeIntervalKPerH)},
            {"asymptote_K", orNull(steady.asymptoteK)},
            {"asymptote_ci_K", orNull(steady.asymptoteIntervalK)},
            {"remaining_K", orNull(steady.remainingK)},
            {"tau_s", orNull(steady.tauS)}};
}

Json ambientJson(const AmbientSummary& ambient) {
    return {{"mean_C", orNull(ambient.meanC)},
            {"min_C", orNull(ambient.minC)},
            {"max_C", orNull(ambient.maxC)},
            {"source", sourceJson(ambient.source)},
            {"probe_shift_s", orNull(ambient.probeShiftS)},
            {"probe_shift_u_s", orNull(ambient.probeShiftUncertaintyS)}};
}

Json metricsJson(const MetricTable& metrics) {
    Json json = Json::object();
    for (const auto& [metric, value] : metrics)
        json[std::string(metricName(metric))] = {{"temperature_C", orNull(value.temperatureC)},
                                                 {"delta_K", orNull(value.deltaK)},
                                                 {"se_K", orNull(value.seK)}};
    return json;
}

Json limitJson(const LimitSummary& limit) {
    return {{"bound", limit.censored},
            {"inferred", limit.inferred},
            {"fraction", orNull(limit.fraction)},
            {"limit_C", orNull(limit.limitC)},
            {"sustained_power_W", orNull(limit.sustainedPowerW)},
            {"sustained_clock_MHz", orNull(limit.sustainedClockMHz)}};
}

Json loadJson(const LoadReduction& load) {
    return {{"index", load.index},
            {"metric", metricName(load.metric)},
            {"nominal_W", orNull(load.nominalW)},
            {"phases", phasesJson(load.phases)},
            {"window", windowJson(load.window)},
            {"steady", steadyJson(load.steady)},
            {"ambient", ambientJson(load.ambient)},
            {"metrics", metricsJson(load.metrics)},
            {"power_W", orNull(load.powerW)},
            {"clock_MHz", orNull(load.clockMHz)},
            {"fan", orNull(load.fan)},
            {"rth_K_per_W", orNull(load.rthKPerW)},
            {"delta_at_nominal_K", orNull(load.deltaAtNominalK)},
            {"limit", limitJson(load.limit)},
            {"found_load", windowJson(load.foundLoad)},
            {"found_window", windowJson(load.foundWindow)},
            {"extrapolated", load.extrapolated},
            {"flags", storedJson(load.flags)}};
}

Json channelsJson(const std::vector<ChannelInfo>& channels) {
    Json array = Json::array();
    for (const ChannelInfo& channel : channels)
        array.push_back(
            {{"column", channel.column},
             {"role", roleName(channel.role)},
             {"index", channel.index},
             {"unit", channel.unit == Unit::none ? Json(nullptr) : Json(unitName(channel.unit))}});
    return array;
}

Json idleJson(const Reduction& reduction) {
    return reduction.idle ? Json{{"metrics", metricsJson(*reduction.idle)}} : Json(nullptr);
}

Json loadsJson(const std::vector<LoadReduction>& loads) {
    Json array = Json::array();
    for (const LoadReduction& load : loads) array.push_back(loadJson(load));
    return array;
}

Json judgedJson(const MetricReduction& judged) {
    return {{"loads", loadsJson(judged.loads)},
            {"longest", orNull(judged.longest)},
            {"flags", storedJson(judged.flags)}};
}

/// The fields of `json` that `same` has not, or has otherwise.
Json differing(const Json& json, const Json& same) {
    Json fields = Json::object();
    for (const auto& [name, value] : json.items())
        if (const auto found = same.find(name); found == same.end() || *found != value) fields[name] = value;
    return fields;
}

void tellRest(Json& json, const Reduction& reduction, Json loads) {
    json["loads"] = std::move(loads);
    json["longest"] = orNull(reduction.longest);
    json["flags"] = storedJson(reduction.flags);
    if (!reduction.course.atS.empty())
        json["course"] = {{"at_s", reduction.course.atS},
                          {"chip_C", reduction.course.chipC},
                          {"power_W", reduction.course.powerW}};
}

// ---- and back ----

Phase phaseFrom(const Json& json, std::string name) {
    return {std::move(name), json.at("start_s"), json.at("end_s")};
}

Steady steadyFrom(const Json& json) {
    Steady steady;
    if (!json.at("reached").is_null()) steady.reached = json.at("reached").get<bool>();
    steady.slopeKPerH = number(json.at("slope_K_per_h"));
    steady.slopeIntervalKPerH = interval(json.at("slope_ci_K_per_h"));
    steady.asymptoteK = number(json.at("asymptote_K"));
    steady.asymptoteIntervalK = interval(json.at("asymptote_ci_K"));
    steady.remainingK = number(json.at("remaining_K"));
    steady.tauS = number(json.at("tau_s"));
    return steady;
}

AmbientSummary ambientFrom(const Json& json) {
    return {sourceFrom(json.at("source")),    number(json.at("mean_C")),
            number(json.at("min_C")),         number(json.at("max_C")),
            number(json.at("probe_shift_s")), number(json.at("probe_shift_u_s"))};
}

MetricTable metricsFrom(const Json& json) {
    MetricTable table;
    for (const auto& [name, value] : json.items())
        if (const auto metric = metricFromName(name))
            table[*metric] = {number(value.at("temperature_C")), number(value.at("delta_K")),
                              number(value.at("se_K"))};
    return table;
}

LimitSummary limitFrom(const Json& json) {
    return {json.at("bound"),
            json.at("inferred"),
            number(json.at("fraction")),
            number(json.at("limit_C")),
            number(json.at("sustained_power_W")),
            number(json.at("sustained_clock_MHz"))};
}

std::vector<Phase> phasesFrom(const Json& json) {
    std::vector<Phase> phases;
    for (const Json& phase : json) phases.push_back(phaseFrom(phase, phase.at("name")));
    return phases;
}

std::optional<Phase> windowFrom(const Json& json, const char* name) {
    return json.is_null() ? std::nullopt : std::optional(phaseFrom(json, name));
}

Metric storedMetric(const Json& json) {
    return metricFromName(json.get<std::string>()).value_or(Metric::hottest);
}

/// The fields that differ from `same`, or all of them where there is none.
LoadReduction loadFrom(const Json& json, const LoadReduction* same) {
    LoadReduction load = same ? *same : LoadReduction{};
    const auto read = [&](const char* field, const auto& take) {
        const auto found = json.find(field);
        if (found != json.end())
            take(*found);
        else if (!same)
            json.at(field); // throws
    };
    const auto readNumber = [&](const char* field, std::optional<double>& into) {
        read(field, [&](const Json& at) { into = number(at); });
    };
    read("index", [&](const Json& at) { load.index = at; });
    read("metric", [&](const Json& at) { load.metric = storedMetric(at); });
    readNumber("nominal_W", load.nominalW);
    read("phases", [&](const Json& at) { load.phases = phasesFrom(at); });
    read("window", [&](const Json& at) { load.window = windowFrom(at, "window"); });
    read("steady", [&](const Json& at) { load.steady = steadyFrom(at); });
    read("ambient", [&](const Json& at) { load.ambient = ambientFrom(at); });
    read("metrics", [&](const Json& at) { load.metrics = metricsFrom(at); });
    readNumber("power_W", load.powerW);
    readNumber("clock_MHz", load.clockMHz);
    readNumber("fan", load.fan);
    readNumber("rth_K_per_W", load.rthKPerW);
    readNumber("delta_at_nominal_K", load.deltaAtNominalK);
    read("limit", [&](const Json& at) { load.limit = limitFrom(at); });
    read("found_load", [&](const Json& at) { load.foundLoad = windowFrom(at, "load"); });
    read("found_window", [&](const Json& at) { load.foundWindow = windowFrom(at, "window"); });
    read("extrapolated", [&](const Json& at) { load.extrapolated = at; });
    read("flags", [&](const Json& at) { load.flags = flagsFromJson(at); });
    return load;
}

Unit unitFrom(const Json& json) {
    if (json.is_null()) return Unit::none;
    for (std::size_t i = 0; i < unitWordList.size(); ++i)
        if (json == unitWordList.at(i)) return static_cast<Unit>(i);
    return Unit::other;
}

} // namespace

Json storedJson(const Reduction& reduction) {
    Json json = {{"metric", metricName(reduction.metric)},
                 {"samples", reduction.samples},
                 {"duration_s", reduction.durationS},
                 {"interval_s", reduction.intervalS},
                 {"channels", channelsJson(reduction.channels)},
                 {"idle", idleJson(reduction)}};
    const Json loads = loadsJson(reduction.loads);
    tellRest(json, reduction, loads);
    if (reduction.others.empty()) return json;
    json["by_metric"] = Json::object();
    for (const auto& [metric, other] : reduction.others) {
        Json judged = judgedJson(other);
        // What another metric judges alike is stored once: two thirds of the file, and of the time to read
        // it.
        for (std::size_t i = 0; i < judged["loads"].size() && i < loads.size(); ++i)
            judged["loads"][i] = differing(judged["loads"][i], loads[i]);
        json["by_metric"][std::string(metricName(metric))] = std::move(judged);
    }
    return json;
}

Json toJson(const Reduction& reduction) {
    const LoadReduction empty;
    const LoadReduction* main = reduction.main();
    const Json top = loadJson(main ? *main : empty);
    Json json;
    json["metric"] = metricName(reduction.metric);
    json["samples"] = reduction.samples;
    json["duration_s"] = reduction.durationS;
    json["interval_s"] = reduction.intervalS;
    json["channels"] = channelsJson(reduction.channels);
    for (const char* field : {"phases", "window", "steady", "ambient"}) json[field] = top[field];
    json["metrics"] = main ? top["metrics"] : Json(nullptr);
    json["idle"] = idleJson(reduction);
    for (const char* field : {"power_W", "rth_K_per_W", "delta_at_nominal_K", "limit"})
        json[field] = top[field];
    tellRest(json, reduction, loadsJson(reduction.loads));
    if (!reduction.others.empty()) json["by_metric"] = Json::object();
    for (const auto& [metric, other] : reduction.others)
        json["by_metric"][std::string(metricName(metric))] = judgedJson(other);
    return reported(std::move(json));
}

namespace {

/// Name in the file, member: what is written, read and left out where it is the default.
template <class T> struct SettingName {
    const char* name;
    double T::*member;
};
constexpr SettingName<ReduceSettings> settingNames[] = {
    {"window_min_s", &ReduceSettings::windowMinS},
    {"window_max_s", &ReduceSettings::windowMaxS},
    {"guard_s", &ReduceSettings::guardS},
    {"slope_limit_K_per_h", &ReduceSettings::slopeLimitKPerH},
    {"unidentified_slope_limit_K_per_h", &ReduceSettings::unidentifiedSlopeLimitKPerH},
    {"remaining_limit_K", &ReduceSettings::remainingLimitK},
    {"window_bias_K", &ReduceSettings::windowBiasK},
    {"ambient_slope_K_per_h", &ReduceSettings::ambientSlopeKPerH},
    {"ambient_range_K", &ReduceSettings::ambientRangeK},
    {"power_drift_share", &ReduceSettings::powerDriftShare},
    {"fan_range_share", &ReduceSettings::fanRangeShare},
    {"limit_share", &ReduceSettings::limitShare},
    {"cut_share", &ReduceSettings::cutShare}};
constexpr SettingName<PhaseSettings> phaseNames[] = {
    {"min_power_step_W", &PhaseSettings::minPowerStepW},
    {"min_temperature_step_K", &PhaseSettings::minTemperatureStepK},
    {"hold_s", &PhaseSettings::holdS},
    {"refine_s", &PhaseSettings::refineS}};
constexpr std::pair<const char*, std::optional<double> HandMarks::*> handNames[] = {
    {"load_start_s", &HandMarks::loadStartS},
    {"load_end_s", &HandMarks::loadEndS},
    {"window_start_s", &HandMarks::windowStartS},
    {"window_end_s", &HandMarks::windowEndS}};
constexpr std::pair<const char*, std::optional<double> ReduceSettings::*> optionalNames[] = {
    {"limit_C", &ReduceSettings::limitC},
    {"nominal_W", &ReduceSettings::nominalPowerW},
    {"probe_lag_s", &ReduceSettings::probeLagS}};

Json handJson(const HandMarks& hand) {
    Json json = {{"load", hand.load}};
    for (const auto& [name, member] : handNames)
        if (hand.*member) json[name] = *(hand.*member);
    return json;
}

HandMarks handFrom(const Json& json) {
    HandMarks hand;
    hand.load = json.at("load");
    for (const auto& [name, member] : handNames)
        if (json.contains(name)) hand.*member = json.at(name).get<double>();
    return hand;
}

} // namespace

Json toJson(const ReduceSettings& settings) {
    const ReduceSettings typical;
    Json json = {{"metric", metricName(settings.metric)}};
    for (const auto& [name, member] : optionalNames)
        if (settings.*member) json[name] = *(settings.*member);
    if (settings.ambient)
        json["entered_ambient"] = {{"temperature_C", settings.ambient->temperatureC},
                                   {"u_K", settings.ambient->uncertaintyK}};
    if (settings.hand != typical.hand) json["hand"] = handJson(settings.hand);
    if (settings.useAsymptote) json["use_asymptote"] = true;
    for (const auto& [name, member] : settingNames)
        if (settings.*member != typical.*member) json[name] = settings.*member;
    for (const auto& [name, member] : phaseNames)
        if (settings.phases.*member != typical.phases.*member) json[name] = settings.phases.*member;
    return json;
}

ReduceSettings settingsFromJson(const Json& json) {
    try {
        ReduceSettings settings;
        settings.metric = metricFromName(json.at("metric").get<std::string>()).value_or(Metric::hottest);
        for (const auto& [name, member] : optionalNames)
            if (json.contains(name)) settings.*member = json.at(name).get<double>();
        if (json.contains("entered_ambient"))
            settings.ambient = EnteredAmbient{json.at("entered_ambient").at("temperature_C"),
                                              json.at("entered_ambient").at("u_K")};
        if (json.contains("hand")) settings.hand = handFrom(json.at("hand"));
        settings.useAsymptote = json.value("use_asymptote", false);
        for (const auto& [name, member] : settingNames) settings.*member = json.value(name, settings.*member);
        for (const auto& [name, member] : phaseNames)
            settings.phases.*member = json.value(name, settings.phases.*member);
        return settings;
    } catch (const nlohmann::json::exception& error) {
        throw InputError("project-damaged", {}, {{"reason", error.what()}});
    }
}

namespace {

std::optional<std::size_t> longestFrom(const Json& json, std::size_t loads) {
    if (json.is_null()) return std::nullopt;
    const auto longest = json.get<std::size_t>();
    return longest < loads ? std::optional(longest) : std::nullopt;
}

MetricReduction judgedFrom(const Json& json, const std::vector<LoadReduction>& main) {
    MetricReduction judged;
    for (const Json& load : json.at("loads")) {
        const std::size_t at = judged.loads.size();
        judged.loads.push_back(loadFrom(load, at < main.size() ? &main[at] : nullptr));
    }
    judged.longest = longestFrom(json.at("longest"), judged.loads.size());
    judged.flags = flagsFromJson(json.at("flags"));
    return judged;
}

/// Of unequal lengths it is none; the next opening makes it anew.
ThermalCourse courseFrom(const Json& json) {
    ThermalCourse course{json.at("at_s").get<std::vector<double>>(),
                         json.at("chip_C").get<std::vector<double>>(),
                         json.at("power_W").get<std::vector<double>>()};
    const std::size_t points = course.atS.size();
    if (course.chipC.size() != points || (!course.powerW.empty() && course.powerW.size() != points)
        || !std::is_sorted(course.atS.begin(), course.atS.end()))
        return {};
    return course;
}

} // namespace

Reduction reductionFromJson(const Json& json) {
    try {
        Reduction reduction;
        reduction.metric = storedMetric(json.at("metric"));
        reduction.samples = json.at("samples");
        reduction.durationS = json.at("duration_s");
        reduction.intervalS = json.at("interval_s");
        for (const Json& channel : json.at("channels"))
            reduction.channels.push_back(
                {channel.at("column"),
                 roleFromName(channel.at("role").get<std::string>()).value_or(Role::ignore),
                 channel.at("index"), unitFrom(channel.at("unit"))});
        for (const Json& load : json.at("loads")) reduction.loads.push_back(loadFrom(load, nullptr));
        reduction.hottestC = hottestOf(reduction.loads);
        reduction.longest = longestFrom(json.at("longest"), reduction.loads.size());
        if (!json.at("idle").is_null()) reduction.idle = metricsFrom(json.at("idle").at("metrics"));
        reduction.flags = flagsFromJson(json.at("flags"));
        if (json.contains("course")) reduction.course = courseFrom(json.at("course"));
        if (!json.contains("by_metric")) return reduction; // the log has no other metric
        for (const auto& [name, judged] : json.at("by_metric").items())
            if (const auto metric = metricFromName(name))
                reduction.others[*metric] = judgedFrom(judged, reduction.loads);
        return reduction;
    } catch (const nlohmann::json::exception& error) {
        throw InputError("project-damaged.reduction", {}, {{"reason", error.what()}});
    }
}

} // namespace ibuki
