// SPDX-License-Identifier: GPL-3.0-or-later
// What the pages of drift and the tape tell, without a window.

#include "app/ageing/ageing_lines.h"
#include "app/frame/tape_layout.h"
#include "app/session/amount_text.h"
#include "core/domain/lookup.h"
#include "core/domain/plan.h"
#include "support/drifting.h"
#include "support/test_class.h"

using namespace ibuki;

namespace {

/// A mount to be seen again after five days.
struct Awaited : story::AgedMounts {
    Awaited() {
        const Id<Mount> id = mount(0, 0);
        reading(id, 1, 30);
        Edit edit(document(), "later");
        FollowUp later;
        later.slot = document().where(&Slot::mount, std::optional(id)).front()->id;
        later.after = {5, Delay::Unit::days};
        edit.add(later);
        apply(document(), edit.finish());
    }
    AgeingMatter matter(double day) { return ageingMatter(document(), question.id, after(day)); }
    TapeTile laterTile(double day) {
        return tapeTiles(document(), asked.bench, asked.study, after(day)).back();
    }
};

} // namespace

class TestAgeingLines : public QObject {
    Q_OBJECT
private slots:
    void aClockIsToldInItsUnit() {
        QCOMPARE(clockText(AgeingClock::hours, 6), QString("6 h"));
        QCOMPARE(clockText(AgeingClock::loadHours, 50), QString("50 h"));
        QCOMPARE(clockText(AgeingClock::hours, 120), QString("5 days"));
        QCOMPARE(clockText(AgeingClock::hours, 24 * 365.25 * 2.3), QString("2.3 years"));
        QCOMPARE(clockText(AgeingClock::cycles, 143.2), QString("143"));
        QCOMPARE(clockText(AgeingClock::meltCycles, 4.24), QString("4.2"));
    }
    void whatIsWantedIsCounted() {
        QCOMPARE(wantedText({}), QString());
        QCOMPARE(wantedText({1, 0}), QString("1 mount wants a look this week"));
        QCOMPARE(wantedText({2, 1}), QString("2 mounts want a look this week, 1 is overdue"));
    }
    void aCheckGoesFromLaterToLost() {
        Awaited bench;
        const auto says = [&](double day) { return checkRows(bench.matter(day)).front().last(); };
        QVERIFY2(says(0).contains("in 5 days"), qPrintable(says(0)));
        QVERIFY2(says(5).startsWith("due; the answer is lost after"), qPrintable(says(5)));
        QVERIFY2(says(5.9).startsWith("overdue since"), qPrintable(says(5.9)));
        QVERIFY2(says(7).startsWith("lost"), qPrintable(says(7)));
    }
    void theTapeTellsIt() {
        Awaited bench;
        QVERIFY(!bench.laterTile(0).isLate);
        QCOMPARE(bench.laterTile(0).value, QString("after 5 d"));
        QCOMPARE(bench.laterTile(5).value, QString("due, after 5 d"));
        QVERIFY(bench.laterTile(5.9).isLate && bench.laterTile(5.9).value.startsWith("overdue"));
        QVERIFY(bench.laterTile(7).isLate && bench.laterTile(7).detail.contains("lost"));
    }
    void clocksOfEveryMountAreARow() {
        Awaited bench;
        const auto rows = mountRows(bench.matter(2));
        QCOMPARE(rows.size(), std::size_t{1});
        QCOMPARE(rows.front().cells.size(), mountHead().size());
        QCOMPARE(rows.front().cells.value(3), QString("48 h"));
        QCOMPARE(rows.front().cells.last(), QString("stands"));
    }
    void aMachineIsARowWithWhereItsDateComesFrom() {
        Awaited bench;
        const auto rows = machineRows(bench.matter(2));
        QCOMPARE(rows.size(), std::size_t{1});
        QCOMPARE(rows.front().first(), QString("node-2"));
        QCOMPARE(rows.front().last(), QString("usual of its class"));
    }
    void aTestThatIsMilderIsNone() {
        UseAndTest asked; // 0.7 eV, 75 °C for 8 h a day; 125 °C all day
        QVERIFY(acceleratedLines(asked, 10).front().startsWith("65.0 days at 125 °C stand for 10 years"));
        QVERIFY(acceleratedLines(asked, 10).size() > 2); // and what it cannot show
        asked.test.hottest = {60};
        QCOMPARE(acceleratedLines(asked, 10).size(), 1);
        QVERIFY(acceleratedLines(asked, 10).front().startsWith("No test"));
    }
};

IBUKI_TEST(TestAgeingLines)
#include "tst_ageing_lines.moc"
