// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/json/comparison_json.h"

#include "store/json/message_json.h"
#include "store/json/optional_json.h"

namespace ibuki {
namespace {

using Json = nlohmann::ordered_json;

Json fTestJson(const std::optional<FTest>& test) {
    if (!test) return nullptr;
    return {{"F", test->f}, {"df1", test->df1}, {"df2", test->df2}, {"p", test->p}};
}

Json groupJson(const GroupSummary& group, bool isAdjusted) {
    return {{"name", group.name},
            {"mounts", group.mounts},
            {"runs", group.runs},
            {"mean_K", orNull(group.mean)},
            {"adjusted_mean_K", isAdjusted ? orNull(group.adjusted) : Json()},
            {"sd_mount_K", orNull(group.sd)},
            {"se_K", orNull(group.se)},
            {"ci_K", orNull(group.ci)},
            {"best_K", orNull(group.best)},
            {"median_K", orNull(group.median)},
            {"tier", orNull(group.tier)},
            {"bound_K", orNull(group.bound)},
            {"limit_bound_mounts", group.censoredMounts}};
}

Json varianceJson(const std::optional<VarianceParts>& variance) {
    if (!variance) return nullptr;
    return {
        {"between_mount_K2", variance->between}, {"within_mount_K2", variance->within}, {"method", "reml"}};
}

Json pairJson(const Comparison& comparison, const PairComparison& pair) {
    return {{"a", comparison.groups[pair.a].name},
            {"b", comparison.groups[pair.b].name},
            {"difference_K", orNull(pair.difference)},
            {"se_K", orNull(pair.se)},
            {"df", orNull(pair.df)},
            {"ci_K", orNull(pair.ci)},
            {"p_adjusted", orNull(pair.pAdjusted)},
            {"adjustment", adjustmentName(pair.adjustment)},
            {"equivalence_p", orNull(pair.equivalenceP)},
            {"equivalence_ci_K", orNull(pair.equivalenceCi)},
            {"verdict", verdictName(pair.verdict)},
            {"size", sizeName(pair.size)},
            {"provisional", pair.provisional},
            {"settleable", pair.settleable},
            {"further_mounts", orNull(pair.furtherMounts)}};
}

/// null: not told apart from the blocks
Json lineJson(const std::optional<Drift>& line) {
    if (!line) return nullptr;
    return {{"slope", line->slope}, {"interval", orNull(std::optional(line->ci))}};
}

Json pairsJson(const Comparison& comparison) {
    Json pairs = Json::array();
    for (const PairComparison& pair : comparison.pairs) pairs.push_back(pairJson(comparison, pair));
    return pairs;
}

/// null: held against a reference
Json tiersJson(const Comparison& comparison) {
    if (comparison.options.reference) return nullptr;
    Json tiers = Json::array();
    for (const auto& tier : comparison.tiers) {
        Json names = Json::array();
        for (std::size_t group : tier) names.push_back(comparison.groups[group].name);
        tiers.push_back(std::move(names));
    }
    return tiers;
}

} // namespace

Json toJson(const Comparison& comparison, const std::string& unit) {
    Json json;
    json["unit"] = unit;
    json["groups"] = Json::array();
    for (const GroupSummary& group : comparison.groups)
        json["groups"].push_back(groupJson(group, comparison.options.takesOut()));
    json["anova"] = fTestJson(comparison.anova);
    json["welch"] = fTestJson(comparison.welch);
    json["brown_forsythe"] = fTestJson(comparison.brownForsythe);
    json["variance"] = varianceJson(comparison.variance);
    if (comparison.options.drift) json["drift"] = lineJson(comparison.drift);
    if (comparison.options.covariate) {
        json["covariate"] = lineJson(comparison.covariate);
        json["equal_slopes"] = fTestJson(comparison.equalSlopes);
    }
    json["pairs"] = pairsJson(comparison);
    json["tiers"] = tiersJson(comparison);
    json["flags"] = storedJson(comparison.flags);
    return reported(std::move(json));
}

namespace {

Json pairOfLevels(const TwoFactors& factors, const PairComparison& pair) {
    return {{"a", factors.firstLevels[pair.a].name},   {"b", factors.firstLevels[pair.b].name},
            {"difference_K", orNull(pair.difference)}, {"ci_K", orNull(pair.ci)},
            {"p_adjusted", orNull(pair.pAdjusted)},    {"verdict", verdictName(pair.verdict)},
            {"provisional", pair.provisional}};
}

} // namespace

Json toJson(const TwoFactors& factors) {
    Json json{{"interaction", fTestJson(factors.interaction)},
              {"first", fTestJson(factors.first)},
              {"second", fTestJson(factors.second)},
              {"cells", Json::array()},
              {"pairs_within", Json::array()},
              {"pairs_marginal", Json::array()}};
    for (const FactorCell& cell : factors.cells)
        json["cells"].push_back({{"a", factors.firstLevels[cell.first].name},
                                 {"b", factors.secondLevels[cell.second].name},
                                 {"mounts", cell.mounts},
                                 {"mean_K", orNull(cell.mean)}});
    for (const PairWithin& within : factors.within) {
        Json pair{{"second", factors.secondLevels[within.second].name}};
        pair.update(pairOfLevels(factors, within.pair));
        json["pairs_within"].push_back(std::move(pair));
    }
    for (const PairComparison& pair : factors.marginal)
        json["pairs_marginal"].push_back(pairOfLevels(factors, pair));
    return json;
}

namespace {

Json interactionJson(const std::optional<LoadInteraction>& interaction) {
    if (!interaction) return nullptr;
    Json json = fTestJson(interaction->test);
    if (interaction->pGg) json["p_gg"] = *interaction->pGg;
    return json;
}

} // namespace

Json toJson(const SeveralLoads& loads) {
    Json json{{"levels", Json::array()},
              {"grid", Json::array()},
              {"per_load", Json::array()},
              {"interaction", interactionJson(loads.interaction)},
              {"complete_mounts", loads.completeMounts},
              {"order_changes", Json::array()}};
    for (const LoadCell& cell : loads.grid)
        json["grid"].push_back({{"load", loads.loads[cell.load].name},
                                {"group", loads.groups[cell.group].name},
                                {"mounts", cell.mounts},
                                {"mean_K", orNull(cell.mean)},
                                {"ci_K", orNull(cell.ci)}});
    for (std::size_t i = 0; i < loads.loads.size(); ++i) {
        const auto& comparison = loads.perLoad[i].comparison;
        json["levels"].push_back(loads.loads[i].name);
        json["per_load"].push_back({{"load", loads.loads[i].name},
                                    {"pairs", comparison ? pairsJson(*comparison) : Json::array()},
                                    {"tiers", comparison ? tiersJson(*comparison) : Json()},
                                    {"flags", comparison ? storedJson(comparison->flags) : Json::array()}});
    }
    for (const OrderChange& change : loads.orderChanges)
        json["order_changes"].push_back({{"a", change.a.name},
                                         {"b", change.b.name},
                                         {"load_a_better", change.aBetter.name},
                                         {"load_b_better", change.bBetter.name}});
    return reported(std::move(json));
}

Json toJson(const Lines& lines, const Responses& responses) {
    Json json{{"lines", Json::array()},
              {"equal_slopes", fTestJson(lines.equalSlopes)},
              {"pairs", Json::array()},
              {"responses", Json::array()}};
    for (const SweepLine& line : lines.lines)
        json["lines"].push_back({{"name", line.group.name},
                                 {"intercept_K", line.intercept},
                                 {"slope_K_per_W", line.slope},
                                 {"slope_ci", orNull(line.slopeInterval)}});
    for (const SweepPair& pair : lines.pairs)
        json["pairs"].push_back({{"a", lines.lines[pair.a].group.name},
                                 {"b", lines.lines[pair.b].group.name},
                                 {"gap_at_x_K", pair.gap},
                                 {"gap_ci_K", orNull(pair.gapInterval)},
                                 {"crossover_x", orNull(pair.crossover)},
                                 {"crossover_ci", orNull(pair.crossoverInterval)}});
    for (const SweepResponse& response : responses.responses)
        json["responses"].push_back({{"name", response.group.name},
                                     {"model", responseModelName(response.model)},
                                     {"plateau_K", response.plateau},
                                     {"smallest_x", orNull(response.smallest)},
                                     {"smallest_x_ci", orNull(response.smallestInterval)},
                                     {"recommended_x", orNull(response.recommended)}});
    std::vector<Flag> flags = lines.flags;
    for (const Flag& flag : responses.flags) addFlag(flags, flag);
    json["flags"] = storedJson(flags);
    return reported(std::move(json));
}

Json toJson(const BenchHealth& health) {
    Json json{{"centre", health.centre}, {"sigma", health.sigma}, {"points", Json::array()}};
    for (const HealthPoint& point : health.points)
        json["points"].push_back({{"order", point.order},
                                  {"value", point.value},
                                  {"ewma", point.ewma},
                                  {"low", point.low},
                                  {"high", point.high},
                                  {"out", point.out}});
    json["moved"] = health.moved;
    json["first_out"] = orNull(health.firstOut);
    json["drift"] = {{"slope_per_mount", health.slope},
                     {"ci", orNull(std::optional(health.slopeInterval))},
                     {"p", health.slopeP}};
    return json;
}

Json toJson(const ValueFront& front, const std::vector<ValueRow>& rows) {
    Json json{{"rows", Json::array()}, {"front", Json::array()}, {"breakpoints", Json::array()}};
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const ValuedRow& row = front.rows[i];
        json["rows"].push_back(
            {{"material", rows[i].material},
             {"dominated_by", row.dominatedBy ? Json(rows[*row.dominatedBy].material) : Json()},
             {"clearly_dominated", row.clearly},
             {"score", orNull(row.score)},
             {"first_share", row.firstShare}});
    }
    for (const std::size_t row : front.front) json["front"].push_back(rows[row].material);
    for (const Breakpoint& point : front.breakpoints)
        json["breakpoints"].push_back({{"weight_on_delta", point.weightOnDelta},
                                       {"from", rows[point.from].material},
                                       {"to", rows[point.to].material}});
    return json;
}

} // namespace ibuki
