// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/words.h"
#include "support/near.h"
#include "support/test_class.h"

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
                                                             {"Tctl", "package"},
                                                             {"chip-pci-00c3 Tctl [°C]", "package"},
                                                             {"Tdie", "package"},
                                                             {"Tccd1", "package"},
                                                             {"Package id 0", "package"},
                                                             {"PECI Agent 0 [°C]", "package"},
                                                             {"edge", "gpu"},
                                                             {"graphics card, junction [°C]", "hotspot"},
                                                             {"Composite", "package"},
                                                             {"temp1", "package"},
                                                             {"temp1_input", "package"},
                                                             {"junction [MHz]", "ignore"},
                                                             {"knowledge", "ignore"},
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
                                                             {"Thermal throttling", "limit-flag"},
                                                             {"GPU Thermal Limit [°C]", "ignore"},
                                                             {"Core 0 Distance to TjMax [°C]", "ignore"},
                                                             {"GPU Memory Clock [MHz]", "ignore"},
                                                             {"Frame Time [ms]", "ignore"},
                                                             {"elapsed_ms", "time"},
                                                             {"pump_rpm", "ignore"},
                                                             {"Benchmark score", "score"},
                                                             {"CPU Kern 3 [°C]", "core"},
                                                             {"Kerntemperatur 2 (°C)", "core"},
                                                             {"Raumtemperatur [°C]", "ambient"},
                                                             {"Gehäuse-Temperatur [°C]", "package"},
                                                             {"Leistung Gehäuse [W]", "package-power"},
                                                             {"Lüfterdrehzahl [U/min]", "fan"},
                                                             {"Kühlmittel [°C]", "coolant"},
                                                             {"Uhrzeit", "time"},
                                                             {"Takt Kern 0 [MHz]", "clock"},
                                                             {"コア 0 温度 [℃]", "core"},
                                                             {"CPU パッケージ [℃]", "package"},
                                                             {"パッケージ電力 [W]", "package-power"},
                                                             {"室温 [℃]", "ambient"},
                                                             {"ファン回転数 [rpm]", "fan"},
                                                             {"時刻", "time"},
                                                             {"核心 1 温度 [°C]", "core"},
                                                             {"CPU 封装 [°C]", "package"},
                                                             {"CPU 封装功耗 [W]", "package-power"},
                                                             {"环境温度 [°C]", "ambient"},
                                                             {"风扇转速 [RPM]", "fan"},
                                                             {"时间", "time"},
                                                             {"显存温度 [°C]", "memory"},
                                                             {"Temperatura núcleo 2 [°C]", "core"},
                                                             {"Potencia del paquete [W]", "package-power"},
                                                             {"Temperatura ambiente [°C]", "ambient"},
                                                             {"Velocidad del ventilador [rpm]", "fan"},
                                                             {"Fecha y hora", "time"},
                                                             {"Punto más caliente GPU [°C]", "hotspot"}};
        for (const auto& [column, role] : cases) QTest::newRow(column) << column << role;
    }
    void guessesRolesFromHeaderWords() {
        QFETCH(QString, column);
        QFETCH(QString, role);
        const auto guessed = roleName(guessRole(parseHeader(column.toStdString())).role);
        QCOMPARE(QString::fromUtf8(guessed.data(), int(guessed.size())), role);
    }
    void wordsAloneAreLessSureThanWordsWithAUnit() {
        const double whole = guessRole(parseHeader("CPU Package [°C]")).confidence;
        const double words = guessRole(parseHeader("CPU Package temp")).confidence;
        const double bare = guessRole(parseHeader("Package")).confidence;
        QVERIFY(whole > words && words > bare && bare > 0.3);
        QVERIFY(guessRole(parseHeader("CPU [°C]")).confidence < whole);
        QCOMPARE(guessRole(parseHeader("CPU [°C]")).role, Role::package);
    }
    void namesThatCouldBeAnythingCountOnlyAlone() {
        const auto settled = [](std::initializer_list<const char*> columns) {
            std::vector<RoleGuess> guesses;
            for (const char* column : columns) guesses.push_back(guessRole(parseHeader(column)));
            settleRoles(guesses);
            std::vector<Role> roles;
            for (const RoleGuess& guess : guesses) roles.push_back(guess.role);
            return roles;
        };
        QCOMPARE(settled({"temp1", "fan1"}), (std::vector{Role::package, Role::fan}));
        QCOMPARE(settled({"temp1", "Core 0 [°C]"}), (std::vector{Role::ignore, Role::core}));
        QCOMPARE(settled({"Composite", "Tctl"}), (std::vector{Role::ignore, Role::package}));
        QCOMPARE(settled({"Tccd1", "Tctl", "Tccd2"}),
                 (std::vector{Role::ignore, Role::package, Role::ignore}));
    }
    void theSurestOfSeveralKeepsASingleRole() {
        std::vector<RoleGuess> guesses;
        for (const char* column : {"CPU [°C]", "CPU Package [°C]", "Core 0 [°C]", "Core 1 [°C]"})
            guesses.push_back(guessRole(parseHeader(column)));
        settleRoles(guesses);
        QCOMPARE(guesses[0].role, Role::ignore);
        QCOMPARE(guesses[1].role, Role::package);
        QCOMPARE(guesses[2].role, Role::core);
        QCOMPARE(guesses[3].role, Role::core);
    }
    void unitsAreReadAlone() {
        QCOMPARE(unitFromText("[°C]"), std::optional(Unit::celsius));
        QCOMPARE(unitFromText(" w "), std::optional(Unit::watt));
        QVERIFY(!unitFromText("Core"));
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

IBUKI_TEST(TestRole)
#include "tst_role.moc"
