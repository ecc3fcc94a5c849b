// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/material_value.h"

#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/evidence/side_responses.h"
#include "core/shelf/shelf.h"
#include "core/shelf/shelf_worth.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace ibuki {
namespace {

constexpr double weighty = 0.15; ///< of the weights of a use

std::size_t at(Criterion criterion) { return static_cast<std::size_t>(criterion); }

/// Of the cheapest priced lot, in the shelf's main currency.
std::optional<double> priceOf(const Document& document, const Material& material, const Site* site,
                              const std::string& currency, Instant now) {
    std::optional<double> least;
    for (const Lot* lot : document.where(&Lot::material, material.id)) {
        const auto cost = costOf(document, *lot, site, now).perApplication;
        const auto converted = cost ? convert(*cost, currency, document) : std::nullopt;
        if (converted && (!least || converted->amount < *least)) least = converted->amount;
    }
    return least;
}

double safetyOf(const MaterialFacts& facts) {
    return 3.0 - (facts.conducts.value ? 1 : 0) - (facts.gallium.value ? 1 : 0);
}

ValueRow rowOf(const Document& document, const Material& material, const GroupSummary& group, double price) {
    ValueRow row;
    row.material = group.name;
    row.deltaSe = group.se.value_or(0);
    row.values[at(Criterion::delta)] = *group.adjusted;
    row.values[at(Criterion::price)] = price;
    const Ratings ratings = ratingsOf(document, material.id);
    if (ratings.spreads) row.values[at(Criterion::ease)] = ratings.spreads->mean;
    if (ratings.cleansUp) row.values[at(Criterion::cleanUp)] = ratings.cleansUp->mean;
    const MaterialFacts facts = factsOf(material);
    if (facts.reapplyYears.value > 0) row.values[at(Criterion::lifetime)] = facts.reapplyYears.value;
    row.values[at(Criterion::safety)] = safetyOf(facts);
    return row;
}

/// A criterion that only some have would compare what is known with what is not.
void keepShared(MaterialValue& value) {
    for (std::size_t c = 0; c < criteria; ++c) {
        const auto has = [&](const ValueRow& row) { return row.values[c].has_value(); };
        if (std::all_of(value.rows.begin(), value.rows.end(), has)) continue;
        value.missing.push_back(static_cast<Criterion>(c));
        for (ValueRow& row : value.rows) row.values[c].reset();
    }
}

/// Weights on what the rows do not have are no weights; nothing where none is left.
std::optional<Weights> known(const Weights& weights, const MaterialValue& value) {
    Weights kept = weights;
    for (Criterion missing : value.missing) kept[at(missing)] = 0;
    return std::accumulate(kept.begin(), kept.end(), 0.0) > 0 ? std::optional(kept) : std::nullopt;
}

bool isSettled(const MaterialValue& value, const Evidence& evidence, std::size_t i, std::size_t j) {
    const Comparison& comparison = *evidence.comparison;
    const auto pair =
        pairBetween(comparison, comparison.groups[value.groups[i]].id, comparison.groups[value.groups[j]].id);
    return pair && pair->verdict == Verdict::different && pair->size != DifferenceSize::withinMargin;
}

/// The criteria that the rows have and that differ, without temperatures that nothing settles.
bool differsBy(const MaterialValue& value, const Evidence& evidence, Criterion criterion) {
    const auto& used = value.front->used;
    if (std::find(used.begin(), used.end(), criterion) == used.end()) return false;
    if (criterion != Criterion::delta) return true;
    for (std::size_t i = 0; i < value.rows.size(); ++i)
        for (std::size_t j = 0; j < i; ++j)
            if (isSettled(value, evidence, i, j)) return true;
    return false;
}

/// The row as good as the best once their unsettled temperatures are taken as alike.
bool isAsGood(const MaterialValue& value, const Evidence& evidence, const Weights& weights, std::size_t best,
              std::size_t other) {
    if (isSettled(value, evidence, best, other)) return false;
    std::vector<ValueRow> alike = value.rows;
    alike[other].values[at(Criterion::delta)] = alike[best].values[at(Criterion::delta)];
    const auto all = scoresOf(alike, weights);
    return all[other] >= all[best] - 1e-9;
}

Advice adviseFor(Use use, const MaterialValue& value, const Evidence& evidence) {
    Advice advice;
    advice.use = use;
    const Weights asked = weightsOf(use);
    for (Criterion missing : value.missing)
        if (asked[at(missing)] >= weighty) advice.notKnown.push_back(missing);
    const auto weights = known(asked, value);
    bool differs = false;
    for (std::size_t c = 0; weights && c < criteria; ++c)
        differs = differs || ((*weights)[c] > 0 && differsBy(value, evidence, static_cast<Criterion>(c)));
    advice.nothingMatters = !differs;
    if (!differs) return advice;
    const auto all = scoresOf(value.rows, *weights);
    const auto best = static_cast<std::size_t>(std::max_element(all.begin(), all.end()) - all.begin());
    advice.rows.push_back(best);
    for (std::size_t i = 0; i < value.rows.size(); ++i)
        if (i != best && isAsGood(value, evidence, *weights, best, i)) advice.rows.push_back(i);
    for (std::size_t c = 0; c < criteria; ++c) {
        const auto criterion = static_cast<Criterion>(c);
        if ((*weights)[c] < weighty || !differsBy(value, evidence, criterion)) continue;
        const bool leads = std::all_of(value.rows.begin(), value.rows.end(), [&](const ValueRow& row) {
            const double ours = *value.rows[best].values[c];
            return lowerIsBetter(criterion) ? ours <= *row.values[c] : ours >= *row.values[c];
        });
        if (leads) advice.reasons.push_back(criterion);
    }
    return advice;
}

} // namespace

std::string_view criterionName(Criterion criterion) {
    static constexpr std::array<std::string_view, criteria> names{"temperature", "price",    "ease",
                                                                  "clean-up",    "lifetime", "safety"};
    return names.at(at(criterion));
}

std::string_view useName(Use use) {
    static constexpr std::array<std::string_view, allUses.size()> names{
        "as cold as can be",   "many quick swaps",        "never opened again for years", "a first build",
        "the tightest budget", "machines by the hundred", "a bare die at its limit"};
    return names.at(static_cast<std::size_t>(use));
}

Weights weightsOf(Use use) {
    // temperature, price, ease, clean-up, lifetime, safety
    switch (use) {
    case Use::coldest:
        return {1, 0, 0, 0, 0, 0};
    case Use::quickSwaps:
        return {0.15, 0.15, 0.35, 0.35, 0, 0};
    case Use::leftForYears:
        return {0.25, 0, 0, 0, 0.6, 0.15};
    case Use::firstBuild:
        return {0.15, 0, 0.4, 0.1, 0, 0.35};
    case Use::tightBudget:
        return {0.2, 0.8, 0, 0, 0, 0};
    case Use::manyMachines:
        return {0, 0.45, 0.25, 0, 0.2, 0.1};
    case Use::bareDie:
        return {0.8, 0, 0, 0, 0.2, 0};
    }
    return {};
}

MaterialValue materialValue(const Document& document, const Question& question, const Evidence& evidence,
                            Instant now) {
    MaterialValue value;
    if (question.factor != Factor::material || question.secondFactor || !evidence.comparison
        || question.normalisation == Normalisation::perWatt) {
        value.reason = Message{"value-needs-materials", {}};
        return value;
    }
    value.currency = mainCurrency(document);
    const Site* site = document.find(question.site);
    const Comparison& comparison = *evidence.comparison;
    for (std::size_t g = 0; g < comparison.groups.size(); ++g) {
        const GroupSummary& group = comparison.groups[g];
        const Level* level = document.find(levelOfGroup(evidence, group));
        const Material* material = level ? document.find(level->material) : nullptr;
        const auto price = material ? priceOf(document, *material, site, value.currency, now) : std::nullopt;
        if (!price || !group.adjusted) {
            value.leftOut.push_back(group.name);
            continue;
        }
        value.rows.push_back(rowOf(document, *material, group, *price));
        value.groups.push_back(g);
    }
    if (value.rows.size() < 2) {
        value.reason = Message{"value-needs-prices", {}};
        return value;
    }
    keepShared(value);
    try {
        value.front = judgeValue(value.rows);
    } catch (const InputError& error) {
        value.reason = error.message;
    }
    return value;
}

void rescore(MaterialValue& value, const std::optional<Weights>& weights) {
    if (!value.front) return;
    const auto kept = weights ? known(*weights, value) : std::nullopt;
    const auto scores = kept ? scoresOf(value.rows, *kept) : std::vector<double>();
    for (std::size_t i = 0; i < value.rows.size(); ++i)
        value.front->rows[i].score = kept ? std::optional(scores[i]) : std::nullopt;
}

std::vector<Advice> adviceFor(const MaterialValue& value, const Evidence& evidence) {
    std::vector<Advice> all;
    if (value.front)
        for (Use use : allUses) all.push_back(adviseFor(use, value, evidence));
    return all;
}

} // namespace ibuki
