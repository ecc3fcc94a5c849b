// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/distributions/summary.h"
#include "core/reduce/phases.h"
#include "core/simulate/simulated_bench.h"
#include "support/test_class.h"

#include <QtTest>
#include <fmt/format.h>

using namespace ibuki;

class TestPhases : public QObject {
    Q_OBJECT

    static std::vector<double> seconds(std::size_t n) {
        std::vector<double> t(n);
        for (std::size_t i = 0; i < n; ++i) t[i] = double(i);
        return t;
    }
    static std::vector<double> power(std::size_t n, const std::vector<Segment>& loads, double noise,
                                     std::uint64_t seed = 1) {
        Random random(seed);
        std::vector<double> p(n);
        for (std::size_t i = 0; i < n; ++i) {
            bool on = false;
            for (const Segment& load : loads) on = on || (i >= load.begin && i < load.end);
            p[i] = (on ? 150 : 28) + noise * random.normal();
        }
        return p;
    }

    static std::vector<Segment> loadsOf(const std::vector<double>& power) {
        const auto t = seconds(power.size());
        return findLoads({.timeS = t, .power = power});
    }

    struct Heated {
        SimulatedBench bench;
        SimulatedProtocol protocol;
        Trace trace;
        std::vector<double> hottest;
        std::vector<double> power;
    };
    static Heated someHeating(Random& random) {
        const auto between = [&](double low, double high) { return low + (high - low) * random.uniform(); };
        Heated heated;
        heated.bench.interfaceKPerW = between(0.005, 0.1);
        heated.bench.sensorStepK = random.uniform() < 0.5 ? 1 : 0.1;
        heated.bench.sensorNoiseK = between(0.1, 0.6);
        heated.bench.sensorLagS = between(0.2, 4);
        heated.bench.layers.back().capacityJPerK *= between(0.5, 3);
        heated.bench.limitC.reset();
        heated.protocol.intervalS = random.uniform() < 0.5 ? 1 : 2;
        heated.protocol.idleS = std::round(between(60, 400) / 2) * 2;
        heated.protocol.loadS = std::round(between(600, 2400) / 2) * 2;
        heated.protocol.cooldownS = between(30, 600);
        heated.protocol.powerW = between(80, 220);
        heated.trace = simulate(heated.bench, heated.protocol, std::uint64_t(between(0, 1e9))).trace;
        heated.hottest = metricSeries(heated.trace, chipChannels(heated.trace, {}), Metric::hottest);
        heated.power = firstChannel(heated.trace, Role::packagePower)->values;
        return heated;
    }

private slots:
    void l1SplitOfTheHandbook() { // methods A.5: spikes and all, the change is at k = 8
        const std::vector<double> x{21, 20, 22, 21, 95, 20, 22, 21, 118, 121, 119, 120, 60, 121, 120, 119};
        QCOMPARE(l1Split(x), std::size_t{8});
        QCOMPARE(l1Split(std::vector<double>{1.0}), std::size_t{0});
    }
    void l1SplitIsTheBestOfAllSplits() { // against every split by itself, with plateaus and equal values
        Random random(8);
        for (int trial = 0; trial < 200; ++trial) {
            const auto n = static_cast<std::size_t>(2 + 60 * random.uniform());
            const auto edge = static_cast<std::size_t>(random.uniform() * static_cast<double>(n));
            std::vector<double> x;
            for (std::size_t i = 0; i < n; ++i)
                x.push_back(std::round((i < edge ? 20 : 120) + 3 * random.normal()));
            const auto costOf = [&](std::size_t k) {
                double sum = 0;
                for (const auto& part : {std::span(x).first(k), std::span(x).subspan(k)})
                    for (double v : part) sum += std::abs(v - median(part));
                return sum;
            };
            std::size_t best = 1;
            for (std::size_t k = 2; k < n; ++k)
                if (costOf(k) < costOf(best) - 1e-9) best = k;
            QCOMPARE(l1Split(x), best);
        }
    }
    void findsEdgesToTheSample() {
        for (std::uint64_t seed = 1; seed <= 20; ++seed) {
            const auto p = power(900, {{300, 700}}, 3, seed);
            QCOMPARE(loadsOf(p), (std::vector<Segment>{{300, 700}}));
        }
    }
    void isNotFooledBySpikes() {
        auto p = power(900, {{300, 700}}, 1);
        p[100] = 160;
        p[500] = 20;
        p[501] = 22;
        QCOMPARE(loadsOf(p), (std::vector<Segment>{{300, 700}}));
    }
    void keepsSeveralLoadsApart() {
        const std::vector<Segment> loads{{100, 400}, {500, 800}};
        QCOMPARE(loadsOf(power(900, loads, 1)), loads);
    }
    void bridgesShortPauses() {
        QCOMPARE(loadsOf(power(900, {{100, 400}, {407, 800}}, 1)), (std::vector<Segment>{{100, 800}}));
    }
    void fallsBackOnTemperature() {
        std::vector<double> temperature(900, 30.0);
        for (std::size_t i = 300; i < 700; ++i) temperature[i] = 70;
        const auto t = seconds(900);
        const auto loads = findLoads({.timeS = t, .temperature = temperature});
        QCOMPARE(loads.size(), std::size_t{1});
        QVERIFY(std::abs(double(loads[0].begin) - 300) <= 2);
    }
    void flatPowerAndTemperatureAreNoLoad() {
        const auto t = seconds(900);
        const auto p = power(900, {}, 1);
        const std::vector<double> still(900, 30.0);
        QVERIFY(findLoads({.timeS = t, .power = p, .temperature = still}).empty());
        QVERIFY(findLoads({}).empty());
    }
    void aLogUnderLoadFromTheStartHasNoIdle() {
        QCOMPARE(loadsOf(power(900, {{0, 700}}, 1)), (std::vector<Segment>{{0, 700}}));
    }
    /// Benches of all kinds without power: quick and slow sensors, fine and coarse ones, small and large heat
    /// sinks.
    void temperatureAloneTellsWhereALoadIs() {
        Random random(12);
        for (int trial = 0; trial < 120; ++trial) {
            const Heated heated = someHeating(random);
            const auto loads = findLoads({.timeS = heated.trace.timeS, .temperature = heated.hottest});
            const std::string what = fmt::format("trial {}: {} loads", trial, loads.size());
            QVERIFY2(loads.size() == 1, what.c_str());
            const double step = heated.protocol.intervalS;
            const double begin = heated.trace.timeS[loads[0].begin] - heated.protocol.idleS;
            const double end =
                heated.trace.timeS[loads[0].end] - heated.protocol.idleS - heated.protocol.loadS;
            const std::string off = fmt::format("trial {}: begin {:+.1f} s, end {:+.1f} s, step {}, lag {}",
                                                trial, begin, end, step, heated.bench.sensorLagS);
            const double most = 2 * step + 2 * heated.bench.sensorLagS;
            QVERIFY2(std::abs(begin) <= most && std::abs(end) <= most, off.c_str());
        }
    }
    void aHeatingOrASettledChipFromTheFirstSampleIsOneLoad() {
        Random random(13);
        for (int trial = 0; trial < 120; ++trial) {
            const Heated heated = someHeating(random);
            const double lateS = trial % 3 == 0 ? 0.0 : 600 * random.uniform();
            const auto first =
                static_cast<std::size_t>((heated.protocol.idleS + lateS) / heated.protocol.intervalS) + 1;
            const auto last = static_cast<std::size_t>((heated.protocol.idleS + heated.protocol.loadS)
                                                       / heated.protocol.intervalS)
                              - 1;
            const auto t = std::span(heated.trace.timeS).subspan(first, last - first);
            const auto x = std::span(heated.hottest).subspan(first, last - first);
            const auto p = std::span(heated.power).subspan(first, last - first);
            const std::string what = fmt::format("trial {}, {:.0f} s late", trial, lateS);
            const std::vector<Segment> all{{0, t.size()}};
            QVERIFY2(findLoads({.timeS = t, .power = p, .temperature = x}) == all, what.c_str());
            QVERIFY2(findLoads({.timeS = t, .temperature = x}) == all, what.c_str());
        }
    }
    void aSlowLoopUnderLoadFromTheStartHasNoIdle() { // half its rise comes twenty minutes late
        std::vector<double> t;
        std::vector<double> x;
        Random random(14);
        for (int i = 0; i < 2880; ++i) {
            t.push_back(5.0 * i);
            x.push_back(70 - 9 * std::exp(-t.back() / 1600) - 3 * std::exp(-t.back() / 90)
                        + 0.3 * random.normal());
        }
        QCOMPARE(findLoads({.timeS = t, .temperature = x}), (std::vector<Segment>{{0, t.size()}}));
        std::vector<double> late; // the same behind ten minutes of idle
        std::vector<double> withIdle;
        for (int i = 0; i < 3000; ++i) {
            late.push_back(5.0 * i);
            withIdle.push_back(i < 120 ? 30 + 0.3 * random.normal() : x[static_cast<std::size_t>(i - 120)]);
        }
        const auto loads = findLoads({.timeS = late, .temperature = withIdle});
        QCOMPARE(loads.size(), std::size_t{1});
        QVERIFY(loads[0].begin >= 119 && loads[0].begin <= 121);
    }
    void missingPowerCellsAreNoEdge() {
        auto p = power(900, {{300, 700}}, 1);
        for (std::size_t i = 450; i < 480; ++i) p[i] = std::nan("");
        QCOMPARE(loadsOf(p), (std::vector<Segment>{{300, 700}}));
    }
};

IBUKI_TEST(TestPhases)
#include "tst_phases.moc"
