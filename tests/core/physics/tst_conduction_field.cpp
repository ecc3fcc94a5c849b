// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/physics/field_values.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

namespace {

HeatPath slab() { // V2
    HeatPath path;
    path.powerW = 1;
    path.coolerKPerW = 200.0 / 1600;
    path.solids = {{"slab", {40, 40}, 4, 390}};
    path.sources = {{0, 0, {10, 20}, 1}};
    return path;
}

HeatPath twoLayers() { // V3
    HeatPath path;
    path.powerW = 1;
    path.coolerKPerW = 100.0 / 900;
    path.solids = {{"upper", {30, 30}, 2, 115}, {"lower", {30, 30}, 2, 390}};
    path.interfaces = {{"between", 10}};
    path.sources = {{0, 0, {10, 10}, 1}};
    return path;
}

HeatPath liddedField() {
    HeatPath path;
    path.powerW = 150;
    path.coolerKPerW = 0.12;
    path.solids = {{"die", {10, 20}, 0.775, 115}, {"lid", {30, 30}, 2.5, 390}, {"plate", {40, 40}, 3, 390}};
    path.interfaces = {{"die–lid", 4.667}, {"lid–plate", 10}};
    return path;
}

HeatPath bareDie() { // of the coverage table in 4.1
    HeatPath path;
    path.powerW = 200;
    path.coolerKPerW = 0.10;
    path.solids = {{"die", {20, 20}, 0.775, 115}, {"plate", {60, 60}, 4, 390}};
    path.interfaces = {{"die–plate", 10}};
    return path;
}

FieldOptions even(double cell) {
    FieldOptions options;
    options.grid.cellMm = cell;
    options.grid.gradeEdges = false;
    return options;
}

FieldOptions cells(double cell) {
    FieldOptions options;
    options.grid.cellMm = cell;
    return options;
}

/// 1 where `isCovered`, by the middle of each of n × n pieces of a face.
template <class IsCovered> CoverageMask maskOf(int n, const IsCovered& isCovered) {
    CoverageMask mask{n, n, {}};
    for (int row = 0; row < n; ++row)
        for (int column = 0; column < n; ++column)
            mask.covered.push_back(isCovered((column + 0.5) / n, 1 - (row + 0.5) / n) ? 1.0F : 0.0F);
    return mask;
}

} // namespace

class TestConductionField : public QObject {
    Q_OBJECT

private slots:
    void oneDimensionOnAnyGrid() { // V1
        HeatPath path = twoLayers();
        path.sources.clear();
        for (const double cell : {3.0, 1.0, 0.7}) {
            const ConductionField field = solveField(path, cells(cell));
            QVERIFY_NEAR(field.powered.meanC, 0.147243899418, 1e-10);
            QVERIFY_NEAR(field.powered.maxC, 0.147243899418, 1e-10);
            QVERIFY_NEAR(*field.interfaces[0].effectiveAreaMm2, 900.0, 1e-6);
        }
    }
    void theMeanConvergesAsItShould() { // V2, V3: order at least 1.5, to the exact series
        for (const auto& [path, exact] : {std::pair{slab(), 0.196537}, std::pair{twoLayers(), 0.369728}}) {
            std::vector<double> errors;
            for (const double cell : {2.0, 1.0, 0.5}) {
                FieldOptions options = even(cell);
                for (const PathSolid& solid : path.solids)
                    options.grid.levels.push_back(
                        static_cast<int>(std::lround(2 * solid.thicknessMm / cell)));
                errors.push_back(solveField(path, options).sourcesC[0] - exact);
            }
            QVERIFY2(std::log2(errors[0] / errors[1]) > 1.5 && std::log2(errors[1] / errors[2]) > 1.5,
                     qPrintable(QString("%1 %2 %3").arg(errors[0]).arg(errors[1]).arg(errors[2])));
        }
    }
    void withinHalfAPercentAtHalfAMillimetre() {
        QVERIFY_REL(solveField(slab()).sourcesC[0], 0.196537, 0.005);
        QVERIFY_REL(solveField(slab()).powered.maxC, 0.218187, 0.005);
        QVERIFY_REL(solveField(twoLayers()).sourcesC[0], 0.369728, 0.005);
        QVERIFY_REL(solveField(twoLayers()).powered.maxC, 0.439496, 0.005);
    }
    void theLiddedExample() { // F1.5 [V]: 38.8 and 41.3 K; effective area between its two secants
        const ConductionField field = solveField(liddedField());
        QVERIFY_NEAR(field.powered.meanC / 150, 0.2584, 0.0003);
        QVERIFY_NEAR(field.powered.maxC / 150, 0.2752, 0.0003);
        QVERIFY(*field.interfaces[1].effectiveAreaMm2 > 705 && *field.interfaces[1].effectiveAreaMm2 < 751);
    }
    void effectiveAreaIsTheSlope() {
        HeatPath path = liddedField();
        path.interfaces[1].mask = maskOf(60, [](double x, double y) { return x + y < 1.4; });
        const ConductionField field = solveField(path, cells(1));
        const double r = path.interfaces[1].rMm2KPerW, step = 0.02;
        path.interfaces[1].rMm2KPerW = r + step;
        const double more = solveField(path, cells(1)).powered.meanC;
        path.interfaces[1].rMm2KPerW = r - step;
        const double less = solveField(path, cells(1)).powered.meanC;
        QVERIFY_REL(*field.interfaces[1].effectiveAreaMm2, 2 * step * 150 / (more - less), 1e-5);
    }
    void hotCores() { // V7, with its cells and levels
        HeatPath path;
        path.powerW = 300;
        path.coolerKPerW = 0.10;
        path.solids = {{"die", {25, 25}, 0.775, 115}, {"plate", {60, 60}, 4, 390}};
        path.interfaces = {{"die–plate", 10}};
        path.sources = {{-6.25, 0, {5, 5}, 75}, {6.25, 0, {5, 5}, 75}};
        FieldOptions options = even(1.25);
        options.grid.levels = {3, 4};
        ConductionField field = solveField(path, options);
        QVERIFY_NEAR(field.powered.meanC, 54.03, 0.005);
        QVERIFY_NEAR(field.sourcesC[0], 97.27, 0.005);
        QVERIFY_NEAR(field.powered.maxC, 105.08, 0.005);
        options = even(0.625);
        options.grid.levels = {6, 8};
        field = solveField(path, options);
        QVERIFY_NEAR(field.powered.meanC, 53.95, 0.0065);
        QVERIFY_NEAR(field.sourcesC[0], 95.04, 0.005);
        QVERIFY_NEAR(field.powered.maxC, 105.37, 0.005);
        QVERIFY_REL(solveField(path).sourcesC[1], 94.0, 0.005);
        QVERIFY_NEAR(field.sourcesC[0], field.sourcesC[1], 1e-8);
    }
    void whereItIsBareMatters() { // 4.1 at 0.25 mm
        HeatPath path = bareDie();
        const ConductionField whole = solveField(path, even(0.5));
        QVERIFY_NEAR(whole.powered.meanC, 42.07, 0.05); // 0.5 mm; the corner below at the table's own 0.25
        QVERIFY_NEAR(whole.powered.maxC, 45.90, 0.02);
        path.interfaces[0].mask =
            maskOf(2'000, [](double x, double y) { return x > 8.94 / 20 || y < 1 - 8.94 / 20; });
        const ConductionField corner = solveField(path, even(0.25));
        QVERIFY_NEAR(corner.powered.meanC, 59.24, 0.2); // the mask's edge cuts a cell
        QVERIFY_NEAR(corner.powered.maxC, 170.7, 0.7);
        QVERIFY(corner.powered.maxXMm < -9 && corner.powered.maxYMm > 9);
    }
    void aStripThatIsBare() { // 4.1: 104.9 K at 0.25 mm
        HeatPath path = bareDie();
        path.interfaces[0].mask = maskOf(20, [](double x, double) { return x > 0.2; });
        const ConductionField strip = solveField(path, even(0.5));
        QVERIFY_NEAR(strip.powered.meanC, 54.24, 0.3);
        QVERIFY_NEAR(strip.powered.maxC, 104.9, 0.8);
        path.interfaces[0].mask.reset();
        path.interfaces[0].covered = 0.8; // as much, but everywhere a little
        const ConductionField thin = solveField(path, even(0.5));
        QVERIFY_NEAR(thin.powered.meanC, 43.31, 0.04); // at 0.25 mm
        QVERIFY_NEAR(thin.powered.maxC, 47.08, 0.04);
    }
    void energyIsKept() { // V5
        HeatPath path = liddedField();
        path.boardKPerW = 8;
        path.sources = {{1, -3, {4, 4}, 60}};
        path.interfaces[1].mask = maskOf(10, [](double x, double y) { return x > 0.3 || y > 0.4; });
        const ConductionField field = solveField(path, cells(1));
        QVERIFY(std::abs(field.energyError) < 1e-9);
        QVERIFY_NEAR(field.interfaces[0].flowW, field.interfaces[1].flowW, 1e-6);
        QVERIFY(field.interfaces[0].flowW < 150 && field.interfaces[0].flowW > 140);
    }
    void reciprocity() { // V6: what one source does to another's place does not depend on which of them heats
        HeatPath path = liddedField();
        path.powerW = 1;
        path.interfaces[0].mask = maskOf(7, [](double x, double y) { return x * y < 0.4; });
        const HeatSource here{-2.5, 4, {3, 3}, 1}, there{3, -6, {2, 5}, 1};
        path.sources = {here, there};
        path.sources[1].powerW = 0;
        const double onThere = solveField(path, cells(1)).sourcesC[1];
        path.sources = {here, there};
        path.sources[0].powerW = 0;
        const double onHere = solveField(path, cells(1)).sourcesC[0];
        QVERIFY_REL(onThere, onHere, 1e-9);
    }
    void bounds() { // V8
        HeatPath path = liddedField();
        const double full = solveField(path, cells(1)).powered.meanC;
        path.interfaces[1].mask = maskOf(30, [](double, double) { return true; });
        QVERIFY_NEAR(solveField(path, cells(1)).powered.meanC, full, 1e-9);
        Random random(5);
        double before = full;
        for (int i = 0; i < 5; ++i) { // ever less is covered
            for (float& one : path.interfaces[1].mask->covered)
                if (random.uniform() < 0.2) one = 0;
            const ConductionField field = solveField(path, cells(1));
            QVERIFY(field.powered.meanC >= before);
            QVERIFY(*std::min_element(field.powered.celsius.begin(), field.powered.celsius.end()) >= 0);
            before = field.powered.meanC;
        }
    }
    void threadsChangeNothing() {
        HeatPath path = liddedField();
        path.sources = {{1, -3, {4, 4}, 60}};
        FieldOptions one = cells(0.7), three = one;
        one.threads = 1;
        three.threads = 3;
        QCOMPARE(solveField(path, one).powered.celsius, solveField(path, three).powered.celsius);
    }
    void cancelledGivesNothing() {
        std::stop_source stop;
        FieldOptions options;
        options.stop = stop.get_token();
        options.progress = [&](double) { stop.request_stop(); };
        const ConductionField field = solveField(liddedField(), options);
        QVERIFY(field.cancelled && field.powered.celsius.empty());
    }
    void withoutPowerAllIsAsTheRoom() {
        HeatPath path = liddedField();
        path.powerW = 0;
        path.ambientC = 21;
        const ConductionField field = solveField(path, cells(2));
        QCOMPARE(field.powered.meanC, 21.0);
        QCOMPARE(field.energyError, 0.0);
    }
    void cellsThatAreTooManyAreRefused() {
        QVERIFY_THROWS_EXCEPTION(InputError, solveField(liddedField(), cells(0.001)));
        QVERIFY_THROWS_EXCEPTION(InputError, solveField(liddedField(), cells(0)));
        QVERIFY_THROWS_EXCEPTION(InputError, solveField(liddedField(), cells(-1)));
    }
    void contoursLieOnTheirTemperature() {
        FieldFace face; // a cone: its lines are circles
        for (int i = 0; i <= 40; ++i) {
            face.x.push_back(i - 20.0);
            face.y.push_back(i - 20.0);
        }
        for (int y = 0; y < 40; ++y)
            for (int x = 0; x < 40; ++x) face.celsius.push_back(100 - std::hypot(x - 19.5, y - 19.5));
        QCOMPARE(roundStep(0, 80, 8), 10.0);
        const auto lines = contoursOf(face, 5);
        QVERIFY(lines.size() >= 4);
        int closed = 0;
        for (const Contour& line : lines) {
            closed += line.isClosed ? 1 : 0;
            for (const PlanePoint& point : line.points) {
                QVERIFY_NEAR(std::hypot(point.x, point.y), 100 - line.celsius, 0.15);
                QVERIFY_NEAR(celsiusAt(face, point.x, point.y), line.celsius, 1e-9);
            }
        }
        QVERIFY(closed >= 3); // those that fit inside; outer ones run into the corners
    }
};

IBUKI_TEST(TestConductionField)
#include "tst_conduction_field.moc"
