// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/clock/mount_history.h"
#include "core/domain/ageing.h"
#include "core/domain/joint_inspection.h"
#include "core/domain/run_reduction.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"

using namespace ibuki;

namespace {

const Instant noon = *parseInstant("2031-03-04 12:00");
Instant hoursLater(double hours) { return {noon.ms + std::llround(hours * 3'600'000)}; }

/// Points of a course, seconds and °C, with the loads inside it.
struct Course {
    std::vector<std::pair<double, double>> points;
    std::vector<std::pair<double, double>> loads;
    double powerW = 0;
};

/// One mount of the story, applied at noon, with recordings given by their courses.
class Clocked {
public:
    story::Asked asked = story::ask();
    Id<Mount> mount;

    Clocked() {
        Edit edit(asked.document, "mount");
        const Question question = *firstQuestion(edit.document(), asked.study);
        Mount made;
        made.configuration = currentConfiguration(edit.document(), asked.bench)->id;
        made.at = hoursLater(1); // an hour after it was applied
        made.order = 1;
        mount = edit.add(made);
        Application application;
        application.site = question.site;
        application.lot = edit.document().where(&Lot::material, material(edit)).front()->id;
        application.start = hoursLater(-0.5);
        application.end = noon;
        MountApplication use;
        use.mount = mount;
        use.application = edit.add(application);
        edit.add(use);
        Slot slot;
        slot.study = asked.study;
        slot.level = levelsOf(edit.document(), question.id).front()->id;
        slot.mount = mount;
        edit.add(slot);
        apply(asked.document, edit.finish());
    }

    Id<Run> record(std::optional<double> startHours, const Course& course, int loadIndex = -1) {
        Edit edit(asked.document, "record");
        Recording recording;
        recording.bench = asked.bench;
        recording.fileName = recording.sha256 = std::to_string(++count_);
        if (startHours) recording.start = hoursLater(*startHours);
        recording.durationS = course.points.empty() ? 0 : course.points.back().first;
        Run run;
        run.mount = mount;
        run.recording = edit.add(recording);
        run.loadIndex = loadIndex;
        Reduction reduction;
        reduction.durationS = recording.durationS;
        for (const auto& [s, c] : course.points) {
            reduction.course.atS.push_back(s);
            reduction.course.chipC.push_back(c);
            if (course.powerW > 0) reduction.course.powerW.push_back(course.powerW);
        }
        for (const auto& [from, to] : course.loads) {
            LoadReduction load;
            load.phases = {{"idle", 0, from}, {"load", from, to}};
            load.window = Phase{"window", to - 60, to};
            reduction.loads.push_back(load);
        }
        if (!reduction.loads.empty()) reduction.longest = 0;
        const Id<Run> id = edit.add(run);
        edit.add(RunReduction::with({}, id, reduction, {}));
        apply(asked.document, edit.finish());
        return id;
    }
    void use(const MountUse& stated) {
        Edit edit(asked.document, "use");
        MountUse made = stated;
        made.mount = mount;
        edit.add(made);
        apply(asked.document, edit.finish());
    }
    void melts(double celsius) {
        Edit edit(asked.document, "melts");
        Material changed = *edit.document().find(material(edit));
        changed.melts = Celsius{celsius};
        edit.put(changed);
        apply(asked.document, edit.finish());
    }
    MountHistory history(std::optional<double> jointKPerW = std::nullopt) const {
        return {asked.document, mount, jointKPerW};
    }

private:
    static Id<Material> material(const Edit& edit) { return edit.document().all<Material>().begin()->first; }
    int count_ = 0;
};

/// 30 °C, up to `hot` between 600 s and 4200 s, back down.
Course hour(double hot, double powerW = 0) {
    return {{{0, 30}, {600, 30}, {900, hot}, {4'200, hot}, {4'500, 30}, {6'000, 30}}, {{600, 4'200}}, powerW};
}

} // namespace

class TestMountHistory : public QObject {
    Q_OBJECT
private slots:
    void hoursRunFromTheEndOfTheApplication() {
        const Clocked clocked;
        const MountHistory history = clocked.history();
        QCOMPARE(history.applied()->ms, noon.ms);
        QCOMPARE(*history.at(hoursLater(26)).hours, 26.0);
        QVERIFY(!history.at(hoursLater(-1)).hours); // not yet
        QCOMPARE(history.at(hoursLater(26)).loadHours, 0.0);
        QVERIFY(!history.lastRecorded());
    }
    void withoutAnApplicationTheyRunFromTheMount() {
        Clocked clocked;
        Edit edit(clocked.asked.document, "application without times");
        Application application = edit.document().all<Application>().begin()->second;
        application.start.reset();
        application.end.reset();
        edit.put(application);
        apply(clocked.asked.document, edit.finish());
        QCOMPARE(*clocked.history().at(hoursLater(26)).hours, 25.0);
    }
    void loadHoursGrowEvenlyWhileALoadRuns() {
        Clocked clocked;
        clocked.record(2, hour(70));
        const MountHistory history = clocked.history();
        QCOMPARE(history.at(hoursLater(2)).loadHours, 0.0);
        QVERIFY_NEAR(history.at(hoursLater(2 + 2'400.0 / 3'600)).loadHours, 0.5, 1e-9);
        QVERIFY_NEAR(history.at(hoursLater(4)).loadHours, 1, 1e-12);
        QVERIFY_NEAR(history.at(hoursLater(400)).loadHours, 1, 1e-12);
        QCOMPARE(history.lastRecorded()->ms, hoursLater(2 + 6'000.0 / 3'600).ms);
    }
    void aSwingOfTenKelvinIsACycleAndASmallerOneIsNone() {
        Clocked clocked;
        clocked.record(2, hour(70));
        clocked.record(6, hour(39)); // 9 K
        clocked.record(10, hour(55));
        const MountHistory history = clocked.history();
        // Rainflow: 30 → 70 → 30 is two halves of 40 K, which close to one; the swing of 25 K inside is
        // another.
        QVERIFY_NEAR(history.at(hoursLater(5)).cycles, 1, 1e-12);
        QVERIFY_NEAR(history.at(hoursLater(9)).cycles, 1, 1e-12);
        QVERIFY_NEAR(history.at(hoursLater(14)).cycles, 2, 1e-12);
        QCOMPARE(*history.hottestJointC(), 70.0);
        QCOMPARE(*history.coldestC(), 30.0);
    }
    void hoursAboveTheMeltAreThoseOfTheJoint() {
        Clocked clocked;
        clocked.melts(60);
        clocked.record(2, hour(70, 100));
        // The chip alone: above 60 from 825 s (30 → 70 in 300 s) to 4275 s.
        const MountClock chip = clocked.history().at(hoursLater(5));
        QVERIFY_NEAR(chip.aboveMeltHours, (4'275 - 825) / 3'600.0, 1e-9);
        QCOMPARE(chip.meltCycles, 1.0);
        QVERIFY(clocked.history().jointAssumed());
        // With 0.08 K/W at 100 W the joint is 8 K cooler: above 60 from 885 s to 4215 s, and never 5 K over.
        const MountHistory joint = clocked.history(0.08);
        QVERIFY(!joint.jointAssumed());
        QVERIFY_NEAR(joint.at(hoursLater(5)).aboveMeltHours, (4'215 - 885) / 3'600.0, 1e-9);
        QCOMPARE(joint.at(hoursLater(5)).meltCycles, 0.0);
        QVERIFY_NEAR(*joint.hottestJointC(), 62, 1e-9);
    }
    void statedUseIsAddedBetweenTheRecordings() {
        Clocked clocked;
        clocked.melts(60);
        clocked.record(2, hour(70));
        MountUse use;
        use.from = hoursLater(24);
        use.until = hoursLater(24 + 10 * 24);
        use.hoursPerDay = 6;
        use.cyclesPerDay = 3;
        use.hottest = Celsius{80};
        use.coldest = Celsius{12};
        clocked.use(use);
        const MountClock half = clocked.history().at(hoursLater(24 + 5 * 24));
        QVERIFY_NEAR(half.statedHours, 30, 1e-9);
        QVERIFY_NEAR(half.loadHours, 31, 1e-9);
        QVERIFY_NEAR(half.cycles, 1 + 15, 1e-9);
        QVERIFY_NEAR(half.meltCycles, 1 + 15, 1e-9);
        const MountClock after = clocked.history().at(hoursLater(10'000));
        QVERIFY_NEAR(after.statedHours, 60, 1e-9);
        QVERIFY_NEAR(*clocked.history().coldestC(), 12, 0);
    }
    void useWithoutTimesRunsFromTheApplicationUntilItIsOpened() {
        Clocked clocked;
        MountUse use;
        use.hoursPerDay = 24;
        clocked.use(use);
        QVERIFY_NEAR(clocked.history().at(hoursLater(48)).loadHours, 48, 1e-9);
        Edit edit(clocked.asked.document, "look");
        JointInspection look;
        look.mount = clocked.mount;
        look.site = firstQuestion(edit.document(), clocked.asked.study)->site;
        look.at = hoursLater(36);
        edit.add(look);
        apply(clocked.asked.document, edit.finish());
        QCOMPARE(clocked.history().opened()->ms, hoursLater(36).ms);
        QVERIFY_NEAR(clocked.history().at(hoursLater(48)).loadHours, 36, 1e-9);
    }
    void aRecordingWithoutADateTellsNothingOfTheClock() {
        Clocked clocked;
        const Id<Run> run = clocked.record(std::nullopt, hour(70));
        QVERIFY(!clocked.history().lastRecorded());
        QVERIFY(!loadBegan(clocked.asked.document, *clocked.asked.document.find(run)));
        QVERIFY(!measuredAt(clocked.asked.document, *clocked.asked.document.find(run)));
    }
    void severalRunsOfOneRecordingCountItOnce() {
        Clocked clocked;
        Course two = hour(70);
        two.loads = {{600, 2'400}, {2'400, 4'200}};
        const Id<Run> first = clocked.record(2, two, 0);
        Edit edit(clocked.asked.document, "second load");
        Run second = *edit.document().find(first);
        second.id = {};
        second.loadIndex = 1;
        const Id<Run> id = edit.add(second);
        edit.add(RunReduction::with({}, id, *reductionOf(edit.document(), first), {}));
        apply(clocked.asked.document, edit.finish());
        QVERIFY_NEAR(clocked.history().at(hoursLater(8)).loadHours, 1, 1e-12);
        QCOMPARE(loadBegan(clocked.asked.document, *clocked.asked.document.find(first))->ms,
                 hoursLater(2 + 600.0 / 3'600).ms);
        QCOMPARE(loadBegan(clocked.asked.document, *clocked.asked.document.find(id))->ms,
                 hoursLater(2 + 2'400.0 / 3'600).ms);
        QCOMPARE(measuredAt(clocked.asked.document, *clocked.asked.document.find(id))->ms,
                 hoursLater(2 + 4'170.0 / 3'600).ms);
    }
    void everyClockOnlyGrows() { // property: 30 random lives, 60 moments each
        Random random(11);
        for (int life = 0; life < 30; ++life) {
            Clocked clocked;
            if (life % 2) clocked.melts(45 + 20 * random.uniform());
            double at = 1;
            for (int i = 0; i < 4; ++i) {
                Course course;
                double s = 0;
                for (int p = 0; p < 12; ++p) {
                    course.points.emplace_back(s, 25 + 50 * random.uniform());
                    s += 60 + 600 * random.uniform();
                }
                const double begin = course.points[2].first;
                course.loads = {{begin, begin + 0.5 * (course.points.back().first - begin)}};
                clocked.record(at, course);
                at += 3 + 20 * random.uniform();
            }
            const MountHistory history = clocked.history();
            MountClock before;
            before.hours = 0;
            for (int moment = 0; moment < 60; ++moment) {
                const MountClock now = history.at(hoursLater(at * moment / 50));
                for (const AgeingClock clock : ageingClocks)
                    QVERIFY(now.of(clock).value_or(0) >= before.of(clock).value_or(0) - 1e-9);
                QVERIFY(now.aboveMeltHours >= before.aboveMeltHours - 1e-9);
                QVERIFY(now.loadHours <= *now.hours + 1e-9);
                before = now;
            }
        }
    }
    void hoursAboveTheMeltAgreeWithSecondsCounted() { // second road: straight lines walked second by second
        Random random(12);
        Clocked clocked;
        clocked.melts(50);
        Course course;
        double s = 0;
        for (int p = 0; p < 40; ++p) {
            course.points.emplace_back(s, 30 + 40 * random.uniform());
            s += 100 + std::floor(300 * random.uniform());
        }
        clocked.record(2, course);
        double above = 0;
        for (std::size_t i = 1; i < course.points.size(); ++i) {
            const auto [fromS, fromC] = course.points[i - 1];
            const auto [toS, toC] = course.points[i];
            for (double t = fromS + 0.05; t < toS; t += 0.1)
                above += fromC + (toC - fromC) * (t - fromS) / (toS - fromS) > 50 ? 0.1 : 0;
        }
        QVERIFY_NEAR(clocked.history().at(hoursLater(100)).aboveMeltHours, above / 3'600, 0.003);
    }
    void theHistoryOfASnapshotIsMadeOnce() {
        Clocked clocked;
        const MountHistory& first = historyOf(clocked.asked.document, clocked.mount);
        QCOMPARE(&historyOf(clocked.asked.document, clocked.mount), &first);
        const Document copy = clocked.asked.document;
        clocked.record(2, hour(70)); // another snapshot
        QVERIFY_NEAR(historyOf(clocked.asked.document, clocked.mount).at(hoursLater(5)).loadHours, 1, 1e-12);
        QCOMPARE(historyOf(copy, clocked.mount).at(hoursLater(5)).loadHours, 0.0);
    }
};

IBUKI_TEST(TestMountHistory)
#include "tst_mount_history.moc"
