// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/pair_family.h"

#include "core/stats/dunnett.h"
#include "core/stats/multivariate_t.h"

#include <algorithm>
#include <boost/math/distributions/students_t.hpp>
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

double studentQuantile(double p, double df) { return boost::math::quantile(boost::math::students_t(df), p); }

double studentUpper(double t, double df) {
    return boost::math::cdf(boost::math::complement(boost::math::students_t(df), t));
}

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
    family.correlation_ = correlation;
    family.factor_ = factored(correlation).value_or(std::vector<double>{});
    return family;
}

const CriticalValues& PairFamily::critical(double df) {
    const auto [at, isNew] = known_.try_emplace(df);
    if (!isNew) return at->second;
    at->second = correlation_.rows() == 0 ? criticalValues(k_, df, 1 - alpha_)
                 : factor_.empty() ? CriticalValues{df, multivariateTQuantile(1 - alpha_, correlation_, df),
                                                    studentQuantile(1 - alpha_, df)}
                                   : CriticalValues{df, dunnettQuantile(1 - alpha_, factor_, 1, df),
                                                    studentQuantile(1 - alpha_, df)};
    return at->second;
}

CriticalValues PairFamily::roughCritical(double df) {
    if (rough_.empty())
        for (const double inverse : roughAt) rough_.push_back(critical(1 / inverse));
    const double x = std::clamp(1 / df, 0.0, 1.0);
    const auto above = std::upper_bound(std::begin(roughAt) + 1, std::end(roughAt) - 1, x);
    const auto i = static_cast<std::size_t>(above - std::begin(roughAt));
    const double share = (x - roughAt[i - 1]) / (roughAt[i] - roughAt[i - 1]);
    // Between the two in logarithms: critical values rise steeply at few degrees of freedom.
    const auto between = [share](double a, double b) {
        return std::exp((1 - share) * std::log(a) + share * std::log(b));
    };
    return {df, between(rough_[i - 1].different, rough_[i].different),
            between(rough_[i - 1].equivalent, rough_[i].equivalent)};
}

double PairFamily::adjustedP(double t, double df) {
    if (k_ == 2) return 2 * studentUpper(t, df);
    if (correlation_.rows() > 0)
        return 1 - (factor_.empty() ? multivariateTCdf(t, correlation_, df) : dunnettCdf(t, factor_, 1, df));
    const double q = std::sqrt(2.0) * t;
    if (k_ < manyGroups || adjustment_ != Adjustment::tukey) return 1 - studentizedRangeCdf(q, k_, df);
    return 1 - tables_.try_emplace(df, k_, df).first->second(q);
}

} // namespace ibuki
