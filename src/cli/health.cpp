// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/table_rows.h"
#include "cli/verb.h"
#include "core/base/input_error.h"
#include "core/distributions/summary.h"
#include "core/series/bench_health.h"
#include "store/json/comparison_json.h"
#include "store/json/json_text.h"
#include "words/words.h"

#include <fmt/format.h>
#include <fmt/ostream.h>
#include <map>
#include <memory>

namespace ibuki {
namespace {

struct HealthArguments {
    std::string table;
    std::string value = "delta_K";
    std::string order;
    std::string mount = "mount";
    HealthOptions options;
    std::optional<int> baseline;
    std::optional<double> sd;
    std::vector<std::string> where;
    bool json = false;
};

/// Check mounts by the order of their first run; runs of one mount are averaged.
std::vector<CheckValue> readChecks(const HealthArguments& arguments) {
    const Table table = readTableFile(arguments.table);
    const std::size_t value = table.need(arguments.value);
    const auto order = arguments.order.empty() ? OptionalColumn::found(table, "order")
                                               : OptionalColumn(table, arguments.order);
    const auto mount = OptionalColumn::found(table, arguments.mount);
    std::map<std::string, std::size_t> placeOf;
    std::vector<std::pair<double, std::vector<double>>> mounts;
    for (const std::size_t row : selectedRows(table, arguments.where)) {
        std::size_t place = mounts.size();
        if (mount.isGiven()) place = placeOf.try_emplace(mount.text(row), place).first->second;
        if (place == mounts.size())
            mounts.emplace_back(order.isGiven() ? order.number(row) : static_cast<double>(row + 1),
                                std::vector<double>{});
        mounts[place].second.push_back(table.number(row, value));
    }
    std::vector<CheckValue> values;
    for (const auto& [at, runs] : mounts) values.push_back({at, mean(runs)});
    return values;
}

void print(std::ostream& out, const BenchHealth& health) {
    fmt::print(out, "{:>8} {:>10} {:>10} {:>20}\n", "order", "value", "ewma", "limits");
    for (const HealthPoint& point : health.points)
        fmt::print(out, "{:>8g} {:>10.3f} {:>10.3f} {:>20} {}\n", point.order, point.value, point.ewma,
                   fmt::format("{:.3f} to {:.3f}", point.low, point.high), point.out ? "*" : "");
    fmt::print(out, "{}\n",
               health.moved ? words::say("The bench moved: the first mount that shows it is {order:g}",
                                         {{"order", *health.firstOut}})
                            : words::say("No check mount shows that the bench moved"));
    fmt::print(
        out, "{}\n",
        words::say(
            "Drift {slope:+.4f} a mount ({lo:+.4f} to {hi:+.4f})",
            {{"slope", health.slope}, {"lo", health.slopeInterval.lo}, {"hi", health.slopeInterval.hi}}));
}

void runHealth(const HealthArguments& arguments, std::ostream& out) {
    HealthOptions options = arguments.options;
    options.baseline = arguments.baseline;
    options.sd = arguments.sd;
    BenchHealth health;
    const auto values = readChecks(arguments);
    try {
        health = judgeHealth(values, options);
    } catch (const InputError& error) {
        throw InputError({arguments.table, {}, {}}, error.message);
    }
    if (arguments.json)
        out << jsonText(toJson(health));
    else
        print(out, health);
}

} // namespace

VerbBody addHealth(Options options) {
    auto arguments = std::make_shared<HealthArguments>();
    options.add("TABLE", arguments->table, words::say("Tidy table of check mounts, one row a run"))
        .required();
    options.add("--value", arguments->value, words::say("Column that holds the values"));
    options.add("--order", arguments->order, words::say("Column with the mount order"));
    options.add("--mount", arguments->mount, words::say("Column that names the mounts"));
    options.add("--baseline", arguments->baseline, words::say("First mounts that are the bench as it was"));
    options.add("--lambda", arguments->options.lambda, words::say("Weight of the newest mount"))
        .tellDefault();
    options.add("--limit", arguments->options.limit, words::say("Limits, in standard deviations"))
        .tellDefault();
    options.add("--sd", arguments->sd, words::say("Scatter between check mounts, where it is known"));
    options.add("--where", arguments->where, words::say("COL=VALUE, may be repeated")).repeated();
    options.addJson(arguments->json);
    options.example("ibuki-cli health study.csv --where purpose=check --json");
    return [arguments](std::ostream& out) { runHealth(*arguments, out); };
}

} // namespace ibuki
