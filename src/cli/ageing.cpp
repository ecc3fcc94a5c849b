// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/table_rows.h"
#include "cli/verb.h"
#include "core/base/input_error.h"
#include "core/comparison/naming.h"
#include "store/json/ageing_json.h"
#include "store/json/json_text.h"
#include "words/words.h"

#include <cmath>
#include <fmt/format.h>
#include <fmt/ostream.h>
#include <map>
#include <memory>

namespace ibuki {
namespace {

struct AgeingArguments {
    std::string table;
    std::string group = "material";
    bool groupGiven = false;
    std::string x = "hours";
    std::string value = "delta_K";
    std::string mount = "mount";
    bool mountGiven = false;
    std::optional<double> threshold;
    bool hyperbolic = false;
    std::vector<std::string> where;
    bool json = false;
};

struct AgeingGroup {
    std::string name;
    std::vector<AgeingReading> readings;
    std::vector<Flag> flags;
};

/// Rows stand in the order of the file: a mount whose hours go back is told of.
std::vector<AgeingGroup> readGroups(const AgeingArguments& arguments) {
    const Table table = readTableFile(arguments.table);
    const std::size_t x = table.need(arguments.x);
    const std::size_t value = table.need(arguments.value);
    const auto column = [&](const std::string& name, bool given) {
        return given ? OptionalColumn(table, name) : OptionalColumn::found(table, name);
    };
    const auto group = column(arguments.group, arguments.groupGiven);
    const auto mount = column(arguments.mount, arguments.mountGiven);
    const auto bound =
        OptionalColumn::found(table, isTemperatureColumn(arguments.value) ? "limit_bound" : "");
    std::vector<AgeingGroup> groups;
    std::map<std::string, std::size_t> groupAt;
    std::map<std::pair<std::size_t, std::int64_t>, double> latest;
    Naming mounts;
    for (const std::size_t row : selectedRows(table, arguments.where)) {
        const auto [at, isNew] = groupAt.try_emplace(group.text(row), groups.size());
        if (isNew) groups.push_back({group.isGiven() ? group.text(row) : arguments.value, {}, {}});
        AgeingGroup& own = groups[at->second];
        if (bound.truth(row)) {
            addFlag(own.flags, makeFlag(Severity::warn, "limit-bound.ageing"));
            continue;
        }
        const Named who = mounts(mount.text(row));
        const double t = table.number(row, x);
        if (!(t >= 0) || !std::isfinite(t))
            throw InputError("drift-backwards", {arguments.table, table.line(row), static_cast<long>(x) + 1},
                             {{"time", t}});
        const auto [before, first] = latest.try_emplace({at->second, who.id}, t);
        if (!first && t < before->second)
            addFlag(own.flags, makeFlag(Severity::warn, "drift-order", {{"mount", who.name}}));
        before->second = std::max(before->second, t);
        own.readings.push_back({static_cast<int>(who.id), t, table.number(row, value)});
    }
    std::erase_if(groups, [](const AgeingGroup& one) { return one.readings.empty() && one.flags.empty(); });
    if (groups.empty()) throw InputError("drift-none", {arguments.table, {}, {}});
    return groups;
}

struct AgeingSeries {
    std::string name;
    AgeingCourse course;
    std::optional<AgeingTime> threshold;
};

AgeingSeries judge(const AgeingGroup& group, const AgeingArguments& arguments) {
    AgeingSeries made{group.name, {}, {}};
    AgeingOptions options;
    if (!arguments.hyperbolic) std::erase(options.models, AgeingModel::hyperbolic);
    if (!group.readings.empty()) {
        const AgeingSample sample(group.readings);
        made.course = ageingCourse(sample, options);
        if (arguments.threshold && made.course.fit())
            made.threshold = timeToThreshold(sample, made.course, *arguments.threshold);
    }
    for (const Flag& flag : group.flags) addFlag(made.course.flags, flag);
    return made;
}

std::string range(const std::optional<Interval>& interval) {
    return interval ? fmt::format("{:.4g} to {:.4g}", interval->lo, interval->hi) : std::string("-");
}

void print(std::ostream& out, const AgeingSeries& series) {
    const AgeingCourse& course = series.course;
    if (const AgeingFit* fit = course.fit()) {
        const double last = course.last();
        fmt::print(out, "{:<20} {:<12} {:>8.3f} {:>+9.3f} {:>20} {:>10} {:>20}\n", series.name,
                   ageingModelName(fit->model), fit->start, course.changeAt(last),
                   range(course.changeIntervalAt(last, 0.95)),
                   series.threshold && series.threshold->at ? fmt::format("{:.4g}", *series.threshold->at)
                                                            : "-",
                   range(series.threshold ? series.threshold->interval : std::nullopt));
    } else {
        fmt::print(out, "{:<20} -\n", series.name);
    }
    for (const Flag& flag : course.flags)
        fmt::print(out, "{} {}: {}\n", severityName(flag.severity), flag.code, words::text(flag.message));
}

void runAgeing(const AgeingArguments& arguments, std::ostream& out) {
    if (arguments.threshold && !(*arguments.threshold > 0 && std::isfinite(*arguments.threshold)))
        throw UsageError(words::say("--threshold must be above 0"));
    std::vector<AgeingSeries> all;
    for (const AgeingGroup& group : readGroups(arguments)) all.push_back(judge(group, arguments));
    if (arguments.json) {
        nlohmann::ordered_json json{{"series", nlohmann::ordered_json::array()}};
        for (const AgeingSeries& one : all)
            json["series"].push_back(ageingJson(one.name, one.course, one.threshold));
        out << jsonText(json);
        return;
    }
    fmt::print(out, "{:<20} {:<12} {:>8} {:>9} {:>20} {:>10} {:>20}\n", "series", "model", "start K",
               "change", "95 %", "threshold", "95 %");
    for (const AgeingSeries& one : all) print(out, one);
}

} // namespace

VerbBody addAgeing(Options options) {
    auto arguments = std::make_shared<AgeingArguments>();
    options.add("TABLE", arguments->table, words::say("Tidy table, one row a run")).required();
    const Option group = options.add("--group", arguments->group, words::say("Column that names the groups"));
    options.add("--x", arguments->x, words::say("Column that holds the clock, h"));
    options.add("--value", arguments->value, words::say("Column that holds the values"));
    const Option mount = options.add("--mount", arguments->mount, words::say("Column that names the mounts"));
    options.add("--threshold", arguments->threshold, words::say("Change to be told the time of, K"));
    options.addFlag("--hyperbolic", arguments->hyperbolic,
                    words::say("Try a change D t/(t + t_h) beside the other models"));
    options.add("--where", arguments->where, words::say("COL=VALUE, may be repeated")).repeated();
    options.addJson(arguments->json);
    options.example("ibuki-cli ageing checks.csv --group material --x hours --threshold 2 --json");
    return [arguments, group, mount](std::ostream& out) {
        arguments->groupGiven = group.given();
        arguments->mountGiven = mount.given();
        runAgeing(*arguments, out);
    };
}

} // namespace ibuki
