// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/structure_function.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <numeric>

namespace ibuki {
namespace {

constexpr double decadesBefore = 1; ///< time constants faster than the first point, seen by its rise alone

/// The curve at points evenly spaced in ln t: means of what lies around each, else between its neighbours.
std::vector<double> evenly(const ImpedanceCurve& curve, double from, double step, std::size_t points) {
    std::vector<double> sum(points, 0.0), value(points);
    std::vector<int> count(points, 0);
    for (std::size_t i = 0; i < curve.timeS.size(); ++i) {
        const double at = std::round((std::log(curve.timeS[i]) - from) / step);
        if (at < 0 || at >= static_cast<double>(points)) continue;
        sum[static_cast<std::size_t>(at)] += curve.kPerW[i];
        ++count[static_cast<std::size_t>(at)];
    }
    std::size_t right = 0;
    for (std::size_t p = 0; p < points; ++p) {
        if (count[p] > 2) { // fewer lie to one side of it
            value[p] = sum[p] / count[p];
            continue;
        }
        const double time = std::exp(from + step * static_cast<double>(p));
        while (right + 1 < curve.timeS.size() && curve.timeS[right] < time) ++right;
        const std::size_t left = right > 0 ? right - 1 : 0;
        const double width = std::log(curve.timeS[right] / curve.timeS[left]);
        const double share =
            width > 0 ? std::clamp(std::log(time / curve.timeS[left]) / width, 0.0, 1.0) : 0.0;
        value[p] = curve.kPerW[left] + share * (curve.kPerW[right] - curve.kPerW[left]);
    }
    return value;
}

/// What one watt of a term with τ = e^ζ has risen to at ln t = z.
double risen(double z, double zeta) { return -std::expm1(-std::exp(z - zeta)); }

/// rises: of the curve, the first from nothing. share(i, j): of term j in rise i.
struct Deconvolution {
    std::size_t terms = 0;
    std::vector<double> rises;
    std::vector<double> share; ///< row after row

    std::vector<double> solve(int iterations) const {
        const std::size_t rows = rises.size();
        std::vector<double> column(terms, 0.0);
        for (std::size_t i = 0; i < rows; ++i)
            for (std::size_t j = 0; j < terms; ++j) column[j] += share[i * terms + j];
        const double whole = std::accumulate(rises.begin(), rises.end(), 0.0);
        std::vector<double> r(terms, whole / static_cast<double>(terms)), gain(terms);
        for (int k = 0; k < iterations; ++k) {
            std::fill(gain.begin(), gain.end(), 0.0);
            for (std::size_t i = 0; i < rows; ++i) {
                if (!(rises[i] > 0)) continue;
                const double* of = &share[i * terms];
                const double reported = std::inner_product(r.begin(), r.end(), of, 0.0);
                if (!(reported > 0)) continue;
                const double ratio = rises[i] / reported;
                for (std::size_t j = 0; j < terms; ++j) gain[j] += ratio * of[j];
            }
            for (std::size_t j = 0; j < terms; ++j) r[j] *= gain[j] / column[j];
        }
        return r;
    }
};

} // namespace

std::vector<FosterTerm> timeConstantsOf(const ImpedanceCurve& curve, const DeconvolutionSettings& settings) {
    if (curve.timeS.size() < 3 || !(curve.timeS.front() > 0)) return {};
    const double step = std::numbers::ln10 / settings.perDecade;
    const double first = std::log(curve.timeS.front()), last = std::log(curve.timeS.back());
    const auto points = static_cast<std::size_t>((last - first) / step) + 1;
    const auto before = static_cast<std::size_t>(std::lround(decadesBefore * settings.perDecade));
    const std::vector<double> even = evenly(curve, first, step, points);
    Deconvolution d;
    d.terms = before + points;
    d.rises.assign(points, 0.0);
    d.share.resize(points * d.terms);
    const auto zetaOf = [&](std::size_t j) {
        return first + step * (static_cast<double>(j) - static_cast<double>(before));
    };
    double reached = 0; // falls count as no rise, and what comes after them not twice
    for (std::size_t i = 0; i < points; ++i) {
        d.rises[i] = std::max(0.0, even[i] - reached);
        reached = std::max(reached, even[i]);
        const double z = first + step * static_cast<double>(i);
        for (std::size_t j = 0; j < d.terms; ++j)
            d.share[i * d.terms + j] = risen(z, zetaOf(j)) - (i == 0 ? 0 : risen(z - step, zetaOf(j)));
    }
    if (!(reached > 0)) return {};
    const std::vector<double> r = d.solve(settings.iterations);
    const double whole = std::accumulate(r.begin(), r.end(), 0.0);
    std::vector<FosterTerm> terms;
    for (std::size_t j = d.terms; j-- > 0;)
        if (r[j] > settings.leastShare * whole) terms.push_back({r[j], std::exp(zetaOf(j))});
    return terms;
}

std::vector<StructurePoint> structureFunction(const std::vector<LadderNode>& nodes) {
    std::vector<StructurePoint> points;
    StructurePoint at;
    for (const LadderNode& node : nodes) {
        at.jPerK += node.capacityJPerK;
        points.push_back(at);
        at.kPerW += node.toNextKPerW;
    }
    points.push_back(at);
    return points;
}

} // namespace ibuki
