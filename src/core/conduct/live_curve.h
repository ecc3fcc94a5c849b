// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A channel as it is drawn while it comes: lowest, highest and mean of stretches that widen as it grows, so
// that a curve takes the same room and time however long it is, and no peak is lost.

#include <vector>

namespace ibuki {

class LiveCurve {
public:
    static constexpr std::size_t mostStretches = 1'200;

    struct Stretch {
        double beginS = 0;
        double lowest = 0;
        double highest = 0;
        double sum = 0;
        int count = 0;
        double mean() const { return sum / count; }
    };

    /// In order of time; what is no number is left out.
    void take(double timeS, double value);
    const std::vector<Stretch>& stretches() const { return stretches_; } ///< the last one still grows
    double widthS() const { return widthS_; }

private:
    void widen();

    double widthS_ = 0.05;
    std::vector<Stretch> stretches_;
};

} // namespace ibuki
