// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/words.h"
#include "support/near.h"

using namespace ibuki;

class TestRole : public QObject {
    Q_OBJECT
private slots:
    void guessesRolesFromHeaderWords_data() {
        QTest::addColumn<QString>("column");
        QTest::addColumn<QString>("role");
        const std::pair<const char*, const char*> cases[] = {{"Core 0 [°C]", "core"},
                                                             {"CPU Core #3 Temp [°C]", "core"},
                                                             {"CPU, Core 5 [°C]", "core"},
                                                             {"Core 0 Clock [MHz]", "clock"},
                                                             {"CPU Package [°C]", "package"},
                                                             {"Package Power [W]", "package-power"},
                                                             {"CPU Package Power [W]", "package-power"},
                                                             {"GPU Temperature [°C]", "gpu"},
                                                             {"GPU Hot Spot [°C]", "hotspot"},
                                                             {"GPU Memory Junction [°C]", "memory"},
                                                             {"GPU Power [W]", "gpu-power"},
                                                             {"GPU Clock [MHz]", "gpu-clock"},
                                                             {"GPU Fan1 [RPM]", "fan"},
                                                             {"Ambient (°F)", "ambient"},
                                                             {"Room [°C]", "ambient"},
                                                             {"Probe T1 [°C]", "ambient"},
                                                             {"Coolant [°C]", "coolant"},
                                                             {"Wall Power [W]", "wall-power"},
                                                             {"Timestamp", "time"},
                                                             {"Date/Time", "time"},
                                                             {"Time [s]", "time"},
                                                             {"Comment, free text", "ignore"},
                                                             {"Supply [V]", "ignore"},
                                                             {"Core average [°C]", "ignore"},
                                                             {"Noise [dB(A)]", "noise"},
                                                             {"Fan, rear, lower [RPM]", "fan"},
                                                             {"Core 1 temp", "core"},
                                                             {"Thermal throttling", "limit-flag"}};
        for (const auto& [column, role] : cases) QTest::newRow(column) << column << role;
    }
    void guessesRolesFromHeaderWords() {
        QFETCH(QString, column);
        QFETCH(QString, role);
        const auto guessed = roleName(guessRole(parseHeader(column.toStdString())));
        QCOMPARE(QString::fromUtf8(guessed.data(), int(guessed.size())), role);
    }
    void everyRoleHasAWordOfItsOwn() {
        for (int i = 0; i <= int(Role::ignore); ++i)
            QCOMPARE(roleFromName(roleName(Role(i))), std::optional(Role(i)));
        QVERIFY(!roleFromName("nonsense"));
    }
    void convertsToCanonicalUnits() {
        QVERIFY_NEAR(toCanonical(212, Unit::fahrenheit), 100, 1e-12);
        QVERIFY_NEAR(toCanonical(300, Unit::kelvin), 26.85, 1e-9);
        QVERIFY_NEAR(toCanonical(152'000, Unit::milliwatt), 152, 1e-12);
        QVERIFY_NEAR(toCanonical(4.2, Unit::gigahertz), 4200, 1e-9);
    }
    void everyStoredWordReadsBack() {
        for (int i = 0; i < 8; ++i)
            QCOMPARE(fromWord<MaterialClass>(word(MaterialClass(i))), std::optional(MaterialClass(i)));
        for (int i = 0; i < 6; ++i)
            QCOMPARE(fromWord<SiteKind>(word(SiteKind(i))), std::optional(SiteKind(i)));
        QVERIFY(!fromWord<SiteKind>("nowhere"));
    }
};

QTEST_GUILESS_MAIN(TestRole)
#include "tst_role.moc"
