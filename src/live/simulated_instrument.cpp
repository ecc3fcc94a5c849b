// SPDX-License-Identifier: GPL-3.0-or-later
#include "live/simulated_instrument.h"

#include <fmt/format.h>

namespace ibuki {
namespace {

constexpr double supplyShare = 0.88; ///< of the wall's power that arrives
constexpr double restW = 35;         ///< of everything else at the wall
constexpr const char* missing = "9.91E+37";

} // namespace

SimulatedInstrument::SimulatedInstrument(const SimulatedBench& bench, std::uint64_t seed)
    : simulation_(bench, 1, seed) {}

void SimulatedInstrument::advanceTo(double seconds) {
    while (values_.empty() || atS_ + 1 <= seconds) {
        values_ = simulation_.next(std::nullopt);
        atS_ += 1;
    }
}

std::string SimulatedInstrument::answer(const std::string& query, double seconds) {
    advanceTo(seconds);
    const auto reading = [this](Role role) -> std::optional<double> {
        for (std::size_t i = 0; i < values_.size(); ++i)
            if (simulation_.channels()[i].role == role) return values_[i];
        return std::nullopt;
    };
    const auto number = [](std::optional<double> value) {
        return value ? fmt::format("{:+.4E}", *value) : std::string(missing);
    };
    const auto room = reading(Role::ambient);
    const auto power = reading(Role::packagePower);
    const auto fan = reading(Role::fan);
    if (query == "*IDN?") return "Ibuki,simulated instrument,0,1";
    if (query == "MEAS:TEMP? 1" || query == "MEAS:TEMP?") return number(room);
    if (query == "MEAS:TEMP? 2") // the plate: behind the chip's links
        return number(room && power ? std::optional(*room + 0.09 * *power) : std::nullopt);
    if (query == "MEAS:POW?")
        return number(power ? std::optional((*power + restW) / supplyShare) : std::nullopt);
    if (query == "MEAS:LEV?") return number(fan ? std::optional(20 + *fan / 100) : std::nullopt);
    return "-113,\"Undefined header\"";
}

} // namespace ibuki
