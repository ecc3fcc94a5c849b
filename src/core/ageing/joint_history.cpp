// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ageing/joint_history.h"

#include "core/domain/lookup.h"
#include "core/heat/seen_path.h"

namespace ibuki {
namespace {

/// K/W from the chip down to the joint, from the calibrated path of the mount's study.
std::optional<double> jointKPerW(const Document& document, const Mount& mount) {
    for (const Slot* slot : document.where(&Slot::mount, std::optional(mount.id))) {
        const Question* question = firstQuestion(document, slot->study);
        if (!question) continue;
        const auto path = pathOfMount(studyHeat(document, *question, mount.configuration), mount.id);
        if (!path || path->powerW <= 0) continue;
        for (const SeenLayer& layer : path->layers)
            if (layer.isStudied) return (path->chipC - (layer.hotC + layer.coldC) / 2) / path->powerW;
    }
    return std::nullopt;
}

} // namespace

MountHistory jointHistory(const Document& document, Id<Mount> id) {
    const Mount* mount = document.find(id);
    const Material* material = mount ? materialOf(document, id) : nullptr;
    if (!material || !material->melts) return MountHistory(document, id); // nothing depends on the joint
    return MountHistory(document, id, jointKPerW(document, *mount));
}

} // namespace ibuki
