// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ageing/ageing_judgement.h"
#include "core/ageing/ageing_plan.h"
#include "core/ageing/break_in.h"
#include "core/ageing/joint_history.h"
#include "core/ageing/outcomes.h"
#include "core/ageing/reapplication.h"
#include "core/ageing/shelf_age.h"
#include "core/base/random.h"
#include "core/domain/ageing.h"
#include "core/domain/joint_inspection.h"
#include "core/setup/follow_ups.h"
#include "core/setup/plan_setup.h"
#include "support/drifting.h"
#include "support/near.h"
#include "support/test_class.h"
#include "words/words.h"

#include <cmath>

using namespace ibuki;

namespace {

bool says(const std::vector<Message>& reported, const std::string& code) {
    return std::any_of(reported.begin(), reported.end(),
                       [&](const Message& one) { return one.code == code; });
}

QString all(const std::vector<Message>& reported) {
    QStringList lines;
    for (const Message& one : reported) lines << QString::fromStdString(words::text(one));
    return lines.join("\n");
}

/// Mounts of one level, each followed at those hours; change(hours) in kelvin.
template <class Change>
void follow(story::AgedMounts& bench, std::size_t level, int mounts, const std::vector<double>& hours,
            double noise, std::uint64_t seed, Change&& change) {
    Random random(seed);
    for (int m = 0; m < mounts; ++m) {
        const Id<Mount> mount = bench.mount(level, 40.0 * m + 400.0 * static_cast<double>(level));
        const double start = 30 + 0.4 * random.normal();
        for (const double t : hours) bench.reading(mount, t, start + change(t) + noise * random.normal());
    }
}

const std::vector<double> week{0.5, 4, 12, 24, 48, 96, 168, 336};

} // namespace

class TestAgeingJudgement : public QObject {
    Q_OBJECT
private slots:
    void clocksOfAMount() {
        story::AgedMounts bench;
        const Id<Mount> mount = bench.mount(0, 0);
        bench.reading(mount, 1, 30);
        bench.reading(mount, 25, 30);
        const MountHistory history = jointHistory(bench.document(), mount);
        const MountClock second = history.at(bench.after(1.0 + 1.0 / 24));
        QVERIFY_NEAR(*second.hours, 25, 1e-9);
        QVERIFY_NEAR(second.loadHours, 0.5 + 1'200.0 / 3'600, 1e-3); // the window's middle is 1,500 s in
        QVERIFY_NEAR(history.at(bench.after(3)).loadHours, 1.0, 1e-9);
        // two heatings and coolings of 25 K: what opens the course closes with its end
        QCOMPARE(history.at(bench.after(3)).cycles, 2.0);
        QCOMPARE(history.at(bench.after(-1)).cycles, 0.0);
        QVERIFY(!history.at(bench.after(-1)).hours);
    }
    void statedUseAddsToTheClocks() {
        story::AgedMounts bench;
        const Id<Mount> mount = bench.mount(0, 0);
        bench.reading(mount, 1, 30);
        Edit edit(bench.document(), "use");
        MountUse use;
        use.mount = mount;
        use.hoursPerDay = 8;
        use.cyclesPerDay = 2;
        use.coldest = Celsius{-10};
        edit.add(use);
        apply(bench.document(), edit.finish());
        const MountHistory history = jointHistory(bench.document(), mount);
        const MountClock clock = history.at(bench.after(100));
        QVERIFY_NEAR(clock.loadHours, 0.5 + 800, 1e-6);
        QVERIFY_NEAR(clock.cycles, 1 + 200, 1e-6);
        QCOMPARE(clock.statedCycles, 200.0);
        QCOMPARE(*history.coldestC(), -10.0);
    }
    void openingEndsASeries() {
        story::AgedMounts bench;
        const Id<Mount> first = bench.mount(0, 0);
        bench.reading(first, 1, 30);
        QVERIFY(!MountHistory(bench.document(), first).opened());
        bench.mount(1, 3);
        QCOMPARE(*MountHistory(bench.document(), first).opened(), bench.after(3));
        bench.reading(first, 100, 31); // after the second was made
        bench.reading(first, -5, 29);  // before it was made itself
        const AgeingSeries series = ageingSeries(bench.document(), bench.question);
        QCOMPARE(series.groups.front().mounts.front().points.size(), std::size_t{1});
        QVERIFY(says(series.leftOut, "drift-left.opened"));
        QVERIFY(says(series.leftOut, "drift-left.before"));
        Edit edit(bench.document(), "stated");
        Mount stated = *bench.document().find(first);
        stated.opened = bench.after(2);
        edit.put(stated);
        apply(bench.document(), edit.finish());
        QCOMPARE(*openedAt(bench.document(), *bench.document().find(first)), bench.after(2));
    }
    void noBreakInIsAnEquivalence() {
        // docs/methods.md, G.4: −0.275 K, sd 0.05, 90 % interval −0.3338 to −0.2162
        story::AgedMounts bench;
        const double changes[] = {-0.3, -0.3, -0.2, -0.3};
        for (int m = 0; m < 4; ++m) {
            const Id<Mount> mount = bench.mount(0, 20.0 * m);
            bench.reading(mount, 1, 26 + 0.3 * m);
            bench.reading(mount, 100, 26 + 0.3 * m + changes[m]);
        }
        const AgeingJudgement judged = judgeAgeing(bench.document(), bench.question);
        const BreakIn& seen = judged.groups.front().breakIn;
        QCOMPARE(seen.mounts, 4);
        QVERIFY_NEAR(seen.changeK, -0.275, 1e-9);
        QVERIFY_NEAR(seen.interval90->lo, -0.3338, 1e-4);
        QVERIFY_NEAR(seen.interval90->hi, -0.2162, 1e-4);
        QVERIFY_NEAR(seen.interval95->lo, -0.3546, 1e-4);
        QCOMPARE(seen.says, BreakIn::Says::same);
        QVERIFY(seen.measurable);
        QVERIFY2(says(judged.groups.front().reported, "drift-break-in.same-measurable"),
                 qPrintable(all(judged.groups.front().reported)));
    }
    void aBreakInThatIsOne() {
        story::AgedMounts bench;
        follow(bench, 0, 4, week, 0.05, 3, [](double t) { return -1.5 * (1 - std::exp(-t / 12)); });
        const AgeingJudgement judged = judgeAgeing(bench.document(), bench.question);
        const BreakIn& seen = judged.groups.front().breakIn;
        QCOMPARE(seen.says, BreakIn::Says::settles);
        QVERIFY_NEAR(*seen.settled->at, 12 * std::log(1.5 / 0.2), 5); // 24.2 h
        QVERIFY(seen.settled->interval->contains(24.2));
        QVERIFY(says(judged.groups.front().reported, "drift-wait"));
    }
    void whatIsNotResolvedSaysWhatWouldHelp() {
        story::AgedMounts bench;
        for (int m = 0; m < 2; ++m) {
            const Id<Mount> mount = bench.mount(0, 20.0 * m);
            bench.reading(mount, 1, 30);
            bench.reading(mount, 100, 30 + (m == 0 ? 0.3 : -0.2));
        }
        const GroupAgeing one = judgeAgeing(bench.document(), bench.question).groups.front();
        QCOMPARE(one.breakIn.says, BreakIn::Says::notResolved);
        QVERIFY(one.breakIn.neededMounts && *one.breakIn.neededMounts > 2);
        QVERIFY(says(one.reported, "drift-needs.mounts"));
        QVERIFY(*mountsToShowSame(0.1, 0.5) < *mountsToShowSame(0.3, 0.5));
        QVERIFY(!mountsToShowSame(20, 0.5));
    }
    void wearHasADate() {
        story::AgedMounts bench;
        std::vector<double> year{1, 200, 700, 1'500, 3'000, 5'000, 8'000};
        Random random(5);
        for (int m = 0; m < 3; ++m) { // on a bench of their own each, so that none opens another
            const Id<Mount> mount = bench.mount(0, 400.0 * m);
            for (const double t : year)
                bench.reading(mount, t, 30 + 0.3 * m + 0.03 * std::sqrt(t) + 0.05 * random.normal());
        }
        const AgeingJudgement judged = judgeAgeing(bench.document(), bench.question);
        const GroupAgeing& one = judged.groups.front();
        QVERIFY(one.wearsOut);
        const ClockedCourse* course = one.by(AgeingClock::hours);
        QCOMPARE(course->course.fit()->model, AgeingModel::squareRoot);
        QVERIFY_NEAR(*course->threshold.at, std::pow((2 + 0.03) / 0.03, 2), 350);
        QVERIFY2(says(one.reported, "drift-reaches.within"), qPrintable(all(one.reported)));
        QVERIFY(judged.series.perWatt);
        QVERIFY(says(judged.bench, "drift-bench.unknown"));
        QVERIFY(one.reason == std::nullopt);
    }
    void cyclesAreToldFromHours() {
        // mounts used differently: what happens goes with their cycles, not with their age
        story::AgedMounts bench;
        Random random(6);
        for (int m = 0; m < 4; ++m) {
            const Id<Mount> mount = bench.mount(0, 60.0 * m);
            Edit edit(bench.document(), "use");
            MountUse use;
            use.mount = mount;
            use.hoursPerDay = 8;
            use.cyclesPerDay = m % 2 == 0 ? 4 : 40;
            edit.add(use);
            apply(bench.document(), edit.finish());
            for (const double t : {1., 48., 120., 240., 480., 720., 1'000.}) {
                const double cycles = use.cyclesPerDay * t / 24;
                bench.reading(mount, t, 30 + 0.3 * m + 0.004 * cycles + 0.04 * random.normal());
            }
        }
        const GroupAgeing one = judgeAgeing(bench.document(), bench.question).groups.front();
        QCOMPARE(one.goesWith, std::optional(AgeingClock::cycles));
        QVERIFY2(says(one.reported, "drift-goes-with.cycles"), qPrintable(all(one.reported)));
        QVERIFY(one.wearsOut);
        QVERIFY2(all(one.reported).contains(" cycles ("), qPrintable(all(one.reported))); // its threshold too
    }
    void theBenchesOwnDriftIsTakenOut() {
        story::AgedMounts bench;
        Random random(7);
        for (int c = 0; c < 5; ++c) { // the bench rises by 0.02 K a day
            const Id<Mount> check = bench.mount(1, 10.0 * c, SlotKind::checkMount);
            bench.reading(check, 1, 28 + 0.2 * c + 0.02 * random.normal());
        }
        const Id<Mount> mount = bench.mount(0, 50);
        for (const double t : {1., 24., 72., 168., 336., 480.})
            bench.reading(mount, t, 30 + 0.02 * t / 24 + 0.01 * random.normal());
        const AgeingJudgement judged = judgeAgeing(bench.document(), bench.question);
        QVERIFY(judged.series.bench.takenOut);
        QVERIFY_NEAR(*judged.series.bench.kelvinPerDay, 0.02, 0.002);
        QCOMPARE(judged.groups.front().by(AgeingClock::hours)->course.fit()->model, AgeingModel::constant);
        QVERIFY(says(judged.bench, "drift-bench.taken-out"));
    }
    void equalAge() {
        story::AgedMounts bench;
        follow(bench, 0, 3, week, 0.03, 8, [](double t) { return -1.5 * (1 - std::exp(-t / 12)); });
        follow(bench, 1, 3, {0.5, 4, 12, 24, 48, 96}, 0.03, 9, [](double) { return -1.2; });
        const AgeingJudgement judged = judgeAgeing(bench.document(), bench.question);
        QVERIFY(judged.equalHours);
        QVERIFY_NEAR(*judged.equalHours, 96, 0.1);
        QCOMPARE(judged.atEqualAge.size(), std::size_t{2});
    }
    void aFilmThatNeverMelted() {
        story::AgedMounts bench;
        Material film = *bench.document().find(bench.level(0).material);
        film.kind = MaterialClass::phaseChange;
        film.melts = Celsius{60};
        bench.document().put(film);
        follow(bench, 0, 2, {1, 5, 10, 20, 30, 50}, 0.02, 4, [](double) { return 0.0; });
        const GroupAgeing one = judgeAgeing(bench.document(), bench.question).groups.front();
        QVERIFY(one.conditioning && one.conditioning->neverMelted);
        QVERIFY2(says(one.reported, "drift-conditioning.never"), qPrintable(all(one.reported)));
    }
    void threePointsTellNoCourse() {
        story::AgedMounts bench;
        follow(bench, 0, 1, {1, 24, 72}, 0.02, 4, [](double t) { return t / 100; });
        const GroupAgeing one = judgeAgeing(bench.document(), bench.question).groups.front();
        QVERIFY(one.reason && one.reason->code == "drift-too-few");
        QVERIFY(one.clocks.empty());
        QCOMPARE(one.breakIn.says, BreakIn::Says::unknown);
    }
    void whatIsDue() {
        story::AgedMounts bench;
        const Id<Mount> mount = bench.mount(0, 0);
        Edit edit(bench.document(), "later");
        const Slot* slot = bench.document().where(&Slot::mount, std::optional(mount)).front();
        for (const int days : {5, 30}) {
            FollowUp later;
            later.slot = slot->id;
            later.after = {days, Delay::Unit::days};
            edit.add(later);
        }
        apply(bench.document(), edit.finish());
        const auto at = [&](double day) { return dueChecks(bench.document(), bench.after(day)); };
        QCOMPARE(at(0).front().state, DueState::soon);
        QCOMPARE(at(0).back().state, DueState::later);
        QCOMPARE(at(5).front().state, DueState::due);
        QCOMPARE(at(5.9).front().state, DueState::overdue); // a fifth of five days, then it is lost
        QCOMPARE(at(6.5).front().state, DueState::lost);
        QCOMPARE(countDue(at(0)).thisWeek, 1);
        QCOMPARE(countDue(at(5.9)).overdue, 1);
        bench.mount(1, 4); // opens the first
        QCOMPARE(at(4.5).front().state, DueState::lost);
    }
    void shelfAgeByTubes() {
        story::AgedMounts bench;
        Random random(12);
        for (int tube = 0; tube < 4; ++tube) {
            Edit lots(bench.document(), "tube");
            Lot lot;
            lot.material = *bench.level(0).material;
            lot.name = "tube " + std::to_string(tube);
            lot.made = bench.after(-365.25 * 3 * tube);
            const Id<Lot> id = lots.add(lot);
            apply(bench.document(), lots.finish());
            for (int m = 0; m < 2; ++m) {
                const Id<Mount> mount = bench.mount(0, 2.0 * tube + m);
                Application application = *applicationAt(bench.document(), mount, bench.question.site);
                application.lot = id;
                bench.document().put(application);
                bench.reading(mount, 1, 30 + 0.2 * 3 * tube + 0.05 * random.normal());
            }
        }
        const ShelfAge shelf = shelfAge(bench.document(), bench.question);
        QCOMPARE(shelf.lots.size(), std::size_t{4});
        QVERIFY_NEAR(*shelf.kelvinPerYear, 0.2, 0.02);
        QVERIFY(shelf.interval && shelf.interval->contains(0.2) && !shelf.few);
        QCOMPARE(shelf.pairs.size(), std::size_t{1});
        QVERIFY_NEAR(*shelf.pairs.front().differenceK, 1.8, 0.15);
        QVERIFY(shelf.pairs.front().intervalK->lo > 1);
        QVERIFY2(says(shelf.reported, "shelf-age.hotter"), qPrintable(all(shelf.reported)));
    }
    void tubesAtTheLimitAreComparedByClock() {
        story::AgedMounts bench;
        Random random(13);
        for (int tube = 0; tube < 2; ++tube) {
            Edit lots(bench.document(), "tube");
            Lot lot;
            lot.material = *bench.level(0).material;
            lot.name = tube == 0 ? "new tube" : "old tube";
            lot.made = bench.after(-365.25 * 11 * tube);
            const Id<Lot> id = lots.add(lot);
            apply(bench.document(), lots.finish());
            for (int m = 0; m < 3; ++m) {
                const Id<Mount> mount = bench.mount(0, 3.0 * tube + m);
                Application application = *applicationAt(bench.document(), mount, bench.question.site);
                application.lot = id;
                bench.document().put(application);
                const Id<Run> run = bench.reading(mount, 1, 66);
                RunReduction stored = *bench.document().where(&RunReduction::run, run).front();
                stored.reduction.change([&](Reduction& reduction) {
                    reduction.loads[0].limit.censored = true;
                    reduction.loads[0].clockMHz = (tube == 0 ? 4'000 : 3'920) + 4 * random.normal();
                });
                bench.document().put(stored);
            }
        }
        const ShelfAge shelf = shelfAge(bench.document(), bench.question);
        const OldAgainstNew& pair = shelf.pairs.front();
        QVERIFY(!pair.differenceK);
        QVERIFY_NEAR(*pair.clockShare, -0.02, 0.002);
        QVERIFY(pair.clockInterval && pair.clockInterval->contains(-0.02));
        QVERIFY2(all(shelf.reported).contains("2.0 % less clock with old tube (11.0 years old)"),
                 qPrintable(all(shelf.reported)));
    }
    void whatSurvivesTheCold() {
        story::AgedMounts bench;
        for (int m = 0; m < 4; ++m) {
            const Id<Mount> mount = bench.mount(0, 3.0 * m);
            bench.reading(mount, 1, 30);
            Edit edit(bench.document(), "seen");
            MountOutcome outcome;
            outcome.mount = mount;
            outcome.kind = OutcomeKind::crackedInCold;
            outcome.happened = m == 3;
            outcome.coldest = Celsius{-10.0 * (m + 1)};
            edit.add(outcome);
            apply(bench.document(), edit.finish());
        }
        const auto tables = outcomeTables(bench.document());
        QCOMPARE(tables.size(), std::size_t{1});
        QCOMPARE(tables.front().materials.front().happened, 1);
        QCOMPARE(*tables.front().materials.front().coldestSurvivedC, -30.0);
        QVERIFY2(all(tables.front().reported).contains("survived -30 °C"),
                 qPrintable(all(tables.front().reported)));
    }
    void whatHappensOrNot() {
        story::AgedMounts bench;
        for (int m = 0; m < 12; ++m) {
            const Id<Mount> mount = bench.mount(m % 2 == 0 ? 0 : 1, 3.0 * m);
            bench.reading(mount, 1, 30);
            Edit edit(bench.document(), "seen");
            if (m < 6) {
                JointInspection look;
                look.mount = mount;
                look.site = bench.question.site;
                look.at = bench.after(3.0 * m + 1);
                look.pumpedOut = m % 2 == 0;
                edit.add(look);
            } else {
                MountOutcome outcome;
                outcome.mount = mount;
                outcome.happened = m % 2 == 0;
                outcome.cycles = 100 + m;
                edit.add(outcome);
            }
            apply(bench.document(), edit.finish());
        }
        const auto tables = outcomeTables(bench.document());
        QCOMPARE(tables.size(), std::size_t{1});
        QCOMPARE(tables.front().kind, OutcomeKind::pumpedOut);
        QCOMPARE(tables.front().materials.size(), std::size_t{2});
        QCOMPARE(tables.front().materials.front().happened, 6);
        QCOMPARE(tables.front().materials.back().happened, 0);
        QVERIFY_NEAR(tables.front().pairs.front().sharesP, 2.0 / 924, 1e-9); // 1 of C(12, 6), both sides
        QVERIFY(says(tables.front().reported, "outcome-pair.differ"));
        for (const OutcomeMount& one : tables.front().materials.front().mounts) // the last still stands
            QVERIFY(one.cycles < 200);
    }
    void delaysOfHours() {
        const auto delays = delaysAt({0.4, 4, 12, 24.2, 100, 340, 2'200});
        QCOMPARE(textOf(delays), std::string("4 h, 12 h, 24 h, 4 d, 2 w, 3 mo"));
        QCOMPARE(delaysAt({1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11}).size(), std::size_t{8});
    }
    void theMountsThatAreNeededArePlanned() {
        story::AgedMounts bench;
        for (int m = 0; m < 2; ++m) {
            const Id<Mount> mount = bench.mount(0, 20.0 * m);
            bench.reading(mount, 1, 30);
            bench.reading(mount, 100, 30 + (m == 0 ? 0.3 : -0.2));
        }
        const GroupAgeing one = judgeAgeing(bench.document(), bench.question).groups.front();
        Edit edit(bench.document(), "plan");
        const int planned = planMountsToFollow(edit, bench.question, one);
        QCOMPARE(planned, *one.breakIn.neededMounts - 2);
        apply(bench.document(), edit.finish());
        QCOMPARE(plannedSlots(bench.document(), bench.asked.study).size(), static_cast<std::size_t>(planned));
        QCOMPARE(textOf(planOf(bench.document(), bench.asked.study)->followUps), std::string("1 h, 4 d"));
        Edit again(bench.document(), "again");
        QCOMPARE(planMountsToFollow(again, bench.question, one), 0); // they are there already
    }
    void machinesAreDue() {
        story::AgedMounts bench;
        Random random(15);
        const Id<Mount> mount = bench.mount(0, 0);
        for (const double t : {1., 500., 1'000., 2'000., 3'000., 4'000., 5'000., 6'000.})
            bench.reading(mount, t, 30 + 0.0004 * t + 0.02 * random.normal());
        const AgeingJudgement fleet = judgeFleet(bench.document());
        QCOMPARE(fleet.groups.size(), std::size_t{1});
        const Reapplication due = reapplication(bench.document(), fleet, bench.after(300));
        QCOMPARE(due.machines.size(), std::size_t{1});
        QCOMPARE(due.machines.front().source, DueFrom::course);
        QVERIFY_NEAR(static_cast<double>(due.machines.front().due->ms - bench.start.ms) / 3'600'000, 5'000,
                     300);
        QVERIFY(due.machines.front().dueFrom && *due.machines.front().dueFrom < *due.machines.front().due);
        const Id<Mount> other = bench.mount(1, 310);
        bench.reading(other, 1, 28);
        const auto again = reapplication(bench.document(), judgeFleet(bench.document()), bench.after(311));
        QCOMPARE(again.machines.front().mount, other);
        QCOMPARE(again.machines.front().source, DueFrom::typical);
        QVERIFY(!again.reported.empty());
    }
};

IBUKI_TEST(TestAgeingJudgement)
#include "tst_ageing_judgement.moc"
