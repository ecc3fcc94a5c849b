// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/series/straight_line.h"

#include "core/distributions/distributions.h"
#include "core/distributions/summary.h"

#include <cmath>

namespace ibuki {

void StraightLine::add(std::span<const double> x, std::span<const double> y) {
    if (x.empty()) return;
    const double meanX = mean(x);
    const double meanY = mean(y);
    for (std::size_t i = 0; i < x.size(); ++i) {
        x_.push_back(x[i] - meanX);
        y_.push_back(y[i] - meanY);
        xx_ += x_.back() * x_.back();
        xy_ += x_.back() * y_.back();
    }
    ++groups_;
}

double StraightLine::slope() const { return xx_ > 0 ? xy_ / xx_ : 0; }

std::vector<double> StraightLine::residuals() const {
    const double slope = this->slope();
    std::vector<double> left(x_.size());
    for (std::size_t i = 0; i < x_.size(); ++i) left[i] = y_[i] - slope * x_[i];
    return left;
}

double StraightLine::rss() const {
    double sum = 0;
    for (const double left : residuals()) sum += left * left;
    return sum;
}

double StraightLine::df() const { return static_cast<double>(x_.size()) - groups_ - 1; }

double StraightLine::slopeSe() const { return std::sqrt(rss() / df() / xx_); }

Interval StraightLine::slopeInterval(double confidence) const {
    return studentInterval(slope(), slopeSe(), df(), confidence);
}

} // namespace ibuki
