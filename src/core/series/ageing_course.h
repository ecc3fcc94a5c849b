// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How a group of mounts changes: models of the change with a random intercept a mount, chosen by AICc;
// whether there is a change at all; how large it was (docs/methods.md, "Drift", G.1 to G.4).

#include "core/base/flag.h"
#include "core/distributions/interval.h"
#include "core/series/ageing_model.h"
#include "core/series/ageing_sample.h"

#include <optional>
#include <vector>

namespace ibuki {

struct AgeingOptions {
    std::vector<AgeingModel> models{ageingModels.begin(), ageingModels.end()};
    double alpha = 0.05; ///< a change is told only where none is refuted at this level
};

/// Coefficients by restricted maximum likelihood. Not fitted: `aicc` is nothing.
struct AgeingFit {
    AgeingModel model = AgeingModel::constant;
    std::optional<double> aicc; ///< n ln(RSS/n) + Σ ln(1 + n_j θ) + 2K + 2K(K+1)/(n−K−1), K with the residual
                                ///< variance, without that of the mounts, which all models have
    double weight = 0; ///< Akaike's, among those fitted
    double start = 0;  ///< at t = 0, mean of mounts
    double scale = 0;  ///< of the shape
    std::optional<double> tau;
    bool tauAtBound = false; ///< the readings do not tell it
    double residualSd = 0;
    double mountSd = 0; ///< between mounts' intercepts
    double df = 0;      ///< of intervals of the change
    double theta = 0;   ///< (mountSd/residualSd)²
    double varianceOfScale = 0;
    double covariance = 0;
    double varianceOfTau = 0;
    double inflation = 1; ///< of the scale's variance over what alike mounts have

    double change(double t, double from) const;
    /// Two-sided; t quantile on df, which is at least 1.
    Interval changeInterval(double t, double from, double confidence) const;
};

struct AgeingCourse {
    int readings = 0;
    int mounts = 0;
    std::vector<double> times;       ///< each once
    std::vector<AgeingFit> fits;     ///< as asked for
    std::optional<std::size_t> best; ///< index into fits; nothing: too few readings
    double noChangeP = 1;
    bool slopesDiffer = false;    ///< mounts change unlike each other: intervals are those of mounts
    bool followEachOther = false; ///< residuals of neighbouring readings are alike
    std::vector<Flag> flags;

    const AgeingFit* fit() const { return best ? &fits[*best] : nullptr; }
    const AgeingFit* fit(AgeingModel model) const; ///< nullptr: not fitted
    double first() const { return times.front(); }
    double last() const { return times.back(); }
    /// Of the change since the first time. A constant says how far the best of the others would let it have
    /// changed, 0 included.
    double changeAt(double t) const;
    std::optional<Interval> changeIntervalAt(double t, double confidence) const;
    /// Within 2 of the best AICc, the best first.
    std::vector<const AgeingFit*> credible() const;
};

/// Throws InputError: no reading, a time below 0 or not finite.
AgeingCourse ageingCourse(const AgeingSample& sample, const AgeingOptions& options = {});

/// That there is no change: largest correlation of the readings, mounts and columns beside taken out, with
/// any of the shapes, held against its distribution when there is none (1,999 draws, fixed seed).
double noChangeP(const AgeingSample& sample);

/// From the shortest to the longest τ that is tried.
Interval tauBounds(const AgeingSample& sample);

} // namespace ibuki
