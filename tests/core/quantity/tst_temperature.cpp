// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/quantity/quantity.h"
#include "support/near.h"
#include "support/test_class.h"

using namespace ibuki;

class TestTemperature : public QObject {
    Q_OBJECT
private slots:
    void subtractsTemperaturesToDifferences() { QCOMPARE((Celsius{70.5} - Celsius{22.5}).value, 48.0); }
    void convertsReadingsFromFahrenheit() {
        QVERIFY_NEAR(celsiusFromFahrenheit(212).value, 100.0, 1e-12);
        // methods: a 45 °F difference is 25 K
        QVERIFY_NEAR((celsiusFromFahrenheit(95) - celsiusFromFahrenheit(50)).value, 25.0, 1e-12);
    }
    void dividesDifferenceByPower() { QVERIFY_NEAR((Kelvin{45} / Watt{180}).value, 0.25, 1e-15); }
    void multipliesBackToTheDifference() { QVERIFY_NEAR((KelvinPerWatt{0.25} * Watt{180}).value, 45, 1e-12); }
};

IBUKI_TEST(TestTemperature)
#include "tst_temperature.moc"
