// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/models/joint_limit.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace ibuki {
namespace {

constexpr double wholeFrom = 10; ///< W is 1 from here on, whatever the family

} // namespace

JointLimit::JointLimit(std::function<double(double)> known, double finest, Panels panels)
    : known_(std::move(known)), finest_(finest), longest_(panels == Panels::fine ? 1 : wholeFrom) {
    const int points = panels == Panels::fine ? 24 : 10;
    for (int i = 0; i < points; ++i) places_.push_back(-std::cos(std::numbers::pi * i / (points - 1)));
}

double JointLimit::interpolated(const std::vector<double>& values, double at) const {
    double above = 0;
    double below = 0;
    for (std::size_t i = 0; i < values.size(); ++i) {
        const double from = at - places_[i];
        if (from == 0) return values[i];
        double weight = (i % 2 == 0 ? 1 : -1) / from;
        if (i == 0 || i + 1 == values.size()) weight /= 2;
        above += weight * values[i];
        below += weight;
    }
    return above / below;
}

JointLimit::Panel& JointLimit::panelOf(double x) {
    while (panels_.empty() || panels_.back().to < x) {
        const double from = panels_.empty() ? 0 : panels_.back().to;
        const double length = std::min(longest_, from == 0 ? std::min(1.0, finest_) : from);
        panels_.push_back({from, from + length, {}});
    }
    return *std::lower_bound(panels_.begin(), panels_.end(), x,
                             [](const Panel& panel, double at) { return panel.to < at; });
}

double JointLimit::knownSpread(double x) {
    if (!(x > 0)) return 0;
    if (x >= wholeFrom) return 1;
    Panel& panel = panelOf(x);
    const double middle = (panel.from + panel.to) / 2;
    const double half = (panel.to - panel.from) / 2;
    if (panel.values.empty())
        for (const double place : places_) panel.values.push_back(known_(middle + half * place));
    return std::clamp(interpolated(panel.values, (x - middle) / half), 0.0, 1.0);
}

} // namespace ibuki
