// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/disagreement.h"

#include "core/comparison/pair_family.h"
#include "core/distributions/distributions.h"
#include "core/domain/material.h"
#include "core/heat/calibration.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

// As H.7 takes them where nobody stated them.
constexpr double dieMm = 0.775, lidMm = 2.5, plateMm = 3;
constexpr double lidSideMm = 30, plateSideMm = 40;

/// K of the chip for 1 mm²·K/W of the joint there.
double kelvinPerR(const OtherStack& stack, double mm2KPerW) {
    const auto rise = [&](double r) {
        HeatPath path = stack.path;
        path.interfaces[stack.studied].rMm2KPerW = r;
        return chainSteps(path).junctionMeanC;
    };
    return rise(mm2KPerW + 1) - rise(mm2KPerW);
}

const ResistanceDifference* differenceOf(const Calibration& calibration, std::size_t a, std::size_t b) {
    for (const ResistanceDifference& d : calibration.differences)
        if (d.a == std::min(a, b) && d.b == std::max(a, b)) return &d;
    return nullptr;
}

/// first − second.
std::optional<Interval> intervalOf(const ResistanceDifference& d, std::size_t first) {
    if (!d.ci || d.a == first) return d.ci;
    return Interval{-d.ci->hi, -d.ci->lo};
}

/// Half width of what the report may differ by from the expectation.
std::optional<double> scatterOf(const Calibration& calibration, const Disagreement& found, double kelvinPerR,
                                int mounts) {
    if (!(calibration.df > 0) || !found.expectedCi) return std::nullopt;
    const double t = studentQuantile(1 - 0.5 * (1 - calibration.input.confidence), calibration.df);
    const double ours = 0.5 * (found.expectedCi->hi - found.expectedCi->lo);
    const double mountSdR = calibration.sdKPerW * calibration.effectiveAreaMm2;
    const double theirs = t * kelvinPerR * mountSdR * std::sqrt(2.0 / std::max(1, mounts));
    return std::hypot(ours, theirs);
}

} // namespace

OtherStack externalStack(double chipMm2, LidState lid, double powerW, double coolerKPerW) {
    const double side = std::sqrt(chipMm2);
    const double lidSide = std::max(lidSideMm, side), plateSide = std::max(plateSideMm, lidSide);
    OtherStack stack;
    stack.path.powerW = powerW;
    stack.path.coolerKPerW = coolerKPerW;
    stack.path.solids.push_back({"die", {side, side}, dieMm, conductivityOf(Metal::silicon), true});
    if (lid == LidState::lidded) {
        stack.path.interfaces.push_back({"die–lid", solderMm2KPerW()});
        stack.path.solids.push_back({"lid", {lidSide, lidSide}, lidMm, conductivityOf(Metal::copper)});
        stack.studied = 1;
    }
    stack.path.interfaces.push_back({"joint", 0});
    stack.path.solids.push_back({"plate", {plateSide, plateSide}, plateMm, conductivityOf(Metal::copper)});
    return stack;
}

Disagreement explainDisagreement(const Calibration& calibration, const BenchPath& bench, std::size_t first,
                                 std::size_t second, const ExternalResult& read) {
    const double firstR = calibration.groups[first].mm2KPerW, secondR = calibration.groups[second].mm2KPerW;
    const OtherStack there = externalStack(read.chipMm2, read.lid, read.power.value,
                                           read.cooler ? read.cooler->value : calibration.coolerKPerW);
    const ResistanceDifference* d = differenceOf(calibration, first, second);
    const CarriedOver over =
        carryOver(bench, asItStands(bench), firstR, secondR, d ? intervalOf(*d, first) : std::nullopt, there);
    Disagreement found;
    found.hereK = over.here;
    found.expectedK = over.there;
    found.expectedCi = over.thereCi;
    found.reportedK = read.difference.value;
    found.benchesK = found.expectedK - found.hereK;
    found.scatterK = scatterOf(calibration, found, kelvinPerR(there, secondR), read.mounts);
    const double left = found.reportedK - found.expectedK, most = found.scatterK.value_or(0);
    found.byScatterK = std::clamp(left, -most, most);
    found.leftK = left - found.byScatterK;
    return found;
}

std::optional<std::size_t> groupOf(const Calibration& calibration, Id<Material> material) {
    for (std::size_t g = 0; g < calibration.input.groups.size(); ++g)
        if (const Material* one = calibration.input.groups[g].material; one && one->id == material) return g;
    return std::nullopt;
}

} // namespace ibuki
