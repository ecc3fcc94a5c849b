// SPDX-License-Identifier: GPL-3.0-or-later
// What a project file can do that was damaged or made to harm: it is opened or refused with a sentence,
// nothing else is touched, and it takes no more memory than a project may.

#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/plan.h"
#include "core/evidence/evidence.h"
#include "core/plan/power_analysis.h"
#include "core/setup/plan_setup.h"
#include "core/trace/time_axis.h"
#include "store/paper/report.h"
#include "store/project/channel_keeper.h"
#include "store/project/migrations.h"
#include "store/project/packing.h"
#include "store/project/project.h"
#include "store/project/rows.h"
#include "store/project_file.h"
#include "support/peak.h"
#include "support/project_files.h"
#include "support/stored_story.h"
#include "support/test_class.h"
#include "words/words.h"

#include <QTemporaryDir>
#include <SQLiteCpp/SQLiteCpp.h>
#include <fstream>
#include <random>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

using namespace ibuki;
using story::peakMB;
namespace fs = std::filesystem;

namespace {

std::string bytesOf(const fs::path& path) {
    std::ifstream file(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(file), {}};
}

void write(const fs::path& path, const std::string& bytes) {
    std::ofstream(path, std::ios::binary | std::ios::trunc) << bytes;
}

} // namespace

class TestHostileProject : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    int count_ = 0;
    std::string pristine_;

    fs::path fresh() { return folder_.filePath(QString("p%1.ibuki").arg(++count_)).toStdString(); }
    fs::path stored() {
        const fs::path path = fresh();
        write(path, pristine_);
        return path;
    }
    fs::path changedBy(const std::string& sql) {
        const fs::path path = stored();
        SQLite::Database database(path.string(), SQLite::OPEN_READWRITE);
        database.exec("PRAGMA journal_mode = DELETE");
        database.exec(sql);
        return path;
    }
    /// Opens it, and uses what it then has as the window would.
    static QString used(const fs::path& path) {
        return story::codeOf([&] {
            const Project project = Project::open(path, Access::readOnly);
            const Document& document = project.document();
            for (const auto& [id, recording] : document.all<Recording>()) (void)project.loadTrace(id);
            for (const auto& [id, question] : document.all<Question>()) {
                (void)htmlReport(document, question);
                (void)jsonReport(document, question);
                (void)powerAnalysisOf(document, question, planFor(document, question.study), {});
            }
            (void)project.history();
        });
    }

private slots:
    void initTestCase() {
        const fs::path path = fresh();
        story::storeMeasured(path);
        { // the log merged into the file
            SQLite::Database database(path.string(), SQLite::OPEN_READWRITE);
            database.exec("PRAGMA journal_mode = DELETE");
        }
        pristine_ = bytesOf(path);
        QCOMPARE(used(path), QString("nothing thrown"));
    }

    void aNegativeFormatIsRefused() {
        for (const char* version : {"-1", "-7", "-2147483648"})
            QCOMPARE(story::codeOf([&, path = changedBy(std::string("PRAGMA user_version = ") + version)] {
                         Project::open(path);
                     }),
                     "project-damaged");
    }

    void allNamesOfAFileHaveOneWriter() {
        const fs::path path = stored();
        const fs::path linked = folder_.filePath("symlink.ibuki").toStdString();
        const fs::path hard = folder_.filePath("hardlink.ibuki").toStdString();
        fs::create_symlink(path, linked);
        fs::create_hard_link(path, hard);
        {
            const Project first = Project::open(path);
            for (const fs::path& name : {path, linked, hard})
                QCOMPARE(story::codeOf([&] { Project::open(name); }), "project-locked");
            QVERIFY(isProjectFile(hard));
        }
        Project byLink = Project::open(linked); // free again
        Edit edit(byLink.document(), "x");
        edit.add(story::benchNamed("b"));
        byLink.apply(edit.finish());
        QCOMPARE(story::codeOf([&] { Project::open(path); }), "project-locked");
        QVERIFY(!fs::exists(path.string() + "-lock"));
    }
    void theOpenProjectIsReadByNoOtherHandle() { // closing it would end the locks of SQLite
        const fs::path path = stored();
        const Project open = Project::open(path);
        QCOMPARE(story::codeOf([&] { const MappedFile file(path); }), "file-unreadable");
        QCOMPARE(story::codeOf([&] { readLogFile(path); }), "file-unreadable");
    }
    void aCopyReplacesNoProjectThatIsOpen() {
        const fs::path path = stored();
        const fs::path other = stored();
        const Project mine = Project::open(path, Access::readOnly);
        {
            const Project open = Project::open(other);
            QCOMPARE(story::codeOf([&] { mine.saveCopy(other); }), "project-locked");
        }
        mine.saveCopy(other);
        QCOMPARE(used(other), "nothing thrown");
    }
    void theLockIsHeldAgainstOtherProcesses() {
        const fs::path path = stored();
        const fs::path hard = folder_.filePath("other-process.ibuki").toStdString();
        fs::create_hard_link(path, hard);
        const Project first = Project::open(path);
        const pid_t child = ::fork();
        if (child == 0) {
            // A process of its own knows nothing of what this one has open.
            const std::string command = "flock -n '" + hard.string() + "' true";
            ::_exit(std::system(command.c_str()) == 0 ? 0 : 1);
        }
        int status = 0;
        ::waitpid(child, &status, 0);
        QCOMPARE(WEXITSTATUS(status), 1);
    }

    void plantedTriggersAndViewsDoNotRun() {
        const fs::path path = changedBy(
            "CREATE TRIGGER planted AFTER INSERT ON bench BEGIN UPDATE material SET name = 'stolen'; END;"
            "CREATE TRIGGER endless AFTER INSERT ON history BEGIN INSERT INTO history (at, action, title, "
            "changes) WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n) SELECT i, 'do', '', '' "
            "FROM n; END;");
        Project project = Project::open(path);
        const std::string name = project.document().all<Material>().begin()->second.name;
        Edit edit(project.document(), "x");
        edit.add(story::benchNamed("b"));
        project.apply(edit.finish());
        QCOMPARE(Project::open(path, Access::readOnly).document().all<Material>().begin()->second.name, name);
    }
    void neitherDoTheyWhereChannelsAreKept() {
        const fs::path log = folder_.filePath("kept.csv").toStdString();
        std::string text = "Time [s],Core 0 [C],Rail [V]\n";
        for (int i = 0; i < 50; ++i) text += std::to_string(i) + ",50,12\n";
        write(log, text);
        const fs::path path = stored();
        const LogReading reading = readLogReported(text, log.string());
        KeepTask task{{}, log.string(), {}, {}, reading.keptRows, MappedFile(log).stamp()};
        {
            Project project = Project::open(path);
            Edit edit(project.document(), "log");
            Recording recording;
            recording.bench = project.document().all<Bench>().begin()->first;
            task.recording = edit.add(recording);
            project.apply(edit.finish(), {{{task.recording, reading.trace}}, {}});
        }
        SQLite::Database(path.string(), SQLite::OPEN_READWRITE)
            .exec("CREATE TRIGGER planted AFTER INSERT ON channel_block BEGIN UPDATE bench SET name = "
                  "'stolen'; END");
        keepOtherChannels(path, task);
        QVERIFY(loadKeptChannel(path, task.recording, "Rail [V]").has_value());
        QVERIFY(Project::open(path, Access::readOnly).document().all<Bench>().begin()->second.name
                != "stolen");
    }
    void aViewInTheSteadOfATableIsRefused() {
        const fs::path path = changedBy("PRAGMA foreign_keys = OFF; DROP TABLE look; CREATE VIEW look AS "
                                        "WITH RECURSIVE n(i) AS (SELECT 1 "
                                        "UNION ALL SELECT i + 1 FROM n) SELECT i AS id, 1 AS study, "
                                        "'2031-01-01' AS at, 1 AS mounts, 0 AS "
                                        "extended, 0 AS declared FROM n");
        QCOMPARE(used(path), "project-damaged");
    }

    void whatStandsBesideItIsNoPipeAndNoLink() {
        for (const char* suffix : {"-journal", "-wal", "-shm"}) {
            const fs::path path = stored();
            const fs::path beside = path.string() + suffix;
            QVERIFY(::mkfifo(beside.c_str(), 0600) == 0);
            QCOMPARE(story::codeOf([&] { Project::open(path); }), "project-not-one");
            QCOMPARE(story::codeOf([&] { Project::open(path, Access::readOnly); }), "project-not-one");
            fs::remove(beside);
            const fs::path victim = folder_.filePath("victim").toStdString();
            write(victim, "precious");
            fs::create_symlink(victim, beside);
            QCOMPARE(story::codeOf([&] { Project::open(path); }), "project-not-one");
            QCOMPARE(bytesOf(victim), std::string("precious"));
            fs::remove(beside);
            QCOMPARE(used(path), "nothing thrown");
        }
    }
    void aPipeInItsPlaceIsRefusedAtOnce() {
        const fs::path path = fresh();
        QVERIFY(::mkfifo(path.c_str(), 0600) == 0);
        QCOMPARE(story::codeOf([&] { Project::open(path); }), "project-not-one");
        QCOMPARE(story::codeOf([&] { Project::create(path); }), "file-exists");
        QVERIFY(!isProjectFile(path));
    }

    void migrationKeepsWhatStandsWhereItsCopyWouldGo() {
        const fs::path path = stored();
        { // as an older Ibuki left it, its log not merged
            SQLite::Database database(path.string(), SQLite::OPEN_READWRITE);
            database.exec("PRAGMA journal_mode = WAL");
            database.exec("PRAGMA user_version = " + std::to_string(newestFormat - 1));
            database.exec("UPDATE study SET note = 'in the log only'");
            const fs::path kept = path.string() + ".wal-kept";
            fs::copy_file(path.string() + "-wal", kept);
            fs::copy_file(path, path.string() + ".main-kept");
        }
        fs::rename(path.string() + ".wal-kept", path.string() + "-wal");
        fs::rename(path.string() + ".main-kept", path);
        const fs::path victim = folder_.filePath("victim2").toStdString();
        write(victim, "precious");
        const std::string copy = path.string() + ".before-format-" + std::to_string(newestFormat);
        fs::create_symlink(victim, copy);
        write(copy + "-2", "also precious");
        const QString code = story::codeOf([&] { Project::open(path); });
        QCOMPARE(bytesOf(victim), std::string("precious"));
        QCOMPARE(bytesOf(copy + "-2"), std::string("also precious"));
        QVERIFY2(fs::exists(copy + "-3"), qPrintable(code));
        SQLite::Database old(copy + "-3", SQLite::OPEN_READONLY);
        QCOMPARE(old.execAndGet("SELECT note FROM study LIMIT 1").getString(),
                 std::string("in the log only"));
        QCOMPARE(old.execAndGet("PRAGMA user_version").getInt(), newestFormat - 1);
    }

    void numbersOutOfRangeNameTheirPlace_data() {
        QTest::addColumn<QString>("sql");
        for (const char* sql :
             {"UPDATE material SET conditioning_cycles = 2147483647",
              "UPDATE material SET conditioning_cycles = 99999999999", "UPDATE site SET alike = 1000000000",
              "UPDATE material SET density_g_per_ml = 9e999", "UPDATE material SET density_g_per_ml = -9e999",
              "UPDATE question SET confidence = 7", "UPDATE question SET margin_K = -1",
              "UPDATE run SET repeat = 2147483647", "UPDATE run SET load_start_s = 1e300",
              "UPDATE load SET duration_s = 1e12", "UPDATE recording SET samples = 2305843009213693952",
              "UPDATE lot SET content = -5", "UPDATE material SET name = CAST(x'C0AF' AS TEXT)",
              "UPDATE material SET name = CAST(x'EDA080' AS TEXT)",
              "UPDATE run_reduction SET reduction = replace(hex(zeroblob(50000)), '00', '[')"})
            QTest::newRow(sql) << sql;
    }
    void numbersOutOfRangeNameTheirPlace() {
        QFETCH(QString, sql);
        try {
            Project::open(changedBy(sql.toStdString()), Access::readOnly);
            QFAIL("not refused");
        } catch (const InputError& error) {
            QCOMPARE(QString::fromStdString(error.code), QString("project-damaged"));
            const QString said = QString::fromStdString(words::sentence(error));
            const QString table = sql.split(' ')[1];
            QVERIFY2(said.contains("table " + table + ","), qPrintable(said));
        }
    }
    void aReadingIsOneOfThoseThatAreRead() { // power and K/W are the window's: two of them would disagree
        const auto with = [&](const std::string& kind) {
            return used(changedBy("INSERT INTO entered_reading VALUES (987654, (SELECT min(id) FROM run), '"
                                  + kind + "', '', 'W', 150, 'neither', NULL, '')"));
        };
        QCOMPARE(with("wall power"), QString("nothing thrown"));
        for (const char* kind : {"power", "thermal resistance", "fan speed", "clock", "POWER"})
            QCOMPARE(with(kind), "project-damaged");
    }
    void aPlanExpandsToNoMoreThanAPlanCan() {
        const fs::path path = stored();
        {
            Project project = Project::open(path);
            Edit edit(project.document(), "plan");
            putPlan(edit, planFor(project.document(), project.document().all<Study>().begin()->first));
            project.apply(edit.finish());
        }
        for (const char* sql :
             {"UPDATE plan SET mounts_per_level = 2147483647", "UPDATE plan SET check_mounts = 1e9",
              "UPDATE plan SET hours = 1e9", "UPDATE plan SET mounts_per_level = 0"}) {
            SQLite::Database(path.string(), SQLite::OPEN_READWRITE).exec(sql);
            const QString code = used(path);
            QVERIFY2(code == "project-damaged" || code.startsWith("plan-"), qPrintable(code));
        }
        SQLite::Database database(path.string(), SQLite::OPEN_READWRITE);
        database.exec("UPDATE plan SET mounts_per_level = 1000, check_mounts = 3, hours = 3");
        database.exec(
            "INSERT INTO protocol_step (id, study, position, kind, minutes, gate, gate_value, unattended, "
            "cycles) SELECT 900000, study, 0, 'soak', 1000000, 'none', 0, 1, 0 FROM plan");
        const QString code = used(path);
        QVERIFY2(code.startsWith("plan-"), qPrintable(code)); // two thousand years of evenings
    }

    void aDamagedReductionIsToldWhenItIsAsked() {
        for (const char* reduction : {"'{'", "'[]'", "'{\"loads\": 7}'"}) {
            const fs::path path = changedBy(std::string("UPDATE run_reduction SET reduction = ") + reduction
                                            + " WHERE id = (SELECT max(id) FROM run_reduction)");
            QCOMPARE(used(path), "project-damaged");
            const Project project = Project::open(path, Access::readOnly, Decode::whenAsked);
            const auto& all = project.document().all<RunReduction>();
            const std::size_t count = all.size();
            std::size_t sound = 0;
            std::size_t damaged = 0;
            for (const auto& [id, stored] : all)
                (story::codeOf([&stored = stored] { (void)*stored.reduction; }) == "project-damaged"
                     ? damaged
                     : sound)++;
            QCOMPARE(damaged, std::size_t{1});
            for (const auto& [id, question] :
                 project.document().all<Question>()) // what a view asks for until then
                QCOMPARE(story::codeOf([&, &asked = question] {
                             (void)htmlReport(project.document(), asked);
                             (void)jsonReport(project.document(), asked);
                         }),
                         QString("nothing thrown"));
            QCOMPARE(sound, count - 1);
            try {
                decodeAll(project.document());
                QFAIL("it is damaged");
            } catch (const InputError& error) { // table, row and column are named as when it is read at once
                QCOMPARE(error.message.code, std::string("project-damaged.at-cell"));
            }
        }
    }
    void aHottestThatItsReductionDoesNotSayIsRefused() { // cautions of hot parts stand on it
        for (const char* hottest : {"NULL", "20", "1e300"}) {
            const fs::path path = changedBy(std::string("UPDATE run_reduction SET hottest_C = ") + hottest
                                            + " WHERE id = (SELECT min(id) FROM run_reduction)");
            QCOMPARE(used(path), "project-damaged");
            QCOMPARE(story::codeOf([&] { // a figure no part can have is refused as it is opened already
                         const Project project = Project::open(path, Access::readOnly, Decode::whenAsked);
                         decodeAll(project.document());
                     }),
                     "project-damaged");
        }
    }
    void recordingsOfUnequalLengthsAreRefused() {
        const std::string few = packNumbers(std::vector<double>{1, 2, 3});
        std::string hex;
        for (const char c : few)
            hex += QString("%1").arg(static_cast<unsigned char>(c), 2, 16, QChar('0')).toStdString();
        for (const std::string& sql :
             {"UPDATE time_axis SET samples = 3, data = x'" + hex + "'",
              "UPDATE channel SET samples = 3, data = x'" + hex + "' WHERE kind = 'numbers'",
              std::string("UPDATE time_axis SET samples = 2305843009213693952"),
              std::string("UPDATE channel SET samples = -1 WHERE kind = 'numbers'"),
              std::string("UPDATE channel SET samples = 2305843009213693953 WHERE kind = 'numbers'")})
            QCOMPARE(used(changedBy(sql)), "project-damaged");
    }
    void aTimeAxisThatCannotBeIsRefused() {
        for (const std::vector<double>& axis : {std::vector<double>{0, 1e308, 2},
                                                {0, 1, 0.5},
                                                {0, std::nan(""), 2},
                                                {-1e308, 0, 1e308},
                                                {0, 1, 1.0 / 0.0}}) {
            const fs::path path = stored();
            {
                SQLite::Database database(path.string(), SQLite::OPEN_READWRITE);
                SQLite::Statement update(database, "UPDATE time_axis SET samples = 3, data = ?");
                const std::string packed = packNumbers(axis);
                update.bind(1, packed.data(), static_cast<int>(packed.size()));
                update.exec();
                database.exec("UPDATE channel SET samples = 0, kind = 'number blocks'");
            }
            QCOMPARE(used(path), "project-damaged");
        }
    }
    void framesThatClaimMoreThanTheyHoldTakeNoMemory() {
        const std::vector<double> zeros(mostSamples / 50, 0.0); // 16 MB that pack to almost nothing
        const std::string bomb = packNumbers(zeros);
        QVERIFY(bomb.size() < 10'000);
        const long before = peakMB();
        QCOMPARE(story::codeOf([&] { unpackNumbers(bomb, 3); }), "project-damaged");
        std::string lying = bomb;
        lying[5] = '\x7f'; // in the frame header's content size
        (void)story::codeOf([&] { unpackNumbers(lying, 3); });
        QCOMPARE(story::codeOf([&] { unpackNumbers(bomb, std::size_t{1} << 61U); }), "project-damaged");
        QCOMPARE(story::codeOf([&] { unpackWords(bomb, 5); }), "project-damaged");
        QVERIFY2(peakMB() - before < 300, qPrintable(QString::number(peakMB() - before)));
    }

    void theNextIdStandsAboveAllThatAreThere() {
        for (const char* next : {"0", "1", "-5", "-9223372036854775808", "9223372036854775807"}) {
            const fs::path path = changedBy(std::string("UPDATE sequence SET next_id = ") + next);
            Project project = Project::open(path);
            const auto materials = project.document().all<Material>().size();
            Edit edit(project.document(), "x");
            edit.add(story::materialNamed("new"));
            project.apply(edit.finish());
            QCOMPARE(project.document().all<Material>().size(), materials + 1);
        }
        QCOMPARE(used(changedBy("UPDATE bench SET id = 9223372036854775807")), "project-damaged");
    }

    void namesThatNoFileSystemTakesAreRefused() {
        const fs::path folder = folder_.path().toStdString();
        const fs::path longName = folder / (std::string(300, 'n') + ".ibuki");
        fs::create_symlink(folder / "loop-b", folder / "loop-a");
        fs::create_symlink(folder / "loop-a", folder / "loop-b");
        for (const fs::path& path : {longName, folder / "loop-a"}) {
            QVERIFY(story::codeOf([&] { Project::open(path); }).startsWith("file-"));
            QVERIFY(story::codeOf([&] { Project::create(path); }).startsWith("file-"));
        }
        QVERIFY(story::codeOf([&] {
                    Project::open(stored(), Access::readOnly).saveCopy(longName);
                }).startsWith("file-"));
    }
    void aFolderWithoutWritePermissionMayHaveAnyName() {
        const fs::path folder = fs::path(folder_.path().toStdString()) / "50% off? #1";
        fs::create_directory(folder);
        write(folder / "a%20b.ibuki", pristine_);
        fs::permissions(folder_.path().toStdString(), fs::perms(0755));
        fs::permissions(folder, fs::perms(0555));
        const pid_t child = ::fork();
        if (child == 0) { // root may write everywhere: become nobody
            if (::geteuid() == 0 && (::setgid(65'534) != 0 || ::setuid(65'534) != 0)) ::_exit(2);
            ::_exit(used(folder / "a%20b.ibuki") == "nothing thrown" ? 0 : 1);
        }
        int status = 0;
        ::waitpid(child, &status, 0);
        fs::permissions(folder, fs::perms::owner_all);
        QCOMPARE(WEXITSTATUS(status), 0);
    }

    void flippedBytesAreOpenedOrRefused() { // 5,000 in the long form: IBUKI_LONG=1
        const int trials = qEnvironmentVariableIsSet("IBUKI_LONG") ? 5'000 : 150;
        std::mt19937 dice(20310304);
        int refused = 0;
        for (int i = 0; i < trials; ++i) {
            std::string bytes = pristine_;
            const auto any = [&](std::size_t most) {
                return std::uniform_int_distribution<std::size_t>(0, most - 1)(dice);
            };
            const std::size_t flips = 1 + any(20);
            for (std::size_t k = 0; k < flips; ++k) bytes[any(bytes.size())] = static_cast<char>(any(256));
            if (any(4) == 0) bytes.resize(any(bytes.size()));
            const fs::path path = folder_.filePath("flipped.ibuki").toStdString();
            write(path, bytes);
            refused += used(path) == "nothing thrown" ? 0 : 1;
        }
        QVERIFY(refused > 0);
        QVERIFY2(peakMB() < 1'000, qPrintable(QString::number(peakMB())));
    }
    void mutatedCellsAreOpenedOrRefused() {
        const int trials = qEnvironmentVariableIsSet("IBUKI_LONG") ? 2'000 : 120;
        std::mt19937 dice(20310305);
        std::vector<std::pair<std::string, std::string>> cells;
        {
            SQLite::Database database(stored().string(), SQLite::OPEN_READONLY);
            SQLite::Statement tables(database, "SELECT name FROM sqlite_schema WHERE type = 'table'");
            while (tables.executeStep()) {
                const std::string table = tables.getColumn(0).getString();
                SQLite::Statement columns(database, "SELECT name FROM pragma_table_info(?)");
                columns.bind(1, table);
                while (columns.executeStep()) cells.emplace_back(table, columns.getColumn(0).getString());
            }
        }
        const char* values[] = {"NULL",
                                "-1",
                                "0",
                                "9223372036854775807",
                                "1e308",
                                "-1e308",
                                "9e999",
                                "''",
                                "'x'",
                                "x'ff00'",
                                "CAST(x'80' AS TEXT)",
                                "'{\"code\":1}'",
                                "'[[[[['",
                                "2147483648",
                                "'9999-99-99'",
                                "0.5",
                                "zeroblob(100)",
                                "'numbers'"};
        for (int i = 0; i < trials; ++i) {
            const auto& [table, column] = cells[dice() % cells.size()];
            const char* value = values[dice() % std::size(values)];
            const fs::path path = stored();
            {
                SQLite::Database database(path.string(), SQLite::OPEN_READWRITE);
                database.tryExec("PRAGMA foreign_keys = OFF");
                database.tryExec(
                    ("UPDATE OR IGNORE \"" + table + "\" SET \"" + column + "\" = " + value).c_str());
            }
            (void)used(path);
            fs::remove(path);
        }
        QVERIFY2(peakMB() < 1'000, qPrintable(QString::number(peakMB())));
    }
};

IBUKI_TEST(TestHostileProject)
#include "tst_hostile_project.moc"
