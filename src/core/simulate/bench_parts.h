// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What moves inside a simulated bench besides its ladder: a fan that follows the chip, an interface that wets
// or is pumped out. Each changes a resistance of the ladder now and then.

#include "core/simulate/simulated_bench.h"

namespace ibuki {

/// The bench's resistances as they stand.
class MovingParts {
public:
    explicit MovingParts(const SimulatedBench& bench);

    /// One step; true when the ladder's resistances are to be taken anew.
    bool step(double chipC, double jointC, bool loaded, double seconds);
    std::vector<LadderNode> layers() const;

    double fanDuty() const { return duty_; } ///< 1 where it is fixed
    double wetted() const { return wetted_; }

private:
    double interfaceKPerW() const;

    const SimulatedBench& bench_;
    double duty_ = 1;
    double wetted_ = 1;
    double cycles_ = 0;
    bool loaded_ = false;
    double takenInterface_ = 0; ///< K/W that the ladder has
    double takenDuty_ = 1;
};

/// W that leaks at a temperature; 0 without leakage.
double leakageW(const std::optional<Leakage>& leakage, double chipC);

} // namespace ibuki
