// SPDX-License-Identifier: GPL-3.0-or-later
// Stated 95 % intervals hold the truth as often as they say: a short run of bench-intervals. With 160 runs a
// share of 0.95 lies above 0.90 in all but one of several hundred tries.

#include "support/coverage.h"
#include "support/near.h"
#include "support/test_class.h"
#include "support/trials.h"

using namespace ibuki;

class TestIntervals : public QObject {
    Q_OBJECT
private slots:
    void theTruthIsHeld_data() {
        QTest::addColumn<int>("index");
        const auto cases = story::noiseCases();
        for (std::size_t i = 0; i < cases.size(); i += 2) QTest::newRow(cases[i].name.c_str()) << int(i);
    }
    void theTruthIsHeld() {
        QFETCH(int, index);
        const auto coverage =
            story::coverageOf(story::noiseCases()[std::size_t(index)], test::trials(160), 7);
        if (test::sanitized) return; // too few to judge a share
        QVERIFY2(coverage.asymptotes == 0 || coverage.asymptoteShare() >= 0.90,
                 qPrintable(QString::number(coverage.asymptoteShare())));
        QVERIFY2(coverage.meanShare() >= 0.90, qPrintable(QString::number(coverage.meanShare())));
        QVERIFY(coverage.asymptotes >= 150);
    }
    void handMarksMoveTheWindowAndKeepWhatWasFound() {
        Random random(3);
        const Trace trace = story::decayingRun(story::noiseCases().front(), random);
        const Reduction found = reduce(trace);
        ReduceSettings settings;
        settings.hand.windowStartS = 1200;
        settings.hand.windowEndS = 1500;
        const Reduction moved = reduce(trace, settings);
        QCOMPARE(moved.main()->window->startS, 1200.0);
        QCOMPARE(moved.main()->window->endS, 1500.0);
        QCOMPARE(*moved.main()->foundWindow, *found.main()->window);
        QVERIFY(hasFlag(moved.flags, "set-by-hand"));
        settings.hand = {};
        settings.hand.loadEndS = 900;
        const Reduction shorter = reduce(trace, settings);
        QVERIFY_NEAR(shorter.main()->phases[1].endS, 901, 1.5);
        QVERIFY(shorter.main()->window->endS < 900);
        QVERIFY(shorter.main()->foundLoad.has_value());
    }
    void aLoadThatWasNotFoundCanBeSet() {
        Random random(4);
        Trace trace = story::decayingRun(story::noiseCases().front(), random);
        std::fill(trace.channels[2].values.begin(), trace.channels[2].values.end(), 28.0);
        std::fill(trace.channels[0].values.begin(), trace.channels[0].values.end(), 31.0);
        QVERIFY(!reduce(trace).main());
        ReduceSettings settings;
        settings.hand.loadStartS = 200;
        settings.hand.loadEndS = 900;
        QVERIFY(reduce(trace, settings).main());
    }
    void theAsymptoteCountsWhenAskedFor() {
        Random random(5);
        const Trace trace = story::decayingRun(story::noiseCases()[3], random); // two time constants only
        ReduceSettings settings;
        settings.useAsymptote = true;
        const Reduction reduction = reduce(trace, settings);
        QVERIFY(reduction.main()->extrapolated);
        QVERIFY(hasFlag(reduction.flags, "extrapolated"));
        QVERIFY_NEAR(*reduction.main()->rthKPerW,
                     *reduction.main()->steady.asymptoteK / *reduction.main()->powerW, 1e-12);
        QVERIFY_NEAR(*reduction.main()->steady.tauS, 500, 150);
    }
};

IBUKI_TEST(TestIntervals)
#include "tst_intervals.moc"
