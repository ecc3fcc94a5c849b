// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How often stated 95 % intervals hold the truth, over simulated runs whose truth is known: the asymptote of
// the tail, and the mean of the steady window. Used short by a test and long by bench-intervals.

#include "core/base/random.h"
#include "core/reduce/reduce.h"

#include <cmath>
#include <string>
#include <vector>

namespace ibuki::story {

struct NoiseCase {
    std::string name;
    double sdK = 0.3;
    double correlation = 0; ///< of one sample with the next
    double stepK = 0;       ///< of the sensor; 0: none
    double tauS = 150;      ///< the one time constant of the load
    double loadS = 1500;
    double intervalS = 1;
    double riseK = 12; ///< that is still to come when the load has begun
};

struct Coverage {
    int runs = 0;
    int asymptotes = 0; ///< intervals stated
    int asymptoteHits = 0;
    int means = 0;
    int meanHits = 0;

    double asymptoteShare() const {
        return asymptotes > 0 ? static_cast<double>(asymptoteHits) / asymptotes : 0;
    }
    double meanShare() const { return means > 0 ? static_cast<double>(meanHits) / means : 0; }
};

/// One core, a constant room of 22 °C, 180 s of idle at 35 °C, then the load at 75 °C less the decaying rise.
inline Trace decayingRun(const NoiseCase& noise, Random& random) {
    Trace trace;
    Channel core{"Core 0 [°C]", Unit::celsius, Role::core, 0, {}, {}};
    Channel room{"Room [°C]", Unit::celsius, Role::ambient, 0, {}, {}};
    Channel power{"Package Power [W]", Unit::watt, Role::packagePower, 0, {}, {}};
    double e = random.normal();
    const double fresh = std::sqrt(1 - noise.correlation * noise.correlation);
    for (double t = 0; t <= 180 + noise.loadS; t += noise.intervalS) {
        e = noise.correlation * e + fresh * random.normal();
        const bool load = t >= 180;
        double v = (load ? 75 - noise.riseK * std::exp(-(t - 180) / noise.tauS) : 35) + noise.sdK * e;
        if (noise.stepK > 0) v = std::round(v / noise.stepK) * noise.stepK;
        trace.timeS.push_back(t);
        core.values.push_back(v);
        room.values.push_back(22);
        power.values.push_back(load ? 150 : 28);
    }
    trace.channels = {core, room, power};
    return trace;
}

inline Coverage coverageOf(const NoiseCase& noise, int runs, std::uint64_t seed) {
    Coverage coverage;
    Random random(seed);
    for (int run = 0; run < runs; ++run) {
        const Trace trace = decayingRun(noise, random);
        const Reduction reduction = reduce(trace);
        const LoadReduction* load = reduction.main();
        ++coverage.runs;
        if (!load) continue;
        if (load->steady.asymptoteIntervalK) {
            ++coverage.asymptotes;
            const Interval ci = *load->steady.asymptoteIntervalK;
            coverage.asymptoteHits += ci.lo <= 53 && 53 <= ci.hi ? 1 : 0;
        }
        const MetricValue& value = load->metrics.at(Metric::hottest);
        if (!value.deltaK || !value.seK) continue;
        double truth = 0;
        int samples = 0;
        for (double t : trace.timeS) {
            if (t < load->window->startS || t > load->window->endS) continue;
            truth += 53 - noise.riseK * std::exp(-(t - 180) / noise.tauS);
            ++samples;
        }
        ++coverage.means;
        coverage.meanHits += std::abs(*value.deltaK - truth / samples) <= 1.959964 * *value.seK ? 1 : 0;
    }
    return coverage;
}

inline std::vector<NoiseCase> noiseCases() {
    return {{"white noise", 0.3, 0, 0},
            {"correlation 0.5", 0.3, 0.5, 0},
            {"correlation 0.9", 0.3, 0.9, 0},
            {"window of 2 time constants", 0.3, 0, 0, 500, 1150},
            {"window of 2, correlation 0.5", 0.3, 0.5, 0, 500, 1150},
            {"window of 3, correlation 0.8", 0.3, 0.8, 0, 300, 1060},
            {"every 5 s", 0.3, 0, 0, 300, 2400, 5},
            {"steps of 0.5 K, noise 0.6 steps", 0.3, 0, 0.5},
            {"steps of 1 K, noise 0.3 steps", 0.3, 0, 1},
            {"steps of 1 K, noise 0.5 steps", 0.5, 0, 1},
            {"steps of 1 K, correlation 0.8", 0.5, 0.8, 1}};
}

} // namespace ibuki::story
