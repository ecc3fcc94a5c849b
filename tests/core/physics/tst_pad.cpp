// SPDX-License-Identifier: GPL-3.0-or-later
// Reference values: docs/methods.md, "Pads and gaps".
#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/physics/pad.h"
#include "support/near.h"
#include "support/test_class.h"

using namespace ibuki;

class TestPad : public QObject {
    Q_OBJECT

    static PadAtSite pad(double gapMm, double thicknessMm) {
        return {"memory", gapMm, thicknessMm, 0.5, 168, 8};
    }

private slots:
    void theFitFollowsTheStrain_data() {
        QTest::addColumn<double>("strain");
        QTest::addColumn<int>("fit");
        const auto row = [](const char* name, double strain, PadFit fit) {
            QTest::newRow(name) << strain << static_cast<int>(fit);
        };
        row("a gap that is not bridged", -0.1, PadFit::noContact);
        row("hardly", 0.04, PadFit::unreliable);
        row("a little", 0.07, PadFit::fair);
        row("well", 0.2, PadFit::good);
        row("much", 0.35, PadFit::fair);
        row("too much", 0.45, PadFit::tooThick);
    }
    void theFitFollowsTheStrain() {
        QFETCH(double, strain);
        QFETCH(int, fit);
        const PadState state = padState(pad(2 * (1 - strain), 2));
        QCOMPARE(static_cast<int>(state.fit), fit);
        QVERIFY_NEAR(state.strain, std::max(0.0, strain), 1e-12);
    }
    void forceIsStressOnAllPieces() {
        const PadState state = padState(pad(1.2, 1.5)); // 20 % of 0.5 MPa on 1344 mm²
        QVERIFY_NEAR(state.pressureMPa, 0.1, 1e-12);
        QVERIFY_NEAR(state.forceN, 134.4, 1e-9);
    }
    void thickerPadsPressMore() {
        Random random(11);
        for (int i = 0; i < 200; ++i) {
            const double gap = 0.3 + 2 * random.uniform();
            const double thinner = gap * (0.5 + random.uniform());
            const double thicker = thinner * (1 + random.uniform());
            QVERIFY(padState(pad(gap, thicker)).forceN >= padState(pad(gap, thinner)).forceN);
        }
    }
    void forcesOnOnePlateAddUp() {
        const std::vector<PadAtSite> pads{pad(1.2, 1.5), pad(1.2, 2.0)};
        const PlateBalance both = balance(pads, 300);
        QVERIFY_NEAR(both.padForceN, 134.4 + 268.8, 1e-9);
        QVERIFY_NEAR(both.dieForceN, 300 - both.padForceN, 1e-9);
        QVERIFY(!both.dieTouches());
        QVERIFY(balance({pads.front()}, 300).dieTouches());
    }
    void aPlateStiffensWithTheCubeOfItsThickness() {
        const PlateBow thin = plateBow(300, 30, 1, 200, 0.29);
        const PlateBow thick = plateBow(300, 30, 2, 200, 0.29);
        QVERIFY_NEAR(thin.clampedUm / thick.clampedUm, 8, 1e-9);
        QVERIFY_NEAR(thick.supportedUm / thick.clampedUm, 3.29 / 1.29, 1e-12);
    }
    void whatCannotBeIsRefused() {
        for (const PadAtSite& bad : {pad(0, 1), pad(1, 0), PadAtSite{"m", 1, 1, 0, 1, 1},
                                     PadAtSite{"m", 1, 1, 1, 0, 1}, PadAtSite{"m", 1, 1, 1, 1, 0}})
            QVERIFY_THROWS_EXCEPTION(InputError, padState(bad));
        QVERIFY_THROWS_EXCEPTION(InputError, balance({pad(1, 2)}, 0));
        QVERIFY_THROWS_EXCEPTION(InputError, plateBow(300, 0, 2, 200, 0.29));
        QVERIFY_THROWS_EXCEPTION(InputError, plateBow(300, 30, -2, 200, 0.29));
    }
};

IBUKI_TEST(TestPad)
#include "tst_pad.moc"
