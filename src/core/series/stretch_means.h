// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Values that come one by one, as means of stretches of time: what is drawn while it comes, what a gate and
// the run monitor fit a line to, and how a mount rose.

#include <cstddef>
#include <limits>
#include <vector>

namespace ibuki {

/// From one value on; its mean and bounds. Without a value: count 0, no mean.
struct MeanStretch {
    double beginS = 0;
    double lowest = std::numeric_limits<double>::infinity();
    double highest = -std::numeric_limits<double>::infinity();
    double sum = 0;
    int count = 0;
    double mean() const { return sum / count; }
    void take(double value);
    void take(const MeanStretch& next); ///< what follows it becomes part of it
};

class StretchMeans {
public:
    /// What happens to more stretches than may be: neighbours become one, so that a curve takes the same room
    /// and time however long it is and no peak is lost, or the oldest one goes.
    enum class Overflow { widen, forgetOldest };

    /// A stretch begins with a value and takes those that come less than widthS, s, after it. most: 2 or
    /// more.
    StretchMeans(double widthS, std::size_t most, Overflow overflow = Overflow::widen);

    /// In order of time; what is no number is left out.
    void take(double timeS, double value);
    const std::vector<MeanStretch>& stretches() const { return stretches_; } ///< the last one still grows
    double widthS() const { return widthS_; }

private:
    void widen();

    double widthS_;
    std::size_t most_;
    Overflow overflow_;
    std::vector<MeanStretch> stretches_;
};

} // namespace ibuki
