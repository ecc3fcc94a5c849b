// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/phases.h"

#include "core/stats/summary.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace ibuki {
namespace {

/// NaN cells take the last value, so that a missing reading is not an edge.
std::vector<double> filled(std::span<const double> x) {
    std::vector<double> result(x.begin(), x.end());
    double last = 0;
    for (double v : result)
        if (std::isfinite(v)) {
            last = v;
            break;
        }
    for (double& v : result) {
        if (std::isfinite(v))
            last = v;
        else
            v = last;
    }
    return result;
}

std::vector<double> medianOfFive(std::span<const double> x) {
    std::vector<double> result(x.begin(), x.end());
    for (std::size_t i = 2; i + 2 < x.size(); ++i) result[i] = median(x.subspan(i - 2, 5));
    return result;
}

std::vector<Segment> hysteresis(std::span<const double> x, double lo, double hi) {
    const double on = lo + 0.75 * (hi - lo);
    const double off = lo + 0.25 * (hi - lo);
    const double half = 0.5 * (lo + hi);
    std::vector<Segment> loads;
    bool loaded = x.front() > half;
    std::size_t begin = 0;
    for (std::size_t i = 0; i < x.size(); ++i) {
        if (!loaded && x[i] >= on) {
            begin = i;
            while (begin > 0 && x[begin - 1] > half) --begin;
            loaded = true;
        } else if (loaded && x[i] <= off) {
            std::size_t end = i;
            while (end > begin && x[end - 1] <= half) --end;
            loads.push_back({begin, end});
            loaded = false;
        }
    }
    if (loaded) loads.push_back({begin, x.size()});
    return loads;
}

void bridgeAndDrop(std::vector<Segment>& loads, std::span<const double> timeS, double holdS) {
    std::vector<Segment> joined;
    for (const Segment& load : loads) {
        if (load.size() == 0) continue;
        if (!joined.empty() && timeS[load.begin] - timeS[joined.back().end - 1] < holdS)
            joined.back().end = load.end;
        else
            joined.push_back(load);
    }
    std::erase_if(joined,
                  [&](const Segment& load) { return timeS[load.end - 1] - timeS[load.begin] < holdS; });
    loads = std::move(joined);
}

std::size_t refineEdge(std::span<const double> timeS, std::span<const double> x, std::size_t edge,
                       double reachS, std::size_t first, std::size_t last) {
    if (edge == 0 || edge >= x.size()) return edge;
    std::size_t begin = edge;
    while (begin > first && timeS[edge] - timeS[begin - 1] <= reachS) --begin;
    std::size_t end = edge;
    while (end < last && timeS[end] - timeS[edge] <= reachS) ++end;
    if (end - begin < 4) return edge;
    return begin + l1Split(x.subspan(begin, end - begin));
}

std::optional<std::pair<double, double>> levels(std::span<const double> x, double minStep, double minShare) {
    const double lo = quantile(x, 0.05);
    const double hi = quantile(x, 0.95);
    if (hi - lo < std::max(minStep, minShare * hi)) return std::nullopt;
    return std::pair{lo, hi};
}

} // namespace

std::size_t l1Split(std::span<const double> x) {
    if (x.size() < 2) return 0;
    const auto cost = [](std::span<const double> part) {
        const double middle = median(part);
        double sum = 0;
        for (double v : part) sum += std::abs(v - middle);
        return sum;
    };
    std::size_t best = 1;
    double lowest = std::numeric_limits<double>::infinity();
    for (std::size_t k = 1; k < x.size(); ++k) {
        const double total = cost(x.first(k)) + cost(x.subspan(k));
        if (total < lowest) {
            lowest = total;
            best = k;
        }
    }
    return best;
}

std::vector<Segment> findLoads(std::span<const double> timeS, std::span<const double> power,
                               std::span<const double> temperature, const PhaseSettings& settings) {
    std::vector<double> raw;
    std::optional<std::pair<double, double>> range;
    bool byPower = false;
    if (power.size() >= 5) {
        raw = filled(power);
        range = levels(medianOfFive(raw), settings.minPowerStepW, 0.2);
        byPower = range.has_value();
    }
    if (!range && temperature.size() >= 5) {
        raw = filled(temperature);
        range = levels(medianOfFive(raw), settings.minTemperatureStepK, 0.0);
    }
    if (!range) return {};
    const auto smooth = medianOfFive(raw);
    auto loads = hysteresis(smooth, range->first, range->second);
    bridgeAndDrop(loads, timeS, settings.holdS);
    for (std::size_t i = 0; i < loads.size() && byPower; ++i) {
        const std::size_t first = i == 0 ? 0 : loads[i - 1].end;
        const std::size_t last = i + 1 < loads.size() ? loads[i + 1].begin : raw.size();
        loads[i].begin = refineEdge(timeS, raw, loads[i].begin, settings.refineS, first, loads[i].end);
        loads[i].end = refineEdge(timeS, raw, loads[i].end, settings.refineS, loads[i].begin + 1, last);
    }
    return loads;
}

} // namespace ibuki
