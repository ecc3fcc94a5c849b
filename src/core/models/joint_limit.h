// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// P(|T_i| ≤ d for all i) of a multivariate t from that of its normal: with W(x) = P(|Z_i| ≤ x for all i),
//   P(d) = ∫ f_ν(s) W(d s) ds.
// W depends neither on d nor on ν, so it is worked out once at Chebyshev points of panels that grow from the
// finest scale of the correlation (barycentric interpolation, Berrut & Trefethen 2004) and serves all
// quantiles and p of a family. Interpolation error below 1e-12, with coarse panels below 1e-5.

#include "core/distributions/growing_root.h"
#include "core/distributions/studentized_range.h"

#include <functional>
#include <map>
#include <vector>

namespace ibuki {

class JointLimit {
public:
    enum class Panels { fine, coarse }; ///< coarse: for a W that is dear and known to 1e-4 only

    /// known: W, growing from 0 to 1. finest: the smallest scale on which it bends, > 0.
    JointLimit(std::function<double(double)> known, double finest, Panels panels = Panels::fine);

    double knownSpread(double x); ///< W(x)
    /// ν > 0, may be infinite.
    double cdf(double d, double nu) {
        return expectOverScale(nu, [&](double s) { return knownSpread(d * s); });
    }
    double quantile(double p, double nu) { ///< 0.5 < p < 1
        return rootOfGrowing([&](double d) { return cdf(d, nu) - p; }, 0.1, 3.0);
    }

private:
    struct Panel {
        double from = 0;
        double to = 0;
        std::vector<double> values; ///< at its Chebyshev points; made when it is first asked for
    };
    Panel& panelOf(double x);
    double interpolated(const std::vector<double>& values, double at) const;

    std::function<double(double)> known_;
    double finest_;
    double longest_;             ///< panel
    std::vector<double> places_; ///< Chebyshev points of the second kind on [−1, 1], growing
    std::vector<Panel> panels_;
};

} // namespace ibuki
