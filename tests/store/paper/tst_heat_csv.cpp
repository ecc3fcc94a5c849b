// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/heat_csv.h"
#include "support/test_class.h"

#include <QtTest>
#include <algorithm>

using namespace ibuki;

class TestHeatCsv : public QObject {
    Q_OBJECT

    static long lines(const std::string& text) { return std::count(text.begin(), text.end(), '\n'); }

private slots:
    void oneRowALayer() {
        HeatPath path;
        path.powerW = 10;
        path.coolerKPerW = 0.5;
        path.solids = {{"die, thin", {10, 10}, 1, 100}, {"plate", {10, 10}, 2, 400}};
        path.interfaces = {{"joint", 10}};
        const std::string text = layersCsv(path, solveChain(path));
        QCOMPARE(lines(text), 5L); // head, three layers, cooler
        QVERIFY(text.find("\"die, thin\",0.1,0,1,7.5,6.5\n") != std::string::npos); // 10 W through 0.1 K/W
        QVERIFY(text.find("cooler,0.5,0,5,5,0\n") != std::string::npos);
    }
    void oneRowACell() {
        FieldFace face;
        face.x = {0, 2, 4};
        face.y = {0, 1};
        face.celsius = {50, 60};
        QCOMPARE(faceCsv(face), std::string("x_mm,y_mm,celsius_C\n1,0.5,50\n3,0.5,60\n"));
    }
    void oneRowAPractice() {
        RehearsalScenario scenario;
        scenario.practices = {{.name = "plan"}};
        Rehearsal rehearsal;
        rehearsal.practices.push_back({0.5, 0.25, 0.25, {}, {}, {}, 6});
        QCOMPARE(rehearsalCsv(scenario, rehearsal),
                 std::string("practice,mounts,right_best,wrong_best,no_call\nplan,6,0.5,0.25,0.25\n"));
    }
    void anIntervalThatIsNotKnownStaysEmpty() {
        Calibration calibration;
        calibration.input.groups = {{"A", nullptr}};
        calibration.groups = {{1, 0.25, 8, std::nullopt}};
        QVERIFY(jointsCsv(calibration).find("A,1,0.25,8,,\n") != std::string::npos);
    }
};

IBUKI_TEST(TestHeatCsv)
#include "tst_heat_csv.moc"
