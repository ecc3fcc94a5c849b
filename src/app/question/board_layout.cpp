// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/board_layout.h"

#include <algorithm>

namespace ibuki {
namespace {

constexpr double leastScale = 1.1; ///< eight minutes of hands are still seen
constexpr double mostScale = 3;
constexpr double edge = 12;

double minutesBetween(Instant a, Instant b) { return static_cast<double>(b.ms - a.ms) / 60'000; }

double pastWidth(const BoardLines& lines, const BoardSizes& sizes) {
    return lines.past.empty() ? 0 : static_cast<double>(lines.past.size()) * sizes.pastWidth + edge;
}

Instant lastOf(const BoardLines& lines) {
    Instant last = lines.evenings.empty() ? Instant{} : lines.evenings.back().end;
    for (const BoardBar& bar : lines.bars)
        if (!bar.steps.empty()) last = std::max(last, *bar.steps.back().end);
    return last;
}

} // namespace

BoardScale::BoardScale(const BoardLines& lines, const BoardSizes& sizes) {
    double x = sizes.lanesWidth + edge + pastWidth(lines, sizes);
    for (const BoardEvening& evening : lines.evenings) {
        // An evening that lasts into the next one's beginning takes what is its own.
        const Instant start = knots_.empty() ? evening.start : std::max(evening.start, knots_.back().at);
        const Instant end = std::max(start, evening.end);
        if (!knots_.empty()) x += start > knots_.back().at ? sizes.nightWidth : 0;
        knots_.push_back({start, x});
        x += minutesBetween(start, end) * sizes.pixelsAMinute;
        knots_.push_back({end, x});
    }
    if (const Instant last = lastOf(lines); !knots_.empty() && last > knots_.back().at)
        knots_.push_back({last, x + sizes.nightWidth});
}

double BoardScale::x(Instant at) const {
    if (knots_.empty()) return 0;
    if (at <= knots_.front().at) return knots_.front().x;
    for (std::size_t i = 1; i < knots_.size(); ++i) {
        if (at > knots_[i].at) continue;
        const double span = minutesBetween(knots_[i - 1].at, knots_[i].at);
        if (span <= 0) return knots_[i].x;
        const double part = minutesBetween(knots_[i - 1].at, at) / span;
        return knots_[i - 1].x + part * (knots_[i].x - knots_[i - 1].x);
    }
    return knots_.back().x;
}

double BoardScale::right() const { return knots_.empty() ? 0 : knots_.back().x; }

BoardLayout layoutBoard(const BoardLines& lines, const BoardSizes& sizes) {
    BoardLayout layout;
    const BoardScale scale(lines, sizes);
    const double height = sizes.headHeight + static_cast<double>(lines.lanes.size()) * sizes.laneHeight;
    const auto barTop = [&](std::size_t lane) {
        return sizes.headHeight + (static_cast<double>(lane) + 0.5) * sizes.laneHeight - sizes.barHeight / 2;
    };
    double x = sizes.lanesWidth + edge;
    for (const BoardPast& past : lines.past) {
        layout.past.emplace_back(x + 1, barTop(past.lane), sizes.pastWidth - 3, sizes.barHeight);
        x += sizes.pastWidth;
    }
    for (const BoardEvening& evening : lines.evenings)
        layout.evenings.emplace_back(scale.x(evening.start), 0, scale.x(evening.end) - scale.x(evening.start),
                                     height);
    for (const BoardBar& bar : lines.bars) {
        std::vector<QRectF> steps;
        QRectF whole;
        for (const StepOccurrence& step : bar.steps) {
            const double from = scale.x(*step.start);
            steps.emplace_back(from, barTop(bar.lane), scale.x(*step.end) - from, sizes.barHeight);
            whole = whole.isNull() ? steps.back() : whole.united(steps.back());
        }
        layout.steps.push_back(std::move(steps));
        layout.bars.push_back(whole);
    }
    layout.width = std::max(scale.right(), x) + edge;
    return layout;
}

std::size_t BoardLayout::placeAt(double x, std::size_t from) const {
    std::size_t place = 0;
    for (std::size_t i = 0; i < bars.size(); ++i)
        if (i != from && bars[i].center().x() < x) ++place;
    return place;
}

double BoardLayout::gapAt(std::size_t from, std::size_t to) const {
    if (bars.empty()) return 0;
    return to > from ? bars.at(to).right() + 2 : bars.at(to).left() - 2;
}

double fittingScale(const BoardLines& lines, const BoardSizes& sizes, double width) {
    double minutes = 0;
    for (const BoardEvening& evening : lines.evenings) minutes += minutesBetween(evening.start, evening.end);
    if (minutes <= 0) return mostScale;
    const double nights = sizes.nightWidth * static_cast<double>(lines.evenings.size());
    const double room = width - sizes.lanesWidth - pastWidth(lines, sizes) - nights - 2 * edge;
    return std::clamp(room / minutes, leastScale, mostScale);
}

} // namespace ibuki
