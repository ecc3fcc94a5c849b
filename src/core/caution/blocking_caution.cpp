// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/caution/blocking_caution.h"

#include "core/domain/lookup.h"
#include "core/domain/study.h"
#include "core/shelf/shelf.h"

namespace ibuki {
namespace {

bool lifted(const Document& document, const Caution& caution, const CautionSubject& subject) {
    if (!caution.rule->mayOverride) return false;
    const Acknowledgement* given = acknowledgementOf(document, caution.rule->id, subject);
    return given && !given->reason.empty();
}

} // namespace

std::vector<BlockingCaution> blockingCautions(const Document& document, const Material& material,
                                              const Site& site, const Configuration* configuration,
                                              Instant now) {
    const CautionSubject subject{&material, nullptr, &site, configuration, nullptr};
    std::vector<BlockingCaution> blocking;
    for (const Caution& caution : cautionsFor(cautionFacts(document, subject, now))) {
        if (caution.rule->handling) continue;
        const bool stops = caution.rule->severity == CautionSeverity::stop;
        const bool asks = caution.state == CautionState::asks;
        if (asks || (stops && !lifted(document, caution, subject)))
            blocking.push_back({material.id, caution});
    }
    return blocking;
}

std::vector<BlockingCaution> blockingCautions(const Document& document, const Question& question,
                                              Instant now) {
    const Site* site = document.find(question.site);
    if (!site) return {};
    const Configuration* configuration = document.find(site->configuration);
    std::vector<BlockingCaution> blocking;
    for (const Material* material : levelMaterials(document, question))
        for (BlockingCaution& one : blockingCautions(document, *material, *site, configuration, now))
            blocking.push_back(std::move(one));
    return blocking;
}

std::vector<Shortage> shortagesOf(const Document& document, const Question& question, Instant now) {
    const Site* site = document.find(question.site);
    if (!site) return {};
    std::vector<Shortage> shortages;
    for (const Level* level : levelsOf(document, question.id)) {
        const Material* material = document.find(level->material);
        if (!material) continue;
        Shortage shortage{material->id, 0, 0, 0, ContentUnit::gram};
        for (const Slot* slot : slotsOf(document, question.study))
            if (slot->level == level->id && !slot->mount) ++shortage.mounts;
        std::optional<double> each;
        for (const Lot* lot : document.where(&Lot::material, material->id)) {
            const auto left = lotState(document, *lot, now).left;
            const auto needed = neededAt(*material, *lot, *site);
            if (!left || !needed || (each && lot->contentUnit != shortage.unit)) continue;
            each = needed;
            shortage.unit = lot->contentUnit;
            shortage.left += *left;
        }
        shortage.needed = each.value_or(0) * shortage.mounts;
        if (shortage.needed > shortage.left + 1e-9) shortages.push_back(shortage);
    }
    return shortages;
}

} // namespace ibuki
