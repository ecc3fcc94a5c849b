// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/calibration_draws.h"

#include "core/base/nan.h"
#include "core/base/random.h"
#include "core/base/thread_team.h"
#include "core/distributions/summary.h"
#include "core/heat/secant.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace ibuki {
namespace {

constexpr int atOnce = 64; ///< draws between two looks at the stop

/// Mounts of each group that is drawn; 0 of one that reached its limit: what drove it there is often no
/// scatter of mounting, and its R″ may be anything.
std::vector<int> drawnMounts(const Calibration& calibration) {
    std::vector<int> mounts(calibration.groups.size(), 0);
    for (std::size_t g = 0; g < mounts.size(); ++g)
        if (g == calibration.input.anchor || calibration.groups[g].ci)
            mounts[g] = calibration.groups[g].mounts;
    for (const PathMount& mount : calibration.input.mounts)
        if (mount.censored && mount.group != calibration.input.anchor) mounts[mount.group] = 0;
    return mounts;
}

/// Variance as it may be, given what was seen.
double drawnVariance(Random& random, double variance, double df) {
    double chi2 = 0;
    for (int i = 0; i < static_cast<int>(std::lround(df)); ++i) {
        const double z = random.normal();
        chi2 += z * z;
    }
    return variance * df / chi2;
}

double drawnAnchor(Random& random, double mean, double u) {
    const double z = random.normal();
    if (!(mean > 0) || !(u > 0)) return mean;
    const double sigma = std::sqrt(std::log1p((u / mean) * (u / mean)));
    return mean * std::exp(sigma * z - sigma * sigma / 2);
}

/// The path's total over cooler and joint, from its values at Chebyshev's points: the chain itself for every
/// step of every draw would take seconds. Outside of what it holds, the chain is asked.
class TotalTable {
public:
    TotalTable(HeatPath path, std::size_t studied, const Interval& coolers, const Interval& joints)
        : path_(std::move(path)), studied_(studied), coolers_(coolers), joints_(joints) {
        for (std::size_t i = 0; i < points; ++i)
            for (std::size_t j = 0; j < points; ++j)
                values_[i * points + j] = exact(coolers_.at[i], joints_.at[j]);
    }

    double operator()(double cooler, double mm2KPerW) const {
        if (!coolers_.range.contains(cooler) || !joints_.range.contains(mm2KPerW))
            return exact(cooler, mm2KPerW);
        const auto over = coolers_.weightsAt(cooler), along = joints_.weightsAt(mm2KPerW);
        double total = 0;
        for (std::size_t i = 0; i < points; ++i) {
            double row = 0;
            for (std::size_t j = 0; j < points; ++j) row += along[j] * values_[i * points + j];
            total += over[i] * row;
        }
        return total;
    }

private:
    static constexpr std::size_t points = 12;

    /// Chebyshev's points of a range, with their barycentric weights (Berrut & Trefethen 2004).
    struct Axis {
        explicit Axis(const Interval& of) : range(of) {
            for (std::size_t i = 0; i < points; ++i) {
                const double angle = std::numbers::pi * (static_cast<double>(i) + 0.5) / points;
                at[i] = 0.5 * (of.lo + of.hi) - 0.5 * (of.hi - of.lo) * std::cos(angle);
                weight[i] = (i % 2 == 0 ? 1 : -1) * std::sin(angle);
            }
        }
        std::array<double, points> weightsAt(double x) const {
            std::array<double, points> weights{};
            double sum = 0;
            for (std::size_t i = 0; i < points; ++i) {
                if (x == at[i]) {
                    weights.fill(0);
                    weights[i] = 1;
                    return weights;
                }
                weights[i] = weight[i] / (x - at[i]);
                sum += weights[i];
            }
            for (double& one : weights) one /= sum;
            return weights;
        }
        Interval range;
        std::array<double, points> at{}, weight{};
    };

    double exact(double cooler, double mm2KPerW) const {
        HeatPath path = path_;
        path.coolerKPerW = cooler;
        path.interfaces[studied_].rMm2KPerW = mm2KPerW;
        return totalKPerW(path);
    }

    HeatPath path_;
    std::size_t studied_;
    Axis coolers_, joints_;
    std::array<double, points * points> values_{};
};

/// As far as most draws go.
TotalTable tableOf(const Calibration& calibration, const std::vector<int>& mounts) {
    const CalibrationInput& input = calibration.input;
    Interval joints{input.anchorMm2KPerW, input.anchorMm2KPerW};
    for (std::size_t g = 0; g < calibration.groups.size(); ++g)
        if (const auto& ci = calibration.groups[g].ci; ci && mounts[g] > 0)
            joints = {std::min(joints.lo, ci->lo), std::max(joints.hi, ci->hi)};
    const double margin = 0.5 * (joints.hi - joints.lo) + 1;
    return {anchoredPath(input),
            *input.bench.studied,
            {0.2 * calibration.coolerKPerW, 2 * calibration.coolerKPerW},
            {joints.lo - margin, joints.hi + margin}};
}

/// One draw: the cooler and every group's R″; NaN where nothing is left for the cooler.
struct Draw {
    double cooler = nan;
    std::vector<double> groups;
};

Draw drawOne(const Calibration& calibration, const std::vector<int>& mounts, const TotalTable& totals,
             std::uint64_t seed) {
    Random random(seed);
    const CalibrationInput& input = calibration.input;
    const double variance = drawnVariance(random, calibration.sdKPerW * calibration.sdKPerW, calibration.df);
    const double scale = 1 + std::sqrt(3.0) * input.powerScaleU * (2 * random.uniform() - 1);
    const double anchor = drawnAnchor(random, input.anchorMm2KPerW, input.anchorU);
    std::vector<double> means;
    for (std::size_t g = 0; g < mounts.size(); ++g) {
        const double off = std::sqrt(variance / std::max(1, mounts[g])) * random.normal();
        means.push_back(mounts[g] == 0 ? nan : (calibration.groups[g].kPerW + off) * scale);
    }
    Draw draw;
    draw.groups.assign(means.size(), nan);
    const double around = calibration.coolerKPerW;
    const double cooler = solved([&](double trial) { return totals(trial, anchor); }, around, 1.05 * around,
                                 means[input.anchor]);
    if (!(cooler > 0)) return draw;
    draw.cooler = cooler;
    for (std::size_t g = 0; g < means.size(); ++g)
        if (std::isfinite(means[g])) {
            const double joint = calibration.groups[g].mm2KPerW;
            draw.groups[g] =
                solved([&](double trial) { return totals(cooler, trial); }, joint, joint + 1, means[g]);
        }
    return draw;
}

/// What holds that share of the values, as many beyond either end.
std::optional<Interval> middleOf(std::vector<double> values, double confidence) {
    std::erase_if(values, [](double value) { return !std::isfinite(value); });
    if (values.size() < 2) return std::nullopt;
    return Interval{quantile(values, 0.5 * (1 - confidence)), quantile(values, 0.5 * (1 + confidence))};
}

} // namespace

DrawnCalibration drawCalibration(const Calibration& calibration, const DrawOptions& options) {
    DrawnCalibration found;
    found.groups.resize(calibration.groups.size());
    found.differences.resize(calibration.differences.size());
    if (!(calibration.df > 0)) return found;
    const std::vector<int> mounts = drawnMounts(calibration);
    const TotalTable totals = tableOf(calibration, mounts);
    std::vector<Draw> draws(static_cast<std::size_t>(options.draws));
    ThreadTeam team(options.threads);
    for (int from = 0; from < options.draws; from += atOnce) {
        if (options.stop.stop_requested()) {
            found.cancelled = true;
            return found;
        }
        team.run(std::min(atOnce, options.draws - from), [&](int, int begin, int end) {
            for (int i = begin; i < end; ++i)
                draws[static_cast<std::size_t>(from) + static_cast<std::size_t>(i)] =
                    drawOne(calibration, mounts, totals,
                            options.seed * 1'000'003 + static_cast<std::uint64_t>(from + i));
        });
        if (options.progress) options.progress(static_cast<double>(from) / options.draws);
    }
    const double confidence = calibration.input.confidence;
    const auto intervalOf = [&](const std::function<double(const Draw&)>& value) {
        std::vector<double> values;
        for (const Draw& draw : draws) values.push_back(value(draw));
        return middleOf(std::move(values), confidence);
    };
    for (const Draw& draw : draws) std::isfinite(draw.cooler) ? ++found.draws : ++found.refused;
    found.coolerCi = intervalOf([](const Draw& draw) { return draw.cooler; });
    for (std::size_t g = 0; g < found.groups.size(); ++g)
        if (calibration.groups[g].ci)
            found.groups[g] = intervalOf([g](const Draw& draw) { return draw.groups[g]; });
    for (std::size_t i = 0; i < found.differences.size(); ++i) {
        const ResistanceDifference& d = calibration.differences[i];
        if (d.ci)
            found.differences[i] =
                intervalOf([&](const Draw& draw) { return draw.groups[d.a] - draw.groups[d.b]; });
    }
    return found;
}

bool agree(const Interval& byPropagation, const Interval& byDraws) {
    const double allowed = (byPropagation.hi - byPropagation.lo) / 20;
    return std::abs(byPropagation.lo - byDraws.lo) <= allowed
           && std::abs(byPropagation.hi - byDraws.hi) <= allowed;
}

} // namespace ibuki
