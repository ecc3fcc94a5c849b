// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/ambient.h"
#include "core/reduce/limit.h"
#include "support/near.h"
#include "support/test_class.h"

using namespace ibuki;

class TestLimit : public QObject {
    Q_OBJECT

    /// 600 s of load: temperature, power and clock constant at the given values.
    struct Load {
        std::vector<double> t, temperature, power, clock, flag;
        Load(double c, double w, double mhz) {
            for (int i = 0; i < 600; ++i) {
                t.push_back(i);
                temperature.push_back(c);
                power.push_back(w);
                clock.push_back(mhz);
                flag.push_back(0);
            }
        }
        LimitSummary judge(const ReduceSettings& settings = {}, double stepK = 0) const {
            return judgeLimit({t, temperature, power, clock, flag, stepK, {0, 600}, {300, 595}}, settings);
        }
    };
    static ReduceSettings limitAt(double c) {
        ReduceSettings settings;
        settings.limitC = c;
        return settings;
    }

private slots:
    void farFromTheLimitIsFree() {
        const LimitSummary summary = Load(70, 150, 4000).judge(limitAt(95));
        QVERIFY(!summary.censored);
        QCOMPARE(*summary.fraction, 0.0);
        QCOMPARE(*summary.limitC, 95.0);
        QVERIFY_NEAR(*summary.sustainedPowerW, 150, 1e-9);
    }
    void fivePercentAtTheLimitIsBound() {
        Load load(70, 150, 4000);
        for (std::size_t i = 100; i < 100 + 27; ++i)
            load.temperature[i] = 94.5; // 27 of 540 samples after the first minute
        QVERIFY(load.judge(limitAt(95)).censored);
        load.temperature[100] = 70;
        QVERIFY(!load.judge(limitAt(95)).censored);
    }
    void aCoarseSensorReachesFurther() {
        const Load load(93, 150, 4000);
        QVERIFY(!load.judge(limitAt(95)).censored);
        QVERIFY(load.judge(limitAt(95), 2.0).censored);
    }
    void theFirstMinuteDoesNotCount() {
        Load load(70, 150, 4000);
        for (std::size_t i = 0; i < 59; ++i) load.temperature[i] = 95;
        QVERIFY(!load.judge(limitAt(95)).censored);
    }
    void aSetFlagIsEnough() {
        Load load(70, 150, 4000);
        for (std::size_t i = 200; i < 206; ++i) load.flag[i] = 1; // 1.1 %
        QVERIFY(load.judge().censored);
    }
    void cutPowerAndClockAtAStandstillIsBound() {
        Load load(90, 150, 4000);
        for (std::size_t i = 60; i < 600; ++i) {
            load.power[i] = 140;
            load.clock[i] = 3800;
        }
        QVERIFY(load.judge().censored);
        Load powerOnly(90, 150, 4000);
        for (std::size_t i = 60; i < 600; ++i) powerOnly.power[i] = 140;
        QVERIFY(!powerOnly.judge().censored); // the clock was not cut
        for (std::size_t i = 60; i < 600; ++i) {
            load.temperature[i] = 60 + 0.02 * double(i);
        }
        QVERIFY(!load.judge().censored); // still rising
    }
    void withoutPowerAndClockNothingIsClaimed() {
        const Load load(90, 150, 4000);
        const LimitSummary summary =
            judgeLimit({load.t, load.temperature, {}, {}, {}, 0, {0, 600}, {300, 595}}, {});
        QVERIFY(!summary.censored && !summary.fraction && !summary.sustainedPowerW
                && !summary.sustainedClockMHz);
    }
    void blockMeansAreOfWholeBlocks() {
        std::vector<double> t;
        std::vector<double> x;
        for (int i = 0; i < 150; ++i) {
            t.push_back(i);
            x.push_back(i < 60 ? 1 : i < 120 ? 2 : 3);
        }
        QCOMPARE(blockMeans(t, x, 60),
                 (std::vector<double>{1, 2})); // the last 30 s are less than half a minute
        QVERIFY(blockMeans({}, {}, 60).empty());
    }
    void theRoomIsTheMeanOfItsProbesWithGapsFilled() {
        Trace trace;
        trace.timeS = {0, 10, 20, 30};
        Channel a;
        a.role = Role::ambient;
        a.values = {20, std::nan(""), std::nan(""), 26};
        trace.channels = {a};
        const AmbientSeries one = ambientSeries(trace, {});
        QCOMPARE(one.source, AmbientSource::column);
        QVERIFY_NEAR(one.valuesC[1], 22, 1e-12);
        QVERIFY_NEAR(one.valuesC[2], 24, 1e-12);
        Channel b = a;
        b.values = {22, 24, 26, std::nan("")};
        trace.channels = {a, b};
        QVERIFY_NEAR(ambientSeries(trace, {}).valuesC[0], 21, 1e-12);
        QCOMPARE(ambientSeries(Trace{}, {}).source, AmbientSource::none);
        const AmbientSummary summary = summarise(one, {0, 4});
        QCOMPARE(*summary.minC, 20.0);
        QCOMPARE(*summary.maxC, 26.0);
    }
};

IBUKI_TEST(TestLimit)
#include "tst_limit.moc"
