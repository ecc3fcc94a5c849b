// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/inspect/seen_before.h"

#include "core/domain/joint_inspection.h"
#include "core/domain/lookup.h"

namespace ibuki {

std::vector<Message> seenBefore(const Document& document, Id<Bench> bench) {
    int pulled = 0, damaged = 0, hard = 0, pumped = 0;
    for (const auto& [id, look] : document.all<JointInspection>()) {
        const Mount* mount = document.find(look.mount);
        const Bench* on = mount ? benchOf(document, *mount) : nullptr;
        if (!on || on->id != bench) continue;
        pulled += look.cameOff == CameOff::pulledChipOut ? 1 : 0;
        damaged += look.damage.empty() ? 0 : 1;
        hard += look.effort.value_or(0) >= 4 ? 1 : 0;
        pumped += look.pumpedOut ? 1 : 0;
    }
    std::vector<Message> reported;
    if (pulled > 0) reported.push_back({"seen-pulled-out", {{"count", pulled}}});
    if (damaged > 0) reported.push_back({"seen-damaged", {{"count", damaged}}});
    if (hard > 0) reported.push_back({"seen-hard", {{"count", hard}}});
    if (pumped > 0) reported.push_back({"seen-pumped-out", {{"count", pumped}}});
    return reported;
}

} // namespace ibuki
