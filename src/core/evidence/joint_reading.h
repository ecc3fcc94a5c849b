// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Temperature and side responses of a pair read together: a chip that is held at its limit, or a fan that
// follows the temperature, turns what a cooler does into speed, heat or noise, and a difference of
// temperature alone then says too little.

#include "core/evidence/side_responses.h"

namespace ibuki {

enum class TemperatureReading { cooler, warmer, same, open, atLimit };

/// A side response by which the two are told apart or, from one mount each, by which they differ.
struct SideGain {
    std::size_t side = 0;            ///< index into the side comparisons
    double difference = 0;           ///< first − second, in its unit
    std::optional<Interval> ci;      ///< nothing from one mount each
    std::optional<double> reference; ///< mean of the second, for shares; nothing where it is not above 0
    bool isMerit = false; ///< the first is better by it; of heat carried and fan: by what it means here
};

struct JointReading {
    std::int64_t first = 0; ///< id of the group that leads
    std::int64_t second = 0;
    std::string firstName;
    std::string secondName;
    TemperatureReading temperature = TemperatureReading::open;
    std::optional<PairComparison> pair = {}; ///< first − second of the question's response
    std::vector<SideGain> gains = {};
    /// The fan moved with it: less fan hides a part of what is gained, more fan is a part of it.
    enum class Fan { still, hides, helps } fan = Fan::still;
};

/// The leading group (of the reference, where there is one) against each of the others, where a side response
/// tells them apart or both are held at the limit.
std::vector<JointReading> jointReadings(const Evidence& evidence, const std::vector<SideComparison>& sides);

/// Whether a group was held at the temperature limit, so that temperatures say less than K/W or power.
bool isHeldAtLimit(const Evidence& evidence);

} // namespace ibuki
