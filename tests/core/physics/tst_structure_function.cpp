// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/physics/structure_function.h"
#include "support/foster_of.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

namespace {

const std::vector<LadderNode> airLadder{{0.26, 0.057}, {7.7, 0.075}, {100, 0.045}, {540, 0.09}};

ImpedanceCurve curveOf(const std::vector<FosterTerm>& terms, double fromS, double toS, int perDecade) {
    ImpedanceCurve curve;
    for (double z = std::log10(fromS); z <= std::log10(toS) + 1e-9; z += 1.0 / perDecade) {
        curve.timeS.push_back(std::pow(10, z));
        curve.kPerW.push_back(impedanceAt(terms, curve.timeS.back()));
    }
    return curve;
}

/// Resistance from the junction to where the capacity is first reached.
double resistanceAt(const std::vector<StructurePoint>& function, double jPerK) {
    for (const StructurePoint& point : function)
        if (point.jPerK >= jPerK) return point.kPerW;
    return function.back().kPerW;
}

} // namespace

class TestStructureFunction : public QObject {
    Q_OBJECT

private slots:
    void twoTermsAreTheLadderThatWasWorkedOut() {
        const auto nodes = cauerOf({{0.2, 1}, {0.3, 10}});
        QVERIFY_REL(nodes[0].capacityJPerK, 100.0 / 23, 1e-13);
        QVERIFY_REL(nodes[1].capacityJPerK, 206045.0 / 5589, 1e-13);
        QVERIFY_REL(nodes[0].toNextKPerW, 529.0 / 2030, 1e-13);
        QVERIFY_REL(nodes[1].toNextKPerW, 243.0 / 1015, 1e-13);
    }

    void ladderOfAnAirCoolerHasItsTimeConstants() {
        const auto terms = fosterOf(airLadder);
        const std::vector<double> tau{59.19, 4.031, 0.5477, 0.01432}, kelvin{16.10, 6.113, 9.856, 7.981};
        for (std::size_t i = 0; i < terms.size(); ++i) {
            QVERIFY_REL(terms[i].tauS, tau[i], 3.5e-4); // printed to four digits
            QVERIFY_REL(150 * terms[i].kPerW, kelvin[i], 4e-4);
        }
        // Worked example: exact rise of the chip at 150 W (physics of the ladder, stepped exactly).
        const std::vector<std::pair<double, double>> rises{
            {1, 17.862}, {10, 25.941}, {60, 34.207}, {300, 39.949}};
        for (const auto& [time, rise] : rises) QVERIFY_NEAR(150 * impedanceAt(terms, time), rise, 6e-4);
    }

    void longLaddersKeepTheirDigits() {
        std::vector<FosterTerm> terms;
        double capacityInverse = 0, resistance = 0;
        for (int i = 0; i < 200; ++i) {
            const double z = -4 + 8.0 * i / 199;
            terms.push_back({0.001 * (1.5 + std::sin(3 * z)), std::pow(10, z)});
            capacityInverse += terms.back().kPerW / terms.back().tauS;
            resistance += terms.back().kPerW;
        }
        const auto nodes = cauerOf(terms);
        double sum = 0;
        for (const LadderNode& node : nodes) {
            QVERIFY(node.capacityJPerK > 0 && node.toNextKPerW > 0);
            sum += node.toNextKPerW;
        }
        QVERIFY_REL(nodes[0].capacityJPerK, 1 / capacityInverse, 1e-13);
        QVERIFY_REL(sum, resistance, 1e-10);
        const auto back = fosterOf(nodes);
        for (std::size_t i = 0; i < terms.size(); ++i) QVERIFY_REL(back[i].tauS, terms[199 - i].tauS, 1e-6);
    }

    void termsWithoutAPassiveLadderAreRefused() {
        for (const std::vector<FosterTerm>& terms :
             {std::vector<FosterTerm>{}, {{-0.1, 1}, {0.3, 10}}, {{0.1, 1}, {0.3, 1}}, {{0.1, 0}}})
            try {
                (void)cauerOf(terms);
                QFAIL("not refused");
            } catch (const InputError& error) {
                QCOMPARE(error.code, std::string("foster-passive"));
            }
    }

    void structureFunctionStandsAtTheNodes() {
        const auto function = structureFunction(airLadder);
        const std::vector<std::pair<double, double>> points{
            {0, 0.26}, {0.057, 7.96}, {0.132, 107.96}, {0.177, 647.96}, {0.267, 647.96}};
        QCOMPARE(function.size(), points.size());
        for (std::size_t i = 0; i < points.size(); ++i) {
            QVERIFY_NEAR(function[i].kPerW, points[i].first, 1e-12);
            QVERIFY_NEAR(function[i].jPerK, points[i].second, 1e-9);
        }
    }

    void deconvolutionFollowsItsCurve() {
        const auto curve = curveOf(fosterOf(airLadder), 1e-4, 1e3, 100);
        const auto terms = timeConstantsOf(curve);
        for (std::size_t i = 0; i < curve.timeS.size(); ++i)
            QVERIFY_NEAR(impedanceAt(terms, curve.timeS[i]), curve.kPerW[i], 0.004 * 0.267);
        QVERIFY_REL(impedanceAt(terms, 1e9), 0.267, 0.005);
    }

    void jointsAreFlatStretchesOfTheStructureFunction() {
        const auto function =
            structureFunction(cauerOf(timeConstantsOf(curveOf(fosterOf(airLadder), 1e-4, 1e3, 100))));
        // Between the capacities of two nodes lies the resistance between them: die, lid, base, fins.
        QVERIFY_NEAR(resistanceAt(function, 2), 0.057, 0.012);
        QVERIFY_NEAR(resistanceAt(function, 30), 0.132, 0.012);
        QVERIFY_NEAR(resistanceAt(function, 300), 0.177, 0.02);
    }

    void aThickerJointMovesWhatComesAfterIt() {
        auto thicker = airLadder;
        thicker[1].toNextKPerW += 0.02;
        const auto of = [](const std::vector<LadderNode>& nodes) {
            return structureFunction(cauerOf(timeConstantsOf(curveOf(fosterOf(nodes), 1e-4, 1e3, 100))));
        };
        const auto thin = of(airLadder), thick = of(thicker);
        QVERIFY_NEAR(resistanceAt(thick, 2) - resistanceAt(thin, 2), 0, 0.004);
        QVERIFY_NEAR(resistanceAt(thick, 30) - resistanceAt(thin, 30), 0.02, 0.006);
    }

    void noiseMakesNoNegativeTerm() {
        auto curve = curveOf(fosterOf(airLadder), 1e-3, 1e3, 200);
        Random random(5);
        for (double& z : curve.kPerW) z += 0.001 * random.normal();
        const auto terms = timeConstantsOf(curve);
        QVERIFY(!terms.empty());
        for (const LadderNode& node : cauerOf(terms)) QVERIFY(node.capacityJPerK > 0 && node.toNextKPerW > 0);
        QVERIFY_NEAR(impedanceAt(terms, 1e6), 0.267, 0.008);
    }

    void nothingComesOfAFlatCurve() {
        QVERIFY(timeConstantsOf({{1, 2, 3}, {0, 0, 0}}).empty());
        QVERIFY(timeConstantsOf({{1, 2}, {0.1, 0.2}}).empty());
    }
};

IBUKI_TEST(TestStructureFunction)
#include "tst_structure_function.moc"
