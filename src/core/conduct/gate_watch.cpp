// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/conduct/gate_watch.h"

#include "core/stats/tail_fit.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double judgeEveryS = 5;
constexpr double slopeSpanS = 180;
constexpr double leastSlopeSpanS = 60;
constexpr double leastSoakS = 120;
constexpr double fastPartS = 25; ///< of die and lid, left out of the tail
constexpr double fastShare = 0.2;
constexpr std::size_t mostMeans = 360;
constexpr int wantedInARow = 3;
constexpr double oneSided95 = 1.645;
constexpr double flatKPerMin = 3.0 / 60; ///< a tail that cannot be told counts as flat below it

struct Line {
    double slope = 0;
    double standardError = 0;
};

/// Least squares about the means; nothing for points without spread in time. The standard error is widened by
/// the residuals' lag-one correlation.
template <class Points> std::optional<Line> lineThrough(const Points& points) {
    const auto n = static_cast<double>(points.size());
    if (points.size() < 6) return std::nullopt;
    double t = 0;
    double x = 0;
    for (const auto& point : points) {
        t += point.timeS / n;
        x += point.value / n;
    }
    double stt = 0;
    double stx = 0;
    for (const auto& point : points) {
        stt += (point.timeS - t) * (point.timeS - t);
        stx += (point.timeS - t) * (point.value - x);
    }
    if (!(stt > 0)) return std::nullopt;
    Line line{stx / stt, 0};
    double rss = 0;
    double lagged = 0;
    double before = 0;
    for (const auto& point : points) {
        const double residual = point.value - x - line.slope * (point.timeS - t);
        rss += residual * residual;
        lagged += residual * before;
        before = residual;
    }
    const double rho = rss > 0 ? std::clamp(lagged / rss, 0.0, 0.95) : 0;
    line.standardError = std::sqrt(rss / (n - 2) / stt * (1 + rho) / (1 - rho));
    return line;
}

} // namespace

void GateWatch::Means::take(double timeS, double value) {
    if (count > 0 && timeS - beginS >= widthS) {
        points.push_back({beginS + widthS / 2, sum / count});
        sum = 0;
        count = 0;
        if (points.size() > mostMeans) widen();
    }
    if (count == 0) beginS = timeS;
    sum += value;
    ++count;
}

void GateWatch::Means::widen() {
    std::vector<Point> halved;
    for (std::size_t i = 0; i + 1 < points.size(); i += 2)
        halved.push_back(
            {(points[i].timeS + points[i + 1].timeS) / 2, (points[i].value + points[i + 1].value) / 2});
    points = std::move(halved);
    widthS *= 2;
}

GateWatch::GateWatch(GateKind kind, double limit, std::optional<double> idleC)
    : kind_(kind), limit_(limit), idleC_(idleC) {}

void GateWatch::take(const GateSample& sample) {
    if (!firstS_) firstS_ = sample.timeS;
    const bool ofRoom = kind_ == GateKind::roomSlopeBelow;
    const auto sloped = ofRoom ? sample.roomC : sample.chipC;
    if (sloped) recent_.push_back({sample.timeS, *sloped});
    while (!recent_.empty() && recent_.front().timeS < sample.timeS - slopeSpanS) recent_.pop_front();
    if (sample.chipC) rise_.take(sample.timeS, *sample.chipC - sample.roomC.value_or(0));
    if (judgedS_ && sample.timeS - *judgedS_ < judgeEveryS) return;
    judgedS_ = sample.timeS;
    judge(sample.timeS);
}

void GateWatch::judge(double timeS) {
    reading_.figure.reset();
    reading_.upper.reset();
    reading_.opensInS.reset();
    switch (kind_) {
    case GateKind::none:
        return;
    case GateKind::chipSlopeBelow:
    case GateKind::roomSlopeBelow:
        if (timeS - *firstS_ >= leastSlopeSpanS) judgeSlope(60);
        break;
    case GateKind::remainingBelow:
        if (timeS - *firstS_ >= leastSoakS) judgeRemaining();
        break;
    case GateKind::aboveIdleBelow:
        judgeAboveIdle();
        break;
    }
    inARow_ = reading_.upper && *reading_.upper < limit_ ? inARow_ + 1 : 0;
    reading_.open = reading_.open || inARow_ >= wantedInARow;
}

void GateWatch::settle(double figure, double upper) {
    reading_.figure = figure;
    reading_.upper = upper;
}

void GateWatch::judgeSlope(double perUnit) {
    const auto line = lineThrough(recent_);
    if (!line) return;
    const double slope = std::abs(line->slope) * perUnit;
    settle(slope, slope + oneSided95 * line->standardError * perUnit);
}

/// By the exponential tail; where none can be told, by a slope that leaves nothing to rise.
void GateWatch::judgeRemaining() {
    std::vector<double> t;
    std::vector<double> x;
    const double last = rise_.points.empty() ? 0 : rise_.points.back().timeS;
    const double from = *firstS_ + std::max(fastPartS, fastShare * (last - *firstS_));
    std::vector<Point> end;
    for (const Point& point : rise_.points) {
        if (point.timeS < from) continue;
        t.push_back(point.timeS - *firstS_);
        x.push_back(point.value);
        if (point.timeS > last - (last - from) / 2) end.push_back(point);
    }
    if (t.size() < 20) return;
    const auto tail = fitCorrelatedTail(t, x);
    if (tail && tail->identified) {
        const double left = std::abs(tail->remaining);
        settle(left, left + oneSided95 * tail->remainingStandardError);
        if (left > limit_) reading_.opensInS = tail->tau * std::log(left / limit_);
        return;
    }
    const auto line = lineThrough(end);
    if (!line || last - *firstS_ < 2 * leastSoakS) return;
    const double slope = 60 * (std::abs(line->slope) + oneSided95 * line->standardError);
    // What is too flat for a tail is settled; told as the rise over the time that it was watched.
    const double rise = std::abs(line->slope) * (last - from);
    settle(rise, slope < flatKPerMin ? rise : std::max(rise, limit_ * 2));
}

void GateWatch::judgeAboveIdle() {
    if (!idleC_ || recent_.size() < 3) return;
    double sum = 0;
    int count = 0;
    for (auto point = recent_.rbegin(); point != recent_.rend() && point->timeS > recent_.back().timeS - 10;
         ++point) {
        sum += point->value;
        ++count;
    }
    const double above = sum / count - *idleC_;
    settle(above, above);
}

std::optional<double> recentMean(const std::deque<GateSample>& samples, double lastS) {
    double sum = 0;
    int count = 0;
    for (const GateSample& sample : samples)
        if (sample.chipC && sample.timeS > lastS - 60) {
            sum += *sample.chipC;
            ++count;
        }
    return count > 0 ? std::optional(sum / count) : std::nullopt;
}

} // namespace ibuki
