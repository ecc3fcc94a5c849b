// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/conduct/run_monitor.h"
#include "support/near.h"
#include "support/test_class.h"

#include <algorithm>
#include <cmath>

using namespace ibuki;

namespace {

/// A bench as it should be: 40 K of load over a room of 22 °C.
BenchSample sampleAt(double timeS) {
    BenchSample sample;
    sample.timeS = timeS;
    sample.chipC = sample.highestC = 62;
    sample.ambientC = 22;
    sample.powerW = 150;
    sample.fanRpm = 1'420;
    return sample;
}

StepOccurrence soak(double powerW = 150) { return {StepKind::soak, "sustained", powerW}; }

/// Codes of what began (or "-code" of what was over), in order.
struct Story {
    RunMonitor watch;
    std::vector<std::string> codes;
    std::vector<double> atS;

    void take(const BenchSample& sample, const StepOccurrence& step) {
        for (const MonitorEvent& event : watch.take(sample, step, sample.timeS)) {
            codes.push_back(
                event.over ? "-"
                                 + std::get<std::vector<Message>>(event.flag.message.fields.front().value)
                                       .front()
                                       .code
                           : event.flag.code);
            atS.push_back(sample.timeS);
        }
    }
    /// Second by second; change: what is otherwise from a time on.
    void run(double fromS, double toS, const std::function<void(BenchSample&)>& change) {
        for (double t = fromS; t <= toS; ++t) {
            BenchSample sample = sampleAt(t);
            change(sample);
            take(sample, soak());
        }
    }
};

EarlierRise rise(const std::string& name, double steadyK, bool rejected) {
    EarlierRise earlier{Id<Mount>{1}, name, rejected, true, {}};
    for (double t = 5; t < 1'800; t += 10)
        earlier.curve.points.push_back({t, steadyK * (1 - std::exp(-t / 60))});
    return earlier;
}

} // namespace

class TestWatch : public QObject {
    Q_OBJECT
private slots:
    void nothingIsSaidOfAGoodRun() {
        Story story{RunMonitor({90, 95, true, {}, {}, {}, {}}), {}, {}};
        story.run(0, 3'600, [](BenchSample&) {});
        QCOMPARE(story.codes, std::vector<std::string>{});
        QCOMPARE(story.watch.statusLights()[static_cast<std::size_t>(StatusLights::room)].statusLight,
                 StatusLight::good);
        QCOMPARE(*story.watch.statusLights()[static_cast<std::size_t>(StatusLights::limit)].value, 33.0);
    }
    void theStopComesAfterTwoSecondsOnly() {
        MonitorRules rules;
        rules.stopAboveC = 90;
        Story story{RunMonitor(rules), {}, {}};
        story.run(0, 100, [](BenchSample& sample) {
            if (sample.timeS == 50) sample.highestC = 99; // one sample is none
            if (sample.timeS >= 80) sample.highestC = 91;
        });
        QCOMPARE(story.codes, (std::vector<std::string>{"watch-over"}));
        QCOMPARE(story.atS.front(), 82.0);
        QCOMPARE(story.watch.statusLights()[static_cast<std::size_t>(StatusLights::limit)].statusLight,
                 StatusLight::stop);
    }
    void aStateBeginsAndEnds() { // each after it held for 20 s
        MonitorRules rules;
        rules.fanIsFixed = true;
        Story story{RunMonitor(rules), {}, {}};
        story.run(0, 300, [](BenchSample& sample) {
            if (sample.timeS >= 100 && sample.timeS < 200) sample.fanRpm = 1'200;
        });
        QCOMPARE(story.codes, (std::vector<std::string>{"watch-fan", "-watch-fan"}));
        QCOMPARE(story.atS, (std::vector<double>{120, 220}));
    }
    void aFanThatMayMoveIsNotWatched() {
        Story story{RunMonitor({}), {}, {}};
        story.run(0, 300, [](BenchSample& sample) { sample.fanRpm = 1'000 + sample.timeS; });
        QCOMPARE(story.codes, std::vector<std::string>{});
    }
    void ambientByBandAndBySlope() {
        Story band{RunMonitor({}), {}, {}};
        band.run(0, 120, [](BenchSample& sample) { sample.ambientC = sample.timeS < 60 ? 22 : 24.5; });
        QCOMPARE(band.codes, (std::vector<std::string>{"watch-room-band"}));
        Story slope{RunMonitor({}), {}, {}};
        slope.run(0, 2'000, [](BenchSample& sample) { *sample.ambientC += 2.0 * sample.timeS / 3'600; });
        QCOMPARE(slope.codes, (std::vector<std::string>{"watch-room-drift"}));
        QVERIFY2(slope.atS.front() < 700, std::to_string(slope.atS.front()).c_str());
    }
    void aRoomThatOnlySwingsIsNoDrift_data() {
        QTest::addColumn<int>("seed");
        for (int seed = 1; seed <= 20; ++seed) QTest::addRow("%d", seed) << seed;
    }
    /// A probe's noise of 0.1 K and 0.3 K/h: below the rule in truth. 20 rooms of an hour, none may be told.
    void aRoomThatOnlySwingsIsNoDrift() {
        QFETCH(int, seed);
        Random random(static_cast<std::uint64_t>(seed));
        Story story{RunMonitor({}), {}, {}};
        story.run(0, 3'600, [&](BenchSample& sample) {
            *sample.ambientC += 0.3 * sample.timeS / 3'600 + 0.1 * random.normal();
        });
        QCOMPARE(story.codes, std::vector<std::string>{});
    }
    void powerThatIsShortIsALimitNearItAndElseItself() {
        Story off{RunMonitor({}), {}, {}};
        off.run(0, 200, [](BenchSample& sample) { sample.powerW = 130; });
        QCOMPARE(off.codes, (std::vector<std::string>{"watch-power"}));
        QCOMPARE(off.atS.front(), 51.0); // 30 s of settling, then 20 s
        MonitorRules rules;
        rules.limitC = 62.5;
        Story bound{RunMonitor(rules), {}, {}};
        bound.run(0, 200, [](BenchSample& sample) { sample.powerW = 130; });
        QCOMPARE(bound.codes, (std::vector<std::string>{"watch-limit-bound"}));
    }
    void aStuckSensorIsOneWhileTheChipMoves() {
        Story still{RunMonitor({}), {}, {}};
        still.run(0, 900, [](BenchSample& sample) { sample.chipsC = {62, 50}; });
        QCOMPARE(still.codes, std::vector<std::string>{}); // nothing moves: nobody knows
        Story stuck{RunMonitor({}), {}, {}};
        stuck.run(0, 900, [](BenchSample& sample) {
            sample.chipC = 40 + std::min(20.0, sample.timeS / 10);
            sample.chipsC = {*sample.chipC, 50};
        });
        QCOMPARE(stuck.codes, (std::vector<std::string>{"watch-stuck"}));
    }
    void offsetsOfCoresAgainstTheSheet() {
        MonitorRules rules;
        rules.coreOffsetsK = {1, 0, -1};
        Story story{RunMonitor(rules), {}, {}};
        for (double t = 0; t < 120; ++t) {
            BenchSample sample = sampleAt(t);
            sample.coresC = {35, 34, 38};
            story.take(sample, {StepKind::idle});
        }
        QCOMPARE(story.codes, (std::vector<std::string>{"watch-offsets"}));
    }
    void aRiseLikeTheRejectedOnesIsNamed() {
        MonitorRules rules;
        rules.earlier = std::make_shared<std::vector<EarlierRise>>(std::vector{
            rise("Tern 11 1", 40, false), rise("Tern 11 2", 41, false), rise("Tern 11 3", 46, true)});
        const auto rising = [&](double steadyK) {
            Story story{RunMonitor(rules), {}, {}};
            story.run(0, 600, [&](BenchSample& sample) {
                sample.chipC = 22 + steadyK * (1 - std::exp(-sample.timeS / 60));
            });
            return story;
        };
        QCOMPARE(rising(40.5).codes, std::vector<std::string>{});
        QCOMPARE(rising(38).codes, std::vector<std::string>{}); // cooler is no trouble
        QCOMPARE(rising(45.5).codes, (std::vector<std::string>{"watch-rises-as"}));
        QCOMPARE(rising(42.6).codes, (std::vector<std::string>{"watch-rises-above"}));
        QVERIFY(rising(45.5).atS.front() < 180); // from the first minutes
    }
    void whatKeepsItFromBecomingSteady() {
        Story story{RunMonitor({}), {}, {}};
        story.run(0, 900, [](BenchSample& sample) {
            sample.coolantC = 30 + 3 * sample.timeS / 3'600;
            *sample.powerW += 6 * sample.timeS / 3'600;
        });
        std::vector<std::string> codes;
        for (const Message& reason : story.watch.unsteady()) codes.push_back(reason.code);
        QCOMPARE(codes, (std::vector<std::string>{"unsteady-coolant", "unsteady-power"}));
    }
    void readingsOfSeveralSourcesTogether() {
        LatestReadings latest;
        for (Role role : {Role::core, Role::core, Role::packagePower}) latest.add(role);
        latest.add(Role::ambient, 3'600); // typed
        latest.take(0, {60, 61.5, 150}, 10);
        latest.take(3, {21.5}, 10);
        BenchSample now = latest.at(20);
        QCOMPARE(*now.chipC, 61.5);
        QCOMPARE(*now.ambientC, 21.5);
        QCOMPARE(*now.powerW, 150.0);
        now = latest.at(100); // read a minute and a half ago: not what it reads now
        QVERIFY(!now.chipC && !now.powerW);
        QCOMPARE(*now.ambientC, 21.5);
    }
};

IBUKI_TEST(TestWatch)
#include "tst_run_monitor.moc"
