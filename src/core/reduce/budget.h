// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The uncertainty budget of a steady difference over the room by JCGM 100:2008, line by line, with what
// cancels between mounts of the same bench (docs/methods.md, "Uncertainty budget").

#include "core/base/message.h"

#include <optional>
#include <string>
#include <vector>

namespace ibuki {

/// What is known; lines without their figure are left out. Limits ± a are taken as rectangular (4.3.7).
struct BudgetInput {
    double deltaK = 0;
    std::optional<double> mountSdK; ///< pooled scatter between mounts
    int mounts = 0;                 ///< that the mean is of
    double mountDf = 0;
    std::optional<double> runSeK;          ///< standard error of the window's mean, resolution aside
    std::optional<double> chipAccuracyK;   ///< ± limits
    std::optional<double> chipResolutionK; ///< one step
    std::optional<double> ambientAccuracyK;
    std::optional<double> ambientResolutionK;
    std::optional<double> ambientGradientK;
    std::optional<double> ambientEnteredU; ///< standard, of a room read by hand
    std::optional<double> probeClockU;     ///< standard, s: of the shift between the clocks
    double ambientSlopeKPerS = 0;          ///< what a clock's error is multiplied by
    std::optional<double> powerShare;      ///< ± share of the power reading; only where power enters
    std::optional<double> extrapolationU;  ///< standard, of a tail's asymptote in place of the mean
};

/// Between two mounts of one bench.
enum class Cancels { no, partly, averagesOut, yes };

struct BudgetLine {
    std::string code; ///< "chip-offset": the source; sourceOf and whyOf have its sentences
    Message stated;   ///< "± 1 K", "0.5 K step"
    double u = 0;     ///< standard uncertainty, in its own unit
    double sensitivity = 1;
    double contributionK = 0; ///< |sensitivity| u
    double share = 0;         ///< of the combined variance
    std::optional<double> df; ///< nothing: infinitely many
    Cancels cancels = Cancels::no;
};

/// What it comes from, and why it cancels or does not.
Message sourceOf(const BudgetLine& line);
Message whyOf(const BudgetLine& line);

struct Budget {
    std::vector<BudgetLine> lines;
    double combinedK = 0;
    std::optional<double> df; ///< effective, Welch–Satterthwaite (G.4); nothing: infinitely many
    double coverage = 0;      ///< Student factor for 95 %, df cut down to a whole number
    double expandedK = 0;
    double staysK = 0; ///< what is left of it in a difference of two mounts of one bench, each
};

/// Fills in contributions, shares, combined and effective figures of lines that do not depend on each other.
Budget combined(std::vector<BudgetLine> lines);

Budget uncertaintyBudget(const BudgetInput& input);

} // namespace ibuki
