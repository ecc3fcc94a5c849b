// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/pair_family.h"

#include "core/distributions/distributions.h"
#include "core/models/dunnett.h"
#include "core/models/multivariate_t.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace ibuki {
namespace {

constexpr int manyGroups = 25; ///< 300 pairs
constexpr double sameFactor = 1e-7;
constexpr double roughAt[] = {0,    0.005, 0.01, 0.02, 0.035, 0.05, 0.075, 0.1, 0.14,
                              0.19, 0.25,  0.33, 0.42, 0.5,   0.6,  0.75,  0.9, 1};

/// n_i/n_0 of Dunnett's own form ρ_ij = λ_i λ_j, λ_i² = n_i/(n_i + n_0), where the correlation has it.
std::optional<std::vector<double>> factored(const Columns& correlation) {
    const std::size_t m = correlation.rows();
    std::vector<double> squares(m);
    for (std::size_t i = 0; i < m; ++i) {
        const std::size_t j = i == 0 ? 1 : 0;
        const std::size_t k = i < 2 ? 2 : 1;
        squares[i] = m == 2 ? correlation[0][1] : correlation[i][j] * correlation[i][k] / correlation[j][k];
        if (!(squares[i] > 0 && squares[i] < 1)) return std::nullopt;
    }
    std::vector<double> ratios;
    for (std::size_t i = 0; i < m; ++i) {
        for (std::size_t j = 0; j < i; ++j)
            if (std::abs(std::sqrt(squares[i] * squares[j]) - correlation[i][j]) > sameFactor)
                return std::nullopt;
        ratios.push_back(squares[i] / (1 - squares[i]));
    }
    return ratios;
}

} // namespace

PairFamily PairFamily::allPairs(int k, double alpha, bool ownSpread) {
    PairFamily family;
    family.k_ = k;
    family.alpha_ = alpha;
    family.adjustment_ = k == 2 ? Adjustment::none : ownSpread ? Adjustment::gamesHowell : Adjustment::tukey;
    return family;
}

PairFamily PairFamily::againstReference(const Columns& correlation, double alpha) {
    PairFamily family;
    family.k_ = static_cast<int>(correlation.rows()) + 1;
    family.alpha_ = alpha;
    if (correlation.rows() < 2) return family; // one difference only
    family.adjustment_ = Adjustment::dunnett;
    const auto factor = factored(correlation);
    family.limit_ = factor ? dunnettFamily(*factor, 1) : multivariateFamily(correlation);
    return family;
}

const CriticalValues& PairFamily::critical(double df) {
    const auto [at, isNew] = known_.try_emplace(df);
    if (!isNew) return at->second;
    at->second = limit_
                     ? CriticalValues{df, limit_->quantile(1 - alpha_, df), studentQuantile(1 - alpha_, df)}
                     : criticalValues(k_, df, 1 - alpha_);
    return at->second;
}

CriticalValues PairFamily::roughCritical(double df) {
    const double x = std::clamp(1 / df, 0.0, 1.0);
    const auto above = std::upper_bound(std::begin(roughAt) + 1, std::end(roughAt) - 1, x);
    const auto i = static_cast<std::size_t>(above - std::begin(roughAt));
    const double share = (x - roughAt[i - 1]) / (roughAt[i] - roughAt[i - 1]);
    // Between the two in logarithms: critical values rise steeply at few degrees of freedom.
    const auto between = [share](double a, double b) {
        return std::exp((1 - share) * std::log(a) + share * std::log(b));
    };
    const CriticalValues below = critical(1 / roughAt[i - 1]);
    const CriticalValues beyond = critical(1 / roughAt[i]);
    return {df, between(below.different, beyond.different), between(below.equivalent, beyond.equivalent)};
}

double PairFamily::adjustedP(double t, double df) {
    if (k_ == 2) return 2 * studentUpper(t, df);
    if (limit_) return 1 - limit_->cdf(t, df);
    const double q = std::sqrt(2.0) * t;
    if (k_ < manyGroups || adjustment_ != Adjustment::tukey) return 1 - studentizedRangeCdf(q, k_, df);
    return 1 - tables_.try_emplace(df, k_, df).first->second(q);
}

} // namespace ibuki
