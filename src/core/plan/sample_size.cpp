// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/sample_size.h"

#include "core/base/input_error.h"
#include "core/comparison/compare.h"
#include "core/distributions/distributions.h"
#include "core/distributions/power.h"
#include "core/distributions/studentized_range.h"
#include "core/models/dunnett.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <vector>

namespace ibuki {
namespace {

constexpr int mostGroups = 200;

[[noreturn]] void refuse(const char* code, Fields fields = {}) {
    throw InputError(code, {}, std::move(fields));
}

/// Critical value of |difference| / se for the way in which the groups are compared.
double criticalValue(const SampleSizeInput& input, int n, double df) {
    const int k = input.groups;
    if (input.comparison == PlannedComparison::two || k == 2)
        return studentQuantile(0.5 + input.confidence / 2, df);
    if (input.comparison == PlannedComparison::reference) {
        const std::vector<double> others(static_cast<std::size_t>(k) - 1, n);
        return dunnettQuantile(input.confidence, others, n, df);
    }
    return studentizedRangeQuantile(input.confidence, k, df) / std::sqrt(2.0);
}

/// What n mounts of each give; the critical value, which costs most, is made once.
SampleSize sizeAt(const SampleSizeInput& input, int n) {
    const double df = static_cast<double>(input.groups) * (n - 1);
    const double se = input.mountSd * std::sqrt(2.0 / n);
    const double critical = criticalValue(input, n, df);
    const double power = input.margin > 0
                             ? equivalencePower(input.difference, input.margin, se, df, 1 - input.confidence)
                             : pairPower(critical, df, input.difference / se);
    return {n, power, critical * se, input.groups * n};
}

void check(const SampleSizeInput& input) {
    if (input.groups < 2) refuse("plan-groups", {{"count", input.groups}});
    if (input.groups > mostGroups)
        refuse("plan-groups.many", {{"count", input.groups}, {"most", mostGroups}});
    if (!(input.mountSd >= 1e-9 && input.mountSd <= 1e9))
        refuse("plan-scatter", {{"mountSd", input.mountSd}});
    if (!(input.confidence > 0.5 && input.confidence <= highestConfidence))
        refuse("plan-confidence", {{"confidence", input.confidence}});
    if (!(input.power > 0 && input.power <= highestConfidence))
        refuse("plan-power", {{"power", input.power}});
    if (!(input.margin >= 0) || !std::isfinite(input.margin))
        refuse("plan-margin", {{"margin", input.margin}});
    if (!(std::abs(input.difference) <= 1e9) || (input.margin <= 0 && input.difference == 0))
        refuse("plan-difference", {{"difference", input.difference}});
    if (input.margin > 0 && std::abs(input.difference) >= input.margin)
        refuse("plan-difference.within-margin", {{"difference", input.difference}, {"margin", input.margin}});
}

} // namespace

SampleSize sampleSizeAt(const SampleSizeInput& input, int n) {
    check(input);
    if (n < 2) refuse("plan-mounts.scatter", {{"n", n}});
    return sizeAt(input, n);
}

namespace {

/// Where to begin the search: n = 2 ((c + z) σ / reach)² with the critical value c of ten mounts and z the
/// normal quantile of the power; reach is the difference to be seen, or what the margin leaves beside it.
int likelyMounts(const SampleSizeInput& input) {
    const double z = normalQuantile(input.margin > 0 ? (1 + input.power) / 2 : input.power);
    const double reach =
        input.margin > 0 ? input.margin - std::abs(input.difference) : std::abs(input.difference);
    const double df = static_cast<double>(input.groups) * 9;
    const double c = input.margin > 0 ? studentQuantile(input.confidence, df) : criticalValue(input, 10, df);
    const double n = std::ceil(2 * std::pow((c + z) * input.mountSd / reach, 2));
    return std::clamp(static_cast<int>(std::min(n, 1e4)), 2, mostMounts);
}

} // namespace

SampleSize sampleSize(const SampleSizeInput& input) {
    check(input);
    std::map<int, SampleSize> tried;
    const auto suffices = [&](int n) {
        const auto found = tried.find(n);
        return (found != tried.end() ? found : tried.emplace(n, sizeAt(input, n)).first)->second.achievedPower
               >= input.power;
    };
    // Gallop from the likely number to a bracket (tooFew, enough], then halve it: power grows with n.
    int enough = likelyMounts(input);
    int tooFew = enough;
    for (int step = 1; !suffices(enough); step *= 2) {
        tooFew = enough;
        if (enough >= mostMounts) refuse("plan-unreachable", {{"mostMounts", mostMounts}});
        enough = std::min(enough + step, mostMounts);
    }
    for (int step = 1; tooFew == enough; step *= 2) {
        const int fewer = std::max(1, enough - step);
        if (fewer >= 2 && suffices(fewer))
            enough = tooFew = fewer;
        else
            tooFew = fewer;
    }
    while (enough - tooFew > 1) {
        const int middle = (enough + tooFew) / 2;
        (suffices(middle) ? enough : tooFew) = middle;
    }
    return tried.at(enough);
}

} // namespace ibuki
