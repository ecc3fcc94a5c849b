// SPDX-License-Identifier: GPL-3.0-or-later
// From one format of the project to the next, and what a new file holds.

#include "store/project/columns.h"
#include "store/project/migrations.h"
#include "store/project/project.h"
#include "store/project_file.h"
#include "support/project_files.h"
#include "support/test_class.h"

#include <QTemporaryDir>
#include <QtTest>
#include <SQLiteCpp/SQLiteCpp.h>
#include <array>
#include <map>

using namespace ibuki;
namespace fs = std::filesystem;

class TestFormats : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    int count_ = 0;

    fs::path fresh() { return folder_.filePath(QString("f%1.ibuki").arg(++count_)).toStdString(); }

    /// table.column → type, whether it must be there.
    static std::map<std::string, std::pair<std::string, bool>> columnsIn(const fs::path& path) {
        std::map<std::string, std::pair<std::string, bool>> columns;
        SQLite::Database database(path.string());
        SQLite::Statement query(database, "SELECT m.name, c.name, c.type, c.\"notnull\" FROM sqlite_master m "
                                          "JOIN pragma_table_info(m.name) c WHERE m.type = 'table'");
        while (query.executeStep())
            columns[query.getColumn(0).getString() + "." + query.getColumn(1).getString()] = {
                query.getColumn(2).getString(), query.getColumn(3).getInt() != 0};
        return columns;
    }

private slots:
    void anOlderFileIsCopiedThenBroughtUpToDate() { // format 0: our id on an empty database
        const fs::path path = fresh();
        {
            SQLite::Database database(path.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
            database.exec("PRAGMA application_id = " + std::to_string(projectApplicationId));
        }
        QVERIFY(Project::open(path).document().all<Bench>().empty());
        QVERIFY(fs::exists(path.string() + ".before-format-" + std::to_string(newestFormat)));
    }
    /// Two steps that were never a format of ours: the second moves what the first one kept elsewhere.
    static std::span<const FormatStep> madeUpSteps() {
        static const std::array steps{
            FormatStep{nullptr, "CREATE TABLE cup (id INTEGER PRIMARY KEY, size TEXT NOT NULL) STRICT;"
                                "INSERT INTO cup VALUES (3, 'small'), (4, 'of no size');"},
            FormatStep{[](SQLite::Database& database) {
                           database.exec("CREATE TABLE note (text TEXT NOT NULL) STRICT;"
                                         "INSERT INTO note SELECT size FROM cup WHERE size <> 'small'");
                       },
                       "ALTER TABLE cup ADD COLUMN ml REAL;"
                       "UPDATE cup SET ml = 80 WHERE size = 'small';"
                       "ALTER TABLE cup DROP COLUMN size;"}};
        return steps;
    }
    void stepsLeadFromEveryFormatToTheNewest() {
        for (const int from : {0, 1}) {
            SQLite::Database database(fresh().string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
            if (from == 1) migrate(database, 0, madeUpSteps().first(1));
            QCOMPARE(database.execAndGet("PRAGMA user_version").getInt(), from);
            migrate(database, from, madeUpSteps());
            QCOMPARE(database.execAndGet("PRAGMA user_version").getInt(), 2);
            QCOMPARE(database.execAndGet("SELECT ml FROM cup WHERE id = 3").getDouble(), 80.0);
            QVERIFY(database.execAndGet("SELECT ml FROM cup WHERE id = 4").isNull());
            QCOMPARE(database.execAndGet("SELECT text FROM note").getString(), std::string("of no size"));
        }
    }
    void aStepThatFailsChangesNothing() {
        SQLite::Database database(fresh().string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
        migrate(database, 0, madeUpSteps().first(1));
        const std::array broken{
            madeUpSteps()[0],
            FormatStep{nullptr, "ALTER TABLE cup ADD COLUMN ml REAL; UPDATE bowl SET ml = 1;"}};
        QVERIFY_THROWS_EXCEPTION(SQLite::Exception, migrate(database, 1, broken));
        QCOMPARE(database.execAndGet("PRAGMA user_version").getInt(), 1);
        QCOMPARE(database.execAndGet("SELECT size FROM cup WHERE id = 3").getString(), std::string("small"));
        QCOMPARE(database.execAndGet("SELECT count(*) FROM pragma_table_info('cup')").getInt(), 2);
    }
    void theTablesAreThoseOfTheColumns() {
        const fs::path fresh1 = fresh();
        Project::create(fresh1);
        const auto wanted = columnsIn(fresh1);
        for (const TableInfo& table : tables())
            for (const ColumnInfo& column : table.columns) {
                const std::string key = std::string(table.name) + "." + column.name;
                QVERIFY2(wanted.contains(key), key.c_str());
                QCOMPARE(wanted.at(key).first, std::string(column.sqlType()));
                QCOMPARE(wanted.at(key).second, !column.optional);
            }
    }
    void theOldestAndTheNewestFileOfAFormatAreRefusedAlike() { // a number that is no format
        const fs::path path = fresh();
        Project::create(path);
        {
            SQLite::Database database(path.string(), SQLite::OPEN_READWRITE);
            database.exec("PRAGMA user_version = -3");
        }
        QCOMPARE(story::codeOf([&] { Project::open(path); }), "project-damaged");
    }
};

IBUKI_TEST(TestFormats)
#include "tst_formats.moc"
