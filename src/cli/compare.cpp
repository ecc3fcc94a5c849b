// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/table_rows.h"
#include "cli/verb.h"
#include "core/base/input_error.h"
#include "core/comparison/several_loads.h"
#include "store/json/comparison_json.h"
#include "store/json/json_text.h"
#include "store/log/text.h"
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
    std::string covariate;
    std::optional<double> margin;
    double confidence = 0.95;
    std::string method = "pooled";
    std::string better = "lower";
    std::string assumed;
    std::string prior;
    std::string second;
    std::string load;
    std::vector<std::string> where;
    bool json = false;
};

struct Selection {
    std::vector<TableRun> runs;
    bool mountsKnown = true;
    std::string unit = "K";
    std::vector<std::string> second; ///< of each run; empty without the factor
    std::vector<std::string> load;   ///< likewise
};

Selection select(const CompareArguments& arguments) {
    const Table table = readTableFile(arguments.table);
    Selection selection;
    const std::size_t group = table.need(arguments.group);
    const std::size_t value = table.need(arguments.value);
    const auto mount = arguments.mountGiven ? OptionalColumn(table, arguments.mount)
                                            : OptionalColumn::found(table, arguments.mount);
    const OptionalColumn block(table, arguments.block);
    const OptionalColumn order(table, arguments.order);
    const OptionalColumn covariate(table, arguments.covariate);
    const OptionalColumn second(table, arguments.second);
    const OptionalColumn load(table, arguments.load);
    const auto bound =
        OptionalColumn::found(table, isTemperatureColumn(arguments.value) ? "limit_bound" : "");
    selection.mountsKnown = mount.isGiven();
    selection.unit = unitOfColumn(arguments.value);
    const auto rows = selectedRows(table, arguments.where);
    if (mount.isGiven()) {
        std::vector<std::string> columns{"purpose", "age_h", arguments.block, arguments.order};
        if (!load.isGiven()) columns.push_back("load");
        if (!second.isGiven()) // else a mount is named by both factors
            refuseMixedMounts(table, arguments.table, rows, columns, group, mount.place());
    }
    for (std::size_t row : rows) {
        // A mount of another level of the second factor is another mount.
        const std::string name =
            second.isGiven() ? second.text(row) + '\n' + mount.text(row) : mount.text(row);
        selection.runs.push_back({table.text(row, group), name, table.number(row, value), bound.truth(row),
                                  block.text(row), order.number(row), covariate.number(row)});
        selection.second.push_back(second.text(row));
        selection.load.push_back(load.text(row));
    }
    return selection;
}

std::optional<double> numberIn(const std::string& text) { return parseNumber(text, '.'); }

/// "S" or "S/DF"; what is no number is 0, and sound is neither.
KnownScatter scatterIn(const std::string& text) {
    KnownScatter known;
    known.source = {"scatter-given", {}};
    const auto mark = text.find('/');
    known.sd = numberIn(text.substr(0, mark)).value_or(0);
    if (mark != std::string::npos) known.df = numberIn(text.substr(mark + 1)).value_or(0);
    return known;
}

KnownScatter assumedScatter(const std::string& text) {
    KnownScatter assumed = scatterIn(text);
    if (!assumed.isSound())
        throw UsageError(
            words::say("--assumed-sd: \"{text}\" is not a standard deviation above 0, alone or as "
                       "S/DF with degrees of freedom above 0",
                       {{"text", text}}));
    return assumed;
}

KnownScatter priorScatter(const std::string& text) {
    KnownScatter prior = scatterIn(text);
    if (!prior.isSound() || !prior.isFinite())
        throw UsageError(
            words::say("--prior-sd: \"{text}\" is not S/DF, a standard deviation and its degrees of "
                       "freedom, both above 0",
                       {{"text", text}}));
    return prior;
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

/// Two factors have one model of their own.
void refuseWithSecond(const CompareArguments& arguments) {
    if (arguments.second == arguments.group)
        throw UsageError(words::say("--second names the same column as --group"));
    const char* other = !arguments.reference.empty()   ? "--reference"
                        : arguments.method == "welch"  ? "--method welch"
                        : !arguments.order.empty()     ? "--order"
                        : !arguments.covariate.empty() ? "--covariate"
                                                       : nullptr;
    if (other)
        throw UsageError(words::say("--second does not go with {option}", {{"option", std::string(other)}}));
}

void printFactors(std::ostream& out, const TwoFactors& factors) {
    const auto test = [&](const std::string& name, const std::optional<FTest>& found) {
        if (found)
            fmt::print(out, "{:<14} F({:.0f}, {:.0f}) = {:.4f}, p {}\n", name, found->df1, found->df2,
                       found->f, shownP(found->p));
    };
    fmt::print(out, "\n");
    test(words::say("interaction"), factors.interaction);
    test(words::say("first factor"), factors.first);
    test(words::say("second factor"), factors.second);
    const auto line = [&](const std::string& where, const PairComparison& pair) {
        fmt::print(out, "{:<44} {:>8} {:>20} {:>10} {:>11}\n",
                   where + factors.firstLevels[pair.a].name + " - " + factors.firstLevels[pair.b].name,
                   shown(pair.difference), shown(pair.ci), shownP(pair.pAdjusted), verdictName(pair.verdict));
    };
    for (const PairWithin& within : factors.within)
        line(factors.secondLevels[within.second].name + ": ", within.pair);
    for (const PairComparison& pair : factors.marginal) line("", pair);
}

void printLoads(std::ostream& out, const SeveralLoads& loads) {
    fmt::print(out, "\n{:<20} {:<20} {:>6} {:>9} {:>20}\n", "load", "group", "mounts", "mean", "interval");
    for (const LoadCell& cell : loads.grid)
        fmt::print(out, "{:<20} {:<20} {:>6} {:>9} {:>20}\n", loads.loads[cell.load].name,
                   loads.groups[cell.group].name, cell.mounts, shown(cell.mean), shown(cell.ci));
    if (loads.interaction)
        fmt::print(out, "\ngroup x load: F({:.0f}, {:.0f}) = {:.4f}, p {}\n", loads.interaction->test.df1,
                   loads.interaction->test.df2, loads.interaction->test.f, shownP(loads.interaction->test.p));
    for (const OrderChange& change : loads.orderChanges)
        fmt::print(
            out, "{}\n",
            words::say("{a} is better under {here}, {b} under {there}", {{"a", change.a.name},
                                                                         {"b", change.b.name},
                                                                         {"here", change.aBetter.name},
                                                                         {"there", change.bBetter.name}}));
}

/// Loads are told apart on mounts' means by a model of their own.
void refuseWithLoad(const CompareArguments& arguments) {
    for (const auto& [option, value] :
         {std::pair{"--group", arguments.group}, std::pair{"--mount", arguments.mount},
          std::pair{"--value", arguments.value}})
        if (arguments.load == value)
            throw UsageError(
                words::say("--load names the same column as {option}", {{"option", std::string(option)}}));
    for (const auto& [option, value] :
         {std::pair{"--second", arguments.second}, std::pair{"--order", arguments.order},
          std::pair{"--covariate", arguments.covariate}, std::pair{"--block", arguments.block}})
        if (!value.empty())
            throw UsageError(
                words::say("--load does not go with {option}", {{"option", std::string(option)}}));
}

void refuseWithPrior(const CompareArguments& arguments, bool welch) {
    const char* other = welch ? "--method welch" : !arguments.assumed.empty() ? "--assumed-sd" : nullptr;
    if (other)
        throw UsageError(
            words::say("--prior-sd does not go with {option}", {{"option", std::string(other)}}));
}

void checkArguments(const CompareArguments& arguments, bool welch) {
    if (!arguments.load.empty()) refuseWithLoad(arguments);
    if (!arguments.prior.empty()) refuseWithPrior(arguments, welch);
    if (!arguments.second.empty()) refuseWithSecond(arguments);
    for (const auto& [option, value] :
         {std::pair{"--block", arguments.block}, std::pair{"--order", arguments.order},
          std::pair{"--covariate", arguments.covariate}})
        if (welch && !value.empty())
            throw UsageError(
                words::say("{option} does not go with --method welch: own spreads are for groups "
                           "without blocks",
                           {{"option", std::string(option)}}));
    const bool temperature = arguments.value.ends_with("_K");
    if (!temperature && !arguments.margin)
        throw UsageError(words::say("--margin must be given when the value is no temperature difference"));
    if (arguments.margin && !(*arguments.margin > 0))
        throw UsageError(words::say("--margin must be above 0"));
    if (!(arguments.confidence > 0.5 && arguments.confidence <= highestConfidence))
        throw UsageError(words::say("--confidence must lie between 0.5 and 1"));
}

void runCompare(const CompareArguments& arguments, std::ostream& out) {
    const bool welch = arguments.method == "welch";
    checkArguments(arguments, welch);
    const Selection selection = select(arguments);
    CompareOptions options;
    options.margin = arguments.margin.value_or(1.0);
    options.confidence = arguments.confidence;
    options.lowerIsBetter = arguments.better == "lower";
    options.mountsKnown = selection.mountsKnown;
    options.spread = welch ? SpreadModel::welch : SpreadModel::pooled;
    options.blocks = !arguments.block.empty();
    options.drift = !arguments.order.empty();
    options.covariate = !arguments.covariate.empty();
    if (!arguments.assumed.empty()) options.assumed = assumedScatter(arguments.assumed);
    if (!arguments.prior.empty()) options.prior = priorScatter(arguments.prior);
    if (!arguments.reference.empty()
        && std::none_of(selection.runs.begin(), selection.runs.end(),
                        [&](const TableRun& run) { return run.group == arguments.reference; }))
        throw UsageError(words::say("--reference: there is no group \"{reference}\"",
                                    {{"reference", arguments.reference}}));
    Comparison comparison;
    std::optional<TwoFactors> factors;
    std::optional<SeveralLoads> loads;
    try {
        if (!arguments.second.empty()) factors = compareTwoFactors(selection.runs, selection.second, options);
        if (!arguments.load.empty())
            loads = compareLoads(selection.runs, selection.load, options, arguments.reference);
        comparison = loads ? loads->means : compare(selection.runs, options, arguments.reference);
        if (factors && factors->moderated) addFlag(comparison.flags, scatterFlag(*factors->moderated));
    } catch (const InputError& error) {
        throw InputError({arguments.table, {}, {}}, error.message);
    }
    if (!arguments.json) {
        printTable(out, comparison, selection.unit);
        if (factors) printFactors(out, *factors);
        if (loads) printLoads(out, *loads);
        return;
    }
    auto json = toJson(comparison, selection.unit);
    if (factors) json["two_factor"] = toJson(*factors);
    if (loads) json["loads"] = toJson(*loads);
    out << jsonText(json);
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
    options.add("--second", arguments->second, words::say("Column with the second factor's levels"));
    options.add("--order", arguments->order, words::say("Column with the mount order"));
    options.add("--covariate", arguments->covariate,
                words::say("Column with a number whose straight line is taken out"));
    options.add("--margin", arguments->margin, words::say("Smallest difference that matters, K"));
    options.add("--confidence", arguments->confidence, words::say("Confidence, for example 0.95"));
    options.add("--method", arguments->method, words::say("pooled or welch")).oneOf({"pooled", "welch"});
    options.add("--better", arguments->better, words::say("lower or higher")).oneOf({"lower", "higher"});
    options.add("--assumed-sd", arguments->assumed,
                words::say("S or S/DF: scatter between mounts where no group has two"));
    options.add("--prior-sd", arguments->prior,
                words::say("S/DF: scatter between mounts from earlier studies, joins this table's"));
    options.add("--load", arguments->load, words::say("Column that names the loads of a mount"));
    options.add("--where", arguments->where, words::say("COL=VALUE, may be repeated")).repeated();
    options.addJson(arguments->json);
    options.example("ibuki-cli compare study.csv --margin 1.0 --json");
    return [arguments, mount](std::ostream& out) {
        arguments->mountGiven = mount.given();
        runCompare(*arguments, out);
    };
}

} // namespace ibuki
