// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/plan/spare_time.h"
#include "support/entities.h"
#include "support/steps.h"
#include "support/test_class.h"

using namespace ibuki;
using story::alone;
using story::at;
using story::manualWork;

namespace {

Evenings daily() { return {at("2031-03-03"), 18, 4, Weekdays{true, true, true, true, true, true, true}}; }

std::vector<std::string> codes(const SpareTime& spare) {
    std::vector<std::string> reported;
    for (const SpareWork& work : spare.work) reported.push_back(work.what.code);
    return reported;
}

Material madeOf(const char* name, MaterialClass kind) {
    Material material = story::materialNamed(name);
    material.kind = kind;
    return material;
}

} // namespace

class TestSpareTime : public QObject {
    Q_OBJECT
private slots:
    void theNextMountIsMadeReadyFirst() {
        const Schedule plan =
            schedule({{manualWork(20), alone(30), alone(10)}, {manualWork(20), alone(15)}}, daily());
        const Material pad = madeOf("Slate 25", MaterialClass::gapPad);
        const auto spare = spareTimes(plan, {&pad, &pad});
        QCOMPARE(spare.size(), std::size_t{2});
        QCOMPARE(spare[0].start, at("2031-03-03 18:20"));
        QCOMPARE(spare[0].end, at("2031-03-03 19:00")); // two steps that run by themselves are one stretch
        QCOMPARE(codes(spare[0]),
                 (std::vector<std::string>{"spare-work.cut", "spare-work.cleaning", "spare-work.card"}));
        QCOMPARE(codes(spare[1]), (std::vector<std::string>{"spare-work.card", "spare-work.log"}));
    }
    void eachClassIsMadeReadyItsWay() {
        const Schedule plan = schedule({{manualWork(20), alone(60)}, {manualWork(20), alone(60)}}, daily());
        for (const auto& [kind, code] : std::vector<std::pair<MaterialClass, std::string>>{
                 {MaterialClass::paste, "spare-work.weigh"},
                 {MaterialClass::phaseChange, "spare-work.cut"},
                 {MaterialClass::liquidMetal, "spare-work.mask"}}) {
            const Material next = madeOf("next", kind);
            QCOMPARE(spareTimes(plan, {nullptr, &next}).front().work.front().what.code, code);
        }
        QCOMPARE(spareTimes(plan, {nullptr, nullptr}).front().work.front().what.code,
                 std::string("spare-work.cleaning"));
    }
    void paperworkWaitsPreparationDoesNot() {
        // Ten minutes: the tube and the wipes, 6 of them; 4 for the card; the log waits for the third mount.
        const Schedule plan = schedule(
            {{manualWork(20), alone(10)}, {manualWork(20), alone(10)}, {manualWork(20), alone(60)}}, daily());
        const Material paste = madeOf("Tern 11", MaterialClass::paste);
        const auto spare = spareTimes(plan, {&paste, &paste, &paste});
        QCOMPARE(codes(spare[1]),
                 (std::vector<std::string>{"spare-work.weigh", "spare-work.cleaning", "spare-work.card"}));
        QCOMPARE(codes(spare[2]),
                 (std::vector<std::string>{"spare-work.log", "spare-work.card", "spare-work.log"}));
    }
    void nightsAreNobodysTime() {
        const Schedule plan = schedule({{manualWork(20), alone(600)}, {manualWork(20), alone(5)}}, daily());
        const auto spare = spareTimes(plan, {nullptr, nullptr});
        QCOMPARE(spare.size(), std::size_t{1}); // five minutes are no stretch
        QCOMPARE(spare[0].start, at("2031-03-03 18:20"));
        QCOMPARE(spare[0].end, at("2031-03-03 22:00")); // the evening's end
    }
    void workFitsItsStretch() { // property, random plans
        Random random(11);
        const Material paste = madeOf("Tern 11", MaterialClass::paste);
        for (int round = 0; round < 200; ++round) {
            std::vector<std::vector<StepOccurrence>> mounts(1
                                                            + static_cast<std::size_t>(random.uniform() * 9));
            for (auto& steps : mounts)
                steps = {manualWork(5 + 60 * random.uniform()), alone(90 * random.uniform()),
                         alone(40 * random.uniform())};
            const Schedule plan = schedule(mounts, daily());
            for (const SpareTime& spare :
                 spareTimes(plan, std::vector<const Material*>(mounts.size(), &paste))) {
                double needed = 0;
                for (const SpareWork& work : spare.work) needed += work.minutes;
                QVERIFY(needed <= spare.minutes());
                QVERIFY(spare.minutes() >= 10);
                const ScheduledMount& mount = plan.mounts[spare.mount];
                QVERIFY(spare.start >= *mount.steps[1].start && spare.end <= mount.end);
            }
        }
    }
};

IBUKI_TEST(TestSpareTime)
#include "tst_spare_time.moc"
