// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A bench that is not there: thermal ladder with an interface, a room that drifts, cores with offsets,
// sensors with lag, noise and steps, a temperature limit that cuts power. It stands in for hardware in the
// demo, in tests and in error-rate simulations; its logs look like a logger's.

#include "core/physics/leakage.h"
#include "core/physics/thermal_ladder.h"
#include "core/quantity/instant.h"
#include "core/trace/trace.h"

#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace ibuki {

/// A fan that follows the chip: duty from a straight line between two temperatures, the last resistance
/// fixedKPerW + airKPerW duty^(−0.7) (F.5).
struct SimulatedFan {
    double fromC = 50;
    double toC = 90;
    double leastDuty = 0.3;
    double slewPerS = 0.05; ///< of the duty
    double fixedKPerW = 0.02;
    double airKPerW = 0.06;
    double fullRpm = 2'000;
};

/// A part under the same plate that is heated by a share of the power: memory, power stages.
struct SimulatedPart {
    Role role = Role::memory;
    std::string column;
    std::size_t layer = 2; ///< whose temperature it stands on
    double shareOfPower = 0.1;
    double kPerW = 0.4;
    double lagS = 30;
};

/// Another chip on the same pipe: heat into a layer, and its own temperature over it.
struct SimulatedNeighbour {
    double powerW = 0;
    std::size_t layer = 2;
    double kPerW = 0.1;
};

/// An interface that wets above its melting point: unwettedKPerW more before, less by
/// dw/dt = (1 − w)/τ_w above it (F.6).
struct SimulatedWetting {
    double unwettedKPerW = 0.01;
    double meltC = 52;
    double tauS = 480;
    double wetted = 0; ///< w at the begin
};

/// An interface that is pumped out by cycles of load: R (1 + a (1 − e^{−N/N₀})) (F.6).
struct SimulatedPumpOut {
    double amplitude = 0.5;
    double cycles = 250; ///< N₀
    double before = 0;   ///< N at the begin
};

/// An interface that dries out: R + b √t (Prasher 2006; diffusion of the oil).
struct SimulatedDryOut {
    double kPerWPerRootH = 0.0001; ///< b
    double before = 0;             ///< hours at the begin
};

struct SimulatedBench {
    std::vector<LadderNode> layers{{0.26, 0.057}, {7.7, 0.060}, {100, 0.045}, {540, 0.090}};
    std::size_t interfaceAfter = 1; ///< the interface's resistance is added to this layer's link
    double interfaceKPerW = 0.015;
    int cores = 8;
    double coreSpreadK = 1.2;   ///< standard deviation of the core offsets, drawn once a bench
    std::uint64_t coreSeed = 2; ///< the chip: same seed, same offsets
    double hotSpotKPerW = 0.02; ///< cores above the die's mean
    double sensorLagS = 1;
    double sensorNoiseK = 0.35;
    double sensorStepK = 0.5;
    double ambientC = 22;
    double ambientDriftKPerH = 0.2;
    double ambientSwingK = 0.15;
    double ambientSwingPeriodS = 2400;
    double ambientNoiseK = 0.04;
    double ambientStepK = 0.1;
    bool ambientLogged = true;
    double idleW = 28;
    double powerNoiseW = 0.4;
    std::optional<double> limitC = 95; ///< the controller cuts power here
    double clockMHz = 4200;
    double idleClockMHz = 1600;
    double fanRpm = 1420;
    double fanNoiseRpm = 5;
    std::optional<Leakage> leakage;
    std::optional<SimulatedFan> fan;         ///< nothing: fixed
    std::optional<std::size_t> coolantLayer; ///< of a closed loop: logged as coolant
    std::vector<SimulatedPart> parts;
    std::optional<SimulatedNeighbour> neighbour;
    std::optional<SimulatedWetting> wetting;
    std::optional<SimulatedPumpOut> pumpOut;
    std::optional<SimulatedDryOut> dryOut;
    double dropoutsPerH = 0; ///< stretches in which nothing is read
    double dropoutS = 4;
};

struct SimulatedProtocol {
    double idleS = 300;
    double loadS = 2400;
    double cooldownS = 420;
    double powerW = 150;
    double intervalS = 1;
    std::optional<Instant> start; ///< stamps carry dates when given, else elapsed seconds
};

struct SimulatedRun {
    Trace trace;
    double trueDeltaK = 0; ///< steady mean of the hottest core over room, without noise and limit
    bool limited = false;  ///< the controller had to cut power
};

/// The bench one sample after the other, as a source reads it. The same seed gives the same values.
class BenchSimulation {
public:
    /// Throws InputError (simulate-values, simulate-long) for a bench or interval that cannot be.
    BenchSimulation(const SimulatedBench& bench, double intervalS, std::uint64_t seed);
    ~BenchSimulation();
    BenchSimulation(BenchSimulation&&) noexcept;

    const std::vector<Channel>& channels() const; ///< without samples
    /// The next sample, one value a channel; the first is of the bench at rest. loadW: power of the load that
    /// runs until then; nothing: idle.
    std::vector<double> next(std::optional<double> loadW);
    bool limited() const;  ///< the controller had to cut power
    double wetted() const; ///< w of an interface that wets, else 1
    /// Steady difference of the hottest core under that power, without noise and limit.
    double trueDeltaK(double powerW) const;

private:
    struct State;
    std::unique_ptr<State> state_;
};

/// The same seed gives the same values. Throws InputError for times or steps that are not above 0.
SimulatedRun simulate(const SimulatedBench& bench, const SimulatedProtocol& protocol, std::uint64_t seed);

} // namespace ibuki
