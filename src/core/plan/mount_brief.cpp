// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/mount_brief.h"

#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/plan/step_times.h"
#include "core/shelf/shelf.h"

#include <algorithm>
#include <fmt/format.h>

namespace ibuki {
namespace {

void addAmount(MountBrief& brief, const Document& document, const Level* level, const Plan* plan,
               Id<Site> siteId) {
    const Site* site = document.find(siteId);
    if (level && level->amount)
        brief.grams = level->amount->value;
    else if (plan && plan->amount)
        brief.grams = plan->amount->value;
    if (!brief.material || !site) return;
    if (isCut(brief.material->kind)) {
        brief.grams.reset();
        if (site->width && site->length)
            brief.areaMm2 = site->width->value * site->length->value * site->alike;
        return;
    }
    if (brief.grams || !brief.lot || brief.lot->contentUnit != ContentUnit::gram) return;
    brief.grams = neededAt(*brief.material, *brief.lot, *site);
    brief.gramsAreUsual = brief.grams.has_value();
}

/// The slot before in the same block is of a level that shares the mount with this one.
bool goesOn(const Document& document, const Slot& slot) {
    const Level* level = document.find(slot.level);
    const Slot* before = nullptr;
    for (const Slot* other : slotsOf(document, slot.study))
        if (other->position < slot.position && other->skippedBecause.empty()) before = other;
    return before && before->block == slot.block && shareMount(document.find(before->level), level);
}

void addCautions(MountBrief& brief, const Document& document, const Question& question,
                 const Configuration* configuration, Instant now) {
    if (!brief.material) return;
    CautionSubject subject;
    subject.material = brief.material;
    subject.lot = brief.lot;
    subject.site = document.find(question.site);
    subject.configuration = configuration;
    brief.cautions = cautionsFor(cautionFacts(document, subject, now));
    if (subject.site)
        brief.blocking =
            blockingCautions(document, *brief.material, *subject.site, subject.configuration, now);
}

/// "sustained load, 180 W"; a name that tells the power already is left alone.
std::string loadWords(const Load& load) {
    if (!load.target) return load.name;
    const std::string power = fmt::format("{:g} W", load.target->value);
    return load.name.find(power) != std::string::npos ? load.name : load.name + ", " + power;
}

Message titleOf(const Document& document, const Slot& slot, const Material* material) {
    if (slot.kind == SlotKind::baseline) return {"mount-title.baseline", {}};
    if (slot.kind == SlotKind::checkMount)
        return material ? Message{"mount-title.check-of", {{"material", material->name}}}
                        : Message{"mount-title.check", {}};
    const Level* level = document.find(slot.level);
    const Level* second = document.find(slot.second);
    if (!level) return {"mount-title", {}};
    return said(second ? level->name + ", " + second->name : level->name);
}

} // namespace

const Lot* lotToTake(const Document& document, Id<Material> material, Instant now) {
    const Lot* best = nullptr;
    std::pair<bool, double> bestRank;
    for (const Lot* lot : document.where(&Lot::material, material)) {
        const LotState state = lotState(document, *lot, now);
        if (state.left && *state.left <= 0) continue;
        const std::pair rank{lot->opened.has_value() && !state.expired, state.share.value_or(1)};
        if (best && rank <= bestRank) continue;
        best = lot;
        bestRank = rank;
    }
    return best;
}

namespace {

/// What goes onto the studied site: of its level, of the check mounts, and in which way.
void addStudied(MountBrief& brief, const Document& document, const Slot& slot, const Plan* plan,
                const Question& question, Instant now) {
    const Level* level = document.find(slot.level);
    if (slot.kind == SlotKind::checkMount && plan)
        brief.material = document.find(plan->checkWith);
    else if (level)
        brief.material = document.find(level->material);
    if (brief.material) {
        const Lot* stated = level ? document.find(level->lot) : nullptr;
        brief.lot = stated ? stated : lotToTake(document, brief.material->id, now);
    }
    brief.title = titleOf(document, slot, brief.material);
    const Level* factors = slot.kind == SlotKind::level ? level : nullptr;
    addAmount(brief, document, factors, plan, question.site);
    brief.pattern = factors && factors->pattern != ApplicationPattern::notStated ? factors->pattern
                    : plan                                                       ? plan->pattern
                           : ApplicationPattern::notStated;
    if (factors && factors->torque)
        brief.torqueNm = factors->torque->value;
    else if (plan && plan->torque)
        brief.torqueNm = plan->torque->value;
}

} // namespace

MountBrief briefOf(const Document& document, const Slot& slot, Instant now) {
    MountBrief brief;
    brief.slot = slot.id;
    brief.kind = slot.kind;
    brief.block = slot.block;
    brief.plannedFor = slot.plannedFor;
    const Study* study = document.find(slot.study);
    const Question* question = firstQuestion(document, slot.study);
    if (!study || !question) return brief;
    brief.study = study->name;
    brief.heldConstant = study->heldConstant;
    if (const Bench* bench = document.find(study->bench)) brief.bench = bench->name;
    if (const Site* site = document.find(question->site)) brief.site = site->name;
    addStudied(brief, document, slot, planOf(document, study->id), *question, now);
    for (const SlotLevel* other : document.where(&SlotLevel::slot, slot.id)) {
        const Question* asked = document.find(other->question);
        const Site* site = asked ? document.find(asked->site) : nullptr;
        const Level* at = document.find(other->level);
        if (site && at) brief.otherLevels.push_back(fmt::format("{}: {}", site->name, at->name));
    }
    for (const Load* load : loadsOf(document, study->id)) brief.loads.push_back(loadWords(*load));
    brief.steps = mountSteps(document, study->id, brief.material);
    brief.staysMounted = goesOn(document, slot);
    if (slot.kind == SlotKind::baseline || brief.staysMounted) // nothing is taken off
        std::erase_if(brief.steps, [](const StepOccurrence& step) { return step.kind <= StepKind::rest; });
    const Configuration* configuration =
        configurationFor(document, study->bench, document.find(slot.level), document.find(slot.second));
    if (configuration && configuration->variantOf)
        brief.rig = configuration->cooler.empty() || configuration->cooler == configuration->name
                        ? configuration->name
                        : configuration->name + " (" + configuration->cooler + ")";
    addCautions(brief, document, *question, configuration, now);
    return brief;
}

} // namespace ibuki
