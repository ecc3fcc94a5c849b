// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/steady.h"

#include "core/distributions/distributions.h"
#include "core/series/autocorrelation.h"
#include "core/series/tail_fit.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

struct Points {
    std::vector<double> t;
    std::vector<double> x;
};

Points finitePoints(std::span<const double> timeS, std::span<const double> series, Segment segment) {
    Points points;
    for (std::size_t i = segment.begin; i < segment.end; ++i) {
        if (!std::isfinite(series[i])) continue;
        points.t.push_back(timeS[i]);
        points.x.push_back(series[i]);
    }
    return points;
}

std::size_t firstAtOrAfter(std::span<const double> timeS, Segment load, double time) {
    const auto begin = timeS.begin() + static_cast<std::ptrdiff_t>(load.begin);
    const auto end = timeS.begin() + static_cast<std::ptrdiff_t>(load.end);
    return static_cast<std::size_t>(std::lower_bound(begin, end, time) - timeS.begin());
}

std::optional<SlopeFit> slopeOver(std::span<const double> timeS, std::span<const double> series,
                                  Segment segment) {
    const Points points = finitePoints(timeS, series, segment);
    return fitSlope(points.t, points.x);
}

Interval perHour(const SlopeFit& fit) {
    const Interval perSecond = fit.interval(0.9);
    return {perSecond.lo * 3600, perSecond.hi * 3600};
}

/// Block means of equal length, so that a fit costs the same for a long log as for a short one.
Points thinned(const Points& points, std::size_t target) {
    const std::size_t block = std::max<std::size_t>(1, points.t.size() / target);
    if (block == 1) return points;
    Points thin;
    for (std::size_t i = 0; i + block <= points.t.size(); i += block) {
        double t = 0;
        double x = 0;
        for (std::size_t k = i; k < i + block; ++k) {
            t += points.t[k];
            x += points.x[k];
        }
        thin.t.push_back(t / static_cast<double>(block));
        thin.x.push_back(x / static_cast<double>(block));
    }
    return thin;
}

std::optional<TailFit> fitTailOf(std::span<const double> timeS, std::span<const double> series,
                                 Segment tail) {
    if (tail.begin >= tail.end) return std::nullopt;
    const Points points = thinned(finitePoints(timeS, series, tail), 250);
    return fitCorrelatedTail(points.t, points.x);
}

/// How far the fitted tail's mean over its last `length` seconds lies below its end.
double meanRise(const TailFit& tail, double length) {
    const double x = length / tail.tau;
    return tail.remaining * ((std::expm1(x) / x) - 1);
}

} // namespace

WindowChoice chooseWindow(std::span<const double> timeS, std::span<const double> series, Segment load,
                          const ReduceSettings& settings) {
    WindowChoice choice;
    std::size_t end = load.end;
    const double lastS = timeS[load.end - 1];
    while (end > load.begin + 1 && lastS - timeS[end - 1] < settings.guardS) --end;
    if (load.end - end < 1 && end > load.begin + 1) --end;
    const double endS = timeS[end - 1];
    const double available = endS - timeS[load.begin];
    const auto window = [&](double length) {
        return Segment{firstAtOrAfter(timeS, load, endS - length), end};
    };
    if (available < settings.windowMinS) {
        choice.window = {load.begin, end};
        choice.isShort = true;
        return choice;
    }
    choice.tail = fitTailOf(timeS, series, tailOf(timeS, load, {load.begin, end}));
    const double longest = std::min(settings.windowMaxS, available);
    const auto isSteady = [&](Segment candidate, double bias) {
        const auto fit = slopeOver(timeS, series, candidate);
        return fit && perHour(*fit).within(settings.slopeLimitKPerH)
               && std::abs(fit->slope) * (endS - timeS[candidate.begin]) / 2 <= bias;
    };
    if (choice.tail && choice.tail->identified) {
        double length = longest;
        while (length > settings.windowMinS
               && std::abs(meanRise(*choice.tail, length)) > settings.windowBiasK)
            length -= 10;
        choice.window = window(std::max(length, settings.windowMinS));
        // The tail may be no picture of this load: then the window's own slope says so.
        choice.steady = isSteady(choice.window, 3 * settings.windowBiasK);
        if (choice.steady) return choice;
    }
    for (double length = longest; length >= settings.windowMinS; length -= 30) {
        choice.window = window(length);
        choice.steady = isSteady(choice.window, settings.windowBiasK);
        if (choice.steady) return choice;
    }
    choice.window = window(settings.windowMinS);
    return choice;
}

Segment tailOf(std::span<const double> timeS, Segment load, Segment window) {
    const double startS = timeS[load.begin];
    const double skipS = std::max(60.0, 0.15 * (timeS[window.end - 1] - startS));
    const std::size_t begin = firstAtOrAfter(timeS, load, startS + skipS);
    return {std::min(begin, window.end), window.end};
}

Steady judgeSteady(std::span<const double> timeS, std::span<const double> series, Segment load,
                   const WindowChoice& choice, const ReduceSettings& settings) {
    Steady steady;
    const auto slope = slopeOver(timeS, series, choice.window);
    if (slope) {
        steady.slopeKPerH = slope->slope * 3600;
        steady.slopeIntervalKPerH = perHour(*slope);
    }
    const auto fit = choice.tail ? choice.tail : fitTailOf(timeS, series, tailOf(timeS, load, choice.window));
    if (fit && fit->identified) {
        steady.asymptoteK = fit->asymptote;
        steady.asymptoteIntervalK = fit->asymptoteInterval;
        steady.remainingK = fit->remaining;
        steady.tauS = fit->tau;
    }
    if (!slope) return steady;
    if (fit && fit->identified) {
        const double upper = std::abs(fit->remaining) + normalQuantile(0.975) * fit->remainingStandardError;
        steady.reached =
            steady.slopeIntervalKPerH->within(settings.slopeLimitKPerH) && upper < settings.remainingLimitK;
    } else {
        steady.reached = steady.slopeIntervalKPerH->within(settings.unidentifiedSlopeLimitKPerH);
    }
    return steady;
}

} // namespace ibuki
