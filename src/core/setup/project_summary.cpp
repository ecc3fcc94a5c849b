// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/setup/project_summary.h"

#include "core/domain/lookup.h"
#include "core/setup/plan_setup.h"

#include <algorithm>

namespace ibuki {
namespace {

const Study* studyToTell(const Document& document) {
    const Study* last = nullptr;
    for (const auto& [id, study] : document.all<Study>())
        if (!last || study.state != StudyState::closed || last->state == StudyState::closed) last = &study;
    return last;
}

void takeEarlier(std::optional<Instant>& due, std::optional<Instant> other) {
    if (other && (!due || *other < *due)) due = other;
}

} // namespace

ProjectSummary summaryOf(const Document& document, std::optional<Instant> now, const WallClock& clock) {
    ProjectSummary summary;
    const auto checks = dueChecks(document, now.value_or(Instant{}), clock);
    if (now) summary.wanted = countDue(checks);
    const Study* study = studyToTell(document);
    const Bench* bench = study ? document.find(study->bench) : nullptr;
    if (!bench && !document.all<Bench>().empty()) bench = &document.all<Bench>().begin()->second;
    if (bench) summary.bench = bench->name;
    if (!study) return summary;
    summary.study = study->name;
    summary.isClosed = study->state == StudyState::closed;
    summary.step = nextStep(document, study->id);
    for (const Slot* slot : slotsOf(document, study->id)) {
        if (!slot->skippedBecause.empty()) continue;
        if (!slot->mount) takeEarlier(summary.due, slot->plannedFor);
    }
    for (const DueCheck& check : checks)
        if (check.study == study->id) takeEarlier(summary.due, check.due);
    return summary;
}

} // namespace ibuki
