// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/plan/schedule.h"
#include "core/setup/plan_setup.h"
#include "store/calendar/plan_calendar.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"

#include <libical/ical.h>
#include <set>

using namespace ibuki;

namespace {

Instant at(const char* text) { return *parseInstant(text); }
const char* const zone = "Europe/Oslo"; // summer time from 2031-03-30 02:00 to 2031-10-26 03:00

} // namespace

class TestCalendar : public QObject {
    Q_OBJECT
private slots:
    void readsBackWithAnotherReader() {
        const std::string longName = QString(200, QChar(u'x')).append(" höher").toStdString();
        const std::vector<CalendarEvent> events{
            {"one@ibuki", "Tern 11, first; with comma", "line one\nline two", at("2031-03-29 18:00"),
             at("2031-03-29 22:00")},
            {"two@ibuki", longName, "", at("2031-04-02 18:30"), at("2031-04-02 19:30")}};
        const std::string text = calendarText(events, zone, at("2031-03-01 12:00"));
        icalcomponent* read = icalparser_parse_string(text.c_str());
        QVERIFY(read);
        QCOMPARE(icalcomponent_count_errors(read), 0);
        QCOMPARE(icalcomponent_count_components(read, ICAL_VTIMEZONE_COMPONENT), 1);
        QCOMPARE(icalcomponent_count_components(read, ICAL_VEVENT_COMPONENT), 2);
        icalcomponent* first = icalcomponent_get_first_component(read, ICAL_VEVENT_COMPONENT);
        QCOMPARE(std::string(icalcomponent_get_summary(first)), events[0].summary);
        QCOMPARE(std::string(icalcomponent_get_description(first)), events[0].description);
        // Winter time: one hour before universal; after the change: two.
        const auto universal = [&](icalcomponent* event) {
            const icaltimetype start = icalcomponent_get_dtstart(event);
            return icaltime_as_timet_with_zone(start, start.zone);
        };
        QCOMPARE(static_cast<qint64>(universal(first)) * 1000,
                 static_cast<qint64>(at("2031-03-29 17:00").ms));
        icalcomponent* second = icalcomponent_get_next_component(read, ICAL_VEVENT_COMPONENT);
        QCOMPARE(static_cast<qint64>(universal(second)) * 1000,
                 static_cast<qint64>(at("2031-04-02 16:30").ms));
        icalcomponent_free(read);
    }
    void linesFollowTheStandard() { // RFC 5545 3.1 and 3.6
        const std::string text = calendarText(
            {{"u@ibuki", std::string(300, 'y'), "a\nb", at("2031-03-04 18:00"), at("2031-03-04 19:00")}},
            zone, at("2031-03-01 12:00"));
        QVERIFY(text.ends_with("END:VCALENDAR\r\n"));
        QVERIFY(text.starts_with("BEGIN:VCALENDAR\r\n"));
        std::size_t begin = 0;
        while (begin < text.size()) {
            const std::size_t end = text.find('\n', begin);
            QVERIFY(end != std::string::npos && text[end - 1] == '\r');
            QVERIFY2(end - 1 - begin <= 75, text.substr(begin, end - begin).c_str());
            begin = end + 1;
        }
        for (const char* must : {"PRODID:", "VERSION:2.0", "UID:u@ibuki", "DTSTAMP:20310301T120000Z",
                                 "DTSTART;TZID=Europe/Oslo:20310304T180000", "TZID:Europe/Oslo"})
            QVERIFY2(text.find(must) != std::string::npos, must);
    }
    void universalTimeNeedsNoZone() {
        const std::string text = calendarText(
            {{"u@ibuki", "s", "", at("2031-03-04 18:00"), at("2031-03-04 19:00")}}, "UTC", at("2031-03-01"));
        QVERIFY(text.find("DTSTART:20310304T180000Z") != std::string::npos);
        QVERIFY(text.find("VTIMEZONE") == std::string::npos);
    }
    void aZoneNobodyKnowsIsRefused() {
        QVERIFY_THROWS_EXCEPTION(InputError, wallClockOf("Sea/Kittiwake"));
        QVERIFY_THROWS_EXCEPTION(InputError, calendarText({}, "Sea/Kittiwake", {}));
    }
    void zonesAreListed() {
        const auto names = zoneNames();
        QCOMPARE(names.front(), std::string("UTC"));
        QVERIFY(std::find(names.begin(), names.end(), zone) != names.end());
    }
    void elapsedTimeCrossesTheChangeOfClocks() {
        const WallClock clock = wallClockOf(zone);
        // The night of 30 March is an hour shorter, that of 26 October an hour longer.
        QCOMPARE(clock.after(at("2031-03-29 22:00"), 8 * 60), at("2031-03-30 07:00"));
        QCOMPARE(clock.after(at("2031-10-25 22:00"), 8 * 60), at("2031-10-26 05:00"));
        QCOMPARE(dueAfter(at("2031-03-29 18:00"), {24, Delay::Unit::hours}, clock), at("2031-03-30 19:00"));
        QCOMPARE(dueAfter(at("2031-03-29 18:00"), {1, Delay::Unit::days}, clock), at("2031-03-30 18:00"));
    }
    void wallAndUniversalTimeGoBothWays() { // every half hour of a year, except the hour that does not exist
        const WallClock clock = wallClockOf(zone);
        for (int i = 0; i < 365 * 48; ++i) {
            const Instant universal{at("2031-01-01").ms + i * 1'800'000LL};
            const Instant local = clock.toLocal(universal);
            const Instant back = clock.toUniversal(local);
            // An hour that occurs twice is taken as the first.
            QVERIFY(back == universal || back.ms == universal.ms - 3'600'000);
            QCOMPARE(clock.toLocal(back), local);
        }
        QCOMPARE(clock.toUniversal(at("2031-10-26 02:30")), at("2031-10-26 00:30")); // the first of the two
        QCOMPARE(clock.toUniversal(at("2031-03-30 02:30")), at("2031-03-30 01:30")); // half past the change
    }
    void aPlanBecomesEveningsAndFollowUps() {
        story::Asked asked = story::ask();
        const Question question = *firstQuestion(asked.document, asked.study);
        Plan plan = planFor(asked.document, asked.study);
        plan.start = at("2031-03-03");
        plan.mountsPerLevel = 2;
        plan.followUps = parseDelays("24 h");
        plan.zone = zone;
        Edit edit(asked.document, "plan");
        layPlan(edit, question, plan, at("2031-03-01"), wallClockOf(zone));
        layFollowUps(edit, planFor(edit.document(), asked.study));
        apply(asked.document, edit.finish());
        const auto events = planEvents(asked.document, asked.study);
        std::set<std::string> uids;
        std::size_t later = 0;
        for (const CalendarEvent& event : events) {
            uids.insert(event.uid);
            later += event.uid.starts_with("later") ? 1 : 0;
        }
        QCOMPARE(uids.size(), events.size());
        QCOMPARE(later, std::size_t{6});
        QVERIFY(events.size() > 6);
        QVERIFY(!calendarText(events, zone, at("2031-03-01")).empty());
    }
};
IBUKI_TEST(TestCalendar)
#include "tst_calendar.moc"
