// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/calendar/due_calendar.h"

#include "words/words.h"

#include <fmt/format.h>

namespace ibuki {
namespace {

constexpr std::int64_t msPerHour = 3'600'000;

Instant hourAfter(Instant at) { return {at.ms + msPerHour}; }

} // namespace

std::vector<CalendarEvent> dueEvents(const std::vector<DueCheck>& checks, const Reapplication& due,
                                     Instant now) {
    std::vector<CalendarEvent> events;
    for (const DueCheck& check : checks) {
        if (check.state == DueState::lost) continue;
        events.push_back(
            {fmt::format("later-{}@ibuki", check.followUp.value),
             words::say("{mount} after {delay}", {{"mount", check.name}, {"delay", check.after.text()}}),
             words::say("Run the load again on the untouched mount. The answer is lost after {last}.",
                        {{"last", dateText(check.latest)}}),
             check.due, hourAfter(check.due)});
    }
    for (const MachineDue& one : due.machines) {
        if (!one.due || *one.due < now) continue;
        events.push_back({fmt::format("machine-{}@ibuki", one.mount.value),
                          words::say("Make the joint of {machine} anew", {{"machine", one.machine}}),
                          one.dueFrom && one.dueTo
                              ? words::say("{material}, mounted as {mount}; between {from} and {to}.",
                                           {{"material", one.materialName},
                                            {"mount", one.mountName},
                                            {"from", dateText(*one.dueFrom)},
                                            {"to", dateText(*one.dueTo)}})
                              : words::say("{material}, mounted as {mount}.",
                                           {{"material", one.materialName}, {"mount", one.mountName}}),
                          *one.due, hourAfter(*one.due)});
    }
    return events;
}

} // namespace ibuki
