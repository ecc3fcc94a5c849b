// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/thermal_course.h"

#include "core/reduce/metric.h"
#include "core/reduce/trusted_channels.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double blockS = 5;
constexpr double chipToleranceK = 1;
constexpr double powerToleranceShare = 0.05;
constexpr std::size_t mostPoints = 300;

/// Means of stretches of 5 s; what was not read is left out, power that was not read is 0.
ThermalCourse inBlocks(const Trace& trace, const std::vector<double>& chip, const Channel* power) {
    ThermalCourse made;
    double sumT = 0;
    double sumC = 0;
    double sumW = 0;
    int count = 0;
    double began = 0;
    const auto close = [&] {
        if (count == 0) return;
        made.atS.push_back(sumT / count);
        made.chipC.push_back(sumC / count);
        if (power) made.powerW.push_back(sumW / count);
        sumT = sumC = sumW = 0;
        count = 0;
    };
    for (std::size_t i = 0; i < trace.samples(); ++i) {
        if (!std::isfinite(chip[i])) continue;
        if (count > 0 && trace.timeS[i] - began >= blockS) close();
        if (count == 0) began = trace.timeS[i];
        sumT += trace.timeS[i];
        sumC += chip[i];
        if (power && std::isfinite(power->values[i])) sumW += power->values[i];
        ++count;
    }
    close();
    return made;
}

/// Marks the points that straight lines between them need (Ramer 1972; Douglas & Peucker 1973), both series
/// at once, without recursion.
std::vector<bool> needed(const ThermalCourse& course, double chipTolerance, double powerTolerance) {
    std::vector<bool> keep(course.atS.size(), false);
    keep.front() = keep.back() = true;
    std::vector<std::pair<std::size_t, std::size_t>> open{{0, course.atS.size() - 1}};
    while (!open.empty()) {
        const std::size_t from = open.back().first;
        const std::size_t to = open.back().second;
        open.pop_back();
        double worst = 1;
        std::size_t at = from;
        for (std::size_t i = from + 1; i < to; ++i) {
            const double share = (course.atS[i] - course.atS[from]) / (course.atS[to] - course.atS[from]);
            const auto off = [&](const std::vector<double>& v) {
                return std::abs(v[i] - v[from] - share * (v[to] - v[from]));
            };
            double error = off(course.chipC) / chipTolerance;
            if (!course.powerW.empty()) error = std::max(error, off(course.powerW) / powerTolerance);
            if (error > worst) {
                worst = error;
                at = i;
            }
        }
        if (at == from) continue;
        keep[at] = true;
        open.emplace_back(from, at);
        open.emplace_back(at, to);
    }
    return keep;
}

double inHundredths(double value) { return std::round(value * 100) / 100; }

} // namespace

ThermalCourse thermalCourse(const Trace& trace) {
    const auto chip = metricSeries(trace, chipChannels(trace, {}), Metric::hottest);
    if (chip.empty()) return {};
    const Channel* power = powerChannel(trace, Metric::hottest);
    ThermalCourse blocks = inBlocks(trace, chip, power ? power : powerChannel(trace, Metric::gpu));
    if (blocks.atS.size() < 3) return blocks;
    const double most =
        blocks.powerW.empty() ? 0 : *std::max_element(blocks.powerW.begin(), blocks.powerW.end());
    std::vector<bool> keep;
    for (double wider = 1;; wider *= 2) {
        keep = needed(blocks, chipToleranceK * wider, std::max(1.0, powerToleranceShare * most) * wider);
        if (std::count(keep.begin(), keep.end(), true) <= static_cast<std::ptrdiff_t>(mostPoints)) break;
    }
    ThermalCourse made;
    for (std::size_t i = 0; i < keep.size(); ++i) {
        if (!keep[i]) continue;
        made.atS.push_back(inHundredths(blocks.atS[i]));
        made.chipC.push_back(inHundredths(blocks.chipC[i]));
        if (!blocks.powerW.empty()) made.powerW.push_back(inHundredths(blocks.powerW[i]));
    }
    return made;
}

} // namespace ibuki
