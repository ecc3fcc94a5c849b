// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/design/design.h"

#include "core/domain/lookup.h"

#include <stdexcept>

namespace ibuki {
namespace {

void addWithinFactors(Design& design, const Document& document, const Question& question) {
    if (loadsOf(document, question.study).size() > 1) design.factors.push_back({Stratum::withinMount, false});
    const Plan* plan = planOf(document, question.study);
    if (plan && !plan->followUps.empty()) design.factors.push_back({Stratum::withinMount, true});
}

std::vector<DesignCell> cellsOf(const std::vector<const Level*>& first,
                                const std::vector<const Level*>& second) {
    std::vector<DesignCell> cells;
    for (const Level* level : first) {
        if (second.empty()) cells.push_back({level->id, std::nullopt, level->name});
        for (const Level* other : second)
            cells.push_back({level->id, other->id, level->name + ", " + other->name});
    }
    return cells;
}

std::optional<std::size_t> cellOf(const Design& design, const Level* level, std::optional<Id<Level>> second) {
    if (!level) return std::nullopt;
    for (std::size_t i = 0; i < design.cells.size(); ++i)
        if (design.cells[i].level == level->id
            && (!design.cells[i].second || design.cells[i].second == second))
            return i;
    return std::nullopt;
}

} // namespace

bool isSeenAgain(const Document& document, Id<Study> study) {
    const Plan* plan = planOf(document, study);
    return plan && !plan->followUps.empty();
}

bool isInSequence(const Study& study) { return study.began == StudyTemplate::stepByStep; }

bool isMade(const Document& document, const DesignUnit& unit) {
    const Mount* mount = document.find(unit.mount);
    return mount && !mount->rejected;
}

std::int64_t groupId(const DesignCell& cell) {
    const auto level = static_cast<std::uint64_t>(cell.level.value);
    if (!cell.second) return cell.level.value;
    return static_cast<std::int64_t>((level << 32) + static_cast<std::uint64_t>(cell.second->value));
}

std::size_t placeOfGroup(const Design& design, std::int64_t group) {
    for (std::size_t i = 0; i < design.cells.size(); ++i)
        if (groupId(design.cells[i]) == group) return i;
    throw std::out_of_range("group of another design");
}

const DesignCell& cellOfGroup(const Design& design, std::int64_t group) {
    return design.cells[placeOfGroup(design, group)];
}

Design designOf(const Document& document, const Question& question) {
    Design design;
    design.question = question.id;
    const Study* study = document.find(question.study);
    const auto first = levelsOf(document, question.id);
    const auto second = secondLevelsOf(document, question.id);
    design.factors.push_back({Stratum::betweenMounts, study && isInSequence(*study)});
    if (question.secondFactor) design.factors.push_back({Stratum::betweenMounts, false});
    addWithinFactors(design, document, question);
    design.cells = cellsOf(first, question.secondFactor ? second : std::vector<const Level*>{});
    std::vector<std::string> days;
    for (const Slot* slot : slotsOf(document, question.study)) {
        DesignUnit unit{slot->id,    slot->kind,  std::nullopt,
                        slot->block, slot->mount, !slot->skippedBecause.empty()};
        const Mount* mount = document.find(slot->mount);
        if (slot->block == 0 && mount && !mount->block.empty()) {
            if (days.empty() || days.back() != mount->block) days.push_back(mount->block);
            unit.block = static_cast<int>(days.size());
        }
        if (slot->kind == SlotKind::level)
            unit.cell = cellOf(design, levelIn(document, question, *slot), slot->second);
        design.units.push_back(unit);
    }
    return design;
}

} // namespace ibuki
