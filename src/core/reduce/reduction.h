// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a log is reduced to. Plain values; stored beside the run.

#include "core/base/flag.h"
#include "core/distributions/interval.h"
#include "core/reduce/settings.h"
#include "core/trace/channel_info.h"
#include "core/trace/role.h"

#include <map>
#include <string>
#include <vector>

namespace ibuki {

struct Phase {
    std::string name; ///< idle, load, cooldown
    double startS = 0;
    double endS = 0;
    bool operator==(const Phase&) const = default;
};

struct MetricValue {
    std::optional<double> temperatureC; ///< nothing: only the difference was stated
    std::optional<double> deltaK;
    std::optional<double> seK; ///< of deltaK, else of temperatureC; this run's, not the material's
    bool operator==(const MetricValue&) const = default;
};
using MetricTable = std::map<Metric, MetricValue>;

/// Steadiness of the chosen metric's ΔT (of the temperature when there is no ambient).
struct Steady {
    std::optional<bool> reached; ///< nothing when the data cannot tell
    std::optional<double> slopeKPerH;
    std::optional<Interval> slopeIntervalKPerH; ///< 90 %, autocorrelation-adjusted
    std::optional<double> asymptoteK;
    std::optional<Interval> asymptoteIntervalK; ///< 95 %, profile
    std::optional<double> remainingK;
    std::optional<double> tauS; ///< time constant of the tail, where it could be told
    bool operator==(const Steady&) const = default;
};

enum class AmbientSource { none, column, probe, entered };

struct AmbientSummary {
    AmbientSource source = AmbientSource::none;
    std::optional<double> meanC;
    std::optional<double> minC;
    std::optional<double> maxC;
    std::optional<double> probeShiftS;
    std::optional<double> probeShiftUncertaintyS; ///< standard
    bool operator==(const AmbientSummary&) const = default;
};

struct LimitSummary {
    bool censored = false;
    bool inferred = false; ///< limitC was told from the data
    std::optional<double> fraction;
    std::optional<double> limitC;
    std::optional<double> sustainedPowerW;
    std::optional<double> sustainedClockMHz;
    bool operator==(const LimitSummary&) const = default;
};

/// One load of a log.
struct LoadReduction {
    int index = 0;
    Metric metric = Metric::hottest; ///< the one that steady and the resistance refer to
    std::optional<double> nominalW;
    std::vector<Phase> phases;
    std::optional<Phase> window; ///< named "window"
    Steady steady;
    AmbientSummary ambient;
    MetricTable metrics;
    std::optional<double> powerW;
    std::optional<double> clockMHz; ///< over the window, mean of the clocks of the metric's chip
    std::optional<double> fan;      ///< over the window, in its channel's unit
    std::optional<double> rthKPerW;
    std::optional<double> deltaAtNominalK;
    LimitSummary limit;
    std::vector<Flag> flags;
    std::optional<Phase> foundLoad;   ///< what was found, where the border was moved by hand
    std::optional<Phase> foundWindow; ///< the same of the window
    bool extrapolated =
        false; ///< counts with steady.asymptoteK and its interval in place of the window's mean
    bool operator==(const LoadReduction&) const = default;
};

/// The loads of a log as another metric judges them: it chooses the windows, says what is steady, and what is
/// doubtful about it.
struct MetricReduction {
    std::vector<LoadReduction> loads;
    std::optional<std::size_t> longest;
    std::vector<Flag> flags; ///< of the log and of its longest load
    bool operator==(const MetricReduction&) const = default;
};

/// Its stretch under load; nothing where none was found.
std::optional<Phase> loadPhase(const LoadReduction& load);

/// A log in few points, between which it goes straight (core/reduce/thermal_course.h).
struct ThermalCourse {
    std::vector<double> atS;
    std::vector<double> chipC;  ///< hottest core, else what stands for it
    std::vector<double> powerW; ///< of the chip; empty where it was not logged
    bool operator==(const ThermalCourse&) const = default;
};

struct Reduction {
    Metric metric = Metric::hottest; ///< the one that steadiness and resistance refer to
    std::size_t samples = 0;
    double durationS = 0;
    double intervalS = 0;
    std::vector<ChannelInfo> channels;
    std::vector<LoadReduction> loads;   ///< in time order
    std::optional<std::size_t> longest; ///< index into loads; nothing when there is no load
    std::optional<MetricTable> idle;    ///< before the longest load
    std::vector<Flag> flags;            ///< of the log and of its longest load
    std::map<Metric, MetricReduction>
        others; ///< the same by every other metric of the log; stored reductions only

    ThermalCourse course; ///< of the whole log; stored reductions only

    std::optional<double> hottestC; ///< of all metrics over the windows of its loads; follows from them

    const LoadReduction* main() const { return longest ? &loads[*longest] : nullptr; }
    bool operator==(const Reduction&) const = default;
};

std::optional<double> hottestOf(const std::vector<LoadReduction>& loads);

/// A reduction seen by one metric. Refers to the reduction.
struct JudgedBy {
    const std::vector<LoadReduction>* loads = nullptr;
    std::optional<std::size_t> longest;
    const std::vector<Flag>* flags = nullptr;

    /// index: of a load; −1 the longest. nullptr when there is none.
    const LoadReduction* load(int index) const;
};
/// By its own metric where the reduction does not have that one.
JudgedBy judgedBy(const Reduction& reduction, Metric metric);

/// The same as a reduction of that metric alone, as reduce() makes it.
Reduction onlyBy(const Reduction& reduction, Metric metric);

/// ΔT that a load counts with by the metric, K: the window's mean or, of a run stopped early, where its tail
/// leads. Of a metric that the load is not judged by, the mean over its window all the same.
std::optional<double> countedDeltaK(const LoadReduction& load, Metric metric);
/// The same for each watt, the one place where K/W comes from; nothing without a power.
std::optional<double> countedRthKPerW(const LoadReduction& load, Metric metric);

} // namespace ibuki
