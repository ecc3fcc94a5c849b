// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/pressed_joint.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

class TestPressedJoint : public QObject {
    Q_OBJECT

private slots:
    void pasteFollowsItsScaling() {
        // Worked example: 150 Pa, k 4, contacts 2.5: 150, 300, 600 kPa make 41.6, 37.1, 33.1 µm
        // and 12.90, 11.77, 10.77 mm²·K/W. The class has 35 of 45 parts of its R″ in the bulk (35 µm at k 4
        // of 11.25).
        const double share = 8.75 / 11.25;
        for (const auto& [force, line] : {std::pair{0.5, 41.6 / 37.1}, {2.0, 33.1 / 37.1}})
            QVERIFY_NEAR(pressedMm2KPerW(MaterialClass::paste, 11.77, force),
                         11.77 * (1 + share * (line - 1)), 0.02);
        QVERIFY_NEAR(pressedMm2KPerW(MaterialClass::paste, 11.77, 1), 11.77, 1e-12);
    }
    void padIsStrained() {
        // Worked example: 1.5 mm, k 6: a strain of 20 % instead of 10 is 240 to 215 mm²·K/W, bulk 225 to 200.
        const double whole = pressedMm2KPerW(MaterialClass::gapPad, 255, 1);
        const double half = pressedMm2KPerW(MaterialClass::gapPad, 255, 0.5);
        QVERIFY_NEAR(whole, 255, 1e-9);
        QVERIFY_REL(half - 15, (whole - 15) * 225.0 / 200, 1e-3); // contacts 15 stay
        QCOMPARE(pressedMm2KPerW(MaterialClass::gapPad, 255, 2),
                 pressedMm2KPerW(MaterialClass::gapPad, 255, 9));
    }
    void whatIsCuredStays() {
        for (MaterialClass kind : {MaterialClass::solder, MaterialClass::sheet, MaterialClass::unknown})
            QCOMPARE(pressedMm2KPerW(kind, 5, 2), 5.0);
    }
    void moreForceNeverResistsMore() {
        for (int k = 0; k <= static_cast<int>(MaterialClass::unknown); ++k) {
            double before = 1e9;
            for (double force = 0.3; force < 3; force += 0.1) {
                const double now = pressedMm2KPerW(static_cast<MaterialClass>(k), 10, force);
                QVERIFY(now <= before + 1e-12 && now > 0);
                before = now;
            }
        }
    }
    void padsOfAGap() {
        Material pad;
        pad.kind = MaterialClass::gapPad;
        pad.claimedConductivity = WattPerMetreKelvin{6};
        const auto choices = padChoices(&pad, 1.2);
        for (const PadChoice& choice : choices) {
            if (choice.thicknessMm == 1.0) QVERIFY(choice.fit == PadFit::noContact);
            if (choice.thicknessMm != 1.5) continue;
            QVERIFY_NEAR(choice.strain, 0.2, 1e-12);
            QVERIFY(choice.fit == PadFit::good);
            QVERIFY_NEAR(choice.mm2KPerW, 1200.0 / 5 + 15, 1e-9); // a label's conductivity is no part of it
        }
        QVERIFY_NEAR(padChoices(nullptr, {})[1].mm2KPerW, 800.0 / 5 + 15, 1e-9);
    }
};

IBUKI_TEST(TestPressedJoint)
#include "tst_pressed_joint.moc"
