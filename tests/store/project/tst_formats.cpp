// SPDX-License-Identifier: GPL-3.0-or-later
// Files of every format of the project are opened as what they were.

#include "core/domain/lookup.h"
#include "core/domain/plan.h"
#include "core/domain/run_reduction.h"
#include "core/evidence/reduction_task.h"
#include "store/project/columns.h"
#include "store/project/migrations.h"
#include "store/project/project.h"
#include "store/project_file.h"
#include "support/project_files.h"
#include "support/test_class.h"
#include "words/words.h"

#include <QTemporaryDir>
#include <QtTest>
#include <SQLiteCpp/SQLiteCpp.h>
#include <fstream>
#include <map>
#include <nlohmann/json.hpp>
#include <set>

using namespace ibuki;
namespace fs = std::filesystem;

class TestFormats : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    int count_ = 0;

    fs::path fresh() { return folder_.filePath(QString("f%1.ibuki").arg(++count_)).toStdString(); }

    /// A project of an older format, from its script.
    fs::path ofFormat(const char* script) {
        const fs::path path = fresh();
        std::ifstream file(std::string(IBUKI_TEST_DATA) + "/projects/" + script);
        SQLite::Database database(path.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
        database.exec(std::string(std::istreambuf_iterator<char>(file), {}));
        return path;
    }

    /// Every value with every member, as the file has it.
    static nlohmann::ordered_json whole(const Document& document) {
        auto all = nlohmann::ordered_json::array();
        Entities::each([&]<class E>() {
            const TableInfo& table = tableOf(kindOf<E>);
            for (const auto& [id, entity] : document.all<E>()) {
                nlohmann::ordered_json row = {{"table", table.name}, {"id", id.value}};
                for (const ColumnInfo& column : table.columns)
                    std::visit(
                        [&](const auto& value) {
                            using T = std::decay_t<decltype(value)>;
                            if constexpr (std::is_same_v<T, std::monostate>)
                                row[column.name] = nullptr;
                            else
                                row[column.name] = value;
                        },
                        column.get(&entity));
                all.push_back(std::move(row));
            }
        });
        return all;
    }
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
    void aProjectOfFormatOneKeepsItsShelf() {
        const fs::path path = ofFormat("format-1.sql");
        const Document document = Project::open(path).document();
        const auto lot = [&](std::int64_t id) { return *document.find(Id<Lot>{id}); };
        QCOMPARE(document.all<Lot>().size(), std::size_t{7});
        QCOMPARE(lot(8).condition, LotCondition::oily); // "oily on opening"
        QCOMPARE(lot(8).note, std::string("oily on opening."));
        QCOMPARE(lot(10).contentUnit, ContentUnit::squareMillimetre); // "mm2"
        QCOMPARE(lot(6).contentUnit, ContentUnit::gram);              // "tubes" is no unit
        QCOMPARE(lot(6).note, std::string("content in tubes. thick skin on top."));
        QCOMPARE(lot(6).condition, LotCondition::notStated);
        QCOMPARE(lot(2).remaining, std::optional(2.1)); // still what is left
        QCOMPARE(lot(2).takenBefore, 0.3);
        const Material& metal = *document.find(Id<Material>{13});
        QCOMPARE(metal.containsGallium, YesNo::yes);
        QCOMPARE(metal.conductsElectricity, YesNo::yes);
        QCOMPARE(document.find(Id<Material>{1})->containsGallium, YesNo::notStated);
        QCOMPARE(document.find(Id<Material>{11})->reusable, YesNo::yes);
        QCOMPARE(document.find(Id<Site>{18})->contactsNear, YesNo::yes);
        QCOMPARE(document.find(Id<Site>{21})->contactsNear, YesNo::notStated);
        QVERIFY(story::same(Project::open(path).document(), document)); // once
    }
    void aProjectOfFormatTwoGetsAPlan() {
        const fs::path path = ofFormat("format-2.sql");
        const Document document = Project::open(path).document();
        const Study& study = document.all<Study>().begin()->second;
        QCOMPARE(study.began, StudyTemplate::own);
        const Plan* plan = planOf(document, study.id);
        QVERIFY(plan && plan->mountsPerLevel == 3);
        QVERIFY(document.nextId > plan->id.value);
        QCOMPARE(levelsOf(document, firstQuestion(document, study.id)->id).size(), std::size_t{2});
        QCOMPARE(slotsOf(document, study.id).front()->block, 0);
        QVERIFY(story::same(Project::open(path).document(), document)); // once
    }
    void aProjectOfFormatThreeKeepsItsReductions() {
        const fs::path path = ofFormat("format-3.sql");
        const Document document = Project::open(path).document();
        QCOMPARE(document.all<Mount>().size(), std::size_t{2});
        for (const auto& [id, stored] : document.all<RunReduction>()) {
            QVERIFY(stored.reduction.main() && stored.reduction.main()->metrics.contains(Metric::hottest));
            QCOMPARE(stored.settings, ReduceSettings{}); // none were stored then
            QVERIFY(!stored.reduction.main()->foundWindow && !stored.reduction.main()->extrapolated);
        }
        for (const auto& [id, run] : document.all<Run>()) QVERIFY(!run.windowStartS && !run.useAsymptote);
        for (const auto& [id, level] : document.all<Level>()) QVERIFY(!level.withoutRemount);
        QVERIFY(story::same(Project::open(path).document(), document)); // once
    }
    void aProjectOfFormatFourComparesTheUsualLoad() {
        const fs::path path = ofFormat("format-4.sql");
        const Document document = Project::open(path).document();
        QVERIFY(!document.all<Question>().empty());
        for (const auto& [id, question] : document.all<Question>()) QVERIFY(!question.load);
        QVERIFY(story::same(Project::open(path).document(), document)); // once
    }
    void aProjectOfFormatFiveKeepsItsWords() {
        const fs::path path = ofFormat("format-5.sql");
        Project project = Project::open(path);
        const Document& document = project.document();
        const Study study = document.all<Study>().begin()->second;
        const Question question = *firstQuestion(document, study.id);
        const Load* compared = document.find(question.load);
        QVERIFY(compared && compared->name == "90 W" && !compared->planned);
        std::set<std::string> loads;
        for (const auto& [id, run] : document.all<Run>()) loads.insert(document.find(run.load)->name);
        QCOMPARE(loads, (std::set<std::string>{"90 W", "sustained 180 W"}));
        QCOMPARE(loadsOf(document, study.id).size(),
                 std::size_t{1}); // what was planned stays what is planned
        std::vector<ApplicationPattern> patterns;
        std::string notes;
        for (const auto& [id, application] : document.all<Application>()) {
            patterns.push_back(application.pattern);
            notes += application.note;
        }
        QCOMPARE(patterns, (std::vector{ApplicationPattern::dot, ApplicationPattern::other}));
        QCOMPARE(notes, std::string("put on as spiral with a tail."));
        const Plan plan = *planOf(document, study.id);
        QCOMPARE(plan.weekdays, mondayToFriday); // "Mo Di" names none
        QCOMPARE(textOf(plan.followUps), std::string("24 h, 5 d"));
        QVERIFY(study.note.find("Days as written: Mo Di.") != std::string::npos);
        QVERIFY(study.note.find("Put on as zigzag.") != std::string::npos);
        const LotPicture picture = document.all<LotPicture>().begin()->second;
        QCOMPARE(picture.bytes, std::int64_t{16});
        QCOMPARE(project.loadFile(picture.sha256).substr(0, 4), std::string("\x89PNG"));
        const Trace trace = project.loadTrace(document.all<Recording>().back().first);
        std::vector<Unit> units; // stored by their place in a list then
        for (const Channel& channel : trace.channels) units.push_back(channel.fileUnit);
        QCOMPARE(units, (std::vector{Unit::celsius, Unit::milliwatt, Unit::none, Unit::volt}));
        QCOMPARE(trace.channels.front().values, (std::vector<double>{40, 50, 60}));
    }
    void aProjectOfFormatSixKeepsWhatWasSaid() { // as it was said: code "said"; its codes stay
        Project project = Project::open(ofFormat("format-6.sql"));
        const Document& document = project.document();
        const Reduction& reduction = document.find(Id<RunReduction>{93})->reduction;
        QVERIFY(hasFlag(reduction.flags, "gap-in-log") && hasFlag(reduction.flags, "stuck-sensor"));
        for (const Flag& flag : reduction.flags) QCOMPARE(flag.message.code, std::string("said"));
        QCOMPARE(words::text(reduction.flags.front().message), std::string("1 gaps in the log"));
        for (const auto& [metric, other] : reduction.others)
            for (const Flag& flag : other.flags) QCOMPARE(flag.message.code, std::string("said"));
        QCOMPARE(words::text(document.find(Id<Recording>{87})->readAs),
                 std::string("commas, decimal point, header in line 1, since the start, s"));
        QVERIFY(document.find(Id<Recording>{94})->readAs.code.empty());
        QCOMPARE(words::text(project.history().front().title), std::string("Reduce anew"));
        const auto older =
            reductionsOfOlderVersions(document); // so that a reader of today is told in his language
        QVERIFY(std::any_of(older.begin(), older.end(),
                            [](const ReductionTask& task) { return task.reduction.value == 93; }));
    }
    void everyFormatIsOpenedWhole_data() {
        QTest::addColumn<int>("format");
        for (int format = 1; format < newestFormat; ++format) QTest::addRow("%d", format) << format;
    }
    void everyFormatIsOpenedWhole() { // every member of every value, as it was when it was checked
        QFETCH(int, format);
        const std::string name = "format-" + std::to_string(format);
        const Document document = Project::open(ofFormat((name + ".sql").c_str())).document();
        std::ifstream file(std::string(IBUKI_TEST_DATA) + "/projects/" + name + ".json");
        const auto wanted = nlohmann::ordered_json::parse(file);
        const auto found = whole(document);
        QCOMPARE(found.size(), wanted.size());
        for (std::size_t i = 0; i < wanted.size(); ++i)
            QVERIFY2(found[i] == wanted[i], (found[i].dump() + "\nis not\n" + wanted[i].dump()).c_str());
    }
    void aNewFileHasTheTablesOfAnOldOne() {
        const fs::path fresh1 = fresh();
        Project::create(fresh1);
        const auto wanted = columnsIn(fresh1);
        for (int format = 1; format < newestFormat; ++format) {
            const fs::path path = ofFormat(("format-" + std::to_string(format) + ".sql").c_str());
            Project::open(path);
            QCOMPARE(columnsIn(path), wanted);
        }
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
