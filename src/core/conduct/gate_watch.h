// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Whether the gate of a step is open, from what was read since the step began (docs/methods.md, "Gates"). A
// gate opens on the doubtful side of its figure, and only when it says so three times in a row: noise alone
// opens none.

#include "core/distributions/interval.h"
#include "core/domain/plan.h"
#include "core/series/stretch_means.h"

#include <deque>
#include <optional>
#include <vector>

namespace ibuki {

struct TailFit;

struct GateSample {
    double timeS = 0;
    std::optional<double> chipC; ///< the hottest
    std::optional<double> ambientC;
    std::optional<double> powerW = {}; ///< of the chip; of several the largest
};

struct GateReading {
    std::optional<double> figure;          ///< K/min or K, as the gate's value; nothing: not to be told yet
    std::optional<double> upper;           ///< 95 % limit of its size
    std::optional<double> opensInS;        ///< predicted, of remainingBelow
    std::optional<Interval> opensBetweenS; ///< 95 % of that
    bool open = false;
};

class GateWatch {
public:
    /// idleC: what the chip reads at idle, for aboveIdleBelow; nothing: such a gate stays closed.
    GateWatch(GateKind kind, double limit, std::optional<double> idleC = std::nullopt);

    /// In order of time.
    void take(const GateSample& sample);
    const GateReading& reading() const { return reading_; }

private:
    struct Point {
        double timeS = 0;
        double value = 0;
    };

    void judge(double timeS);
    void judgeSlope();
    void judgeRemaining();
    void predict(const TailFit& tail);
    void judgeAboveIdle();
    void judgeReached();
    void settle(double figure, double upper);

    GateKind kind_;
    double limit_;
    std::optional<double> idleC_;
    StretchMeans rise_{1, 360}; ///< over the room, or of the chip where there is none
    std::deque<Point> recent_;  ///< of what a slope is taken of
    std::optional<double> firstS_;
    std::optional<double> judgedS_;
    int inARow_ = 0;
    GateReading reading_;
};

/// Of what is read while the load is not on: mean of the chip, or of its power, over the last minute.
std::optional<double> recentMean(const std::deque<GateSample>& samples, double lastS,
                                 std::optional<double> GateSample::*member = &GateSample::chipC);

} // namespace ibuki
