// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/calibration.h"

#include "core/base/input_error.h"
#include "core/comparison/pair_family.h"
#include "core/distributions/distributions.h"
#include "core/heat/secant.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

/// Means of the groups' K/W and how well each is known. Groups that reached the limit have a scatter of their
/// own: what drove them there is often no scatter of mounting.
struct Means {
    std::vector<double> mean;
    std::vector<int> count;
    std::vector<double> variance; ///< of one mount of the group
    std::vector<double> df;       ///< of that variance
    double pooledSd = 0;
    double pooledDf = 0;
};

std::vector<bool> censoredGroups(const CalibrationInput& input) {
    std::vector<bool> isCensored(input.groups.size(), false);
    for (const PathMount& mount : input.mounts)
        isCensored[mount.group] = isCensored[mount.group] || mount.censored;
    return isCensored;
}

Means meansOf(const CalibrationInput& input) {
    const std::size_t n = input.groups.size();
    Means means{std::vector<double>(n, 0), std::vector<int>(n, 0), std::vector<double>(n, 0),
                std::vector<double>(n, 0)};
    const std::vector<bool> isCensored = censoredGroups(input);
    for (const PathMount& mount : input.mounts) {
        means.mean[mount.group] += mount.kPerW;
        ++means.count[mount.group];
    }
    for (std::size_t g = 0; g < n; ++g)
        if (means.count[g] > 0) means.mean[g] /= means.count[g];
    std::vector<double> squares(n, 0);
    for (const PathMount& mount : input.mounts)
        squares[mount.group] +=
            (mount.kPerW - means.mean[mount.group]) * (mount.kPerW - means.mean[mount.group]);
    double pooled = 0;
    for (std::size_t g = 0; g < n; ++g) {
        if (isCensored[g]) continue;
        pooled += squares[g];
        means.pooledDf += std::max(0, means.count[g] - 1);
    }
    if (means.pooledDf > 0) means.pooledSd = std::sqrt(pooled / means.pooledDf);
    for (std::size_t g = 0; g < n; ++g) {
        const bool isOwn = isCensored[g] && means.count[g] > 1;
        means.df[g] = isOwn ? means.count[g] - 1 : means.pooledDf;
        means.variance[g] = isOwn ? squares[g] / means.df[g] : means.pooledSd * means.pooledSd;
    }
    return means;
}

HeatPath atMeanPower(const CalibrationInput& input) {
    HeatPath path = input.bench.path;
    for (const PathMount& mount : input.mounts) {
        path.powerW += mount.powerW / static_cast<double>(input.mounts.size());
        path.ambientC += mount.ambientC / static_cast<double>(input.mounts.size());
    }
    return path;
}

/// Half widths that stand for one confidence are added as variances: the scatter's by Student (with the
/// degrees of freedom of Welch and Satterthwaite where spreads differ), the scale's as normal.
class Widths {
public:
    Widths(const Means& means, const CalibrationInput& input)
        : means_(means),
          scaleU_(input.powerScaleU),
          p_(0.5 + input.confidence / 2),
          normal_(studentQuantile(p_, 1e9)) {}

    bool isKnown(std::size_t a) const { return means_.count[a] > 0 && means_.df[a] > 0; }
    /// Of the difference of two groups' K/W.
    double ofDifference(std::size_t a, std::size_t b) const {
        const double va = means_.variance[a] / means_.count[a], vb = means_.variance[b] / means_.count[b];
        const bool isOneSpread = means_.variance[a] == means_.variance[b];
        const double below = va * va / means_.df[a] + vb * vb / means_.df[b];
        const double df = isOneSpread || !(below > 0) ? means_.df[a] : (va + vb) * (va + vb) / below;
        const double scatter = studentQuantile(p_, df) * std::sqrt(va + vb);
        return std::hypot(scatter, normal_ * scaleU_ * (means_.mean[a] - means_.mean[b]));
    }
    double ofMean(std::size_t a) const {
        const double scatter =
            studentQuantile(p_, means_.df[a]) * std::sqrt(means_.variance[a] / means_.count[a]);
        return std::hypot(scatter, normal_ * scaleU_ * means_.mean[a]);
    }
    double normal() const { return normal_; }

private:
    const Means& means_;
    double scaleU_, p_, normal_;
};

} // namespace

double solveResistance(HeatPath path, std::size_t interface, double wanted) {
    const double start = path.interfaces[interface].rMm2KPerW;
    return solved(
        [&](double r) {
            path.interfaces[interface].rMm2KPerW = r;
            return totalKPerW(path);
        },
        start, start + 1, wanted);
}

double solveCooler(HeatPath path, double wanted) {
    path.coolerKPerW = 0.1;
    const double start =
        std::max(0.01, 0.1 + wanted - totalKPerW(path)); // a film needs some resistance behind it
    return solved(
        [&](double cooler) {
            path.coolerKPerW = cooler;
            return totalKPerW(path);
        },
        0.1, start == 0.1 ? 0.11 : start, wanted);
}

HeatPath calibratedPath(const Calibration& calibration, double mm2KPerW, double powerW, double ambientC) {
    HeatPath path = calibration.input.bench.path;
    path.coolerKPerW = calibration.coolerKPerW;
    path.interfaces[*calibration.input.bench.studied].rMm2KPerW = mm2KPerW;
    path.powerW = powerW;
    path.ambientC = ambientC;
    return path;
}

HeatPath anchoredPath(const CalibrationInput& input) {
    HeatPath path = atMeanPower(input);
    path.interfaces[input.bench.studied.value()].rMm2KPerW = input.anchorMm2KPerW;
    return path;
}

namespace {

double coolerBy(const CalibrationInput& input, const Means& means) {
    if (input.anchor >= means.count.size() || means.count[input.anchor] == 0)
        throw InputError("heat-calibration.no-anchor", {});
    const double cooler = solveCooler(anchoredPath(input), means.mean[input.anchor]);
    if (!(cooler > 0))
        throw InputError("heat-calibration.cooler-below-zero", {}, {{"measured", means.mean[input.anchor]}});
    return cooler;
}

Interval around(double middle, double half) { return {middle - half, middle + half}; }

void addGroups(Calibration& found, const HeatPath& path, const Means& means, const Widths& widths) {
    const CalibrationInput& input = found.input;
    for (std::size_t g = 0; g < input.groups.size(); ++g) {
        CalibratedGroup group{means.count[g], means.mean[g], 0, std::nullopt};
        if (group.mounts > 0) group.mm2KPerW = solveResistance(path, *input.bench.studied, means.mean[g]);
        if (widths.isKnown(g) && widths.isKnown(input.anchor)) {
            const double scatter =
                g == input.anchor ? 0 : found.effectiveAreaMm2 * widths.ofDifference(g, input.anchor);
            group.ci = around(group.mm2KPerW, std::hypot(scatter, widths.normal() * input.anchorU));
        }
        found.groups.push_back(group);
    }
}

void addDifferences(Calibration& found, const Means& means, const Widths& widths) {
    for (std::size_t a = 0; a < means.count.size(); ++a)
        for (std::size_t b = a + 1; b < means.count.size(); ++b) {
            if (means.count[a] == 0 || means.count[b] == 0) continue;
            const double r = found.groups[a].mm2KPerW - found.groups[b].mm2KPerW;
            ResistanceDifference difference{a, b, r, std::nullopt};
            if (widths.isKnown(a) && widths.isKnown(b)) {
                // The slope between the two, where they lie apart, else the one at the anchor.
                const double k = means.mean[a] - means.mean[b];
                const double area = std::abs(k) > 1e-9 ? r / k : found.effectiveAreaMm2;
                difference.ci = around(r, area * widths.ofDifference(a, b));
            }
            found.differences.push_back(difference);
        }
}

} // namespace

double calibratedCooler(const CalibrationInput& input) { return coolerBy(input, meansOf(input)); }

Calibration calibrate(const CalibrationInput& input) {
    const Means means = meansOf(input);
    Calibration found;
    found.input = input;
    found.coolerKPerW = coolerBy(input, means);
    const std::size_t studied = input.bench.studied.value();
    HeatPath path = anchoredPath(input);
    path.coolerKPerW = found.coolerKPerW;
    HeatPathSteps steps = solveChain(path);
    addEffectiveAreas(path, steps);
    found.effectiveAreaMm2 = steps.interfaces[studied].effectiveAreaMm2.value_or(0);
    found.sdKPerW = means.pooledSd;
    found.df = means.pooledDf;
    const Widths widths(means, input);
    if (widths.isKnown(input.anchor)) {
        const double anchor = widths.normal() * input.anchorU / found.effectiveAreaMm2;
        found.coolerCi = around(found.coolerKPerW, std::hypot(widths.ofMean(input.anchor), anchor));
    }
    for (const PathMount& mount : input.mounts)
        found.mounts.push_back({mount.mount, mount.group, solveResistance(path, studied, mount.kPerW)});
    addGroups(found, path, means, widths);
    addDifferences(found, means, widths);
    return found;
}

namespace {

/// Residual standard deviation of K/W about its groups and a line over the room, with its degrees of freedom.
struct AboutAmbient {
    double sd = 0;
    double df = 0;
};

std::optional<AboutAmbient> aboutAmbient(const CalibrationInput& input) {
    const std::size_t n = input.groups.size();
    std::vector<double> kPerW(n, 0), room(n, 0);
    std::vector<int> count(n, 0);
    const std::vector<bool> isCensored = censoredGroups(input); // as the pooled scatter leaves them out
    for (const PathMount& mount : input.mounts) {
        kPerW[mount.group] += mount.kPerW;
        room[mount.group] += mount.ambientC;
        ++count[mount.group];
    }
    double rr = 0, rk = 0, kk = 0, df = -1;
    for (std::size_t g = 0; g < n; ++g)
        if (!isCensored[g]) df += std::max(0, count[g] - 1);
    for (const PathMount& mount : input.mounts) {
        if (isCensored[mount.group]) continue;
        const double k = mount.kPerW - kPerW[mount.group] / count[mount.group];
        const double r = mount.ambientC - room[mount.group] / count[mount.group];
        rr += r * r;
        rk += r * k;
        kk += k * k;
    }
    if (!(df >= 2) || !(rr > 0)) return std::nullopt;
    return AboutAmbient{std::sqrt(std::max(0.0, kk - rk * rk / rr) / df), df};
}

} // namespace

std::optional<TellableDifference> tellableDifference(const Calibration& calibration) {
    if (!(calibration.df > 0)) return std::nullopt;
    double groups = 0, mounts = 0;
    for (const CalibratedGroup& group : calibration.groups) {
        groups += group.mounts > 0;
        mounts += group.mounts;
    }
    TellableDifference found;
    found.mounts = mounts / groups;
    const double area = calibration.effectiveAreaMm2 * std::sqrt(2 / found.mounts);
    const auto student = [&](double df) {
        return studentQuantile(1 - 0.5 * (1 - calibration.input.confidence), df);
    };
    found.mm2KPerW = student(calibration.df) * calibration.sdKPerW * area;
    if (const auto room = aboutAmbient(calibration.input))
        found.inSteadyAmbientMm2KPerW = student(room->df) * room->sd * area;
    return found;
}

} // namespace ibuki
