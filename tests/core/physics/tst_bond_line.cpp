// SPDX-License-Identifier: GPL-3.0-or-later
// Reference values: worked examples of docs/methods.md, "Bond line" and "Pads and gaps".
#include "core/base/input_error.h"
#include "core/physics/bond_line.h"
#include "core/physics/pad.h"
#include "support/near.h"
#include "support/test_class.h"

using namespace ibuki;

class TestBondLine : public QObject {
    Q_OBJECT
private slots:
    void scalingLaw() {
        constexpr std::array yields{20.0, 80.0, 150.0, 300.0};
        constexpr std::array pressures{100e3, 200e3, 345e3, 500e3};
        constexpr double um[4][4] = {{31.9, 28.4, 25.9, 24.4},
                                     {40.1, 35.7, 32.7, 30.7},
                                     {44.5, 39.7, 36.2, 34.1},
                                     {49.9, 44.5, 40.7, 38.2}};
        for (std::size_t i = 0; i < 4; ++i)
            for (std::size_t j = 0; j < 4; ++j)
                QVERIFY_NEAR(scalingBondLineUm(yields[i], pressures[j]), um[i][j], 0.051);
    }
    void whatStopsIt() {
        QVERIFY_NEAR(yieldStopUm(150, 400, 54), 19.9, 0.05);
        const BondLine free = restingBondLine({150, 444e3, 400, 54, 30, 30, {}});
        QVERIFY_NEAR(free.um, 34.8, 0.1);
        QCOMPARE(free.limit, BondLineLimit::scaling);
        const BondLine grit = restingBondLine({150, 345e3, 0, 0, 30, 30, 40});
        QCOMPARE(grit.um, 40.0);
        QCOMPARE(grit.limit, BondLineLimit::particle);
    }
    void padsShareTheScrews() {
        const auto force = [](double thickness) {
            return balance({{"memory", 1.2, thickness, 0.5, 168, 8}}, 300);
        };
        QVERIFY_NEAR(force(1.5).padForceN, 134, 0.5);
        QVERIFY_NEAR(force(2.0).padForceN, 269, 0.5);
        QVERIFY_NEAR(force(2.5).padForceN, 349, 0.5);
        QVERIFY(force(2.0).dieTouches() && !force(2.5).dieTouches());
        QCOMPARE(force(1.0).pads.front().fit, PadFit::noContact);
        QCOMPARE(force(1.5).pads.front().fit, PadFit::good);
        QCOMPARE(fittingThicknesses(1.2, {1.0, 1.25, 1.5, 2.0}), std::vector<double>{1.5});
        QVERIFY_THROWS_EXCEPTION(InputError, padState({"memory", -1, 1, 1, 1, 1}));
    }
    void aBackplateBows() {
        const PlateBow bow = plateBow(300, 30, 2, 200, 0.29);
        QVERIFY_NEAR(bow.clampedUm, 37, 0.5);
        QVERIFY_NEAR(bow.supportedUm, 94, 0.6);
    }
};

IBUKI_TEST(TestBondLine)
#include "tst_bond_line.moc"
