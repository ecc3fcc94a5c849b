// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/look_rejections.h"

#include "core/domain/edit.h"
#include "core/domain/joint_look.h"
#include "core/domain/lookup.h"
#include "core/evidence/evidence.h"

#include <set>

namespace ibuki {

std::optional<LookRejections> lookRejections(const Document& document, const Question& question) {
    LookRejections found;
    std::set<Id<Mount>> mounts;
    Edit edit(document, Message{}); // never performed: the study as it would be
    for (const Slot* slot : slotsOf(document, question.study)) {
        const Mount* mount = slot->mount ? document.find(*slot->mount) : nullptr;
        if (!mount || !mount->rejected || mounts.contains(mount->id)) continue;
        for (const JointLook* look : document.where(&JointLook::mount, mount->id)) {
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

} // namespace ibuki
