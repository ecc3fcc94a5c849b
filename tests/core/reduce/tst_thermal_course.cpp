// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/reduce/reduce.h"
#include "core/reduce/thermal_course.h"
#include "core/simulate/simulated_bench.h"
#include "support/near.h"
#include "support/test_class.h"

#include <algorithm>
#include <cmath>

using namespace ibuki;

namespace {

Trace traceOf(const std::vector<double>& chip, const std::vector<double>& power, double stepS) {
    Trace trace;
    for (std::size_t i = 0; i < chip.size(); ++i) trace.timeS.push_back(stepS * static_cast<double>(i));
    trace.channels.push_back({"core 0", Unit::celsius, Role::core, 0, chip, {}});
    if (!power.empty()) trace.channels.push_back({"power", Unit::watt, Role::packagePower, 0, power, {}});
    return trace;
}

double at(const ThermalCourse& course, const std::vector<double>& values, double t) {
    const auto behind = std::lower_bound(course.atS.begin(), course.atS.end(), t);
    if (behind == course.atS.begin()) return values.front();
    if (behind == course.atS.end()) return values.back();
    const auto i = static_cast<std::size_t>(behind - course.atS.begin());
    const double share = (t - course.atS[i - 1]) / (course.atS[i] - course.atS[i - 1]);
    return values[i - 1] + share * (values[i] - values[i - 1]);
}

} // namespace

class TestThermalCourse : public QObject {
    Q_OBJECT
private slots:
    void aLogIsKeptWithinItsTolerance() {
        std::vector<double> chip;
        std::vector<double> power;
        Random random(3);
        for (int i = 0; i < 7'200; ++i) {
            const bool loaded = i > 600 && i < 6'000;
            chip.push_back(25 + (loaded ? 45 * (1 - std::exp(-(i - 600) / 120.0)) : 0)
                           + 0.2 * random.normal());
            power.push_back(loaded ? 150 : 12);
        }
        const ThermalCourse course = thermalCourse(traceOf(chip, power, 1));
        QVERIFY(course.atS.size() > 5 && course.atS.size() < 80);
        for (int i = 0; i < 7'200; ++i) { // the edges lie inside a mean of 5 s
            if (std::abs(i - 600) < 12 || std::abs(i - 6'000) < 12) continue;
            QVERIFY2(std::abs(at(course, course.chipC, i) - chip[static_cast<std::size_t>(i)]) < 2.2,
                     qPrintable(QString::number(i)));
            QVERIFY(std::abs(at(course, course.powerW, i) - power[static_cast<std::size_t>(i)]) < 9);
        }
    }
    void aNoisyLogNeedsNoMoreThanItMay() {
        std::vector<double> chip;
        Random random(4);
        for (int i = 0; i < 40'000; ++i) chip.push_back(50 + 8 * random.normal());
        const ThermalCourse course = thermalCourse(traceOf(chip, {}, 5));
        QVERIFY(course.atS.size() <= 300 && course.powerW.empty());
        QVERIFY(std::is_sorted(course.atS.begin(), course.atS.end()));
    }
    void whatCannotBeReadIsLeftOut() {
        QVERIFY(thermalCourse(Trace{}).atS.empty());
        std::vector<double> chip(100, NAN);
        QVERIFY(thermalCourse(traceOf(chip, {}, 1)).atS.empty());
        chip[50] = 40;
        const ThermalCourse one = thermalCourse(traceOf(chip, std::vector<double>(100, NAN), 1));
        QCOMPARE(one.chipC, std::vector<double>{40});
        QCOMPARE(one.powerW, std::vector<double>{0}); // not read is not known to be on
    }
    void aStoredReductionHasIt() {
        SimulatedBench bench;
        SimulatedProtocol protocol;
        protocol.loadS = 600;
        const Trace trace = simulate(bench, protocol, 1).trace;
        QVERIFY(!reduceByEveryMetric(trace, {}).course.atS.empty());
        QVERIFY(reduce(trace, {}).course.atS.empty());
    }
};

IBUKI_TEST(TestThermalCourse)
#include "tst_thermal_course.moc"
