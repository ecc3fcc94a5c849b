// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The stand-in for instruments on a line: a thermometer with two probes, a wall meter, a sound-level meter in
// one, answering from a simulated bench in real time. It can be told to misbehave as real ones do.

#include "core/simulate/simulated_bench.h"

#include <string>

namespace ibuki {

class SimulatedInstrument {
public:
    SimulatedInstrument(const SimulatedBench& bench, std::uint64_t seed);

    /// The answer to a line, without its end: "*IDN?", "MEAS:TEMP? 1" (room, °C), "MEAS:TEMP? 2" (plate, °C),
    /// "MEAS:POW?" (at the wall, W), "MEAS:LEV?" (dBA); an error number for anything else. seconds: since it
    /// was switched on.
    std::string answer(const std::string& query, double seconds);

private:
    void advanceTo(double seconds);

    BenchSimulation simulation_;
    std::vector<double> values_;
    double atS_ = -1;
};

} // namespace ibuki
