// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/simulated_bench.h"

#include "core/base/input_error.h"
#include "core/base/nan.h"
#include "core/base/random.h"
#include "core/simulate/bench_parts.h"

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
    if (bench.ambientLogged) c.push_back(channel("Room [°C]", Unit::celsius, Role::ambient, 0));
    c.push_back(channel("Package Power [W]", Unit::watt, Role::packagePower, 0));
    c.push_back(channel("Fan [RPM]", Unit::rpm, Role::fan, 0));
    c.push_back(channel("Core Clock [MHz]", Unit::megahertz, Role::clock, 0));
    if (bench.coolantLayer) c.push_back(channel("Coolant [°C]", Unit::celsius, Role::coolant, 0));
    for (const SimulatedPart& part : bench.parts)
        c.push_back(channel(part.column, Unit::celsius, part.role, 0));
    if (bench.neighbour) c.push_back(channel("Other Chip [°C]", Unit::celsius, Role::gpu, 0));
    return c;
}

std::vector<double> coreOffsets(const SimulatedBench& bench) {
    Random chip(bench.coreSeed);
    std::vector<double> offsets;
    for (int i = 0; i < bench.cores; ++i) offsets.push_back(bench.coreSpreadK * chip.normal());
    return offsets;
}

double ambientAt(const SimulatedBench& bench, double timeS, double phase) {
    return bench.ambientC + bench.ambientDriftKPerH * timeS / 3600
           + bench.ambientSwingK
                 * std::sin(boost::math::constants::two_pi<double>()
                            * (timeS / bench.ambientSwingPeriodS + phase));
}

constexpr double mostSteps = 1e8;
constexpr double mostValues = 5e7;

bool canBe(double value) { return std::abs(value) <= 1e6; }

void checkParts(const SimulatedBench& bench) {
    const std::size_t layers = bench.layers.size();
    bool sound = bench.coolantLayer.value_or(0) < layers && bench.dropoutsPerH >= 0
                 && canBe(bench.dropoutsPerH) && bench.dropoutS >= 0 && canBe(bench.dropoutS);
    for (const SimulatedPart& part : bench.parts)
        sound =
            sound && part.layer < layers && canBe(part.shareOfPower) && canBe(part.kPerW) && part.lagS >= 0;
    if (const auto& other = bench.neighbour)
        sound = sound && other->layer < layers && other->powerW >= 0 && canBe(other->powerW)
                && canBe(other->kPerW);
    if (const auto& leak = bench.leakage)
        sound = sound && leak->atReferenceW >= 0 && canBe(leak->atReferenceW) && canBe(leak->referenceC)
                && leak->perK >= 0 && leak->perK <= 0.2;
    if (const auto& fan = bench.fan)
        sound = sound && fan->toC > fan->fromC && fan->leastDuty > 0 && fan->leastDuty <= 1
                && fan->slewPerS > 0 && fan->fixedKPerW >= 0 && fan->airKPerW > 0 && canBe(fan->fullRpm);
    if (const auto& wet = bench.wetting)
        sound = sound && wet->unwettedKPerW >= 0 && canBe(wet->unwettedKPerW) && canBe(wet->meltC)
                && wet->tauS > 0 && wet->wetted >= 0 && wet->wetted <= 1;
    if (const auto& pump = bench.pumpOut)
        sound =
            sound && pump->amplitude >= 0 && canBe(pump->amplitude) && pump->cycles > 0 && pump->before >= 0;
    if (const auto& dry = bench.dryOut)
        sound = sound && dry->kPerWPerRootH >= 0 && canBe(dry->kPerWPerRootH) && dry->before >= 0
                && canBe(dry->before);
    if (!sound) throw InputError("simulate-values", {});
}

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
          bench.sensorStepK, bench.ambientC, bench.ambientDriftKPerH, bench.ambientSwingK,
          bench.ambientSwingPeriodS, bench.ambientNoiseK, bench.ambientStepK, bench.idleW, bench.powerNoiseW,
          bench.limitC.value_or(0), bench.clockMHz, bench.idleClockMHz, bench.fanRpm, bench.fanNoiseRpm})
        if (!canBe(value)) throw InputError("simulate-values", {});
    checkParts(bench);
    if (bench.cores > 1'000 || bench.layers.size() > 100 || bench.parts.size() > 100)
        throw InputError("simulate-long", {});
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
    double ambientPhase;
    int inner;
    double stepS;
    MovingParts moving;
    ThermalLadder ladder;
    PowerLimiter limiter;
    std::vector<double> offsets;
    double highestOffset;
    std::vector<Channel> channels;
    std::vector<double> also;     ///< W into the layers besides
    std::vector<double> partRise; ///< over their layers
    std::size_t samples = 0;
    double sensed = 0;
    double power;
    double share = 1;
    double silentUntilS = -1;
    bool limited = false;

    State(const SimulatedBench& of, double interval, std::uint64_t seed)
        : bench(of),
          intervalS(interval),
          random(seed),
          ambientPhase(random.uniform()),
          inner(std::max(1, static_cast<int>(std::round(interval / controlStepS)))),
          stepS(interval / inner),
          moving(bench),
          ladder(moving.layers(), stepS),
          limiter(of.limitC),
          offsets(coreOffsets(of)),
          highestOffset(*std::max_element(offsets.begin(), offsets.end())),
          channels(channelsOf(of)),
          also(of.layers.size(), 0.0),
          power(of.idleW) {
        if (bench.neighbour) also[bench.neighbour->layer] += bench.neighbour->powerW;
        for (const SimulatedPart& part : bench.parts)
            partRise.push_back(bench.idleW * part.shareOfPower * part.kPerW);
        heatParts(bench.idleW);
        ladder.settle(bench.idleW, ambientAt(bench, 0, ambientPhase), also);
        sensed = ladder.chipC();
    }

    /// Their shares of the power go into the layers that they stand on.
    void heatParts(double watt) {
        if (bench.parts.empty()) return;
        std::fill(also.begin(), also.end(), 0.0);
        if (bench.neighbour) also[bench.neighbour->layer] += bench.neighbour->powerW;
        for (const SimulatedPart& part : bench.parts) also[part.layer] += part.shareOfPower * watt;
    }

    double jointC() const {
        const std::size_t below = std::min(bench.interfaceAfter + 1, bench.layers.size() - 1);
        return (ladder.nodeC(bench.interfaceAfter) + ladder.nodeC(below)) / 2;
    }

    void advance(double time, std::optional<double> loadW) {
        share = 1;
        for (int k = 0; k < inner; ++k) {
            const double hottest = sensed + power * bench.hotSpotKPerW + highestOffset;
            share = loadW ? limiter.share(hottest) : 1;
            power = (loadW ? *loadW * share : bench.idleW) + leakageW(bench.leakage, ladder.chipC());
            heatParts(power);
            if (moving.step(ladder.chipC(), jointC(), loadW.has_value(), stepS))
                ladder.relink(moving.layers());
            ladder.step(power, ambientAt(bench, time, ambientPhase), also);
            const double lag = bench.sensorLagS > 0 ? 1 - std::exp(-stepS / bench.sensorLagS) : 1;
            sensed += lag * (ladder.chipC() - sensed);
            for (std::size_t i = 0; i < partRise.size(); ++i) {
                const SimulatedPart& part = bench.parts[i];
                const double slow = part.lagS > 0 ? 1 - std::exp(-stepS / part.lagS) : 1;
                partRise[i] += slow * (power * part.shareOfPower * part.kPerW - partRise[i]);
            }
        }
        limited = limited || share < 0.999;
    }

    double noisy(double celsius) {
        return rounded(celsius + bench.sensorNoiseK * random.normal(), bench.sensorStepK);
    }

    std::vector<double> read(double time, bool loaded) {
        std::vector<double> values;
        double highest = -1e9;
        for (double offset : offsets) {
            values.push_back(noisy(sensed + power * bench.hotSpotKPerW + offset));
            highest = std::max(highest, values.back());
        }
        values.push_back(highest);
        if (bench.ambientLogged)
            values.push_back(
                rounded(ambientAt(bench, time, ambientPhase) + bench.ambientNoiseK * random.normal(),
                        bench.ambientStepK));
        values.push_back(power + bench.powerNoiseW * random.normal());
        const double rpm = bench.fan ? bench.fan->fullRpm * moving.fanDuty() : bench.fanRpm;
        values.push_back(std::round(rpm + bench.fanNoiseRpm * random.normal()));
        values.push_back((loaded ? bench.clockMHz * std::cbrt(share) : bench.idleClockMHz)
                         + 2 * random.normal());
        readRest(values);
        if (isSilent(time)) std::fill(values.begin(), values.end(), nan);
        return values;
    }

    void readRest(std::vector<double>& values) {
        if (bench.coolantLayer) values.push_back(noisy(ladder.nodeC(*bench.coolantLayer)));
        for (std::size_t i = 0; i < partRise.size(); ++i)
            values.push_back(noisy(ladder.nodeC(bench.parts[i].layer) + partRise[i]));
        if (bench.neighbour)
            values.push_back(noisy(ladder.nodeC(bench.neighbour->layer)
                                   + bench.neighbour->powerW * bench.neighbour->kPerW));
    }

    bool isSilent(double time) {
        if (!(bench.dropoutsPerH > 0)) return false;
        if (time >= silentUntilS && random.uniform() < bench.dropoutsPerH * intervalS / 3600)
            silentUntilS = time + bench.dropoutS;
        return time < silentUntilS;
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
double BenchSimulation::wetted() const { return state_->moving.wetted(); }

double BenchSimulation::trueDeltaK(double powerW) const { // of the ladder as it stands
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
