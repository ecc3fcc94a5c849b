// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/budget.h"

#include "core/distributions/distributions.h"

#include <cmath>
#include <fmt/format.h>

namespace ibuki {
namespace {

constexpr double partlyKept = 0.5; ///< share of the variance of a line that cancels in part

double rectangular(double limit) { return limit / std::sqrt(3.0); }
double resolution(double step) { return step / std::sqrt(12.0); }

using Lines = std::vector<BudgetLine>;

void addRun(Lines& lines, const BudgetInput& in) {
    if (in.mountSdK && in.mounts > 0)
        lines.push_back({"re-mounting",
                         Message{in.mounts == 1 ? "budget-stated.mount" : "budget-stated.mounts",
                                 {{"sd", *in.mountSdK}, {"mounts", in.mounts}}},
                         *in.mountSdK / std::sqrt(in.mounts), 1, 0, 0,
                         in.mountDf > 0 ? std::optional(in.mountDf) : std::nullopt, Cancels::no});
    else if (in.runSeK)
        lines.push_back(
            {"run-noise", Message{"budget-stated.samples", {}}, *in.runSeK, 1, 0, 0, {}, Cancels::no});
    if (in.extrapolationU)
        lines.push_back(
            {"tail", Message{"budget-stated.asymptote", {}}, *in.extrapolationU, 1, 0, 0, {}, Cancels::no});
}

void addChip(Lines& lines, const BudgetInput& in) {
    if (in.chipAccuracyK)
        lines.push_back({"chip-offset",
                         Message{"budget-stated.limits", {{"value", *in.chipAccuracyK}}},
                         rectangular(*in.chipAccuracyK),
                         1,
                         0,
                         0,
                         {},
                         Cancels::yes});
    if (in.chipResolutionK)
        lines.push_back({"chip-steps",
                         Message{"budget-stated.step", {{"value", *in.chipResolutionK}}},
                         resolution(*in.chipResolutionK),
                         1,
                         0,
                         0,
                         {},
                         Cancels::partly});
}

void addAmbient(Lines& lines, const BudgetInput& in) {
    if (in.ambientAccuracyK)
        lines.push_back({"room-offset",
                         Message{"budget-stated.limits", {{"value", *in.ambientAccuracyK}}},
                         rectangular(*in.ambientAccuracyK),
                         -1,
                         0,
                         0,
                         {},
                         Cancels::yes});
    if (in.ambientResolutionK)
        lines.push_back({"room-steps",
                         Message{"budget-stated.step", {{"value", *in.ambientResolutionK}}},
                         resolution(*in.ambientResolutionK),
                         -1,
                         0,
                         0,
                         {},
                         Cancels::averagesOut});
    if (in.ambientGradientK)
        lines.push_back({"room-gradient",
                         Message{"budget-stated.limits", {{"value", *in.ambientGradientK}}},
                         rectangular(*in.ambientGradientK),
                         -1,
                         0,
                         0,
                         {},
                         Cancels::partly});
    if (in.ambientEnteredU)
        lines.push_back({"room-by-hand",
                         Message{"budget-stated.u", {{"value", *in.ambientEnteredU}}},
                         *in.ambientEnteredU,
                         -1,
                         0,
                         0,
                         {},
                         Cancels::no});
    if (in.probeClockU && in.ambientSlopeKPerS != 0)
        lines.push_back({"probe-clock",
                         Message{"budget-stated.u-seconds", {{"value", *in.probeClockU}}},
                         *in.probeClockU,
                         in.ambientSlopeKPerS,
                         0,
                         0,
                         {},
                         Cancels::no});
}

} // namespace

Message sourceOf(const BudgetLine& line) { return {"budget." + line.code, {}}; }
Message whyOf(const BudgetLine& line) { return {"budget-why." + line.code, {}}; }

Budget combined(std::vector<BudgetLine> lines) {
    Budget budget;
    double variance = 0;
    double kept = 0;
    double spent = 0; // Σ (c u)⁴ / ν
    for (BudgetLine& line : lines) {
        line.contributionK = std::abs(line.sensitivity) * line.u;
        const double square = line.contributionK * line.contributionK;
        variance += square;
        if (line.cancels == Cancels::no) kept += square;
        if (line.cancels == Cancels::partly) kept += partlyKept * square;
        if (line.df && *line.df > 0) spent += square * square / *line.df;
    }
    for (BudgetLine& line : lines)
        line.share = variance > 0 ? line.contributionK * line.contributionK / variance : 0;
    budget.lines = std::move(lines);
    budget.combinedK = std::sqrt(variance);
    budget.staysK = std::sqrt(kept);
    if (spent > 0) budget.df = variance * variance / spent;
    const double whole = budget.df ? std::floor(*budget.df) : 0;
    budget.coverage = whole >= 1 ? studentQuantile(0.975, whole) : normalQuantile(0.975);
    budget.expandedK = budget.coverage * budget.combinedK;
    return budget;
}

Budget uncertaintyBudget(const BudgetInput& in) {
    Lines lines;
    addRun(lines, in);
    addChip(lines, in);
    addAmbient(lines, in);
    if (in.powerShare)
        lines.push_back({"power-scale",
                         Message{"budget-stated.share", {{"value", 100 * *in.powerShare}}},
                         rectangular(*in.powerShare),
                         -in.deltaK,
                         0,
                         0,
                         {},
                         Cancels::yes});
    return combined(std::move(lines));
}

} // namespace ibuki
