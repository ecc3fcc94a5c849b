// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/design_order.h"

#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/shelf/shelf.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace ibuki {
namespace {

constexpr int mostPlannedMounts = 5'000;

LevelRule ruleOf(const Document& document, const Question& question, const DesignCell& cell, Instant now,
                 std::size_t cellsOfLevel, int made) {
    const Level& level = *document.find(cell.level);
    LevelRule rule;
    rule.placement = placementOf(document, level);
    if (rule.placement == Placement::anywhere && cell.second)
        rule.placement = placementOf(document, *document.find(*cell.second));
    rule.mostMounts = level.mostMounts;
    // With two factors, those share a mount that have the same second level.
    if (level.withoutRemount) rule.together = cell.second ? static_cast<int>(cell.second->value) : 0;
    // A short tube is shared out among the cells that take from it.
    if (const auto lasts = mountsThatLast(document, question, level, now)) {
        const int each = made + *lasts / static_cast<int>(cellsOfLevel);
        rule.mostMounts = rule.mostMounts ? std::min(*rule.mostMounts, each) : each;
    }
    return rule;
}

} // namespace

Placement placementOf(const Document& document, const Level& level) {
    if (level.placement != Placement::automatic) return level.placement;
    const Material* material = document.find(level.material);
    if (!material) return Placement::anywhere;
    const MaterialFacts facts = factsOf(*material);
    if (material->kind == MaterialClass::phaseChange
        || (material->conditioningRest && material->conditioningRest->value >= 4))
        return Placement::endsEvening;
    // Gallium stays on the faces whatever the cleaning; other conductors only ask for care.
    if (facts.gallium.value) return Placement::lastOfAll;
    return facts.conducts.value && material->kind != MaterialClass::sheet ? Placement::lastInBlock
                                                                          : Placement::anywhere;
}

std::optional<int> mountsThatLast(const Document& document, const Question& question, const Level& level,
                                  Instant now) {
    const Material* material = document.find(level.material);
    const Site* site = document.find(question.site);
    if (!material || !site || factsOf(*material).reusable.value) return std::nullopt;
    double mounts = 0;
    bool reported = false;
    for (const Lot* lot : document.where(&Lot::material, material->id)) {
        if (level.lot && lot->id != *level.lot) continue;
        const auto left = lotState(document, *lot, now).left;
        auto each = neededAt(*material, *lot, *site);
        if (level.amount && lot->contentUnit == ContentUnit::gram) each = level.amount->value;
        if (!left || !each || *each <= 0) continue;
        reported = true;
        mounts += std::floor(*left / *each + 1e-9);
    }
    if (!reported) return std::nullopt;
    return static_cast<int>(std::min(mounts, 1e6));
}

void checkPlannable(const Document& document, const Question& question) {
    const auto refuse = [](const char* code, Fields fields = {}) {
        throw InputError(code, {}, std::move(fields));
    };
    const Study* study = document.find(question.study);
    const Site* site = document.find(question.site);
    const Configuration* configuration = study ? currentConfiguration(document, study->bench) : nullptr;
    if (!site || !configuration || site->configuration != configuration->id) refuse("plan-site");
    const auto levels = levelsOf(document, question.id);
    if (levels.empty()) refuse("plan-levels");
    if (levels.size() == 1 && !isSeenAgain(document, question.study))
        refuse("plan-levels.only-one", {{"level", levels.front()->name}});
    if (question.secondFactor && secondLevelsOf(document, question.id).empty())
        refuse("plan-levels.second-factor", {{"secondFactor", Term{word(*question.secondFactor)}}});
    if (!(question.margin.value > 0)) refuse("plan-margin.question", {{"margin", question.margin.value}});
}

OrderInput orderInput(const Document& document, const Question& question, const Plan& plan, Instant now) {
    checkPlannable(document, question);
    if (plan.mountsPerLevel < 1) throw InputError("plan-mounts", {}, {{"count", plan.mountsPerLevel}});
    const Design design = designOf(document, question);
    const auto mounts = static_cast<double>(design.cells.size()) * plan.mountsPerLevel + plan.checkMounts;
    if (mounts > mostPlannedMounts)
        throw InputError("plan-mounts.many", {}, {{"count", mounts}, {"most", mostPlannedMounts}});
    OrderInput input;
    input.blocks = plan.mountsPerLevel;
    input.checks = plan.checkWith ? plan.checkMounts : 0;
    input.seed = static_cast<std::uint64_t>(plan.seed);
    input.inSequence = design.factors.front().inSequence;
    const std::size_t cellsOfLevel = design.cells.size() / levelsOf(document, question.id).size();
    std::vector<int> made(design.cells.size(), 0);
    for (const DesignUnit& unit : design.units)
        if (unit.cell && isMade(document, unit)) ++made[*unit.cell];
    for (std::size_t i = 0; i < design.cells.size(); ++i)
        input.levels.push_back(ruleOf(document, question, design.cells[i], now, cellsOfLevel, made[i]));
    return input;
}

std::vector<OrderedMount> withoutMade(std::vector<OrderedMount> order, const Design& design,
                                      const Document& document) {
    std::map<std::optional<std::size_t>, int> made;
    for (const DesignUnit& unit : design.units) {
        if (!isMade(document, unit) || unit.kind == SlotKind::baseline) continue;
        if (unit.kind == SlotKind::level && !unit.cell) continue;
        ++made[unit.kind == SlotKind::checkMount ? std::nullopt : unit.cell];
    }
    std::erase_if(order, [&](const OrderedMount& mount) { return made[mount.level]-- > 0; });
    return order;
}

std::vector<OrderedMount> remainingOrder(const Document& document, const Question& question, const Plan& plan,
                                         Instant now) {
    return withoutMade(orderMounts(orderInput(document, question, plan, now)), designOf(document, question),
                       document);
}

} // namespace ibuki
