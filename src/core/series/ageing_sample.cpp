// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/series/ageing_sample.h"

#include <algorithm>
#include <boost/math/tools/minima.hpp>
#include <cmath>
#include <limits>
#include <numeric>

namespace ibuki {

AgeingSample::AgeingSample(std::vector<AgeingReading> readings,
                           const std::vector<std::vector<double>>& besides) {
    std::vector<std::size_t> order(readings.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        return std::pair(readings[a].mount, readings[a].t) < std::pair(readings[b].mount, readings[b].t);
    });
    for (const std::size_t at : order) readings_.push_back(readings[at]);
    for (const auto& column : besides) {
        auto& kept = besides_.emplace_back();
        for (const std::size_t at : order) kept.push_back(column[at]);
    }
    for (std::size_t i = 0; i < readings_.size(); ++i) {
        if (i == 0 || readings_[i].mount != readings_[i - 1].mount) counts_.push_back(0);
        ++counts_.back();
        mountOf_.push_back(counts_.size() - 1);
        times_.push_back(readings_[i].t);
    }
    std::sort(times_.begin(), times_.end());
    times_.erase(std::unique(times_.begin(), times_.end()), times_.end());
}

bool AgeingSample::isNested() const {
    return counts_.size() > 1
           && std::any_of(counts_.begin(), counts_.end(), [](int count) { return count > 1; });
}

std::vector<double> AgeingSample::y() const {
    std::vector<double> values;
    for (const AgeingReading& one : readings_) values.push_back(one.y);
    return values;
}

AgeingSample::At::At(const AgeingSample& sample, double theta) : sample_(sample), theta_(theta) {
    for (const int count : sample.counts_) logDeterminant_ += std::log1p(count * theta);
    Columns nuisance(sample.size(), 1 + sample.besides_.size());
    const auto put = [&](std::size_t column, std::vector<double> values) {
        const auto seen = transformed(std::move(values));
        std::copy(seen.begin(), seen.end(), nuisance[column].begin());
    };
    put(0, std::vector<double>(sample.size(), 1.0));
    for (std::size_t i = 0; i < sample.besides_.size(); ++i) put(i + 1, sample.besides_[i]);
    basis_ = orthonormalBasis(nuisance, 1e-9);
    logNuisance_ = std::log(dot(nuisance[0], nuisance[0]));
    for (std::size_t i = 1; i < nuisance.columns(); ++i) {
        Columns earlier(sample.size(), i);
        for (std::size_t k = 0; k < i; ++k)
            std::copy(nuisance[k].begin(), nuisance[k].end(), earlier[k].begin());
        const auto left = withoutPartIn(orthonormalBasis(earlier, 1e-9), nuisance[i]);
        logNuisance_ += std::log(std::max(dot(left, left), std::numeric_limits<double>::min()));
    }
    y_ = reduced(sample.y());
    yy_ = dot(y_, y_);
}

std::vector<double> AgeingSample::At::transformed(std::vector<double> v) const {
    if (theta_ <= 0) return v;
    std::vector<double> sums(sample_.counts_.size());
    for (std::size_t i = 0; i < v.size(); ++i) sums[sample_.mountOf_[i]] += v[i];
    for (std::size_t j = 0; j < sums.size(); ++j)
        sums[j] *= (1 - 1 / std::sqrt(1 + sample_.counts_[j] * theta_)) / sample_.counts_[j];
    for (std::size_t i = 0; i < v.size(); ++i) v[i] -= sums[sample_.mountOf_[i]];
    return v;
}

std::vector<double> AgeingSample::At::reduced(std::vector<double> v) const {
    return withoutPartIn(basis_, transformed(std::move(v)));
}

std::vector<double> AgeingSample::At::nuisance(std::vector<double> rest) const {
    Columns design(sample_.size(), 1 + sample_.besides_.size());
    const auto ones = transformed(std::vector<double>(sample_.size(), 1.0));
    std::copy(ones.begin(), ones.end(), design[0].begin());
    for (std::size_t i = 0; i < sample_.besides_.size(); ++i) {
        const auto seen = transformed(sample_.besides_[i]);
        std::copy(seen.begin(), seen.end(), design[i + 1].begin());
    }
    return leastSquares(design, transformed(std::move(rest))).coefficients;
}

double AgeingSample::bestTheta(std::span<const std::vector<double>> columns, bool restricted) const {
    if (!isNested()) return 0;
    const auto n = static_cast<double>(size());
    const auto parameters = static_cast<double>(1 + besides_.size() + columns.size());
    const auto criterion = [&](double theta) {
        const At at(*this, theta);
        std::vector<double> left = at.y();
        double logDesign = at.logNuisance();
        std::vector<std::vector<double>> taken;
        for (const auto& column : columns) {
            auto own = at.reduced(column);
            for (const auto& earlier : taken) {
                const double part = dot(own, earlier) / dot(earlier, earlier);
                for (std::size_t i = 0; i < own.size(); ++i) own[i] -= part * earlier[i];
            }
            const double square = dot(own, own);
            if (square <= 0) continue;
            const double part = dot(left, own) / square;
            for (std::size_t i = 0; i < left.size(); ++i) left[i] -= part * own[i];
            logDesign += std::log(square);
            taken.push_back(std::move(own));
        }
        const double rss = std::max(dot(left, left), std::numeric_limits<double>::min());
        return restricted ? (n - parameters) * std::log(rss) + at.logDeterminant() + logDesign
                          : n * std::log(rss) + at.logDeterminant();
    };
    const auto [logTheta, least] = boost::math::tools::brent_find_minima(
        [&](double x) { return criterion(std::exp(x)); }, std::log(1e-4), std::log(1e6), 20);
    return criterion(0) <= least ? 0 : std::exp(logTheta);
}

} // namespace ibuki
