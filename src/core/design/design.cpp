// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/design/design.h"

#include "core/domain/lookup.h"
#include "core/domain/words.h"

namespace ibuki {
namespace {

DesignFactor factorOf(Factor factor, const std::vector<const Level*>& levels, bool inSequence) {
    DesignFactor made{std::string(word(factor)), Stratum::betweenMounts, {}, {}, inSequence};
    for (const Level* level : levels) {
        made.levels.push_back(level->id);
        made.levelNames.push_back(level->name);
    }
    return made;
}

void addWithinFactors(Design& design, const Document& document, const Question& question) {
    const auto loads = loadsOf(document, question.study);
    if (loads.size() > 1) {
        DesignFactor factor{"load", Stratum::withinMount, {}, {}, false};
        for (const Load* load : loads) factor.levelNames.push_back(load->name);
        design.factors.push_back(std::move(factor));
    }
    const Plan* plan = planOf(document, question.study);
    if (!plan || plan->followUps.empty()) return;
    DesignFactor factor{"time since mounting", Stratum::withinMount, {}, {"fresh"}, true};
    for (const Delay& delay : plan->followUps) factor.levelNames.push_back(delay.text());
    design.factors.push_back(std::move(factor));
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

Design designOf(const Document& document, const Question& question) {
    Design design;
    design.question = question.id;
    const Study* study = document.find(question.study);
    const auto first = levelsOf(document, question.id);
    const auto second = secondLevelsOf(document, question.id);
    design.factors.push_back(factorOf(question.factor, first, study && isInSequence(*study)));
    if (question.secondFactor) design.factors.push_back(factorOf(*question.secondFactor, second, false));
    addWithinFactors(design, document, question);
    design.cells = cellsOf(first, question.secondFactor ? second : std::vector<const Level*>{});
    bool blocked = false;
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
        blocked = blocked || unit.block > 1;
        design.units.push_back(unit);
    }
    design.nesting = {"bench"};
    if (blocked) design.nesting.emplace_back("block");
    design.nesting.emplace_back("mount");
    design.nesting.emplace_back("run");
    return design;
}

} // namespace ibuki
