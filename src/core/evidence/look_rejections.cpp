// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/look_rejections.h"

#include "core/domain/edit.h"
#include "core/domain/joint_inspection.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/evidence/evidence.h"

#include <algorithm>
#include <set>

namespace ibuki {

std::optional<LookRejections> lookRejections(const Document& document, const Question& question) {
    LookRejections found;
    std::set<Id<Mount>> mounts;
    Edit edit(document, Message{}); // never performed: the study as it would be
    for (const Slot* slot : slotsOf(document, question.study)) {
        const Mount* mount = slot->mount ? document.find(*slot->mount) : nullptr;
        if (!mount || !mount->rejected || mounts.contains(mount->id)) continue;
        for (const JointInspection* look : document.where(&JointInspection::mount, mount->id)) {
            if (!look->rejects) continue;
            mounts.insert(mount->id);
            ++found.mounts;
            found.figureKnown += look->figureKnown ? 1 : 0;
            Mount kept = *mount;
            kept.rejected = false;
            edit.put(kept);
            break;
        }
    }
    if (found.mounts == 0) return std::nullopt;
    const Question* same = edit.document().find(question.id);
    if (same) found.with = gatherEvidence(edit.document(), *same).comparison;
    return found;
}

namespace {

bool reachedFigure(const Document& document, Id<Mount> mount) {
    const auto runs = runsOf(document, mount);
    return std::any_of(runs.begin(), runs.end(),
                       [&](const Run* run) { return reductionOf(document, run->id) != nullptr; });
}

} // namespace

void rejectMount(Edit& edit, Id<Mount> id, const std::string& reason, std::optional<Id<JointInspection>> by) {
    const Mount* known = edit.document().find(id);
    if (!known) return;
    const bool figureKnown = reachedFigure(edit.document(), id);
    Mount mount = *known;
    mount.rejected = !reason.empty();
    if (mount.rejected) mount.reason = reason;
    edit.put(mount);
    std::vector<JointInspection> looks;
    for (const JointInspection* look : edit.document().where(&JointInspection::mount, id))
        looks.push_back(*look);
    for (const JointInspection& look : looks) {
        JointInspection kept = look;
        kept.rejects = mount.rejected && by == look.id;
        kept.figureKnown = kept.rejects && figureKnown;
        if (kept != look) edit.put(kept);
    }
}

} // namespace ibuki
