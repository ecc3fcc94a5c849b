// SPDX-License-Identifier: GPL-3.0-or-later
// What drift leaves on paper, in tables and in calendars.

#include "core/ageing/ageing_curves.h"
#include "core/base/random.h"
#include "core/domain/ageing.h"
#include "core/domain/lookup.h"
#include "core/domain/plan.h"
#include "store/calendar/due_calendar.h"
#include "store/json/ageing_json.h"
#include "store/paper/ageing_csv.h"
#include "store/paper/ageing_section.h"
#include "store/table/table.h"
#include "support/drifting.h"
#include "support/near.h"
#include "support/test_class.h"

#include <QXmlStreamReader>
#include <cmath>

using namespace ibuki;

namespace {

/// Three mounts that wear alike, read seven times.
story::AgedMounts worn() {
    story::AgedMounts bench;
    Random random(2);
    for (int m = 0; m < 3; ++m) {
        const Id<Mount> mount = bench.mount(0, 400.0 * m);
        for (const double t : {1., 200., 700., 1'500., 3'000., 5'000., 8'000.})
            bench.reading(mount, t, 30 + 0.3 * m + 0.03 * std::sqrt(t) + 0.03 * random.normal());
    }
    return bench;
}

} // namespace

class TestAgeingPaper : public QObject {
    Q_OBJECT
private slots:
    void curvesBeginFreshAndPassTheReadings() {
        const auto bench = worn();
        const AgeingJudgement judged = judgeAgeing(bench.asked.document, bench.question);
        const AgeingCurves curves = ageingCurves(judged.groups.front(), AgeingClock::hours);
        QCOMPARE(curves.mounts.size(), std::size_t{3});
        QCOMPARE(curves.changeK.front(), 0.0);
        QVERIFY_NEAR(curves.t.back(), 8'000, 1e-6);
        QVERIFY_NEAR(curves.changeK.back(), 0.03 * (std::sqrt(8'000) - 1), 0.1);
        for (const auto& dots : curves.mounts)
            for (const auto& dot : dots) {
                const double fitted = judged.groups.front().by(AgeingClock::hours)->course.changeAt(dot.t);
                QVERIFY_NEAR(dot.changeK, fitted, 0.15);
            }
        for (std::size_t i = 0; i < curves.t.size(); ++i)
            QVERIFY(curves.band[i].lo <= curves.changeK[i] && curves.changeK[i] <= curves.band[i].hi);
    }
    void theDrawingIsWellFormedAndNamesItsGroups() {
        const auto bench = worn();
        const std::string svg = ageingSvg(judgeAgeing(bench.asked.document, bench.question));
        QXmlStreamReader xml(QString::fromStdString(svg));
        int circles = 0;
        while (!xml.atEnd())
            if (xml.readNext() == QXmlStreamReader::StartElement && xml.name() == QStringLiteral("circle"))
                ++circles;
        QVERIFY2(!xml.hasError(), qPrintable(xml.errorString()));
        QCOMPARE(circles, 21);
        QVERIFY(svg.find("Tern 11") != std::string::npos && svg.find("nan") == std::string::npos);
    }
    void nothingIsSaidOfMountsThatWereReadOnce() {
        story::AgedMounts bench;
        bench.reading(bench.mount(0, 0), 1, 30);
        QVERIFY(ageingHtml(bench.document(), bench.question).empty());
        const auto seen = worn();
        const std::string html = ageingHtml(seen.asked.document, seen.question);
        QVERIFY(html.find("Tern 11 wears") != std::string::npos);
        QVERIFY(html.find("Followed as K/W") != std::string::npos);
    }
    void theTableReadsBack() {
        const auto bench = worn();
        const AgeingJudgement judged = judgeAgeing(bench.asked.document, bench.question);
        const Table table = readTable(ageingCsv(judged), "drift.csv");
        QCOMPARE(table.rows(), std::size_t{21});
        QVERIFY_NEAR(table.number(6, table.need("hours")), 8'000, 1);
        QVERIFY_NEAR(table.number(6, table.need("change_K")), 0.03 * std::sqrt(8'000), 0.2);
    }
    void aTableSaysWhatTheCommandSays() { // the same course by the same functions
        const auto bench = worn();
        const AgeingJudgement judged = judgeAgeing(bench.asked.document, bench.question);
        const ClockedCourse& course = *judged.groups.front().by(AgeingClock::hours);
        const auto json = ageingJson("Tern 11", course.course, course.threshold);
        QCOMPARE(json["model"].get<std::string>(), std::string("sqrt"));
        QCOMPARE(json["hours_to_threshold"].get<double>(), *course.threshold.at);
        QCOMPARE(json["change_at_K"].size(), course.course.times.size());
        for (const auto& change : json["change_at_K"]) QVERIFY(change["ci_K"][0] <= change["ci_K"][1]);
    }
    void datesForACalendar() {
        story::AgedMounts bench;
        const Id<Mount> mount = bench.mount(0, 0);
        bench.reading(mount, 1, 30);
        Edit edit(bench.document(), "later");
        FollowUp later;
        later.slot = bench.document().where(&Slot::mount, std::optional(mount)).front()->id;
        later.after = {30, Delay::Unit::days};
        edit.add(later);
        apply(bench.document(), edit.finish());
        const Instant now = bench.after(1);
        const auto checks = dueChecks(bench.document(), now);
        const Reapplication due = reapplication(bench.document(), judgeFleet(bench.document()), now);
        const auto events = dueEvents(checks, due, now);
        QCOMPARE(events.size(), std::size_t{2}); // the check, and the machine by what is usual
        QVERIFY(events.front().uid.starts_with("later-") && events.back().uid.starts_with("machine-"));
        QCOMPARE(dateText(events.front().start), dateText(bench.after(30)));
        QVERIFY(calendarText(events, "UTC", now).find("BEGIN:VEVENT") != std::string::npos);
        QVERIFY(dueEvents(dueChecks(bench.document(), bench.after(60)), {}, bench.after(60)).empty()); // lost
        const Table table = readTable(checksDueCsv(checks), "checks.csv");
        QCOMPARE(table.text(0, table.need("state")), std::string("later"));
        QVERIFY(machinesCsv(due).find(",usual\n") != std::string::npos);
    }
};

IBUKI_TEST(TestAgeingPaper)
#include "tst_ageing_paper.moc"
