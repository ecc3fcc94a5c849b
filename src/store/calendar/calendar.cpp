// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/calendar/calendar.h"

#include "core/base/input_error.h"

#include <algorithm>
#include <libical/ical.h>
#include <memory>

namespace ibuki {
namespace {

constexpr std::int64_t msPerDay = 86'400'000;

struct FreeComponent {
    void operator()(icalcomponent* component) const { icalcomponent_free(component); }
};
using Component = std::unique_ptr<icalcomponent, FreeComponent>;

icaltimetype timeOf(Instant instant) {
    const std::string date = dateText(instant); // YYYY-MM-DD
    const std::int64_t second = (instant.ms - dayNumber(instant) * msPerDay) / 1000;
    icaltimetype time = icaltime_null_time();
    time.year = std::stoi(date.substr(0, 4));
    time.month = std::stoi(date.substr(5, 2));
    time.day = std::stoi(date.substr(8, 2));
    time.hour = static_cast<int>(second / 3600);
    time.minute = static_cast<int>(second / 60 % 60);
    time.second = static_cast<int>(second % 60);
    return time;
}

icaltimezone* zoneNamed(const std::string& name) {
    if (name == "UTC") return icaltimezone_get_utc_timezone();
    icaltimezone* zone = icaltimezone_get_builtin_timezone(name.c_str());
    if (!zone || !icaltimezone_get_component(zone)) throw InputError("zone-unknown", {}, {{"name", name}});
    return zone;
}

Instant shifted(Instant instant, int seconds) { return {instant.ms + 1000LL * seconds}; }

Instant toLocal(icaltimezone* zone, Instant universal) {
    icaltimetype time = timeOf(universal);
    int daylight = 0;
    return shifted(universal, icaltimezone_get_utc_offset_of_utc_time(zone, &time, &daylight));
}

Instant toUniversal(icaltimezone* zone, Instant local) {
    icaltimetype time = timeOf(local);
    int daylight = 0;
    const Instant guess = shifted(local, -icaltimezone_get_utc_offset(zone, &time, &daylight));
    // By the offset before a change of clocks: the first of a time that occurs twice, and for one that is
    // left out as long after the change as it is in the gap.
    icaltimetype before = timeOf(shifted(guess, -3 * 3600));
    const Instant first = shifted(local, -icaltimezone_get_utc_offset_of_utc_time(zone, &before, &daylight));
    if (toLocal(zone, first) == local) return first;
    return toLocal(zone, guess) == local ? guess : first;
}

/// The zone's own rules under its plain name.
Component zoneComponent(icaltimezone* zone, const std::string& name) {
    Component component(icalcomponent_new_clone(icaltimezone_get_component(zone)));
    icalproperty* id = icalcomponent_get_first_property(component.get(), ICAL_TZID_PROPERTY);
    if (id) icalproperty_set_tzid(id, name.c_str());
    return component;
}

void addTime(icalcomponent* event, icalproperty* property, const std::string& zone) {
    if (zone != "UTC") icalproperty_add_parameter(property, icalparameter_new_tzid(zone.c_str()));
    icalcomponent_add_property(event, property);
}

icalcomponent* eventOf(const CalendarEvent& event, const std::string& zone, Instant stamp) {
    icalcomponent* made = icalcomponent_new(ICAL_VEVENT_COMPONENT);
    const auto localTime = [&](Instant instant) {
        icaltimetype time = timeOf(instant);
        if (zone == "UTC") time.zone = icaltimezone_get_utc_timezone();
        return time;
    };
    icaltimetype now = timeOf(stamp);
    now.zone = icaltimezone_get_utc_timezone();
    icalcomponent_add_property(made, icalproperty_new_uid(event.uid.c_str()));
    icalcomponent_add_property(made, icalproperty_new_dtstamp(now));
    addTime(made, icalproperty_new_dtstart(localTime(event.start)), zone);
    addTime(made, icalproperty_new_dtend(localTime(event.end)), zone);
    icalcomponent_add_property(made, icalproperty_new_summary(event.summary.c_str()));
    if (!event.description.empty())
        icalcomponent_add_property(made, icalproperty_new_description(event.description.c_str()));
    return made;
}

} // namespace

WallClock wallClockOf(const std::string& name) {
    icaltimezone* zone = zoneNamed(name);
    if (name == "UTC") return {};
    return {[zone](Instant local) { return toUniversal(zone, local); },
            [zone](Instant universal) { return toLocal(zone, universal); }};
}

std::vector<std::string> zoneNames() {
    std::vector<std::string> names;
    const icalarray* zones = icaltimezone_get_builtin_timezones();
    for (std::size_t i = 0; zones && i < zones->num_elements; ++i) {
        auto* zone = static_cast<icaltimezone*>(icalarray_element_at(const_cast<icalarray*>(zones), i));
        if (const char* location = icaltimezone_get_location(zone); location && *location != '\0')
            names.emplace_back(location);
    }
    std::sort(names.begin(), names.end());
    names.erase(std::unique(names.begin(), names.end()), names.end());
    std::erase(names, "UTC");
    names.insert(names.begin(), "UTC");
    return names;
}

std::string calendarText(const std::vector<CalendarEvent>& events, const std::string& zone, Instant stamp) {
    icaltimezone* known = zoneNamed(zone);
    const Component calendar(icalcomponent_new(ICAL_VCALENDAR_COMPONENT));
    icalcomponent_add_property(calendar.get(), icalproperty_new_prodid("-//Ibuki//Plan//EN"));
    icalcomponent_add_property(calendar.get(), icalproperty_new_version("2.0"));
    if (zone != "UTC") icalcomponent_add_component(calendar.get(), zoneComponent(known, zone).release());
    for (const CalendarEvent& event : events)
        icalcomponent_add_component(calendar.get(), eventOf(event, zone, stamp));
    char* text = icalcomponent_as_ical_string_r(calendar.get());
    std::string result(text);
    free(text);
    return result;
}

} // namespace ibuki
