// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/phases.h"

#include "core/distributions/summary.h"
#include "core/reduce/settling.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>
#include <queue>

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

/// Low and high level of a series, when they are far enough apart.
struct Levels {
    double low = 0;
    double high = 0;
};

std::optional<Levels> levels(std::span<const double> x, double minStep, double minShare,
                             double share = 0.05) {
    const Levels found{quantile(x, share), quantile(x, 1 - share)};
    if (found.high - found.low < std::max(minStep, minShare * found.high)) return std::nullopt;
    return found;
}

/// As `levels`, and an idle part of less than a twentieth of the log, when the rest is under load.
std::optional<Levels> powerLevels(std::span<const double> timeS, std::span<const double> x,
                                  const PhaseSettings& settings) {
    if (const auto found = levels(x, settings.minPowerStepW, 0.2)) return found;
    const double span = timeS.back() - timeS.front();
    const double share = std::max(2.0 / static_cast<double>(x.size()), 0.5 * settings.holdS / span);
    if (!(share < 0.05)) return std::nullopt;
    const auto found = levels(x, settings.minPowerStepW, 0.2, share);
    if (!found || median(x) < 0.5 * (found->low + found->high)) return std::nullopt;
    return found;
}

constexpr double backS = 1'200; ///< how late a crossing of half the rise may be
constexpr double aheadS = 120;

Segment around(std::span<const double> timeS, std::size_t edge, Segment within) {
    const double at = timeS[std::min(edge, timeS.size() - 1)];
    const auto begin = timeS.begin() + static_cast<std::ptrdiff_t>(within.begin);
    const auto end = timeS.begin() + static_cast<std::ptrdiff_t>(within.end);
    return {static_cast<std::size_t>(std::lower_bound(begin, end, at - backS) - timeS.begin()),
            static_cast<std::size_t>(std::upper_bound(begin, end, at + aheadS) - timeS.begin())};
}

constexpr std::size_t leastSamples = 8;
constexpr double ownShare = 0.25; ///< of the whole rise: a stretch that moves by more is no level

/// Whether a split parts a level from a change: `direction` +1 of a rise, −1 of a fall.
bool beginsWithLevel(std::span<const double> timeS, const SettlingSplit& split, Segment part,
                     double direction, double holdS) {
    const double change = split.after.last - split.before.first;
    return timeS[split.at] - timeS[part.begin] >= holdS && 2 * split.rss() < split.whole.rss
           && direction * split.before.rise() < ownShare * direction * change;
}

/// Where a load begins that was seen at `edge`, `within` what lies between the load before and its own end:
/// at the log's first sample when all up to there is one heating.
std::size_t heatingEdge(std::span<const double> timeS, std::span<const double> x, std::size_t edge,
                        Segment within, double holdS) {
    Segment part = around(timeS, edge, within);
    if (part.size() < leastSamples) return edge;
    for (;;) {
        const SettlingSplit split = splitSettling(timeS, x, part);
        if (beginsWithLevel(timeS, split, part, +1, holdS)) return split.at;
        if (part.begin == within.begin) return part.begin == 0 ? 0 : split.at;
        part.begin = within.begin; // a slow loop: its level lies further back, if there is one
    }
}

/// Where a load ends; where the part begins when all of it is one cooling.
std::size_t coolingEdge(std::span<const double> timeS, std::span<const double> x, Segment part,
                        double holdS) {
    const SettlingSplit split = splitSettling(timeS, x, part);
    return part.begin > 0 || beginsWithLevel(timeS, split, part, -1, holdS) ? split.at : part.begin;
}

/// A log that stops soon after its load: the end that never fell to half.
std::size_t lateEdge(std::span<const double> timeS, std::span<const double> x, Segment load, double rangeK) {
    const Segment part = around(timeS, load.end, load);
    if (part.size() < leastSamples) return load.end;
    const SettlingSplit split = splitSettling(timeS, x, part);
    const bool falls = split.before.last - split.after.last > 0.1 * rangeK && split.after.rise() < 0;
    return falls && 4 * split.rss() < split.whole.rss ? split.at : load.end;
}

void placeByTemperature(std::vector<Segment>& loads, std::span<const double> timeS, std::span<const double> x,
                        const Levels& range, double holdS) {
    for (std::size_t i = 0; i < loads.size(); ++i) {
        Segment& load = loads[i];
        const Segment before{i == 0 ? 0 : loads[i - 1].end, load.end};
        if (load.begin > 0) load.begin = heatingEdge(timeS, x, load.begin, before, holdS);
        const Segment after{load.begin, i + 1 < loads.size() ? loads[i + 1].begin : x.size()};
        if (load.end == x.size())
            load.end = lateEdge(timeS, x, load, range.high - range.low);
        else if (const Segment part = around(timeS, load.end, after); part.size() >= leastSamples)
            load.end = coolingEdge(timeS, x, part, holdS);
    }
    std::erase_if(loads, [&](const Segment& load) {
        return load.size() < 2 || timeS[load.end - 1] - timeS[load.begin] < holdS;
    });
}

std::vector<Segment> loadsByPower(std::span<const double> timeS, std::span<const double> raw,
                                  std::span<const double> smooth, const Levels& range,
                                  const PhaseSettings& settings) {
    auto loads = hysteresis(smooth, range.low, range.high);
    bridgeAndDrop(loads, timeS, settings.holdS);
    for (std::size_t i = 0; i < loads.size(); ++i) {
        const std::size_t first = i == 0 ? 0 : loads[i - 1].end;
        const std::size_t last = i + 1 < loads.size() ? loads[i + 1].begin : raw.size();
        loads[i].begin = refineEdge(timeS, raw, loads[i].begin, settings.refineS, first, loads[i].end);
        loads[i].end = refineEdge(timeS, raw, loads[i].end, settings.refineS, loads[i].begin + 1, last);
    }
    return loads;
}

std::vector<Segment> loadsByTemperature(const LoadSignals& seen, const PhaseSettings& settings) {
    if (seen.temperature.size() < 5) return {};
    const std::vector<double> smooth = medianOfFive(filled(seen.temperature));
    const auto range = levels(smooth, settings.minTemperatureStepK, 0);
    if (!range) return {};
    auto loads = hysteresis(smooth, range->low, range->high);
    bridgeAndDrop(loads, seen.timeS, settings.holdS);
    placeByTemperature(loads, seen.timeS, smooth, *range, settings.holdS);
    return loads;
}

std::optional<double> typical(std::span<const double> x) {
    std::vector<double> finite;
    for (double v : x)
        if (std::isfinite(v)) finite.push_back(v);
    if (finite.empty()) return std::nullopt;
    return median(finite);
}

constexpr double loadedShare = 50, idleShare = 20; ///< % of utilisation
constexpr double surelyLoadedW = 60;               ///< no idle device takes as much
constexpr double surelyIdleW = 25;                 ///< however warm: its fan may stand
constexpr double loadedRiseK = 20;
constexpr double typicalAmbientC = 22; ///< when none was read

} // namespace

namespace {

/// Σ|x − median| of values that come one after the other: the lower half in one heap, the upper in another.
class RunningL1 {
public:
    void add(double value) {
        if (low_.empty() || value <= low_.top()) {
            low_.push(value);
            lowSum_ += value;
        } else {
            high_.push(value);
            highSum_ += value;
        }
        if (low_.size() > high_.size() + 1) move(low_, lowSum_, high_, highSum_);
        if (high_.size() > low_.size()) move(high_, highSum_, low_, lowSum_);
    }
    double cost() const { // the same for every value between both halves
        const double middle = low_.top();
        return middle * static_cast<double>(low_.size()) - lowSum_ + highSum_
               - middle * static_cast<double>(high_.size());
    }

private:
    template <class From, class To> static void move(From& from, double& fromSum, To& to, double& toSum) {
        const double value = from.top();
        from.pop();
        fromSum -= value;
        to.push(value);
        toSum += value;
    }
    std::priority_queue<double> low_;
    std::priority_queue<double, std::vector<double>, std::greater<>> high_;
    double lowSum_ = 0, highSum_ = 0;
};

/// costs[k]: of the first k + 1 values. origin: taken off, so that sums keep their digits.
template <class Iterator> std::vector<double> l1Costs(Iterator begin, Iterator end, double origin) {
    RunningL1 running;
    std::vector<double> costs;
    for (; begin != end; ++begin) {
        running.add(*begin - origin);
        costs.push_back(running.cost());
    }
    return costs;
}

} // namespace

std::size_t l1Split(std::span<const double> x) {
    const std::size_t n = x.size();
    if (n < 2) return 0;
    const std::vector<double> before = l1Costs(x.begin(), x.end(), x[0]);
    const std::vector<double> after = l1Costs(x.rbegin(), x.rend(), x[0]);
    const double rounding = 1e-13 * static_cast<double>(n) * rangeOf(x); // the first of what is alike
    std::size_t best = 1;
    double lowest = std::numeric_limits<double>::infinity();
    for (std::size_t k = 1; k < n; ++k) {
        const double total = before[k - 1] + after[n - k - 1];
        if (total < lowest - rounding) {
            lowest = total;
            best = k;
        }
    }
    return best;
}

bool isLoaded(const LoadSignals& seen) {
    const auto utilisation = typical(seen.utilisation);
    if (utilisation && (*utilisation >= loadedShare || *utilisation <= idleShare))
        return *utilisation >= loadedShare;
    const auto power = seen.isWallPower ? std::nullopt : typical(seen.power);
    if (power && seen.nominalW) return *power >= 0.5 * *seen.nominalW;
    if (power && (*power >= surelyLoadedW || *power < surelyIdleW)) return *power >= surelyLoadedW;
    const auto temperature = typical(seen.temperature);
    return temperature && *temperature - typical(seen.ambientC).value_or(typicalAmbientC) >= loadedRiseK;
}

std::vector<Segment> findLoads(const LoadSignals& seen, const PhaseSettings& settings) {
    const std::size_t samples = seen.timeS.size();
    if (samples < 5) return {};
    std::vector<Segment> all{{0, samples}};
    bool isFlat = false; // power that was read and stands still; not a channel that is stuck
    if (!seen.power.empty()) {
        const std::vector<double> raw = filled(seen.power);
        const std::vector<double> smooth = medianOfFive(raw);
        if (const auto range = powerLevels(seen.timeS, smooth, settings))
            return loadsByPower(seen.timeS, raw, smooth, *range, settings);
        const auto [low, high] = std::minmax_element(smooth.begin(), smooth.end());
        isFlat = *high > *low;
    }
    if (isFlat && isLoaded(seen)) return all;
    auto loads = loadsByTemperature(seen, settings);
    if (loads.empty() && isLoaded(seen)) return all;
    return loads;
}

} // namespace ibuki
