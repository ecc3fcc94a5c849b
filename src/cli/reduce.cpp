// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/reduce.h"
#include "cli/verb.h"
#include "core/base/input_error.h"
#include "core/reduce/probe.h"
#include "store/json/json_text.h"
#include "store/json/reduction_json.h"
#include "store/json/simulate_json.h"
#include "store/log/log_reader.h"
#include "store/log/text.h"
#include "words/words.h"

#include <fmt/format.h>
#include <fmt/ostream.h>
#include <memory>

namespace ibuki {
namespace {

struct ReduceArguments {
    std::string log;
    std::string probe;
    std::string ambient;
    std::string channels;
    std::optional<double> probeShift;
    std::optional<double> limit;
    std::optional<double> nominalPower;
    std::string metric = "hottest";
    bool json = false;
};

/// "21.5" or "21.5±0.3"; wrong usage otherwise.
EnteredAmbient parseAmbient(const std::string& text) {
    const auto mark = text.find("±");
    const auto value = parseNumber(std::string_view(text).substr(0, mark), '.');
    std::optional<double> uncertainty = 0.0;
    if (mark != std::string::npos)
        uncertainty = parseNumber(std::string_view(text).substr(mark + std::string_view("±").size()), '.');
    if (!value || !uncertainty || *uncertainty < 0)
        throw UsageError(
            words::say("--ambient: \"{text}\" is no temperature such as 21.5 or 21.5±0.3", {{"text", text}}));
    return {*value, *uncertainty};
}

RoleMap readRoles(const std::string& path) {
    RoleMap roles;
    const auto json = readJsonFile(path);
    if (!json.is_object()) throw InputError("channels-shape", {path, {}, {}});
    for (const auto& [column, role] : json.items()) {
        const auto known = role.is_string() ? roleFromName(role.get<std::string>()) : std::nullopt;
        if (!known) throw InputError("channels-role", {path, {}, {}}, {{"column", column}});
        roles[column] = *known;
    }
    return roles;
}

std::string shown(const std::optional<double>& value, const char* unit, int decimals = 2) {
    return value ? fmt::format("{:.{}f} {}", *value, decimals, unit) : std::string("-");
}

void printTable(std::ostream& out, const Reduction& reduction) {
    fmt::print(out, "{}\n",
               words::say("{samples} samples, {durationS:.0f} s, every {intervalS:.2f} s",
                          {{"samples", reduction.samples},
                           {"durationS", reduction.durationS},
                           {"intervalS", reduction.intervalS}}));
    if (const LoadReduction* load = reduction.main()) {
        for (const Phase& phase : load->phases)
            fmt::print(out, "{:<10} {:9.1f} s  to {:9.1f} s\n", phase.name, phase.startS, phase.endS);
        if (load->window)
            fmt::print(out, "{:<10} {:9.1f} s  to {:9.1f} s\n", "window", load->window->startS,
                       load->window->endS);
        fmt::print(out, "{}\n", words::say("room       {C}", {{"C", shown(load->ambient.meanC, "°C")}}));
        if (load->ambient.probeShiftS)
            fmt::print(
                out, "{}\n",
                words::say(
                    "probe      clock shifted by {probeShiftS:.1f} s, ± {probeShiftUncertaintyS:.1f} s",
                    {{"probeShiftS", *load->ambient.probeShiftS},
                     {"probeShiftUncertaintyS", load->ambient.probeShiftUncertaintyS.value_or(0)}}));
        fmt::print(out, "{}\n",
                   words::say("power      {power}\nresistance {resistance}",
                              {{"power", shown(load->powerW, "W")},
                               {"resistance", shown(load->rthKPerW, "K/W", 5)}}));
        fmt::print(out, "{}\n",
                   words::say("steady     {reached}, slope {slope}",
                              {{"reached", !load->steady.reached
                                               ? words::say("cannot tell")
                                               : words::term(*load->steady.reached ? "yes" : "no")},
                               {"slope", shown(load->steady.slopeKPerH, "K/h")}}));
        fmt::print(out, "\n{:<14} {:>10} {:>12} {:>10}\n", "metric", "°C", "over room K", "se K");
        for (const auto& [metric, value] : load->metrics)
            fmt::print(out, "{:<14} {:>10} {:>12} {:>10}\n", metricName(metric),
                       value.temperatureC ? fmt::format("{:.2f}", *value.temperatureC) : "-",
                       value.deltaK ? fmt::format("{:.2f}", *value.deltaK) : "-",
                       value.seK ? fmt::format("{:.3f}", *value.seK) : "-");
    }
    for (const Flag& flag : reduction.flags)
        fmt::print(out, "{} {}: {}\n", severityName(flag.severity), flag.code, words::text(flag.message));
}

void runReduce(const ReduceArguments& arguments, std::ostream& out) {
    ReduceSettings settings;
    const auto metric = metricFromName(arguments.metric);
    if (!metric)
        throw UsageError(
            words::say("--metric: there is no metric \"{metric}\"", {{"metric", arguments.metric}}));
    settings.metric = *metric;
    settings.limitC = arguments.limit;
    settings.nominalPowerW = arguments.nominalPower;
    if (!arguments.ambient.empty()) settings.ambient = parseAmbient(arguments.ambient);
    LogOptions options;
    if (!arguments.channels.empty()) options.roles = readRoles(arguments.channels);
    Trace trace = readLogFile(arguments.log, options);
    if (!arguments.probe.empty()) {
        LogOptions room;
        room.ambientOnly = true;
        const Trace probe = readLogFile(arguments.probe, room);
        const ProbeAlignment alignment = alignmentFor(trace, probe, arguments.probeShift);
        trace = withProbe(std::move(trace), probe, alignment);
    }
    const Reduction reduction = reduce(trace, settings);
    if (arguments.json)
        out << jsonText(toJson(reduction));
    else
        printTable(out, reduction);
}

} // namespace

VerbBody addReduce(Options options) {
    auto arguments = std::make_shared<ReduceArguments>();
    options.add("LOG", arguments->log, words::say("Sensor log")).required();
    options.add("--probe", arguments->probe, words::say("Separate room log with its own clock"));
    options.add("--probe-shift", arguments->probeShift,
                words::say("Seconds to add to the probe's clock; found from the data when left out"));
    options.add("--ambient", arguments->ambient,
                words::say("Room temperature read by hand, °C, for example 21.5±0.3"));
    options.add("--channels", arguments->channels, words::say("JSON file {\"column header\": \"role\"}"));
    options.add("--limit", arguments->limit, words::say("Temperature limit of the chip, °C"));
    options.add("--nominal-power", arguments->nominalPower, words::say("Nominal power, W"));
    options.add("--metric", arguments->metric, words::say("Metric that steadiness and resistance refer to"));
    options.addJson(arguments->json);
    options.example("ibuki-cli reduce tern-11_1.csv --limit 95 --json");
    return [arguments](std::ostream& out) { runReduce(*arguments, out); };
}

} // namespace ibuki
