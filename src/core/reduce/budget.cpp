// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/budget.h"

#include <boost/math/distributions/normal.hpp>
#include <boost/math/distributions/students_t.hpp>
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
                         fmt::format("{:.3f} K between mounts, {}", *in.mountSdK,
                                     in.mounts == 1 ? "this is one" : fmt::format("{} of them", in.mounts)),
                         *in.mountSdK / std::sqrt(in.mounts), 1, 0, 0,
                         in.mountDf > 0 ? std::optional(in.mountDf) : std::nullopt, Cancels::no,
                         "every mount is applied anew"});
    else if (in.runSeK)
        lines.push_back({"noise of this run",
                         "from its samples, their correlation counted",
                         *in.runSeK,
                         1,
                         0,
                         0,
                         {},
                         Cancels::no,
                         "every run has its own; with several mounts it is inside their scatter"});
    if (in.extrapolationU)
        lines.push_back({"tail led on",
                         "interval of the asymptote",
                         *in.extrapolationU,
                         1,
                         0,
                         0,
                         {},
                         Cancels::no,
                         "every run stopped early has its own"});
}

void addChip(Lines& lines, const BudgetInput& in) {
    if (in.chipAccuracyK)
        lines.push_back({"chip sensor, offset",
                         fmt::format("± {:g} K", *in.chipAccuracyK),
                         rectangular(*in.chipAccuracyK),
                         1,
                         0,
                         0,
                         {},
                         Cancels::yes,
                         "the same sensor in the same range reads every mount"});
    if (in.chipResolutionK)
        lines.push_back({"chip sensor, steps",
                         fmt::format("{:g} K step", *in.chipResolutionK),
                         resolution(*in.chipResolutionK),
                         1,
                         0,
                         0,
                         {},
                         Cancels::partly,
                         "noise carries the reading across steps; a still one keeps its rounding"});
}

void addRoom(Lines& lines, const BudgetInput& in) {
    if (in.roomAccuracyK)
        lines.push_back({"room probe, offset",
                         fmt::format("± {:g} K", *in.roomAccuracyK),
                         rectangular(*in.roomAccuracyK),
                         -1,
                         0,
                         0,
                         {},
                         Cancels::yes,
                         "the same probe at the same place"});
    if (in.roomResolutionK)
        lines.push_back({"room probe, steps",
                         fmt::format("{:g} K step", *in.roomResolutionK),
                         resolution(*in.roomResolutionK),
                         -1,
                         0,
                         0,
                         {},
                         Cancels::averagesOut,
                         "the room moves across steps during a run"});
    if (in.roomGradientK)
        lines.push_back({"room differs from place to place",
                         fmt::format("± {:g} K", *in.roomGradientK),
                         rectangular(*in.roomGradientK),
                         -1,
                         0,
                         0,
                         {},
                         Cancels::partly,
                         "the constant part cancels, what differs between evenings does not"});
    if (in.roomEnteredU)
        lines.push_back({"room read by hand",
                         fmt::format("u = {:g} K", *in.roomEnteredU),
                         *in.roomEnteredU,
                         -1,
                         0,
                         0,
                         {},
                         Cancels::no,
                         "every reading has its own"});
    if (in.probeClockU && in.roomSlopeKPerS != 0)
        lines.push_back({"clock of the room probe",
                         fmt::format("u = {:.1f} s", *in.probeClockU),
                         *in.probeClockU,
                         in.roomSlopeKPerS,
                         0,
                         0,
                         {},
                         Cancels::no,
                         "every pair of logs is matched anew"});
}

} // namespace

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
    budget.coverage = whole >= 1 ? boost::math::quantile(boost::math::students_t(whole), 0.975)
                                 : boost::math::quantile(boost::math::normal(), 0.975);
    budget.expandedK = budget.coverage * budget.combinedK;
    return budget;
}

Budget uncertaintyBudget(const BudgetInput& in) {
    Lines lines;
    addRun(lines, in);
    addChip(lines, in);
    addRoom(lines, in);
    if (in.powerShare)
        lines.push_back({"power meter, scale",
                         fmt::format("± {:g} %", 100 * *in.powerShare),
                         rectangular(*in.powerShare),
                         -in.deltaK,
                         0,
                         0,
                         {},
                         Cancels::yes,
                         "to first order: it scales the difference only"});
    return combined(std::move(lines));
}

} // namespace ibuki
