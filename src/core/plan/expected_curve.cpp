// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/expected_curve.h"

#include "core/distributions/summary.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/plan/step_times.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double typicalIdleW = 28;
constexpr double typicalLoadW = 150;
constexpr double longestWaitMinutes = 24 * 60;
constexpr double holdMinutes = 3; ///< a gate holds when it is not left again within them

/// The air cooler of docs/methods.md, "Thermal ladder": die, lid, base, fins.
std::vector<LadderNode> typicalLadder() { return {{0.26, 0.057}, {7.7, 0.075}, {100, 0.045}, {540, 0.09}}; }

struct Learned {
    std::vector<double> kPerW;
    std::vector<double> tauMinutes;
    std::vector<double> powerW;
};

Learned learnedFrom(const Document& document, Id<Bench> bench) {
    Learned learned;
    for (const Mount* mount : mountsOf(document, bench)) {
        if (mount->rejected) continue;
        for (const Run* run : runsOf(document, mount->id)) {
            const Reduction* reduction = reductionOf(document, run->id);
            const LoadReduction* load = reduction ? reduction->main() : nullptr;
            if (!load || load->limit.censored) continue;
            if (const auto perWatt = countedRthKPerW(*load, load->metric)) learned.kPerW.push_back(*perWatt);
            if (load->steady.tauS) learned.tauMinutes.push_back(*load->steady.tauS / 60);
            if (load->powerW) learned.powerW.push_back(*load->powerW);
        }
    }
    return learned;
}

/// All resistances times a factor at the same time constants, then the last capacity until the slowest time
/// constant is the one wanted: it grows with that capacity alone.
std::vector<LadderNode> ladderOf(double kPerW, double slowestS) {
    std::vector<LadderNode> nodes = typicalLadder();
    const double factor = kPerW / ThermalLadder(nodes, 1).totalKPerW();
    for (LadderNode& node : nodes) node = {node.capacityJPerK / factor, node.toNextKPerW * factor};
    for (int i = 0; i < 40; ++i) {
        const double now = ThermalLadder(nodes, 1).slowestS();
        if (std::abs(now / slowestS - 1) < 1e-9) break;
        nodes.back().capacityJPerK *= slowestS / now;
    }
    return nodes;
}

/// What the gate is about, in its own unit.
std::optional<double> gateReads(GateKind gate, const ExpectedPoint& at, double steadyK, double idleK) {
    switch (gate) {
    case GateKind::chipSlopeBelow:
        return std::abs(at.slopeKPerMin);
    case GateKind::remainingBelow:
        return std::abs(steadyK - at.riseK);
    case GateKind::aboveIdleBelow:
        return at.riseK - idleK;
    case GateKind::none:
    case GateKind::chipAbove: // of conditioning, which stands before the curve
    case GateKind::chipBelow:
    case GateKind::ambientSlopeBelow: // the room does as it likes
        return std::nullopt;
    }
    return std::nullopt;
}

double powerOf(const StepOccurrence& step, const ExpectedBench& bench) {
    if (step.kind != StepKind::soak && step.kind != StepKind::measure) return bench.idleW;
    return step.powerW.value_or(bench.loadW);
}

/// Steps the ladder through one step of the protocol after the other.
class Tracing {
public:
    Tracing(ExpectedCurve& curve, double stepS)
        : curve_(curve), ladder_(curve.bench.ladder, stepS), stepS_(stepS) {
        ladder_.settle(0, 0);
        curve_.points.push_back({});
    }

    void add(const StepOccurrence& of) {
        StepForecast step;
        step.powerW = powerOf(of, curve_.bench);
        step.from = curve_.points.back().minute;
        step.to = step.from + of.minutes;
        const double steady = curve_.bench.kPerW * step.powerW;
        Gate gate(of, steady, curve_.bench.kPerW * curve_.bench.idleW);
        while (curve_.points.back().minute + stepS_ / 120 < step.to) {
            curve_.points.push_back(next(ladder_, curve_.points.back(), step.powerW));
            gate.see(curve_.points.back());
        }
        step.to = curve_.points.back().minute;
        step.riseK = curve_.points.back().riseK;
        step.leftK = steady - step.riseK;
        step.atEnd = gate.reads;
        if (gate.reads) {
            ThermalLadder beyond(ladder_); // how long it would take if one waited
            ExpectedPoint at = curve_.points.back();
            while (!gate.holdsFor(holdMinutes, at.minute) && at.minute < step.from + longestWaitMinutes) {
                at = next(beyond, at, step.powerW);
                gate.see(at);
            }
            step.opensAt = gate.opened;
        }
        curve_.forecasts.push_back(step);
    }

private:
    struct Gate {
        const StepOccurrence& of;
        double steadyK;
        double idleK;
        std::optional<double> reads;
        std::optional<double> opened;

        Gate(const StepOccurrence& step, double steady, double idle)
            : of(step), steadyK(steady), idleK(idle) {}
        void see(const ExpectedPoint& at) {
            reads = gateReads(of.gate, at, steadyK, idleK);
            if (!reads || *reads >= of.gateValue)
                opened.reset();
            else if (!opened)
                opened = at.minute;
        }
        bool holdsFor(double minutes, double now) const { return opened && now - *opened >= minutes; }
    };

    ExpectedPoint next(ThermalLadder& ladder, const ExpectedPoint& before, double powerW) const {
        ladder.step(powerW, 0);
        const double minutes = stepS_ / 60;
        return {before.minute + minutes, ladder.chipC(), (ladder.chipC() - before.riseK) / minutes};
    }

    ExpectedCurve& curve_;
    ThermalLadder ladder_;
    double stepS_;
};

} // namespace

ExpectedBench expectedBench(const Document& document, Id<Study> id) {
    ExpectedBench bench;
    bench.idleW = typicalIdleW;
    bench.loadW = typicalLoadW;
    const ThermalLadder typical(typicalLadder(), 1);
    bench.kPerW = typical.totalKPerW();
    bench.slowestMinutes = typical.slowestS() / 60;
    const Study* study = document.find(id);
    if (study) {
        const Learned learned = learnedFrom(document, study->bench);
        const Configuration* rig = currentConfiguration(document, study->bench);
        if (!learned.powerW.empty()) bench.loadW = median(learned.powerW);
        if (!learned.kPerW.empty()) {
            bench.kPerW = median(learned.kPerW);
            bench.kPerWFrom = ExpectedFrom::learned;
        }
        if (rig && rig->slowestMinutes) {
            bench.slowestMinutes = *rig->slowestMinutes;
            bench.slowestFrom = ExpectedFrom::stated;
        } else if (learned.tauMinutes.size() >= 3) {
            bench.slowestMinutes = median(learned.tauMinutes);
            bench.slowestFrom = ExpectedFrom::learned;
        }
    }
    bench.ladder = ladderOf(bench.kPerW, 60 * bench.slowestMinutes);
    return bench;
}

ExpectedCurve expectedCurve(const Document& document, Id<Study> id, const ExpectedBench& bench,
                            const std::vector<ProtocolStep>& protocol) {
    ExpectedCurve curve;
    curve.bench = bench;
    curve.steps = occurrencesOf(protocol, loadsOf(document, id), slowestMinutes(document, id));
    double total = 0;
    for (const StepOccurrence& step : curve.steps) total += step.minutes;
    constexpr double mostPoints = 2400;
    Tracing tracing(curve, std::max(5.0, 60 * total / mostPoints));
    for (const StepOccurrence& step : curve.steps) tracing.add(step);
    return curve;
}

std::optional<double> ExpectedCurve::gateFigure(std::size_t step, GateKind gate, double minute) const {
    const auto at =
        std::lower_bound(points.begin(), points.end(), minute, [](const ExpectedPoint& point, double wanted) {
            return point.minute < wanted - 1e-9;
        });
    if (at == points.end() || step >= forecasts.size()) return std::nullopt;
    return gateReads(gate, *at, bench.kPerW * forecasts[step].powerW, bench.kPerW * bench.idleW);
}

} // namespace ibuki
