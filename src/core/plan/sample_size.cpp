// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/sample_size.h"

#include "core/domain/input_error.h"
#include "core/stats/dunnett.h"
#include "core/stats/power.h"
#include "core/stats/studentized_range.h"

#include <algorithm>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>
#include <fmt/format.h>
#include <vector>

namespace ibuki {
namespace {

[[noreturn]] void refuse(const char* code, const std::string& what, const char* mend) {
    throw InputError(code, {}, what, mend);
}

/// Critical value of |difference| / se for the way in which the groups are compared.
double criticalValue(const SampleSizeInput& input, int n, double df) {
    const int k = input.groups;
    if (input.comparison == PlannedComparison::two || k == 2)
        return boost::math::quantile(boost::math::students_t(df), 0.5 + input.confidence / 2);
    if (input.comparison == PlannedComparison::reference) {
        const std::vector<double> others(static_cast<std::size_t>(k) - 1, n);
        return dunnettQuantile(input.confidence, others, n, df);
    }
    return studentizedRangeQuantile(input.confidence, k, df) / std::sqrt(2.0);
}

double powerAt(const SampleSizeInput& input, int n) {
    const double df = static_cast<double>(input.groups) * (n - 1);
    const double se = input.mountSd * std::sqrt(2.0 / n);
    if (input.margin > 0)
        return equivalencePower(input.difference, input.margin, se, df, 1 - input.confidence);
    return pairPower(criticalValue(input, n, df), df, input.difference / se);
}

void check(const SampleSizeInput& input) {
    if (input.groups < 2)
        refuse("plan-groups", fmt::format("{} groups cannot be compared", input.groups),
               "Compare at least two levels");
    if (!(input.mountSd > 0) || !std::isfinite(input.mountSd))
        refuse("plan-scatter",
               fmt::format("the scatter between mounts is {} and must be above 0", input.mountSd),
               "Give the standard deviation between mounts, in K");
    if (!(input.confidence > 0.5 && input.confidence < 1))
        refuse("plan-confidence",
               fmt::format("the confidence is {} and must lie between 0.5 and 1", input.confidence),
               "Usual is 0.95");
    if (!(input.power > 0 && input.power < 1))
        refuse("plan-power", fmt::format("the chance wanted is {} and must lie between 0 and 1", input.power),
               "Usual is 0.9");
    if (!(input.margin >= 0) || !std::isfinite(input.margin))
        refuse("plan-margin", fmt::format("the margin is {} and must be above 0", input.margin),
               "State the smallest difference that matters");
    if (!std::isfinite(input.difference) || (input.margin <= 0 && input.difference == 0))
        refuse("plan-difference", fmt::format("a difference of {} can never be seen", input.difference),
               "Give the difference that must not be missed, in K");
    if (input.margin > 0 && std::abs(input.difference) >= input.margin)
        refuse("plan-difference",
               fmt::format("a true difference of {} is not within the margin of {}", input.difference,
                           input.margin),
               "Give a difference smaller than the margin, or a wider margin");
}

} // namespace

SampleSize outlookAt(const SampleSizeInput& input, int n) {
    check(input);
    if (n < 2)
        refuse("plan-mounts", fmt::format("{} mounts tell no scatter", n), "Plan at least two of each");
    const double df = static_cast<double>(input.groups) * (n - 1);
    return {n, powerAt(input, n), criticalValue(input, n, df) * input.mountSd * std::sqrt(2.0 / n),
            input.groups * n};
}

SampleSize sampleSize(const SampleSizeInput& input) {
    check(input);
    int tooFew = 1;
    int enough = 2;
    while (powerAt(input, enough) < input.power) {
        tooFew = enough;
        if (enough >= mostMounts)
            refuse("plan-unreachable",
                   fmt::format("not even {} mounts of each would give that chance", mostMounts),
                   "Widen the margin, or make the bench steadier");
        enough = std::min(2 * enough, mostMounts);
    }
    while (enough - tooFew > 1) {
        const int middle = (enough + tooFew) / 2;
        (powerAt(input, middle) < input.power ? tooFew : enough) = middle;
    }
    return outlookAt(input, enough);
}

} // namespace ibuki
