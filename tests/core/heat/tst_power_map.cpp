// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/power_map.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

class TestPowerMap : public QObject {
    Q_OBJECT

private slots:
    void coresLieOnTheChipAndHaveTheirShare() {
        for (const Extent& chip : {Extent{10, 20}, Extent{3, 4}, Extent{25, 25}})
            for (PowerPlaces places :
                 {PowerPlaces::middleCore, PowerPlaces::cornerCore, PowerPlaces::eightCores}) {
                double watt = 0;
                const auto cores = powerMap(places, chip, 150, 0.4);
                for (const HeatSource& core : cores) {
                    watt += core.powerW;
                    QVERIFY(std::abs(core.xMm) + core.size.widthMm / 2 <= chip.widthMm / 2 + 1e-9);
                    QVERIFY(std::abs(core.yMm) + core.size.lengthMm / 2 <= chip.lengthMm / 2 + 1e-9);
                    for (const HeatSource& other : cores)
                        QVERIFY(&other == &core || std::abs(core.xMm - other.xMm) >= core.size.widthMm
                                || std::abs(core.yMm - other.yMm) >= core.size.lengthMm);
                }
                QVERIFY_NEAR(watt, 60, 1e-9);
            }
        QVERIFY(powerMap(PowerPlaces::even, {10, 10}, 150, 0.4).empty());
    }
};

IBUKI_TEST(TestPowerMap)
#include "tst_power_map.moc"
