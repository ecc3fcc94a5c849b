// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a log is reduced by. Stored with every result, so that it can be made again.

#include "core/trace/metric_kind.h"

#include <optional>

namespace ibuki {

/// How loads are found, core/reduce/phases.h.
struct PhaseSettings {
    double minPowerStepW = 10;      ///< hi − lo below max(this, 20 % of hi): power tells nothing
    double minTemperatureStepK = 5; ///< the same for the fallback on temperature
    double holdS = 10;              ///< shorter loads and shorter pauses are not phases
    double refineS = 30;            ///< how far an edge may be moved by the L1 fit
    bool operator==(const PhaseSettings&) const = default;
};

/// A room temperature read by hand.
struct EnteredAmbient {
    double temperatureC = 0;
    double uncertaintyK = 0; ///< standard uncertainty
    bool operator==(const EnteredAmbient&) const = default;
};

/// Borders set by hand, in seconds of the trace's axis; what is empty stays as found.
struct HandMarks {
    int load = -1; ///< index of the load they belong to; −1 the longest
    std::optional<double> loadStartS;
    std::optional<double> loadEndS;
    std::optional<double> windowStartS;
    std::optional<double> windowEndS;

    bool movesLoad() const { return loadStartS || loadEndS; }
    bool movesWindow() const { return windowStartS || windowEndS; }
    bool operator==(const HandMarks&) const = default;
};

/// Every threshold is a default that the user can change.
struct ReduceSettings {
    Metric metric = Metric::hottest;
    std::optional<double> limitC;
    std::optional<double> nominalPowerW;
    std::optional<EnteredAmbient> ambient;
    std::optional<double> probeLagS; ///< time constant of the room probe, taken out of its readings
    HandMarks hand;
    bool useAsymptote = false; ///< a run stopped early counts with where its tail leads
    PhaseSettings phases;
    double windowMinS = 120;
    double windowMaxS = 1200;
    double guardS = 5;                      ///< the window ends this long before the load does
    double slopeLimitKPerH = 6;             ///< the whole 90 % slope interval must lie within ± this
    double unidentifiedSlopeLimitKPerH = 3; ///< the same when the tail tells no time constant
    double remainingLimitK = 0.2;           ///< upper 95 % limit of |remaining rise|
    double windowBiasK = 0.05;              ///< |slope| × length / 2 that a window may carry
    double ambientSlopeKPerH = 1;
    double ambientRangeK = 1;
    double powerDriftShare = 0.03;
    double fanRangeShare = 0.05;
    double limitShare = 0.05; ///< samples at the limit that make a run limit-bound
    double cutShare = 0.98;   ///< power and clock below this share of their start: cut
    bool operator==(const ReduceSettings&) const = default;
};

} // namespace ibuki
