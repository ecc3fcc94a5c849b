// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/series/sweep.h"
#include "cli/table_rows.h"
#include "cli/verb.h"
#include "core/base/input_error.h"
#include "core/comparison/naming.h"
#include "store/json/comparison_json.h"
#include "store/json/json_text.h"
#include "words/words.h"

#include <fmt/format.h>
#include <fmt/ostream.h>
#include <memory>

namespace ibuki {
namespace {

struct SweepArguments {
    std::string table;
    std::string group = "material";
    std::string x = "power_W";
    std::string value = "delta_K";
    std::string mount = "mount";
    bool mountGiven = false;
    SweepOptions options;
    std::optional<double> at;
    std::vector<std::string> where;
    bool json = false;
};

struct Swept {
    std::vector<SweepPoint> points;
    bool mountsKnown = false;
    int censored = 0;
};

/// What reached the limit gives up power, not temperature: it tells no line.
Swept readPoints(const SweepArguments& arguments) {
    const Table table = readTableFile(arguments.table);
    const std::size_t group = table.need(arguments.group);
    const std::size_t x = table.need(arguments.x);
    const std::size_t value = table.need(arguments.value);
    const auto mount = arguments.mountGiven ? OptionalColumn(table, arguments.mount)
                                            : OptionalColumn::found(table, arguments.mount);
    const auto bound =
        OptionalColumn::found(table, isTemperatureColumn(arguments.value) ? "limit_bound" : "");
    Swept swept;
    swept.mountsKnown = mount.isGiven();
    Naming groups;
    Naming mounts;
    for (const std::size_t row : selectedRows(table, arguments.where)) {
        if (bound.truth(row)) {
            ++swept.censored;
            continue;
        }
        swept.points.push_back({groups(table.text(row, group)), mounts(mount.text(row)), table.number(row, x),
                                table.number(row, value)});
    }
    return swept;
}

std::string range(const std::optional<Interval>& interval, int digits) {
    return interval ? fmt::format("{:.{}f} to {:.{}f}", interval->lo, digits, interval->hi, digits)
                    : std::string("-");
}

void print(std::ostream& out, const Lines& lines, const Responses& responses) {
    for (const SweepLine& line : lines.lines)
        fmt::print(out, "{:<20} {:>10.4f} K {:+.6f} K/W  {}\n", line.group.name, line.intercept, line.slope,
                   range(line.slopeInterval, 6));
    for (const SweepPair& pair : lines.pairs)
        fmt::print(out, "{:<32} {:>8.3f} {:>20} {:>10} {:>20}\n",
                   lines.lines[pair.a].group.name + " - " + lines.lines[pair.b].group.name, pair.gap,
                   range(pair.gapInterval, 3), pair.crossover ? fmt::format("{:.1f}", *pair.crossover) : "-",
                   range(pair.crossoverInterval, 1));
    for (const SweepResponse& response : responses.responses)
        fmt::print(out, "{:<20} {:<12} {:>9.3f} {:>10} {:>20}\n", response.group.name,
                   responseModelName(response.model), response.plateau,
                   response.smallest ? fmt::format("{:.4g}", *response.smallest) : "-",
                   range(response.smallestInterval, 4));
    for (const auto* flags : {&lines.flags, &responses.flags})
        for (const Flag& flag : *flags)
            fmt::print(out, "{} {}: {}\n", severityName(flag.severity), flag.code, words::text(flag.message));
}

void runSweep(const SweepArguments& arguments, std::ostream& out) {
    if (!(arguments.options.margin > 0)) throw UsageError(words::say("--margin must be above 0"));
    if (!(arguments.options.confidence > 0.5 && arguments.options.confidence <= highestConfidence))
        throw UsageError(words::say("--confidence must lie between 0.5 and 1"));
    const Swept swept = readPoints(arguments);
    SweepOptions options = arguments.options;
    options.at = arguments.at;
    options.mountsKnown = swept.mountsKnown;
    Lines lines;
    Responses responses;
    try {
        if (arguments.x == "power_W")
            lines = sweepLines(swept.points, options);
        else
            responses = sweepResponses(
                swept.points, arguments.x == "torque_Nm" ? ResponseModel::hinge : ResponseModel::exponential,
                options);
    } catch (const InputError& error) {
        throw InputError({arguments.table, {}, {}}, error.message);
    }
    if (swept.censored > 0)
        addFlag(lines.flags, makeFlag(Severity::warn, "limit-bound.sweep", {{"count", swept.censored}}));
    if (arguments.json)
        out << jsonText(toJson(lines, responses));
    else
        print(out, lines, responses);
}

} // namespace

VerbBody addSweep(Options options) {
    auto arguments = std::make_shared<SweepArguments>();
    options.add("TABLE", arguments->table, words::say("Tidy table, one row a run")).required();
    options.add("--group", arguments->group, words::say("Column that names the groups"));
    options.add("--x", arguments->x, words::say("power_W, torque_Nm or mass_g"))
        .oneOf({"power_W", "torque_Nm", "mass_g"});
    options.add("--value", arguments->value, words::say("Column that holds the values"));
    const Option mount = options.add("--mount", arguments->mount, words::say("Column that names the mounts"));
    options.add("--at", arguments->at, words::say("Setting at which gaps are told"));
    options.add("--margin", arguments->options.margin, words::say("Smallest difference that matters, K"));
    options.add("--confidence", arguments->options.confidence, words::say("Confidence, for example 0.95"));
    options.add("--where", arguments->where, words::say("COL=VALUE, may be repeated")).repeated();
    options.addJson(arguments->json);
    options.example("ibuki-cli sweep study.csv --x power_W --at 180 --json");
    return [arguments, mount](std::ostream& out) {
        arguments->mountGiven = mount.given();
        runSweep(*arguments, out);
    };
}

} // namespace ibuki
