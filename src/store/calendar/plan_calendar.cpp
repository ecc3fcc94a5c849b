// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/calendar/plan_calendar.h"

#include "core/domain/lookup.h"
#include "core/setup/plan_setup.h"
#include "words/words.h"

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace ibuki {
namespace {

std::string slotName(const Document& document, const Slot& slot) {
    const Level* level = document.find(slot.level);
    const Level* second = document.find(slot.second);
    if (slot.kind == SlotKind::baseline) return words::term("baseline");
    const std::string name = level ? level->name : words::say("mount");
    if (slot.kind == SlotKind::checkMount) return words::term("check mount");
    return second ? name + ", " + second->name : name;
}

} // namespace

std::vector<CalendarEvent> planEvents(const Document& document, Id<Study> id) {
    const Study* study = document.find(id);
    if (!study) return {};
    const Plan plan = planFor(document, id);
    const WallClock clock = wallClockOf(plan.zone);
    std::map<std::int64_t, std::vector<const Slot*>> evenings;
    for (const Slot* slot : plannedSlots(document, id))
        if (slot->plannedFor) evenings[dayNumber(*slot->plannedFor)].push_back(slot);
    std::vector<CalendarEvent> events;
    for (const auto& [day, slots] : evenings) {
        std::vector<std::string> names;
        for (const Slot* slot : slots) names.push_back(slotName(document, *slot));
        const Instant start = *slots.front()->plannedFor;
        events.push_back({fmt::format("evening-{}-{}@ibuki", id.value, day),
                          words::sayMany("{study}: {count} mount", "{study}: {count} mounts",
                                         static_cast<long>(slots.size()), {{"study", study->name}}),
                          fmt::format("{}", fmt::join(names, "\n")), start,
                          clock.after(start, 60 * plan.hours)});
    }
    for (const Slot* slot : slotsOf(document, id))
        for (const FollowUp* later : document.where(&FollowUp::slot, slot->id)) {
            const auto due = dueAt(document, *later, clock);
            if (!due || later->done || !later->skippedBecause.empty() || !slot->skippedBecause.empty())
                continue;
            const Mount* mount = document.find(slot->mount);
            const std::string of = mount ? mount->name : slotName(document, *slot);
            CalendarEvent event{
                fmt::format("later-{}@ibuki", later->id.value),
                words::say("{study}: {mount} after {delay}",
                           {{"study", study->name}, {"mount", of}, {"delay", later->after.text()}}),
                words::say("Run the load again on the untouched mount."), *due, clock.after(*due, 60)};
            events.push_back(std::move(event));
        }
    return events;
}

} // namespace ibuki
