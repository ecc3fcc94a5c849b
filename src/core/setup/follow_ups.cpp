// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/setup/follow_ups.h"

#include "core/domain/lookup.h"
#include "core/setup/plan_setup.h"

#include <algorithm>

namespace ibuki {
namespace {

constexpr std::int64_t msPerHour = 3'600'000;
constexpr std::int64_t msPerDay = 24 * msPerHour;
constexpr std::int64_t soonDays = 7;
constexpr double tolerance = 0.2;            ///< of the delay, that an answer for its age may be late
constexpr std::int64_t leastMs = msPerHour;  ///< of it
constexpr std::int64_t dueForDay = msPerDay; ///< a check of today is due until tomorrow

std::optional<Instant> nextPlanned(const Document& document, Id<Bench> bench, const Mount& mount) {
    std::optional<Instant> next;
    for (const Study* study : document.where(&Study::bench, bench))
        for (const Slot* slot : document.where(&Slot::study, study->id)) {
            if (slot->mount || !slot->skippedBecause.empty() || !slot->plannedFor) continue;
            if (mount.at && *slot->plannedFor <= *mount.at) continue;
            if (!next || *slot->plannedFor < *next) next = slot->plannedFor;
        }
    return next;
}

DueState stateOf(const DueCheck& check, const std::optional<Instant>& opened, Instant now) {
    if (opened && *opened < check.due) return DueState::lost;
    if (opened && *opened <= now) return DueState::lost;
    if (now > check.latest) return DueState::lost;
    const std::int64_t late = now.ms - check.due.ms;
    if (late > std::min(dueForDay, (check.latest.ms - check.due.ms) / 2)) return DueState::overdue;
    if (late >= 0 || dayNumber(now) == dayNumber(check.due)) return DueState::due;
    return late > -soonDays * msPerDay ? DueState::soon : DueState::later;
}

} // namespace

std::optional<DueCheck> dueCheck(const Document& document, const FollowUp& followUp, Instant now,
                                 const WallClock& clock) {
    const Slot* slot = document.find(followUp.slot);
    const Study* study = slot ? document.find(slot->study) : nullptr;
    if (!study || followUp.done || !followUp.skippedBecause.empty() || !slot->skippedBecause.empty())
        return std::nullopt;
    const auto due = dueAt(document, followUp, clock);
    if (!due) return std::nullopt;
    DueCheck check{followUp.id,    study->bench, study->id, slot->mount, {},
                   followUp.after, *due,         {},        false,       {}};
    const auto grace = static_cast<std::int64_t>(tolerance * followUp.after.minutes() * 60'000);
    check.latest = Instant{due->ms + std::max(leastMs, grace)};
    std::optional<Instant> opened;
    if (const Mount* mount = document.find(slot->mount)) {
        check.name = mount->name;
        opened = openedAt(document, *mount);
        if (const auto next = nextPlanned(document, study->bench, *mount); next && *next < check.latest) {
            check.latest = *next;
            check.endsByMount = true;
        }
    } else if (const Level* level = document.find(slot->level)) {
        check.name = level->name;
    }
    check.state = stateOf(check, opened, now);
    return check;
}

std::vector<DueCheck> dueChecks(const Document& document, Instant now, const WallClock& clock) {
    std::vector<DueCheck> checks;
    for (const auto& [id, followUp] : document.all<FollowUp>())
        if (auto check = dueCheck(document, followUp, now, clock)) checks.push_back(std::move(*check));
    std::stable_sort(checks.begin(), checks.end(),
                     [](const DueCheck& a, const DueCheck& b) { return a.due < b.due; });
    return checks;
}

Message dueMessage(const DueCheck& check, Instant now) {
    const auto days = [&](Instant until) { return dayNumber(until) - dayNumber(now); };
    const Fields fields{{"day", dateText(check.due)}, {"last", dateText(check.latest)}};
    switch (check.state) {
    case DueState::later:
        return {"follow-due.later", fields};
    case DueState::soon:
        return {"follow-due.soon", {{"count", days(check.due)}, {"day", dateText(check.due)}}};
    case DueState::due:
        return {check.endsByMount ? "follow-due.due-before-mount" : "follow-due.due", fields};
    case DueState::overdue:
        return {check.endsByMount ? "follow-due.overdue-before-mount" : "follow-due.overdue", fields};
    case DueState::lost:
        return {"follow-due.lost", fields};
    }
    return {};
}

DueCount countDue(const std::vector<DueCheck>& checks) {
    DueCount count;
    for (const DueCheck& check : checks) {
        if (!check.mount) continue;
        if (check.state == DueState::soon || check.state == DueState::due) ++count.thisWeek;
        if (check.state == DueState::overdue) ++count.overdue;
    }
    return count;
}

} // namespace ibuki
