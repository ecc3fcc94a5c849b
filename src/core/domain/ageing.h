// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What befalls a mount that is left alone: how it is used between its recordings, what happened to it or did
// not, and what a bench calls a change that matters.

#include "core/domain/mount.h"

namespace ibuki {

/// How a mount is used while nothing records it ("8 h a day at 60 W, office").
struct MountUse {
    Id<MountUse> id;
    Id<Mount> mount;
    std::optional<Instant> from;  ///< nothing: since it was mounted
    std::optional<Instant> until; ///< nothing: until it is opened
    double hoursPerDay = 0;       ///< under load
    std::optional<Watt> power;
    double cyclesPerDay = 0;
    std::optional<Celsius> hottest; ///< of the chip in such a cycle
    std::optional<Celsius> coldest;
    std::string note;
    bool operator==(const MountUse&) const = default;
};

/// What can befall a joint.
enum class OutcomeKind { crackedInCold, pumpedOut, driedOut, slipped, leaked, stuck };

/// That it happened to a mount, or that it was looked for and had not.
struct MountOutcome {
    Id<MountOutcome> id;
    Id<Mount> mount;
    OutcomeKind kind = OutcomeKind::pumpedOut;
    bool happened = true;
    std::optional<Instant> at;
    std::optional<Celsius> coldest; ///< that it saw until then
    std::optional<double> cycles;   ///< that it saw until then; nothing: by its clocks
    std::string note;
    bool operator==(const MountOutcome&) const = default;
};

/// One of a bench; none means these defaults.
struct AgeingRules {
    Id<AgeingRules> id;
    Id<Bench> bench;
    Kelvin threshold{2.0};               ///< a rise since fresh at which the joint is made anew
    Kelvin sameWithin{0.5};              ///< a change that is none
    Kelvin settledWithin{0.2};           ///< of what a change leads to
    std::optional<double> typicalYears;  ///< between applications where nothing better is known
    std::optional<double> manualMinutes; ///< of making a joint anew
    std::optional<double> hourRate;      ///< what an hour of hands costs, in currency
    std::string currency;
    bool operator==(const AgeingRules&) const = default;
};

} // namespace ibuki
