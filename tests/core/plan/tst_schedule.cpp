// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/plan/schedule.h"
#include "support/near.h"
#include "support/steps.h"
#include "support/test_class.h"

using namespace ibuki;
using story::alone;
using story::at;
using story::manualWork;

namespace {

/// Monday and Wednesday from 18:00 for four hours, from a Monday on.
Evenings twice() { return {at("2031-03-03"), 18, 4, {true, false, true, false, false, false, false}}; }

} // namespace

class TestSchedule : public QObject {
    Q_OBJECT
private slots:
    void fillsAnEveningThenGoesOn() {
        const std::vector<std::vector<StepOccurrence>> mounts(4, {manualWork(30), alone(60)});
        const Schedule plan = schedule(mounts, twice());
        QCOMPARE(plan.mounts[0].start, at("2031-03-03 18:00"));
        QCOMPARE(plan.mounts[1].start, at("2031-03-03 19:30"));
        QCOMPARE(plan.mounts[2].start, at("2031-03-03 21:00"));
        QCOMPARE(plan.mounts[2].end, at("2031-03-03 22:30")); // the soak runs on after the evening
        QCOMPARE(plan.mounts[3].start, at("2031-03-05 18:00"));
        QCOMPARE(plan.evenings.size(), std::size_t{2});
        QCOMPARE(plan.evenings[0].mounts, 3);
        QVERIFY_NEAR(plan.manualMinutes, 120, 1e-9);
        QVERIFY_NEAR(plan.benchMinutes, 360, 1e-9);
    }
    void aNightRestOverlapsWithSleep() { // film: applied, rests over night, measured the next evening
        const Schedule plan = schedule(
            {{manualWork(30), alone(480), manualWork(5), alone(30)}, {manualWork(30), alone(60)}}, twice());
        QCOMPARE(*plan.mounts[0].steps[1].end, at("2031-03-04 02:30"));
        QCOMPARE(*plan.mounts[0].steps[2].start, at("2031-03-05 18:00"));
        QCOMPARE(plan.mounts[0].evening, 1);
        QCOMPARE(plan.mounts[1].start, at("2031-03-05 18:35"));
    }
    void handsAreNotTornApart() {
        const Schedule plan =
            schedule({{manualWork(200), alone(10)}, {manualWork(20), manualWork(20)}}, twice());
        QCOMPARE(plan.mounts[1].start, at("2031-03-05 18:00")); // 30 minutes are left, 40 are needed
        QVERIFY(plan.overlong.empty());
    }
    void handsLongerThanAnEveningAreTold() {
        const Schedule plan = schedule({{manualWork(10)}, {manualWork(300)}}, twice());
        QCOMPARE(plan.overlong, (std::vector<std::size_t>{1}));
        QCOMPARE(plan.mounts[1].start, at("2031-03-05 18:00"));
    }
    void handsStayInsideEvenings() { // property, random mounts
        Random random(5);
        for (int round = 0; round < 300; ++round) {
            std::vector<std::vector<StepOccurrence>> mounts(
                1 + static_cast<std::size_t>(random.uniform() * 12));
            for (auto& steps : mounts)
                for (int i = 0; i < 1 + static_cast<int>(random.uniform() * 6); ++i)
                    steps.push_back(random.uniform() < 0.5 ? manualWork(std::floor(39 * random.uniform()))
                                                           : alone(std::floor(300 * random.uniform())));
            const Schedule plan = schedule(mounts, twice());
            QVERIFY(plan.overlong.empty());
            Instant before = at("2031-03-03");
            for (const ScheduledMount& mount : plan.mounts)
                for (const StepOccurrence& step : mount.steps) {
                    QVERIFY(*step.start >= before);
                    before = *step.end;
                    if (step.unattended || step.minutes == 0) continue;
                    const bool inside =
                        std::any_of(plan.evenings.begin(), plan.evenings.end(), [&](const Evening& evening) {
                            return evening.start <= *step.start && *step.end <= evening.end;
                        });
                    QVERIFY(inside);
                }
        }
    }
    void anEveningThatNeverComesIsRefused() {
        Evenings none = twice();
        none.weekdays = {};
        QVERIFY_THROWS_EXCEPTION(InputError, schedule({{manualWork(1)}}, none));
        Evenings flat = twice();
        flat.hours = 0;
        QVERIFY_THROWS_EXCEPTION(InputError, schedule({{manualWork(1)}}, flat));
        QVERIFY(schedule({}, twice()).evenings.empty());
    }
    void weekdaysAreRead() {
        QCOMPARE(parseWeekdays("mon, Wed;FRIDAY"),
                 (Weekdays{{true, false, true, false, true, false, false}}));
        QVERIFY_THROWS_EXCEPTION(InputError, parseWeekdays("Mon Someday"));
    }
    void delaysAreRead() {
        const auto delays = parseDelays("24 h, 5d; 6 mo");
        QCOMPARE(delays.size(), std::size_t{3});
        QCOMPARE(delays[0], (Delay{24, Delay::Unit::hours}));
        QCOMPARE(delays[1].text(), std::string("5 d"));
        QCOMPARE(delays[2], (Delay{6, Delay::Unit::months}));
        QVERIFY(parseDelays("").empty());
        for (const char* wrong : {"soon", "5", "0 d", "-3 h", "5 fortnights", "123456 h"})
            QVERIFY_THROWS_EXCEPTION(InputError, parseDelays(wrong));
    }
    void delaysKeepTheWallClockFromDaysOn() {
        QCOMPARE(dueAfter(at("2031-03-04 18:30"), {24, Delay::Unit::hours}), at("2031-03-05 18:30"));
        QCOMPARE(dueAfter(at("2031-03-04 18:30"), {2, Delay::Unit::weeks}), at("2031-03-18 18:30"));
        QCOMPARE(dueAfter(at("2031-08-31 18:30"), {6, Delay::Unit::months}), at("2032-02-29 18:30"));
        QCOMPARE(dueAfter(at("2032-02-29 08:00"), {1, Delay::Unit::years}), at("2033-02-28 08:00"));
        QCOMPARE(dueAfter(at("2031-11-30 08:00"), {1, Delay::Unit::months}), at("2031-12-30 08:00"));
    }
};
IBUKI_TEST(TestSchedule)
#include "tst_schedule.moc"
