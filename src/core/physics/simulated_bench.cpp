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

std::vector<Channel> channelsOf(const SimulatedBench& bench) {
    std::vector<Channel> c;
    for (int i = 0; i < bench.cores; ++i)
        c.push_back(channel(fmt::format("Core {} [°C]", i), Unit::celsius, Role::core, i));
    c.push_back(channel("Package [°C]", Unit::celsius, Role::package, 0));
    if (bench.roomLogged) c.push_back(channel("Room [°C]", Unit::celsius, Role::ambient, 0));
    c.push_back(channel("Package Power [W]", Unit::watt, Role::packagePower, 0));
    c.push_back(channel("Fan [RPM]", Unit::rpm, Role::fan, 0));
    c.push_back(channel("Core Clock [MHz]", Unit::megahertz, Role::clock, 0));
    return c;
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

bool canBe(double value) { return std::abs(value) <= 1e6; }

void check(const SimulatedBench& bench, double intervalS) {
    if (!(intervalS > 0) || !canBe(intervalS) || bench.cores < 1
        || bench.interfaceAfter >= bench.layers.size())
        throw InputError("simulate-values", {});
    for (const LadderNode& layer : bench.layers)
        if (!(layer.capacityJPerK > 0 && layer.toNextKPerW > 0) || !canBe(layer.capacityJPerK)
            || !canBe(layer.toNextKPerW))
            throw InputError("simulate-values", {});
    for (double value :
         {bench.interfaceKPerW, bench.coreSpreadK, bench.hotSpotKPerW, bench.sensorLagS, bench.sensorNoiseK,
          bench.sensorStepK, bench.roomC, bench.roomDriftKPerH, bench.roomSwingK, bench.roomSwingPeriodS,
          bench.roomNoiseK, bench.roomStepK, bench.idleW, bench.powerNoiseW, bench.limitC.value_or(0),
          bench.clockMHz, bench.idleClockMHz, bench.fanRpm, bench.fanNoiseRpm})
        if (!canBe(value)) throw InputError("simulate-values", {});
    if (bench.cores > 1'000 || bench.layers.size() > 100) throw InputError("simulate-long", {});
}

void check(const SimulatedBench& bench, const SimulatedProtocol& protocol) {
    if (!(protocol.loadS >= 0) || !(protocol.idleS >= 0) || !(protocol.cooldownS >= 0)
        || !canBe(protocol.powerW))
        throw InputError("simulate-values", {});
    check(bench, protocol.intervalS);
    const double total = protocol.idleS + protocol.loadS + protocol.cooldownS;
    if (!(total / std::min(controlStepS, protocol.intervalS) <= mostSteps)
        || !(total / protocol.intervalS * (bench.cores + 5) <= mostValues))
        throw InputError("simulate-long", {});
}

} // namespace

struct BenchSimulation::State {
    SimulatedBench bench;
    double intervalS;
    Random random;
    double roomPhase;
    int inner;
    double stepS;
    ThermalLadder ladder;
    PowerLimiter limiter;
    std::vector<double> offsets;
    double highestOffset;
    std::vector<Channel> channels;
    std::size_t samples = 0;
    double sensed = 0;
    double power;
    double share = 1;
    bool limited = false;

    static std::vector<LadderNode> layersOf(const SimulatedBench& bench) {
        auto layers = bench.layers;
        layers[bench.interfaceAfter].toNextKPerW += bench.interfaceKPerW;
        return layers;
    }

    State(const SimulatedBench& of, double interval, std::uint64_t seed)
        : bench(of),
          intervalS(interval),
          random(seed),
          roomPhase(random.uniform()),
          inner(std::max(1, static_cast<int>(std::round(interval / controlStepS)))),
          stepS(interval / inner),
          ladder(layersOf(of), stepS),
          limiter(of.limitC),
          offsets(coreOffsets(of)),
          highestOffset(*std::max_element(offsets.begin(), offsets.end())),
          channels(channelsOf(of)),
          power(of.idleW) {
        ladder.settle(bench.idleW, roomAt(bench, 0, roomPhase));
        sensed = ladder.chipC();
    }

    void advance(double time, std::optional<double> loadW) {
        share = 1;
        for (int k = 0; k < inner; ++k) {
            const double hottest = sensed + power * bench.hotSpotKPerW + highestOffset;
            share = loadW ? limiter.share(hottest) : 1;
            power = loadW ? *loadW * share : bench.idleW;
            ladder.step(power, roomAt(bench, time, roomPhase));
            const double lag = bench.sensorLagS > 0 ? 1 - std::exp(-stepS / bench.sensorLagS) : 1;
            sensed += lag * (ladder.chipC() - sensed);
        }
        limited = limited || share < 0.999;
    }

    std::vector<double> read(double time, bool loaded) {
        std::vector<double> values;
        double highest = -1e9;
        for (double offset : offsets) {
            const double reading =
                sensed + power * bench.hotSpotKPerW + offset + bench.sensorNoiseK * random.normal();
            values.push_back(rounded(reading, bench.sensorStepK));
            highest = std::max(highest, values.back());
        }
        values.push_back(highest);
        if (bench.roomLogged)
            values.push_back(rounded(roomAt(bench, time, roomPhase) + bench.roomNoiseK * random.normal(),
                                     bench.roomStepK));
        values.push_back(power + bench.powerNoiseW * random.normal());
        values.push_back(std::round(bench.fanRpm + bench.fanNoiseRpm * random.normal()));
        values.push_back((loaded ? bench.clockMHz * std::cbrt(share) : bench.idleClockMHz)
                         + 2 * random.normal());
        return values;
    }
};

BenchSimulation::BenchSimulation(const SimulatedBench& bench, double intervalS, std::uint64_t seed) {
    check(bench, intervalS);
    state_ = std::make_unique<State>(bench, intervalS, seed);
}
BenchSimulation::~BenchSimulation() = default;
BenchSimulation::BenchSimulation(BenchSimulation&&) noexcept = default;

const std::vector<Channel>& BenchSimulation::channels() const { return state_->channels; }
bool BenchSimulation::limited() const { return state_->limited; }

double BenchSimulation::trueDeltaK(double powerW) const {
    return powerW * (state_->ladder.totalKPerW() + state_->bench.hotSpotKPerW) + state_->highestOffset;
}

std::vector<double> BenchSimulation::next(std::optional<double> loadW) {
    const double time = static_cast<double>(state_->samples) * state_->intervalS;
    if (state_->samples++ > 0) state_->advance(time, loadW);
    return state_->read(time, loadW.has_value());
}

SimulatedRun simulate(const SimulatedBench& bench, const SimulatedProtocol& protocol, std::uint64_t seed) {
    check(bench, protocol);
    BenchSimulation simulation(bench, protocol.intervalS, seed);
    SimulatedRun run;
    run.trace.channels = simulation.channels();
    run.trace.start = protocol.start;
    run.trueDeltaK = simulation.trueDeltaK(protocol.powerW);
    const double total = protocol.idleS + protocol.loadS + protocol.cooldownS;
    const auto samples = static_cast<std::size_t>(total / protocol.intervalS) + 1;
    for (std::size_t i = 0; i < samples; ++i) {
        const double time = static_cast<double>(i) * protocol.intervalS;
        const bool loaded = time >= protocol.idleS && time < protocol.idleS + protocol.loadS;
        const auto values = simulation.next(loaded ? std::optional(protocol.powerW) : std::nullopt);
        run.trace.timeS.push_back(time);
        for (std::size_t k = 0; k < values.size(); ++k) run.trace.channels[k].values.push_back(values[k]);
    }
    run.limited = simulation.limited();
    return run;
}

} // namespace ibuki
