// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/simulated_bench.h"

#include "core/base/input_error.h"
#include "core/physics/random.h"

#include <algorithm>
#include <boost/math/constants/constants.hpp>
#include <cmath>
#include <fmt/format.h>

namespace ibuki {
namespace {

constexpr double controlStepS = 0.1;

/// Integral controller in velocity form: u += Kp (e − e_prev) + Ki e Δt, clamped to [u_min, 1].
class PowerLimiter {
public:
    explicit PowerLimiter(std::optional<double> limitC) : limitC_(limitC) {}

    double share(double sensedC) {
        if (!limitC_) return 1;
        const double error = *limitC_ - sensedC;
        u_ = std::clamp(u_ + 0.02 * (error - last_) + 0.1 * error * controlStepS, 0.2, 1.0);
        last_ = error;
        return u_;
    }

private:
    std::optional<double> limitC_;
    double u_ = 1;
    double last_ = 0;
};

double rounded(double value, double step) { return step > 0 ? std::round(value / step) * step : value; }

Channel channel(std::string column, Unit unit, Role role, int index) {
    Channel result;
    result.column = std::move(column);
    result.fileUnit = unit;
    result.role = role;
    result.index = index;
    return result;
}

/// Column positions in the simulated log.
struct Columns {
    std::size_t firstCore = 0;
    std::size_t package = 0;
    std::optional<std::size_t> room;
    std::size_t power = 0;
    std::size_t fan = 0;
    std::size_t clock = 0;
};

Columns addColumns(Trace& trace, const SimulatedBench& bench) {
    auto& c = trace.channels;
    Columns at;
    at.firstCore = c.size();
    for (int i = 0; i < bench.cores; ++i)
        c.push_back(channel(fmt::format("Core {} [°C]", i), Unit::celsius, Role::core, i));
    at.package = c.size();
    c.push_back(channel("Package [°C]", Unit::celsius, Role::package, 0));
    if (bench.roomLogged) {
        at.room = c.size();
        c.push_back(channel("Room [°C]", Unit::celsius, Role::ambient, 0));
    }
    at.power = c.size();
    c.push_back(channel("Package Power [W]", Unit::watt, Role::packagePower, 0));
    at.fan = c.size();
    c.push_back(channel("Fan [RPM]", Unit::rpm, Role::fan, 0));
    at.clock = c.size();
    c.push_back(channel("Core Clock [MHz]", Unit::megahertz, Role::clock, 0));
    return at;
}

std::vector<double> coreOffsets(const SimulatedBench& bench) {
    Random chip(bench.coreSeed);
    std::vector<double> offsets;
    for (int i = 0; i < bench.cores; ++i) offsets.push_back(bench.coreSpreadK * chip.normal());
    return offsets;
}

double roomAt(const SimulatedBench& bench, double timeS, double phase) {
    return bench.roomC + bench.roomDriftKPerH * timeS / 3600
           + bench.roomSwingK
                 * std::sin(boost::math::constants::two_pi<double>()
                            * (timeS / bench.roomSwingPeriodS + phase));
}

constexpr double mostSteps = 1e8;
constexpr double mostValues = 5e7;

void check(const SimulatedBench& bench, const SimulatedProtocol& protocol) {
    if (!(protocol.intervalS > 0) || !(protocol.loadS >= 0) || !(protocol.idleS >= 0)
        || !(protocol.cooldownS >= 0) || bench.cores < 1 || bench.interfaceAfter >= bench.layers.size())
        throw InputError("simulate-values", {});
    const auto canBe = [](double value) { return std::abs(value) <= 1e6; };
    for (const LadderNode& layer : bench.layers)
        if (!(layer.capacityJPerK > 0 && layer.toNextKPerW > 0) || !canBe(layer.capacityJPerK)
            || !canBe(layer.toNextKPerW))
            throw InputError("simulate-values", {});
    for (double value : {bench.interfaceKPerW,
                         bench.coreSpreadK,
                         bench.hotSpotKPerW,
                         bench.sensorLagS,
                         bench.sensorNoiseK,
                         bench.sensorStepK,
                         bench.roomC,
                         bench.roomDriftKPerH,
                         bench.roomSwingK,
                         bench.roomSwingPeriodS,
                         bench.roomNoiseK,
                         bench.roomStepK,
                         bench.idleW,
                         bench.powerNoiseW,
                         bench.limitC.value_or(0),
                         bench.clockMHz,
                         bench.idleClockMHz,
                         bench.fanRpm,
                         bench.fanNoiseRpm,
                         protocol.powerW,
                         protocol.intervalS})
        if (!canBe(value)) throw InputError("simulate-values", {});
    const double total = protocol.idleS + protocol.loadS + protocol.cooldownS;
    if (!(total / std::min(controlStepS, protocol.intervalS) <= mostSteps)
        || !(total / protocol.intervalS * (bench.cores + 5) <= mostValues) || bench.cores > 1'000
        || bench.layers.size() > 100)
        throw InputError("simulate-long", {});
}

} // namespace

SimulatedRun simulate(const SimulatedBench& bench, const SimulatedProtocol& protocol, std::uint64_t seed) {
    check(bench, protocol);
    Random random(seed);
    const double roomPhase = random.uniform();
    auto layers = bench.layers;
    layers[bench.interfaceAfter].toNextKPerW += bench.interfaceKPerW;
    const int inner = std::max(1, static_cast<int>(std::round(protocol.intervalS / controlStepS)));
    const double stepS = protocol.intervalS / inner;
    ThermalLadder ladder(layers, stepS);
    PowerLimiter limiter(bench.limitC);
    const auto offsets = coreOffsets(bench);
    const double highestOffset = *std::max_element(offsets.begin(), offsets.end());

    SimulatedRun run;
    const Columns at = addColumns(run.trace, bench);
    run.trace.start = protocol.start;
    run.trueDeltaK = protocol.powerW * (ladder.totalKPerW() + bench.hotSpotKPerW) + highestOffset;

    const double total = protocol.idleS + protocol.loadS + protocol.cooldownS;
    const auto samples = static_cast<std::size_t>(total / protocol.intervalS) + 1;
    ladder.settle(bench.idleW, roomAt(bench, 0, roomPhase));
    double sensed = ladder.chipC();
    double power = bench.idleW;
    for (std::size_t i = 0; i < samples; ++i) {
        const double time = static_cast<double>(i) * protocol.intervalS;
        const bool loaded = time >= protocol.idleS && time < protocol.idleS + protocol.loadS;
        double share = 1;
        for (int k = 0; k < inner && i > 0; ++k) {
            const double hottest = sensed + power * bench.hotSpotKPerW + highestOffset;
            share = loaded ? limiter.share(hottest) : 1;
            power = loaded ? protocol.powerW * share : bench.idleW;
            ladder.step(power, roomAt(bench, time, roomPhase));
            const double lag = bench.sensorLagS > 0 ? 1 - std::exp(-stepS / bench.sensorLagS) : 1;
            sensed += lag * (ladder.chipC() - sensed);
        }
        run.limited = run.limited || share < 0.999;
        run.trace.timeS.push_back(time);
        auto& c = run.trace.channels;
        double highest = -1e9;
        for (std::size_t core = 0; core < offsets.size(); ++core) {
            const double reading =
                sensed + power * bench.hotSpotKPerW + offsets[core] + bench.sensorNoiseK * random.normal();
            c[at.firstCore + core].values.push_back(rounded(reading, bench.sensorStepK));
            highest = std::max(highest, c[at.firstCore + core].values.back());
        }
        c[at.package].values.push_back(highest);
        if (at.room)
            c[*at.room].values.push_back(rounded(
                roomAt(bench, time, roomPhase) + bench.roomNoiseK * random.normal(), bench.roomStepK));
        c[at.power].values.push_back(power + bench.powerNoiseW * random.normal());
        c[at.fan].values.push_back(std::round(bench.fanRpm + bench.fanNoiseRpm * random.normal()));
        c[at.clock].values.push_back((loaded ? bench.clockMHz * std::cbrt(share) : bench.idleClockMHz)
                                     + 2 * random.normal());
    }
    return run;
}

} // namespace ibuki
