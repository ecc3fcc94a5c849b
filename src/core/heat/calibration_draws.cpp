// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/calibration_draws.h"

#include "core/base/nan.h"
#include "core/base/random.h"
#include "core/base/thread_team.h"

#include <algorithm>
#include <atomic>
#include <cmath>

namespace ibuki {
namespace {

constexpr int atOnce = 64; ///< draws between two looks at the stop

/// How well a group's mean is known.
struct GroupScatter {
    int mounts = 0;
    double variance = 0; ///< of one mount
    double df = 0;
    bool isOwn = false; ///< else the one that groups share
};

std::vector<GroupScatter> scattersOf(const Calibration& calibration) {
    const CalibrationInput& input = calibration.input;
    std::vector<GroupScatter> scatters(input.groups.size());
    std::vector<double> squares(input.groups.size(), 0);
    std::vector<bool> isBound(input.groups.size(), false);
    for (const PathMount& mount : input.mounts) {
        const double off = mount.kPerW - calibration.groups[mount.group].kPerW;
        squares[mount.group] += off * off;
        ++scatters[mount.group].mounts;
        isBound[mount.group] = isBound[mount.group] || mount.limitBound;
    }
    for (std::size_t g = 0; g < scatters.size(); ++g) {
        GroupScatter& of = scatters[g];
        of.isOwn = isBound[g] && of.mounts > 1;
        of.df = of.isOwn ? of.mounts - 1 : calibration.df;
        of.variance = of.isOwn ? squares[g] / of.df : calibration.sdKPerW * calibration.sdKPerW;
    }
    return scatters;
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

/// One draw: the cooler and every group's R″; NaN where nothing is left for the cooler.
struct Draw {
    double cooler = nan;
    std::vector<double> groups;
};

Draw drawOne(const Calibration& calibration, const std::vector<GroupScatter>& scatters, std::uint64_t seed) {
    Random random(seed);
    CalibrationInput input = calibration.input;
    const double shared =
        calibration.df > 0 ? drawnVariance(random, calibration.sdKPerW * calibration.sdKPerW, calibration.df)
                           : 0;
    const double scale = 1 + std::sqrt(3.0) * input.powerScaleU * (2 * random.uniform() - 1);
    input.anchorMm2KPerW = drawnAnchor(random, input.anchorMm2KPerW, input.anchorU);
    std::vector<double> means;
    for (std::size_t g = 0; g < scatters.size(); ++g) {
        const GroupScatter& of = scatters[g];
        const double variance = of.isOwn ? drawnVariance(random, of.variance, of.df) : shared;
        const double z = random.normal();
        means.push_back(of.mounts == 0
                            ? nan
                            : (calibration.groups[g].kPerW + std::sqrt(variance / of.mounts) * z) * scale);
    }
    Draw draw;
    HeatPath path = calibratedPath(calibration, input.anchorMm2KPerW, 0, 0);
    for (const PathMount& mount : input.mounts) { // as the calibration takes them
        path.powerW += mount.powerW / static_cast<double>(input.mounts.size());
        path.ambientC += mount.roomC / static_cast<double>(input.mounts.size());
    }
    path.coolerKPerW = solveCooler(path, means[input.anchor]);
    draw.groups.assign(means.size(), nan);
    if (!(path.coolerKPerW > 0)) return draw;
    draw.cooler = path.coolerKPerW;
    for (std::size_t g = 0; g < means.size(); ++g)
        if (std::isfinite(means[g])) draw.groups[g] = solveResistance(path, *input.bench.studied, means[g]);
    return draw;
}

/// The shortest stretch of the values that holds that share of them.
std::optional<Interval> shortest(std::vector<double> values, double confidence) {
    std::erase_if(values, [](double value) { return !std::isfinite(value); });
    if (values.size() < 2) return std::nullopt;
    std::sort(values.begin(), values.end());
    const auto held =
        std::min(values.size() - 1,
                 static_cast<std::size_t>(std::ceil(confidence * static_cast<double>(values.size()))));
    std::size_t best = 0;
    for (std::size_t i = 0; i + held < values.size(); ++i)
        if (values[i + held] - values[i] < values[best + held] - values[best]) best = i;
    return Interval{values[best], values[best + held]};
}

} // namespace

DrawnCalibration drawCalibration(const Calibration& calibration, const DrawOptions& options) {
    DrawnCalibration found;
    found.groups.resize(calibration.groups.size());
    found.differences.resize(calibration.differences.size());
    if (!(calibration.df > 0)) return found;
    const std::vector<GroupScatter> scatters = scattersOf(calibration);
    std::vector<Draw> draws(static_cast<std::size_t>(options.draws));
    ThreadTeam team(options.threads);
    for (int from = 0; from < options.draws; from += atOnce) {
        if (options.stop.stop_requested()) {
            found.cancelled = true;
            return found;
        }
        team.run(std::min(atOnce, options.draws - from), [&](int, int begin, int end) {
            for (int i = begin; i < end; ++i)
                draws[static_cast<std::size_t>(from + i)] = drawOne(
                    calibration, scatters, options.seed * 1'000'003 + static_cast<std::uint64_t>(from + i));
        });
        if (options.progress) options.progress(static_cast<double>(from) / options.draws);
    }
    const double confidence = calibration.input.confidence;
    const auto intervalOf = [&](const std::function<double(const Draw&)>& value) {
        std::vector<double> values;
        for (const Draw& draw : draws) values.push_back(value(draw));
        return shortest(std::move(values), confidence);
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
