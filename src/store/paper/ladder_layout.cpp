// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/ladder_layout.h"

#include "words/words.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <numeric>

namespace ibuki {
namespace {

constexpr double leastMargins = 4; ///< that the scale spans

struct Scale {
    double low = 0;
    double high = 1;
    double left = 0;
    double right = 1;
    double x(double value) const { return left + (value - low) / (high - low) * (right - left); }
    double inside(double value) const { return std::clamp(x(value), left, right); }
};

double niceStep(double span, int most) {
    const double raw = span / most;
    const double power = std::pow(10, std::floor(std::log10(raw)));
    for (double factor : {1.0, 2.0, 5.0})
        if (factor * power >= raw) return factor * power;
    return 10 * power;
}

/// Groups with a mean set the scale; marks of limit-bound groups may lie beyond its end and are then drawn
/// there.
Scale scaleFor(const Comparison& comparison, const LadderSize& size) {
    double low = 1e300;
    double high = -1e300;
    const auto take = [&](double value) {
        low = std::min(low, value);
        high = std::max(high, value);
    };
    for (const GroupSummary& group : comparison.groups) {
        if (!group.mean) continue;
        for (double value : group.mountMeans) take(value);
        if (group.ci) take(group.ci->lo);
        if (group.ci) take(group.ci->hi);
    }
    for (const GroupSummary& group : comparison.groups)
        if (high < low && group.bound) take(*group.bound);
    // What fills the picture is never less than a few margins: scatter of nothing that matters looks like it.
    const double least = leastMargins * comparison.options.margin;
    const double pad = std::max(0.06 * (high - low), 0.5 * (least - (high - low)));
    return {low - pad, high + pad, size.nameWidth + size.bracketWidth, size.width - size.right};
}

/// Digits behind the point that figures have: a tenth of the margin is still told.
int figureDecimals(const Comparison& comparison, const std::string& unit) {
    if (unit == "K/W") return 4;
    const double margin = comparison.options.margin;
    const int least = unit == "K" ? 1 : 0;
    return std::clamp(static_cast<int>(std::ceil(-std::log10(margin) + (unit == "K" ? 0 : 1) - 1e-9)), least,
                      6);
}

/// No finer than the figures are.
void addTicks(LadderLayout& layout, const Scale& scale, const std::string& unit, int figures) {
    const double step = std::max(niceStep(scale.high - scale.low, 8), std::pow(10, -figures));
    const int decimals = std::max(0, static_cast<int>(-std::floor(std::log10(step) + 1e-9)));
    for (double v = std::ceil(scale.low / step) * step; v <= scale.high; v += step)
        layout.ticks.push_back({scale.x(v), fmt::format("{:.{}f}", std::abs(v) < 1e-12 ? 0.0 : v, decimals)});
    if (!layout.ticks.empty()) layout.ticks.back().text += " " + unit;
}

std::string figureOf(const GroupSummary& group, int decimals) {
    if (!group.mean) return fmt::format("≥ {:.{}f}", *group.bound, decimals);
    if (!group.ci) return fmt::format("{:.{}f}", *group.mean, decimals);
    return fmt::format("{:.{}f} ± {:.{}f}", *group.mean, decimals, 0.5 * (group.ci->hi - group.ci->lo),
                       decimals);
}

/// How often it would truly be the best, when that is neither never nor always.
std::string chanceOf(const GroupSummary& group) {
    if (!group.chanceOfBest || *group.chanceOfBest < 0.005) return {};
    if (*group.chanceOfBest > 0.995) return words::say("best > 99 %");
    return words::say("best {chance:.0f} %", {{"chance", 100 * *group.chanceOfBest}});
}

} // namespace

std::vector<std::size_t> bestFirst(const Comparison& comparison) {
    std::vector<std::size_t> order(comparison.groups.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        const GroupSummary& x = comparison.groups[a];
        const GroupSummary& y = comparison.groups[b];
        if (x.mean.has_value() != y.mean.has_value()) return x.mean.has_value();
        const double vx = x.mean ? *x.mean : *x.bound;
        const double vy = y.mean ? *y.mean : *y.bound;
        return comparison.options.lowerIsBetter ? vx < vy : vx > vy;
    });
    return order;
}

namespace {

LadderRung rungOf(const GroupSummary& group, const Scale& scale) {
    LadderRung rung;
    rung.name = group.name;
    rung.isCensored = !group.mean;
    rung.chance = chanceOf(group);
    for (double value : group.mountMeans) rung.beyondScale.push_back(value < scale.low || value > scale.high);
    for (double value : group.mountMeans) rung.marksX.push_back(scale.inside(value));
    rung.meanX = scale.inside(group.mean ? *group.mean : *group.bound);
    rung.lowX = group.ci ? scale.x(group.ci->lo) : rung.meanX;
    rung.highX = group.ci ? scale.x(group.ci->hi) : rung.meanX;
    return rung;
}

/// Tiers to the left of the rungs, pairs within the margin to their right.
void addBrackets(LadderLayout& layout, const Comparison& comparison, const LadderSize& size,
                 const Scale& scale, const std::vector<double>& rungY) {
    double x = size.nameWidth + size.bracketWidth - 8;
    for (const auto& tier : comparison.tiers) {
        if (tier.size() < 2) continue;
        LadderBracket bracket{x, {}};
        for (std::size_t group : tier) bracket.ys.push_back(rungY[group]);
        layout.brackets.push_back(std::move(bracket));
        x -= 10;
    }
    double sameX = scale.right + size.right - 14;
    for (const PairComparison& pair : comparison.pairs) {
        const bool within =
            pair.verdict == Verdict::equivalent
            || (pair.verdict == Verdict::different && pair.size == DifferenceSize::withinMargin);
        if (!within) continue;
        layout.same.push_back(
            {sameX, std::min(rungY[pair.a], rungY[pair.b]), std::max(rungY[pair.a], rungY[pair.b])});
        sameX -= 7;
    }
}

/// The margin beside the best.
void addMargin(LadderLayout& layout, const Comparison& comparison, const Scale& scale) {
    if (layout.rungs.empty() || layout.rungs.front().isCensored) return;
    const double best = *comparison.groups[layout.rungs.front().group].mean;
    const double other = comparison.options.lowerIsBetter ? best + comparison.options.margin
                                                          : best - comparison.options.margin;
    layout.marginLeftX = std::clamp(scale.x(std::min(best, other)), scale.left, scale.right);
    layout.marginRightX = std::clamp(scale.x(std::max(best, other)), scale.left, scale.right);
    layout.hasMargin = true;
}

} // namespace

LadderLayout layoutLadder(const Comparison& comparison, const LadderSize& size, const std::string& unit) {
    LadderLayout layout;
    const Scale scale = scaleFor(comparison, size);
    layout.scaleLeft = scale.left;
    layout.scaleRight = scale.right;
    layout.axisY = size.height - size.bottom;
    const int decimals = figureDecimals(comparison, unit);
    const auto order = bestFirst(comparison);
    layout.rungHeight =
        std::min(size.mostRung,
                 (layout.axisY - size.top) / static_cast<double>(std::max<std::size_t>(1, order.size())));
    std::vector<double> rungY(comparison.groups.size());
    const bool provisional = isProvisional(comparison);
    for (std::size_t i = 0; i < order.size(); ++i) {
        const GroupSummary& group = comparison.groups[order[i]];
        LadderRung rung = rungOf(group, scale);
        rung.group = order[i];
        rung.figure = figureOf(group, decimals);
        rung.y = size.top + layout.rungHeight * (static_cast<double>(i) + 0.4);
        rung.isProvisional = provisional;
        rungY[order[i]] = rung.y;
        layout.rungs.push_back(std::move(rung));
    }
    addBrackets(layout, comparison, size, scale, rungY);
    addMargin(layout, comparison, scale);
    addTicks(layout, scale, unit, decimals);
    return layout;
}

} // namespace ibuki
