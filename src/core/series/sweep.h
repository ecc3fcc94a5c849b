// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Groups over a setting that is varied: a line a mount over power, compared on the mounts' coefficients
// (Swamy 1970; Matthews et al. 1990), with the setting at which two groups meet (Fieller 1954); and a
// response to torque or amount with the smallest setting that is good enough (docs/methods.md, "Sweeps").

#include "core/base/flag.h"
#include "core/comparison/compare.h"
#include "core/models/anova.h"

namespace ibuki {

struct SweepPoint {
    Named group;
    Named mount; ///< id 0: mounts are not known, every point stands for itself
    double x = 0;
    double y = 0;
};

struct SweepOptions {
    std::optional<double> at; ///< where gaps are told; nothing: the middle of what was swept
    double margin = 1.0;      ///< smallest difference that matters, > 0
    double confidence = 0.95;
    bool mountsKnown = true;
};

struct SweepLine {
    Named group;
    int mounts = 0;
    double intercept = 0; ///< mean over mounts
    double slope = 0;
    std::optional<Interval> slopeInterval;
};

struct SweepPair {
    std::size_t a = 0; ///< index into lines
    std::size_t b = 0;
    double gap = 0; ///< a − b at the setting asked
    std::optional<Interval> gapInterval;
    std::optional<double> crossover;           ///< nothing outside what was swept
    std::optional<Interval> crossoverInterval; ///< Fieller; nothing where it is unbounded
};

struct Lines {
    std::vector<SweepLine> lines;
    std::optional<FTest> equalSlopes;
    std::vector<SweepPair> pairs;
    double at = 0;
    Interval swept;
    double df = 0; ///< of the intervals
    std::vector<Flag> flags;
};

/// Throws InputError: no group, or a group whose settings do not vary.
Lines sweepLines(const std::vector<SweepPoint>& points, const SweepOptions& options = {});

enum class ResponseModel { constant, hinge, exponential };
std::string_view responseModelName(ResponseModel model);

struct SweepResponse {
    Named group;
    ResponseModel model = ResponseModel::constant;
    double plateau = 0;
    std::optional<double> smallest; ///< setting from which on it is within the margin of the plateau
    std::optional<Interval> smallestInterval; ///< profile
    std::optional<double> recommended;        ///< upper one-sided limit of it
    double knee = 0;                          ///< hinge: x₀; exponential: τ
    double height = 0;                        ///< hinge: slope b; exponential: amplitude A
    double at(double x) const;
};

struct Responses {
    std::vector<SweepResponse> responses;
    std::vector<Flag> flags;
};

/// One curve a group on mount means at their settings: `model` (hinge for torque, exponential for amount)
/// where it describes them better than a constant by AICc. Throws InputError: no group, a margin that is not
/// above 0.
Responses sweepResponses(const std::vector<SweepPoint>& points, ResponseModel model,
                         const SweepOptions& options = {});

} // namespace ibuki
