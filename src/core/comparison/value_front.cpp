// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/value_front.h"

#include "core/base/input_error.h"
#include "core/base/random.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <set>

namespace ibuki {
std::string_view criterionColumn(Criterion criterion) {
    static constexpr std::array<std::string_view, criteria> names{
        "delta_K", "price_per_application", "ease", "cleanup", "lifetime_y", "safety"};
    return names[static_cast<std::size_t>(criterion)];
}

namespace {

constexpr double clearAt = 1.96;
constexpr std::uint64_t seed = 20'310'117;
constexpr double tie = 1e-12;

double deltaOf(const ValueRow& row) { return *row.of(Criterion::delta); }
double priceOf(const ValueRow& row) { return *row.of(Criterion::price); }

void checkRows(const std::vector<ValueRow>& rows) {
    if (rows.empty()) throw InputError("value-empty", {});
    std::set<std::string> names;
    for (const ValueRow& row : rows) {
        if (!names.insert(row.material).second)
            throw InputError("value-twice", {}, {{"material", row.material}});
        if (priceOf(row) < 0) throw InputError("value-price", {}, {{"material", row.material}});
        if (row.deltaSe < 0) throw InputError("value-se", {}, {{"material", row.material}});
        for (std::size_t c = 0; c < criteria; ++c)
            if (row.values[c].has_value() != rows.front().values[c].has_value())
                throw InputError("value-partly", {},
                                 {{"material", row.material},
                                  {"column", std::string(criterionColumn(static_cast<Criterion>(c)))}});
    }
}

Weights scaled(const Weights& weights, const std::vector<ValueRow>& rows) {
    Weights all = weights;
    double sum = 0;
    for (std::size_t c = 0; c < criteria; ++c) {
        if (!(all[c] >= 0) || !std::isfinite(all[c])) throw InputError("value-weight", {});
        if (all[c] > 0 && !rows.front().values[c])
            throw InputError("value-weight.no-column", {},
                             {{"column", std::string(criterionColumn(static_cast<Criterion>(c)))}});
        sum += all[c];
    }
    if (!(sum > 0)) throw InputError("value-weight", {});
    for (double& weight : all) weight /= sum;
    return all;
}

/// 0 the worst of the rows, 1 the best; 0 everywhere where all are equal.
std::vector<std::array<double, criteria>> goodness(const std::vector<ValueRow>& rows,
                                                   std::vector<Criterion>& used) {
    std::vector<std::array<double, criteria>> good(rows.size());
    for (std::size_t c = 0; c < criteria; ++c) {
        if (!rows.front().values[c]) continue;
        const auto criterion = static_cast<Criterion>(c);
        double lo = *rows.front().values[c];
        double hi = lo;
        for (const ValueRow& row : rows) {
            lo = std::min(lo, *row.values[c]);
            hi = std::max(hi, *row.values[c]);
        }
        if (!(hi > lo)) continue; // adds nothing
        used.push_back(criterion);
        for (std::size_t i = 0; i < rows.size(); ++i)
            good[i][c] = lowerIsBetter(criterion) ? (hi - *rows[i].values[c]) / (hi - lo)
                                                  : (*rows[i].values[c] - lo) / (hi - lo);
    }
    return good;
}

/// i is dominated by j.
bool dominates(const ValueRow& j, const ValueRow& i) {
    return deltaOf(j) <= deltaOf(i) && priceOf(j) <= priceOf(i)
           && (deltaOf(j) < deltaOf(i) || priceOf(j) < priceOf(i));
}

bool clearlyCooler(const ValueRow& j, const ValueRow& i) {
    return deltaOf(i) - deltaOf(j) > clearAt * std::hypot(i.deltaSe, j.deltaSe);
}

/// The strongest dominator: a clear one before others, then the coolest, then the cheapest.
void addDomination(ValueFront& found, const std::vector<ValueRow>& rows) {
    for (std::size_t i = 0; i < rows.size(); ++i) {
        ValuedRow& row = found.rows[i];
        for (std::size_t j = 0; j < rows.size(); ++j) {
            if (j == i || !dominates(rows[j], rows[i])) continue;
            row.clearly = row.clearly || clearlyCooler(rows[j], rows[i]);
            const auto better = [&](std::size_t a, std::size_t b) {
                return std::pair(deltaOf(rows[a]), priceOf(rows[a]))
                       < std::pair(deltaOf(rows[b]), priceOf(rows[b]));
            };
            if (!row.dominatedBy || better(j, *row.dominatedBy)) row.dominatedBy = j;
        }
        if (!row.dominatedBy) found.front.push_back(i);
    }
    std::stable_sort(found.front.begin(), found.front.end(),
                     [&](std::size_t a, std::size_t b) { return deltaOf(rows[a]) < deltaOf(rows[b]); });
}

/// The rows that stand first, each with its share.
template <class Score>
void shareFirst(std::size_t rows, const Score& score, double weight, std::vector<double>& shares) {
    double best = -1;
    std::size_t ties = 0;
    for (std::size_t i = 0; i < rows; ++i) {
        const double here = score(i);
        if (here > best + tie) {
            best = here;
            ties = 1;
        } else if (here >= best - tie) {
            ++ties;
        }
    }
    for (std::size_t i = 0; i < rows; ++i)
        if (score(i) >= best - tie) shares[i] += weight / static_cast<double>(ties);
}

using Goodness = std::vector<std::array<double, criteria>>;

/// The upper envelope of the lines w·first + (1 − w)·second for w from 0 to 1.
struct Stretch {
    double from = 0;
    double to = 1;
};

std::vector<double> crossings(const Goodness& good, std::size_t first, std::size_t second) {
    std::vector<double> at{0, 1};
    for (std::size_t i = 0; i < good.size(); ++i)
        for (std::size_t j = 0; j < i; ++j) {
            const double onFirst = good[i][first] - good[j][first];
            const double onSecond = good[i][second] - good[j][second];
            const double w = -onSecond / (onFirst - onSecond);
            if (w > 0 && w < 1) at.push_back(w);
        }
    std::sort(at.begin(), at.end());
    return at;
}

/// Calls take(stretch, w in its middle) between crossings.
template <class Take>
void eachStretch(const Goodness& good, std::size_t first, std::size_t second, const Take& take) {
    const auto at = crossings(good, first, second);
    for (std::size_t s = 1; s < at.size(); ++s)
        if (at[s] - at[s - 1] > tie) take(Stretch{at[s - 1], at[s]}, (at[s - 1] + at[s]) / 2);
}

/// Exact for up to two criteria.
std::vector<double> exactShares(const Goodness& good, const std::vector<Criterion>& used) {
    std::vector<double> shares(good.size());
    if (used.size() < 2) {
        const auto only = used.empty() ? 0 : static_cast<std::size_t>(used.front());
        shareFirst(
            good.size(), [&](std::size_t i) { return good[i][only]; }, 1, shares);
        return shares;
    }
    const auto first = static_cast<std::size_t>(used[0]);
    const auto second = static_cast<std::size_t>(used[1]);
    eachStretch(good, first, second, [&](const Stretch& stretch, double w) {
        shareFirst(
            good.size(), [&](std::size_t i) { return w * good[i][first] + (1 - w) * good[i][second]; },
            stretch.to - stretch.from, shares);
    });
    return shares;
}

/// Weights drawn evenly over the simplex: independent exponentials over their sum.
std::vector<double> drawnShares(const Goodness& good, const std::vector<Criterion>& used, int draws) {
    std::vector<double> shares(good.size());
    std::vector<double> scores(good.size());
    Random random(seed);
    for (int draw = 0; draw < draws; ++draw) {
        std::fill(scores.begin(), scores.end(), 0);
        for (const Criterion criterion : used) {
            const double weight = -std::log1p(-random.uniform());
            for (std::size_t i = 0; i < good.size(); ++i)
                scores[i] += weight * good[i][static_cast<std::size_t>(criterion)];
        }
        shareFirst(
            good.size(), [&](std::size_t i) { return scores[i]; }, 1.0 / draws, shares);
    }
    return shares;
}

void addBreakpoints(ValueFront& found, const Goodness& good) {
    const auto delta = static_cast<std::size_t>(Criterion::delta);
    const auto price = static_cast<std::size_t>(Criterion::price);
    std::optional<std::size_t> winner;
    eachStretch(good, delta, price, [&](const Stretch& stretch, double w) {
        std::size_t best = 0;
        const auto score = [&](std::size_t i) { return w * good[i][delta] + (1 - w) * good[i][price]; };
        for (std::size_t i = 1; i < good.size(); ++i)
            if (score(i) > score(best) + tie) best = i;
        if (winner && *winner != best) found.breakpoints.push_back({stretch.from, *winner, best});
        winner = best;
    });
}

std::vector<double> weighed(const Goodness& good, const Weights& weights) {
    std::vector<double> scores;
    for (const auto& row : good)
        scores.push_back(std::inner_product(weights.begin(), weights.end(), row.begin(), 0.0));
    return scores;
}

} // namespace

ValueFront judgeValue(const std::vector<ValueRow>& rows, const std::optional<Weights>& weights, int draws) {
    checkRows(rows);
    ValueFront found;
    found.rows.resize(rows.size());
    const Goodness good = goodness(rows, found.used);
    addDomination(found, rows);
    const auto shares =
        found.used.size() <= 2 ? exactShares(good, found.used) : drawnShares(good, found.used, draws);
    for (std::size_t i = 0; i < rows.size(); ++i) found.rows[i].firstShare = shares[i];
    if (weights) {
        const auto scores = weighed(good, scaled(*weights, rows));
        for (std::size_t i = 0; i < rows.size(); ++i) found.rows[i].score = scores[i];
    }
    addBreakpoints(found, good);
    return found;
}

std::vector<double> scoresOf(const std::vector<ValueRow>& rows, const Weights& weights) {
    checkRows(rows);
    std::vector<Criterion> used;
    return weighed(goodness(rows, used), scaled(weights, rows));
}

} // namespace ibuki
