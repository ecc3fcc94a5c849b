// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "live/sensor_tree.h"
#include "support/live.h"
#include "support/near.h"
#include "support/test_class.h"

#include <QTemporaryDir>
#include <cmath>

using namespace ibuki;
using story::put;
namespace fs = std::filesystem;

namespace {

void addChip(const fs::path& chip, const std::string& name) {
    put(chip / "name", name + "\n");
    put(chip / "temp1_input", "45123\n");
    put(chip / "temp1_label", "Tctl\n");
    put(chip / "temp10_input", "38000\n");
    put(chip / "temp2_input", "41500\n");
    put(chip / "fan1_input", "1420\n");
    put(chip / "in0_input", "1206\n");
    put(chip / "power1_average", "65250000\n");
    put(chip / "temp1_max", "95000\n"); // no reading
}

std::vector<std::string> columnsOf(const SensorTree& tree) {
    std::vector<std::string> columns;
    for (const SourceChannel& channel : tree.channels()) columns.push_back(channel.column);
    return columns;
}

} // namespace

class TestSensorTree : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    int count_ = 0;
    fs::path fresh() { return folder_.filePath(QString::number(++count_)).toStdString(); }

private slots:
    void theKernelsUnitsBecomeOurs() {
        const fs::path root = fresh();
        addChip(root / "hwmon0", "k10temp");
        SensorTree tree(root);
        QCOMPARE(columnsOf(tree), (std::vector<std::string>{"k10temp fan1 [RPM]", "k10temp in0 [V]",
                                                            "k10temp power1 [W]", "k10temp Tctl [°C]",
                                                            "k10temp temp2 [°C]", "k10temp temp10 [°C]"}));
        QCOMPARE(tree.read(0), (std::vector<double>{1420, 1.206, 65.25, 45.123, 41.5, 38}));
        QCOMPARE(tree.channels()[3].role, Role::package);
        QCOMPARE(tree.channels()[0].role, Role::fan);
    }
    void aCounterOfEnergyIsAPower() {
        // 5 J in 0.1 s; over the range: 262143 J − 3 J + 2 J.
        QVERIFY_NEAR(*powerFromEnergy(1e6, 6e6, 262'143e6, 0.1), 50, 1e-9);
        QVERIFY_NEAR(*powerFromEnergy(262'140e6, 2e6, 262'143e6, 1), 5, 1e-6);
        QVERIFY(!powerFromEnergy(1, 2, 10, 0));
        const fs::path root = fresh();
        put(root / "class/powercap/rapl:0/name", "package-0\n");
        put(root / "class/powercap/rapl:0/energy_uj", "1000000\n");
        put(root / "class/powercap/rapl:0/max_energy_range_uj", "262143328850\n");
        put(root / "devices/system/cpu/cpu0/cpufreq/scaling_cur_freq", "4200000\n");
        SensorTree tree(root);
        QCOMPARE(columnsOf(tree), (std::vector<std::string>{"package-0 rapl:0 [W]", "cpu0 Clock [MHz]"}));
        QCOMPARE(tree.channels()[0].role, Role::packagePower);
        QVERIFY(std::isnan(tree.read(10)[0])); // one reading is no power yet
        put(root / "class/powercap/rapl:0/energy_uj", "66000000\n");
        const auto values = tree.read(11);
        QVERIFY_NEAR(values[0], 65, 1e-9);
        QCOMPARE(values[1], 4200.0);
    }
    void aChipIsKnownByItsName() { // renumbered, gone, back; two of one name stay two
        const fs::path root = fresh();
        addChip(root / "hwmon1", "nvme");
        addChip(root / "hwmon2", "nvme");
        put(root / "hwmon2/temp1_input", "50000\n");
        SensorTree tree(root);
        QCOMPARE(tree.channels().size(), std::size_t{12});
        QVERIFY(columnsOf(tree)[9] == "nvme Tctl (2) [°C]");
        fs::rename(root / "hwmon1", root / "hwmon5");
        fs::rename(root / "hwmon2", root / "hwmon7");
        QVERIFY(std::isnan(tree.read(0)[3]) && tree.missed()); // not where it was
        QCOMPARE(tree.rescan(), std::size_t{0});               // nothing new
        QCOMPARE(tree.read(0)[3], 45.123);
        QCOMPARE(tree.read(0)[9], 50.0);
        fs::remove_all(root / "hwmon7");
        tree.rescan();
        QVERIFY(std::isnan(tree.read(0)[9])); // never the last value
        addChip(root / "hwmon9", "acpitz");
        QCOMPARE(tree.rescan(), std::size_t{6});
        QCOMPARE(tree.channels().size(), std::size_t{18});
    }
    void nonsenseInAFileIsNothing() {
        const fs::path root = fresh();
        addChip(root / "hwmon0", "k10temp");
        SensorTree tree(root);
        for (const char* text : {"", "\n", "n/a\n", "45e999\n", "nan\n", "12 34\n"}) {
            put(root / "hwmon0/temp1_input", text);
            QVERIFY(std::isnan(tree.read(0)[3]));
        }
        put(root / "hwmon0/temp1_input", "-5000\n");
        QCOMPARE(tree.read(0)[3], -5.0);
    }
    void anEmptyTreeIsRefused() {
        const fs::path root = fresh();
        fs::create_directories(root);
        QVERIFY_THROWS_EXCEPTION(InputError, openSource("hwmon:" + root.string(), {}));
        QVERIFY_THROWS_EXCEPTION(InputError, openSource("hwmon:/nowhere", {}));
        QVERIFY_THROWS_EXCEPTION(InputError, openSource("teapot:x", {}));
        QVERIFY_THROWS_EXCEPTION(InputError, openSource("sim:", {}));
    }
    void aSensorThatAppearsIsToldWhileItRuns() {
        const fs::path root = fresh();
        addChip(root / "hwmon0", "k10temp");
        SourceOptions options;
        options.everyS = 0.02;
        const auto source = openSource("hwmon:" + root.string(), options);
        const story::Running running(*source);
        QVERIFY(running.comes([](const auto& taken) { return taken.readings().size() > 5; }));
        addChip(root / "hwmon1", "nvme");
        QVERIFY(running.comes([](const auto& taken) { return taken.added().size() == 6; }));
        QVERIFY(running.comes([](const auto& taken) { return taken.readings().back().values.size() == 12; }));
    }
};

IBUKI_TEST(TestSensorTree)
#include "tst_sensor_tree.moc"
