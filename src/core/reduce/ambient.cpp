// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/ambient.h"

#include "core/distributions/summary.h"
#include "core/series/autocorrelation.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <limits>

namespace ibuki {
namespace {

void interpolateMissing(std::vector<double>& x, std::span<const double> timeS) {
    std::optional<std::size_t> before;
    for (std::size_t i = 0; i < x.size(); ++i) {
        if (!std::isfinite(x[i])) continue;
        const std::size_t gapBegin = before ? *before + 1 : 0;
        for (std::size_t k = gapBegin; k < i; ++k) {
            if (!before) {
                x[k] = x[i];
                continue;
            }
            const double share = (timeS[k] - timeS[*before]) / (timeS[i] - timeS[*before]);
            x[k] = x[*before] + share * (x[i] - x[*before]);
        }
        before = i;
    }
    if (before) std::fill(x.begin() + static_cast<std::ptrdiff_t>(*before) + 1, x.end(), x[*before]);
}

/// A first-order probe reads late: T = T_read + τ dT_read/dt, the slope over ± max(τ, 15 s) so that steps of
/// the reading do not become spikes (docs/methods.md, "Room").
void takeOutLag(std::vector<double>& room, std::span<const double> timeS, double lagS) {
    if (!(lagS > 0)) return;
    const std::vector<double> read = room;
    const double half = std::max(lagS, 15.0);
    std::size_t begin = 0;
    std::size_t end = 0;
    double sumT = 0;
    double sumX = 0;
    double sumTT = 0;
    double sumTX = 0;
    const auto take = [&](std::size_t i, double sign) {
        const double t = timeS[i] - timeS.front();
        sumT += sign * t;
        sumX += sign * read[i];
        sumTT += sign * t * t;
        sumTX += sign * t * read[i];
    };
    for (std::size_t i = 0; i < read.size(); ++i) {
        while (end < read.size() && timeS[end] <= timeS[i] + half) take(end++, 1);
        while (timeS[begin] < timeS[i] - half) take(begin++, -1);
        const auto n = static_cast<double>(end - begin);
        const double spread = sumTT - sumT * sumT / n;
        if (n >= 3 && spread > 1e-9) room[i] = read[i] + lagS * (sumTX - sumT * sumX / n) / spread;
    }
}

} // namespace

AmbientSeries ambientSeries(const Trace& trace, const ReduceSettings& settings) {
    if (settings.ambient)
        return {AmbientSource::entered, std::vector<double>(trace.samples(), settings.ambient->temperatureC)};
    const auto probes = channelsOf(trace, Role::ambient);
    if (probes.empty()) return {};
    std::vector<double> room(trace.samples(), std::numeric_limits<double>::quiet_NaN());
    bool any = false;
    for (std::size_t i = 0; i < room.size(); ++i) {
        double sum = 0;
        int count = 0;
        for (const Channel* probe : probes) {
            if (!std::isfinite(probe->values[i])) continue;
            sum += probe->values[i];
            ++count;
        }
        if (count == 0) continue;
        room[i] = sum / count;
        any = true;
    }
    if (!any) return {};
    interpolateMissing(room, trace.timeS);
    if (settings.probeLagS) takeOutLag(room, trace.timeS, *settings.probeLagS);
    return {trace.probe && trace.probe->isTaken() ? AmbientSource::probe : AmbientSource::column,
            std::move(room)};
}

AmbientSummary summarise(const AmbientSeries& ambient, Segment window) {
    AmbientSummary summary;
    summary.source = ambient.source;
    if (ambient.valuesC.empty() || window.size() == 0) return summary;
    const auto part = std::span(ambient.valuesC).subspan(window.begin, window.size());
    summary.meanC = mean(part);
    const auto [low, high] = std::minmax_element(part.begin(), part.end());
    summary.minC = *low;
    summary.maxC = *high;
    return summary;
}

std::vector<double> blockMeans(std::span<const double> timeS, std::span<const double> x, double lengthS) {
    std::vector<double> means;
    std::size_t begin = 0;
    while (begin < x.size()) {
        std::size_t end = begin;
        std::vector<double> part;
        while (end < x.size() && timeS[end] - timeS[begin] < lengthS) {
            if (std::isfinite(x[end])) part.push_back(x[end]);
            ++end;
        }
        const bool whole = end < x.size() || timeS[end - 1] - timeS[begin] >= 0.5 * lengthS;
        if (whole && !part.empty()) means.push_back(mean(part));
        begin = end;
    }
    return means;
}

void flagAmbientDrift(std::vector<Flag>& flags, const Trace& trace, const AmbientSeries& ambient,
                      Segment window, const ReduceSettings& settings) {
    if (ambient.source != AmbientSource::column && ambient.source != AmbientSource::probe) return;
    const auto time = std::span(trace.timeS).subspan(window.begin, window.size());
    const auto room = std::span(ambient.valuesC).subspan(window.begin, window.size());
    const auto minutes = blockMeans(time, room, 60);
    if (!minutes.empty()) {
        const auto [low, high] = std::minmax_element(minutes.begin(), minutes.end());
        if (*high - *low > settings.ambientRangeK) {
            addFlag(flags, makeFlag(Severity::warn, "ambient-drift", {{"moved", *high - *low}}));
            return;
        }
    }
    if (const auto fit = fitSlope(time, room)) {
        const Interval perHour{fit->interval(0.9).lo * 3600, fit->interval(0.9).hi * 3600};
        if (perHour.lo > settings.ambientSlopeKPerH || perHour.hi < -settings.ambientSlopeKPerH)
            addFlag(flags, makeFlag(Severity::warn, "ambient-drift.slope", {{"slope", fit->slope * 3600}}));
    }
}

} // namespace ibuki
