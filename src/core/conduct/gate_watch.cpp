// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/conduct/gate_watch.h"

#include "core/series/autocorrelation.h"
#include "core/series/tail_fit.h"

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
constexpr int wantedInARow = 3;
constexpr double oneSided95 = 1.645;
constexpr double flatKPerMin = 3.0 / 60; ///< a tail that cannot be told counts as flat below it

/// The slope through the points, K/min, with the one-sided 95 % limit of its size; nothing where correlation
/// leaves too few of them.
struct Slope {
    double size = 0;
    double upper = 0;
};

template <class Points> std::optional<Slope> slopeThrough(const Points& points) {
    std::vector<double> minutes;
    std::vector<double> values;
    for (const auto& point : points) {
        minutes.push_back(point.timeS / 60);
        values.push_back(point.value);
    }
    const auto fit = fitSlope(minutes, values);
    if (!fit) return std::nullopt;
    const Interval both = fit->interval(0.90);
    return Slope{std::abs(fit->slope), std::max(std::abs(both.lo), std::abs(both.hi))};
}

} // namespace

GateWatch::GateWatch(GateKind kind, double limit, std::optional<double> idleC)
    : kind_(kind), limit_(limit), idleC_(idleC) {}

void GateWatch::take(const GateSample& sample) {
    if (!firstS_) firstS_ = sample.timeS;
    const bool ofAmbient = kind_ == GateKind::ambientSlopeBelow;
    const auto sloped = ofAmbient ? sample.ambientC : sample.chipC;
    if (sloped) recent_.push_back({sample.timeS, *sloped});
    while (!recent_.empty() && recent_.front().timeS < sample.timeS - slopeSpanS) recent_.pop_front();
    if (sample.chipC) rise_.take(sample.timeS, *sample.chipC - sample.ambientC.value_or(0));
    const bool atOnce = kind_ == GateKind::chipAbove || kind_ == GateKind::chipBelow;
    if (!atOnce && judgedS_ && sample.timeS - *judgedS_ < judgeEveryS) return;
    judgedS_ = sample.timeS;
    judge(sample.timeS);
}

void GateWatch::judge(double timeS) {
    reading_.figure.reset();
    reading_.upper.reset();
    reading_.opensInS.reset();
    reading_.opensBetweenS.reset();
    switch (kind_) {
    case GateKind::none:
        return;
    case GateKind::chipSlopeBelow:
    case GateKind::ambientSlopeBelow:
        if (timeS - *firstS_ >= leastSlopeSpanS) judgeSlope();
        break;
    case GateKind::remainingBelow:
        if (timeS - *firstS_ >= leastSoakS) judgeRemaining();
        break;
    case GateKind::aboveIdleBelow:
        judgeAboveIdle();
        break;
    case GateKind::chipAbove:
    case GateKind::chipBelow:
        judgeReached();
        return;
    }
    inARow_ = reading_.upper && *reading_.upper < limit_ ? inARow_ + 1 : 0;
    reading_.open = reading_.open || inARow_ >= wantedInARow;
}

void GateWatch::settle(double figure, double upper) {
    reading_.figure = figure;
    reading_.upper = upper;
}

void GateWatch::judgeSlope() {
    if (const auto slope = slopeThrough(recent_)) settle(slope->size, slope->upper);
}

/// By the exponential tail; where none can be told, by a slope that leaves nothing to rise.
void GateWatch::judgeRemaining() {
    std::vector<double> t;
    std::vector<double> x;
    std::vector<Point> means;
    for (const MeanStretch& stretch : rise_.stretches())
        means.push_back({stretch.beginS + rise_.widthS() / 2, stretch.mean()});
    if (!means.empty()) means.pop_back(); // it still grows
    const double last = means.empty() ? 0 : means.back().timeS;
    const double from = *firstS_ + std::max(fastPartS, fastShare * (last - *firstS_));
    std::vector<Point> end;
    for (const Point& point : means) {
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
        if (left > limit_) predict(*tail);
        return;
    }
    const auto slope = slopeThrough(end);
    if (!slope || last - *firstS_ < 2 * leastSoakS) return;
    // What is too flat for a tail is settled; told as the rise over the time that it was watched.
    const double rise = slope->size * (last - from) / 60;
    settle(rise, slope->upper < flatKPerMin ? rise : std::max(rise, limit_ * 2));
}

/// The slope at the end of the tail is told well, how far it still leads is not: along the interval of the
/// asymptote, τ = remaining / slope.
void GateWatch::predict(const TailFit& tail) {
    const double left = std::abs(tail.remaining);
    const double slope = left / tail.tau;
    const auto opensIn = [&](double remaining) {
        return remaining > limit_ ? remaining / slope * std::log(remaining / limit_) : 0;
    };
    const double half =
        std::max(tail.asymptoteInterval.hi - tail.asymptote, tail.asymptote - tail.asymptoteInterval.lo);
    reading_.opensInS = opensIn(left);
    reading_.opensBetweenS = Interval{opensIn(std::max(0.0, left - half)), opensIn(left + half)};
}

/// A temperature that conditioning goes to: reached is reached.
void GateWatch::judgeReached() {
    if (recent_.empty()) return;
    const double now = recent_.back().value;
    settle(now, now);
    if (kind_ == GateKind::chipAbove ? now >= limit_ : now <= limit_) reading_.open = true;
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

std::optional<double> recentMean(const std::deque<GateSample>& samples, double lastS,
                                 std::optional<double> GateSample::*member) {
    double sum = 0;
    int count = 0;
    for (const GateSample& sample : samples)
        if (sample.*member && sample.timeS > lastS - 60) {
            sum += *(sample.*member);
            ++count;
        }
    return count > 0 ? std::optional(sum / count) : std::nullopt;
}

} // namespace ibuki
