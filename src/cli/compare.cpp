// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/compare.h"
#include "cli/verb.h"
#include "core/base/input_error.h"
#include "store/json/json_text.h"
#include "store/json/reduction_json.h"
#include "store/table/table.h"
#include "words/words.h"

#include <fmt/format.h>
#include <fmt/ostream.h>
#include <map>
#include <memory>

namespace ibuki {
namespace {

struct CompareArguments {
    std::string table;
    std::string group = "material";
    std::string value = "delta_K";
    std::string mount = "mount";
    bool mountGiven = false;
    std::string block;
    std::string reference;
    std::string order;
    std::optional<double> margin;
    double confidence = 0.95;
    std::string method = "pooled";
    std::string better = "lower";
    std::vector<std::string> where;
    bool json = false;
};

struct WhereCondition {
    std::size_t column;
    std::string value;
};

std::vector<WhereCondition> conditions(const Table& table, const std::vector<std::string>& where) {
    std::vector<WhereCondition> all;
    for (const std::string& text : where) {
        const auto mark = text.find('=');
        const auto column = mark == std::string::npos ? std::nullopt : table.find(text.substr(0, mark));
        if (!column)
            throw UsageError(words::say("--where: \"{text}\" is not COLUMN=VALUE with a column of the table",
                                        {{"text", text}}));
        all.push_back({*column, text.substr(mark + 1)});
    }
    return all;
}

bool selected(const Table& table, std::size_t row, const std::vector<WhereCondition>& all) {
    for (const WhereCondition& condition : all)
        if (table.text(row, condition.column) != condition.value) return false;
    return true;
}

/// Different loads or ages inside a mount are no repeats of one another.
void refuseMixedMounts(const Table& table, const std::string& file, const std::vector<std::size_t>& rows,
                       std::size_t group, std::size_t mount) {
    for (const char* name : {"load", "purpose", "age_h"}) {
        const auto column = table.find(name);
        if (!column) continue;
        std::map<std::pair<std::string, std::string>, std::string> first;
        for (std::size_t row : rows) {
            const std::string& value = table.text(row, *column);
            const auto key = std::pair{table.text(row, group), table.text(row, mount)};
            const auto [entry, isNew] = first.emplace(key, value);
            if (!isNew && entry->second != value)
                throw InputError(
                    "compare-mixed", {file, {}, {}},
                    {{"name", name}, {"mount", key.second}, {"group", key.first}, {"value", value}});
        }
    }
}

struct Selection {
    std::vector<TableRun> runs;
    bool mountsKnown = true;
    std::string unit = "K";
};

Selection select(const CompareArguments& arguments) {
    const Table table = readTableFile(arguments.table);
    Selection selection;
    const std::size_t group = table.need(arguments.group);
    const std::size_t value = table.need(arguments.value);
    const auto mount =
        arguments.mountGiven ? std::optional(table.need(arguments.mount)) : table.find(arguments.mount);
    const auto excluded = table.find("excluded");
    const bool temperature = arguments.value.ends_with("_K");
    const auto bound = temperature ? table.find("limit_bound") : std::nullopt;
    selection.mountsKnown = mount.has_value();
    selection.unit = temperature ? "K" : arguments.value == "rth_K_per_W" ? "K/W" : arguments.value;
    const auto all = conditions(table, arguments.where);
    std::vector<std::size_t> rows;
    for (std::size_t row = 0; row < table.rows(); ++row)
        if (selected(table, row, all) && !(excluded && table.truth(row, *excluded))) rows.push_back(row);
    if (mount) refuseMixedMounts(table, arguments.table, rows, group, *mount);
    for (std::size_t row : rows)
        selection.runs.push_back({table.text(row, group), mount ? table.text(row, *mount) : std::string(),
                                  table.number(row, value), bound && table.truth(row, *bound)});
    return selection;
}

std::string shown(const std::optional<double>& value, int decimals = 3) {
    return value ? fmt::format("{:.{}f}", *value, decimals) : std::string("-");
}

std::string shown(const std::optional<Interval>& interval) {
    return interval ? fmt::format("{:.3f} to {:.3f}", interval->lo, interval->hi) : std::string("-");
}

std::string shownP(const std::optional<double>& p) {
    if (!p) return "-";
    return *p < 1e-10 ? std::string("< 1e-10") : fmt::format("{:.4g}", *p);
}

void printTable(std::ostream& out, const Comparison& comparison, const std::string& unit) {
    fmt::print(out, "{:<20} {:>6} {:>9} {:>8} {:>20} {:>5}\n", "group", "mounts", "mean " + unit, "sd",
               "interval", "tier");
    for (const GroupSummary& group : comparison.groups)
        fmt::print(out, "{:<20} {:>6} {:>9} {:>8} {:>20} {:>5}\n", group.name, group.mounts,
                   group.mean ? shown(group.mean) : fmt::format(">={:.3f}", *group.bound), shown(group.sd),
                   shown(group.ci), group.tier.value_or("-"));
    if (comparison.anova)
        fmt::print(out, "\nF({:.0f}, {:.0f}) = {:.4f}, p {}\n", comparison.anova->df1, comparison.anova->df2,
                   comparison.anova->f, shownP(comparison.anova->p));
    fmt::print(out, "\n{:<32} {:>8} {:>20} {:>10} {:>11}\n", "pair", "diff", "interval", "p", "verdict");
    for (const PairComparison& pair : comparison.pairs)
        fmt::print(out, "{:<32} {:>8} {:>20} {:>10} {:>11}\n",
                   comparison.groups[pair.a].name + " - " + comparison.groups[pair.b].name,
                   shown(pair.difference), shown(pair.ci), shownP(pair.pAdjusted), verdictName(pair.verdict));
    for (const Flag& flag : comparison.flags)
        fmt::print(out, "{} {}: {}\n", severityName(flag.severity), flag.code, words::text(flag.message));
}

void runCompare(const CompareArguments& arguments, std::ostream& out) {
    for (const auto& [option, value] :
         {std::pair{"--block", arguments.block}, std::pair{"--order", arguments.order}})
        if (!value.empty())
            throw UsageError(words::say("{option}: not in this version", {{"option", std::string(option)}}));
    if (arguments.method == "welch") throw UsageError(words::say("--method welch: not in this version"));
    const bool temperature = arguments.value.ends_with("_K");
    if (!temperature && !arguments.margin)
        throw UsageError(words::say("--margin must be given when the value is no temperature difference"));
    if (arguments.margin && !(*arguments.margin > 0))
        throw UsageError(words::say("--margin must be above 0"));
    if (!(arguments.confidence > 0.5 && arguments.confidence <= highestConfidence))
        throw UsageError(words::say("--confidence must lie between 0.5 and 1"));
    const Selection selection = select(arguments);
    CompareOptions options;
    options.margin = arguments.margin.value_or(1.0);
    options.confidence = arguments.confidence;
    options.lowerIsBetter = arguments.better == "lower";
    options.mountsKnown = selection.mountsKnown;
    if (!arguments.reference.empty()
        && std::none_of(selection.runs.begin(), selection.runs.end(),
                        [&](const TableRun& run) { return run.group == arguments.reference; }))
        throw UsageError(words::say("--reference: there is no group \"{reference}\"",
                                    {{"reference", arguments.reference}}));
    Comparison comparison;
    try {
        comparison = compare(selection.runs, options, arguments.reference);
    } catch (const InputError& error) {
        throw InputError({arguments.table, {}, {}}, error.message);
    }
    if (arguments.json)
        out << jsonText(toJson(comparison, selection.unit));
    else
        printTable(out, comparison, selection.unit);
}

} // namespace

VerbBody addCompare(Options options) {
    auto arguments = std::make_shared<CompareArguments>();
    options.add("TABLE", arguments->table, words::say("Tidy table, one row a run")).required();
    options.add("--group", arguments->group, words::say("Column that names the groups"));
    options.add("--value", arguments->value, words::say("Column that holds the values"));
    const Option mount = options.add("--mount", arguments->mount, words::say("Column that names the mounts"));
    options.add("--block", arguments->block, words::say("Column that names the blocks"));
    options.add("--reference", arguments->reference, words::say("Group that others are compared with"));
    options.add("--order", arguments->order, words::say("Column with the mount order"));
    options.add("--margin", arguments->margin, words::say("Smallest difference that matters, K"));
    options.add("--confidence", arguments->confidence, words::say("Confidence, for example 0.95"));
    options.add("--method", arguments->method, words::say("pooled or welch")).oneOf({"pooled", "welch"});
    options.add("--better", arguments->better, words::say("lower or higher")).oneOf({"lower", "higher"});
    options.add("--where", arguments->where, words::say("COL=VALUE, may be repeated")).repeated();
    options.addJson(arguments->json);
    options.example("ibuki-cli compare study.csv --margin 1.0 --json");
    return [arguments, mount](std::ostream& out) {
        arguments->mountGiven = mount.given();
        runCompare(*arguments, out);
    };
}

} // namespace ibuki
