// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Elapsed time on a clock that may be put forward or back: the zone's rules come from outside (the store has
// them), the core only asks.

#include "core/quantity/instant.h"

#include <functional>

namespace ibuki {

/// Both ways between the bench's wall clock and universal time. A wall time that a change of clocks leaves
/// out counts by the offset before the change; one that occurs twice is the first.
struct WallClock {
    std::function<Instant(Instant)> toUniversal = [](Instant local) { return local; };
    std::function<Instant(Instant)> toLocal = [](Instant universal) { return universal; };

    /// What the wall clock shows so many minutes of elapsed time later.
    Instant after(Instant local, double minutes) const {
        const Instant universal = toUniversal(local);
        return toLocal(
            {universal.ms + static_cast<std::int64_t>(minutes * 60'000 + (minutes < 0 ? -0.5 : 0.5))});
    }
};

} // namespace ibuki
