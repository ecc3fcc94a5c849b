// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How far mounts of one material will scatter: what the user states, else what finished studies on the bench
// showed (pooled), else what is usual for the classes.

#include "core/distributions/interval.h"
#include "core/domain/document.h"
#include "core/domain/plan.h"

namespace ibuki {

enum class ScatterSource { stated, finishedStudies, typical };

struct Scatter {
    double sd = 0; ///< between mount means, in the unit of the question's response
    ScatterSource source = ScatterSource::typical;
    std::optional<double> df;       ///< only of finished studies
    std::optional<Interval> ci;     ///< 95 %: s√(ν/χ²)
    std::optional<double> cautious; ///< upper 80 % limit s√(ν/χ²_{0.2}) (Browne 1995)
    int studies = 0;
};

/// plan may be nullptr. Studies count when they are closed, on the same bench, compared by the same kind of
/// response, and had mounts repeated.
Scatter expectedScatter(const Document& document, const Question& question, const Plan* plan);

/// Pooled scatter of the question's own mounts so far, without telling any difference; nothing before two
/// mounts of one level.
std::optional<Scatter> ownScatter(const Document& document, const Question& question);

/// Usual standard deviation between mounts of a class, K; no measurement of a product.
double typicalMountSdK(MaterialClass kind);

/// Mounts of each group after which the half width of a pair's interval is at most `halfWidth`, judged from
/// the pooled scatter alone: max(n₁, ⌈2 (t_{1−α/2,ν} s/H)²⌉) (Stein 1945).
int steinMounts(double sd, double df, double halfWidth, double confidence, int atLeast);

/// Kelvin that one unit of the question's response stands for: 1; judged by K/W, the watts of the study's
/// load (150 where none is stated).
double kelvinPerUnit(const Document& document, const Question& question);

} // namespace ibuki
