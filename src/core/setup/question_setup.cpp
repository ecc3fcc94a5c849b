// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/setup/question_setup.h"

#include "core/domain/lookup.h"
#include "core/setup/plan_setup.h"

#include <algorithm>

namespace ibuki {

void freezeResponse(Question& question) {
    if (question.frozen) return;
    question.frozen = true;
    question.fixedMetric = question.metric;
    question.fixedReference = question.reference;
    question.fixedNormalisation = question.normalisation;
}

void thawResponse(Question& question) {
    question.frozen = false;
    question.fixedMetric.reset();
    question.fixedReference.reset();
    question.fixedNormalisation.reset();
}

Id<Question> addQuestion(Edit& edit, Id<Question> like, Id<Site> site, bool shared) {
    Question question = *edit.document().find(like);
    const Id<Question> owner = question.levelsFrom.value_or(question.id);
    question.site = site;
    thawResponse(question);
    question.referenceLevel.reset();
    question.levelsFrom = shared ? std::optional(owner) : std::nullopt;
    if (!shared) question.secondFactor.reset();
    return edit.add(question);
}

void removeQuestion(Edit& edit, Id<Question> id) {
    const Document& document = edit.document();
    const Question* question = document.find(id);
    if (!question || firstQuestion(document, question->study)->id == id) return;
    std::vector<Id<SlotLevel>> stated;
    for (const SlotLevel* one : document.where(&SlotLevel::question, id)) stated.push_back(one->id);
    std::vector<Id<SideMargin>> margins;
    for (const SideMargin* one : document.where(&SideMargin::question, id)) margins.push_back(one->id);
    for (Id<SideMargin> one : margins) edit.remove(one);
    std::vector<Id<ExternalResult>> read;
    for (const ExternalResult* one : document.where(&ExternalResult::question, id)) read.push_back(one->id);
    for (Id<ExternalResult> one : read) edit.remove(one);
    std::vector<Id<Level>> levels;
    for (const Level* level : document.where(&Level::question, id)) levels.push_back(level->id);
    std::vector<Question> sharing;
    for (const Question* other : document.where(&Question::levelsFrom, std::optional(id)))
        sharing.push_back(*other);
    for (const Question& other : sharing) edit.remove(other.id);
    for (Id<SlotLevel> one : stated) edit.remove(one);
    for (Id<Level> level : levels) edit.remove(level);
    edit.remove(id);
}

Id<Level> addLevel(Edit& edit, Level level) {
    int position = 0;
    for (const Level* other : edit.document().where(&Level::question, level.question))
        position = std::max(position, other->position + 1);
    level.position = position;
    return edit.add(level);
}

void removeUnusedLevel(Edit& edit, Id<Level> id) {
    const Level* level = edit.document().find(id);
    if (!level) return;
    std::vector<Id<SlotLevel>> stated;
    for (const SlotLevel* one : edit.document().where(&SlotLevel::level, id)) stated.push_back(one->id);
    for (Id<SlotLevel> one : stated) edit.remove(one);
    std::vector<Id<Slot>> slots;
    for (const auto& [slotId, slot] : edit.document().all<Slot>())
        if (slot.level == id || slot.second == id) slots.push_back(slotId);
    for (Id<Slot> slot : slots) removeSlot(edit, slot);
    if (const Question* question = edit.document().find(level->question);
        question && question->referenceLevel == id) {
        Question changed = *question;
        changed.referenceLevel.reset();
        edit.put(changed);
    }
    edit.remove(id);
}

} // namespace ibuki
