// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/metric.h"
#include "support/near.h"
#include "support/test_class.h"

using namespace ibuki;

class TestMetric : public QObject {
    Q_OBJECT

    static Channel channel(Role role, std::vector<double> values) {
        Channel made;
        made.role = role;
        made.values = std::move(values);
        return made;
    }
    /// methods A.2: three cores, six samples.
    static Trace threeCores() {
        Trace trace;
        trace.timeS = {0, 1, 2, 3, 4, 5};
        trace.channels = {channel(Role::core, {70, 71, 70, 71, 73, 71}),
                          channel(Role::core, {68, 70, 75, 69, 68, 70}),
                          channel(Role::core, {66, 66, 67, 66, 66, 67})};
        return trace;
    }
    static double over(const Trace& trace, Metric metric, std::span<const double> ambient = {}) {
        return metricOver(trace, chipChannels(trace, {}), metric, {0, trace.samples()}, ambient).value();
    }

private slots:
    void definitionsOfTheHandbook() {
        const Trace trace = threeCores();
        QVERIFY_NEAR(over(trace, Metric::coreAverage), 69.1111, 5e-5);
        QVERIFY_NEAR(over(trace, Metric::peak), 75, 0);
        QVERIFY_NEAR(over(trace, Metric::coreMaxima), 71.6667, 5e-5);
        QVERIFY_NEAR(over(trace, Metric::hottest), 71.8333, 5e-5);
        QVERIFY_NEAR(over(trace, Metric::p95), 74.5, 1e-12);
    }
    void subtractsTheRoomSampleBySample() { // methods A.4
        Trace trace;
        trace.timeS = {0, 20, 40, 60};
        trace.channels = {channel(Role::core, {70.0, 70.4, 70.5, 70.6})};
        const std::vector<double> room{22.0, 22.2, 22.4, 22.6};
        QVERIFY_NEAR(over(trace, Metric::hottest, room), 48.075, 1e-12);
        QVERIFY_NEAR(over(trace, Metric::peak, room), 48.2, 1e-12); // not max − mean of the room
    }
    void weightsIrregularStampsByTime() { // methods A.2
        const std::vector<double> t{0, 1, 2, 10};
        const std::vector<double> x{60, 60, 60, 64};
        QVERIFY_NEAR(timeMean(std::vector<double>{0, 1, 2, 3}, x), 61.0, 1e-12);
        // A step of eight median intervals is a gap and is not bridged.
        QVERIFY_NEAR(timeMean(t, x), 60.0, 1e-12);
        QVERIFY_NEAR(timeMean(std::vector<double>{0, 1, 2, 6}, x), (1 * 60 + 1 * 60 + 4 * 62) / 6.0, 1e-12);
    }
    void withoutCoresThePackageStandsIn() {
        Trace trace;
        trace.timeS = {0, 1, 2};
        trace.channels = {channel(Role::package, {60, 61, 62})};
        QVERIFY_NEAR(over(trace, Metric::hottest), 61, 1e-12);
        QVERIFY(!metricOver(trace, chipChannels(trace, {}), Metric::coreAverage, {0, 3}, {}));
        QVERIFY(!metricOver(trace, chipChannels(trace, {}), Metric::gpu, {0, 3}, {}));
    }
    void hottestOfSeveralMemorySensorsCounts() {
        Trace trace;
        trace.timeS = {0, 1};
        trace.channels = {channel(Role::memory, {50, 52}), channel(Role::memory, {55, 51})};
        QVERIFY_NEAR(over(trace, Metric::memory), 53.5, 1e-12);
    }
    void missingCellsAreLeftOut() {
        Trace trace = threeCores();
        trace.channels[1].values[2] = std::nan("");
        QVERIFY_NEAR(over(trace, Metric::peak), 73, 0);
        QVERIFY(!metricOver(trace, chipChannels(trace, {}), Metric::hottest, {0, 0}, {}));
    }
    void stuckSensorsAreLeftOut() {
        Trace trace = threeCores();
        trace.channels.push_back(channel(Role::core, std::vector<double>(6, 90.0)));
        const Channel* stuck[] = {&trace.channels.back()};
        QVERIFY_NEAR(*metricOver(trace, chipChannels(trace, stuck), Metric::hottest, {0, 6}, {}), 71.8333,
                     5e-5);
    }
    void everyMetricHasANameOfItsOwn() {
        for (Metric metric : allMetrics) QCOMPARE(metricFromName(metricName(metric)), std::optional(metric));
        QVERIFY(!metricFromName("coolest"));
    }
};

IBUKI_TEST(TestMetric)
#include "tst_metric.moc"
