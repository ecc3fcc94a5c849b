// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// When a change reaches a threshold, and when what is left of it falls below one (docs/methods.md, "Drift",
// G.2). Intervals by profile: t is where RSS with the change held at t is no more than what F allows. Models
// within 2 of the best AICc count together, by their weights (model-averaged tail areas; Turek & Fletcher
// 2012): where one model is clearly best, it is that model's own interval.

#include "core/series/ageing_course.h"

namespace ibuki {

struct AgeingTime {
    std::optional<double> at;         ///< of the chosen model; nothing: it does not get there
    std::optional<Interval> interval; ///< nothing: unbounded above, or not to be told
    std::optional<double> notBefore;  ///< its lower end, also where there is no upper one
    /// Of each model that is credible: where it gets there (nothing: never). More than one tells the spread
    /// of models.
    struct ByModel {
        AgeingModel model = AgeingModel::constant;
        std::optional<double> at;
        double weight = 0; ///< among the credible ones
    };
    std::vector<ByModel> models;
    bool beyondReadings = false; ///< `at` lies behind the last reading
    bool farBeyond = false;      ///< behind twice the span: not without the spread of models
};

constexpr double farthestSpans = 10; ///< times the span, behind which nothing is told

/// When the change since the first time is ±threshold (in the direction in which it goes).
/// threshold > 0.
AgeingTime timeToThreshold(const AgeingSample& sample, const AgeingCourse& course, double threshold,
                           double confidence = 0.95);

/// When what is left of the change is less than `within` (> 0): of a course that ends somewhere. A change
/// whose whole size is below it has settled at the first time. Nothing where the course has no end.
std::optional<AgeingTime> timeToSettle(const AgeingSample& sample, const AgeingCourse& course, double within,
                                       double confidence = 0.95);

/// The time to a threshold of the chosen model when mounts are drawn anew: percentiles of `draws` fits.
/// Nothing below 5 mounts, or where more than a tenth of the draws never get there.
std::optional<Interval> thresholdOverMounts(const AgeingSample& sample, const AgeingCourse& course,
                                            double threshold, double confidence = 0.95, int draws = 499);

} // namespace ibuki
