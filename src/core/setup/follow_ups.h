// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What mounts want to be looked at again, when, and until when an answer is still to be had.

#include "core/base/message.h"
#include "core/domain/document.h"
#include "core/domain/plan.h"
#include "core/quantity/wall_clock.h"

#include <vector>

namespace ibuki {

enum class DueState {
    later,
    soon,    ///< within a week
    due,     ///< now, its time to be done has come
    overdue, ///< it has passed; the answer is still worth having
    lost     ///< the mount was opened, or it is too late for that answer
};

struct DueCheck {
    Id<FollowUp> followUp;
    Id<Bench> bench;
    Id<Study> study;
    std::optional<Id<Mount>> mount; ///< nothing: still to be made
    std::string name;               ///< of the mount, else of what is planned
    Delay after;
    Instant due;
    Instant latest; ///< until then it answers for its age: a fifth of the delay later, or when the next mount
                    ///< is planned on the bench
    bool endsByMount = false; ///< latest is the next planned mount
    DueState state = DueState::later;
};

/// Of all benches, those that are neither done nor skipped, by due date.
std::vector<DueCheck> dueChecks(const Document& document, Instant now, const WallClock& clock = {});

/// Nothing where it is done or skipped, or cannot be dated.
std::optional<DueCheck> dueCheck(const Document& document, const FollowUp& followUp, Instant now,
                                 const WallClock& clock = {});

/// "due today, 3 days left", "overdue since 2031-03-04, lost on 2031-03-08".
Message dueMessage(const DueCheck& check, Instant now);

struct DueCount {
    int thisWeek = 0; ///< soon or due
    int overdue = 0;
    bool operator==(const DueCount&) const = default;
};
DueCount countDue(const std::vector<DueCheck>& checks);

} // namespace ibuki
