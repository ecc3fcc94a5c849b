// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/random.h"
#include "core/reduce/phases.h"
#include "support/test_class.h"

#include <QtTest>

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

private slots:
    void l1SplitOfTheHandbook() { // methods A.5: spikes and all, the change is at k = 8
        const std::vector<double> x{21, 20, 22, 21, 95, 20, 22, 21, 118, 121, 119, 120, 60, 121, 120, 119};
        QCOMPARE(l1Split(x), std::size_t{8});
        QCOMPARE(l1Split(std::vector<double>{1.0}), std::size_t{0});
    }
    void findsEdgesToTheSample() {
        for (std::uint64_t seed = 1; seed <= 20; ++seed) {
            const auto p = power(900, {{300, 700}}, 3, seed);
            QCOMPARE(findLoads(seconds(900), p, {}), (std::vector<Segment>{{300, 700}}));
        }
    }
    void isNotFooledBySpikes() {
        auto p = power(900, {{300, 700}}, 1);
        p[100] = 160;
        p[500] = 20;
        p[501] = 22;
        QCOMPARE(findLoads(seconds(900), p, {}), (std::vector<Segment>{{300, 700}}));
    }
    void keepsSeveralLoadsApart() {
        const std::vector<Segment> loads{{100, 400}, {500, 800}};
        QCOMPARE(findLoads(seconds(900), power(900, loads, 1), {}), loads);
    }
    void bridgesShortPauses() {
        QCOMPARE(findLoads(seconds(900), power(900, {{100, 400}, {407, 800}}, 1), {}),
                 (std::vector<Segment>{{100, 800}}));
    }
    void fallsBackOnTemperature() {
        std::vector<double> temperature(900, 30.0);
        for (std::size_t i = 300; i < 700; ++i) temperature[i] = 70;
        const auto loads = findLoads(seconds(900), {}, temperature);
        QCOMPARE(loads.size(), std::size_t{1});
        QVERIFY(std::abs(double(loads[0].begin) - 300) <= 2);
    }
    void flatPowerAndTemperatureAreNoLoad() {
        QVERIFY(findLoads(seconds(900), power(900, {}, 1), std::vector<double>(900, 30.0)).empty());
        QVERIFY(findLoads({}, {}, {}).empty());
    }
    void aLogUnderLoadFromTheStartHasNoIdle() {
        const auto loads = findLoads(seconds(900), power(900, {{0, 700}}, 1), {});
        QCOMPARE(loads, (std::vector<Segment>{{0, 700}}));
    }
    void missingPowerCellsAreNoEdge() {
        auto p = power(900, {{300, 700}}, 1);
        for (std::size_t i = 450; i < 480; ++i) p[i] = std::nan("");
        QCOMPARE(findLoads(seconds(900), p, {}), (std::vector<Segment>{{300, 700}}));
    }
};

IBUKI_TEST(TestPhases)
#include "tst_phases.moc"
