// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Readings of mounts that stay as they are, under the model y_jk = x_jk β + M_j + e_jk with M_j of variance
// θσ² and e_jk of variance σ². For a known θ it is plain least squares on v − (1 − 1/√(1 + n_j θ)) v̄_j
// (Fuller & Battese 1973); θ itself is found by maximum or restricted maximum likelihood.

#include "core/models/least_squares.h"

#include <optional>
#include <span>
#include <vector>

namespace ibuki {

/// One reading of a mount at a time of its clock.
struct AgeingReading {
    int mount = 0; ///< which; any number
    double t = 0;  ///< ≥ 0
    double y = 0;
};

class AgeingSample {
public:
    /// besides: further columns that are taken out beside the change (room, fan), each one value a reading.
    explicit AgeingSample(std::vector<AgeingReading> readings,
                          const std::vector<std::vector<double>>& besides = {});

    const std::vector<AgeingReading>& readings() const { return readings_; } ///< by mount, then by time
    std::size_t size() const { return readings_.size(); }
    int mounts() const { return static_cast<int>(counts_.size()); }
    const std::vector<double>& times() const { return times_; } ///< each once, growing
    int besides() const { return static_cast<int>(besides_.size()); }
    int count(std::size_t mount) const { return counts_[mount]; }
    std::size_t mountOf(std::size_t reading) const { return mountOf_[reading]; } ///< from 0
    /// Mounts are told apart from readings: more than one mount, and one of them read twice.
    bool isNested() const;

    /// One value a reading, for each of a function of time.
    template <class Function> std::vector<double> of(Function&& shape) const {
        std::vector<double> values;
        values.reserve(size());
        for (const AgeingReading& one : readings_) values.push_back(shape(one.t));
        return values;
    }
    std::vector<double> y() const;

    /// Readings as they are when θ is known: intercept and columns beside it are taken out of what is asked.
    class At {
    public:
        At(const AgeingSample& sample, double theta);
        double theta() const { return theta_; }
        double logDeterminant() const { return logDeterminant_; } ///< Σ ln(1 + n_j θ)
        /// ln|XᵀV⁻¹X| of intercept and besides.
        double logNuisance() const { return logNuisance_; }
        const std::vector<double>& y() const { return y_; } ///< reduced
        double yy() const { return yy_; }
        std::vector<double> reduced(std::vector<double> v) const;
        /// Intercept and besides of y − scale · g, least squares.
        std::vector<double> nuisance(std::vector<double> rest) const;

    private:
        std::vector<double> transformed(std::vector<double> v) const;
        const AgeingSample& sample_;
        double theta_;
        double logDeterminant_ = 0;
        double logNuisance_ = 0;
        Columns basis_{0, 0};
        std::vector<double> y_;
        double yy_ = 0;
    };

    /// θ that makes the likelihood of the columns' fit greatest; columns: what is fitted beside intercept and
    /// besides, full length. restricted: REML. 0 when not nested.
    double bestTheta(std::span<const std::vector<double>> columns, bool restricted) const;

private:
    std::vector<AgeingReading> readings_;
    std::vector<std::vector<double>> besides_;
    std::vector<std::size_t> mountOf_;
    std::vector<int> counts_;
    std::vector<double> times_;
};

} // namespace ibuki
