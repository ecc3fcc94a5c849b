// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/domain/ageing.h"
#include "core/domain/joint_inspection.h"
#include "core/domain/lookup.h"
#include "core/domain/plan.h"
#include "core/domain/run_reduction.h"
#include "store/digest.h"
#include "store/project/migrations.h"
#include "store/project/packing.h"
#include "store/project/project.h"
#include "support/near.h"
#include "support/project_files.h"
#include "support/stored_story.h"
#include "support/test_class.h"
#include "words/words.h"

#include <QTemporaryDir>
#include <SQLiteCpp/SQLiteCpp.h>
#include <csignal>
#include <fstream>
#include <limits>
#include <map>
#include <set>
#include <sys/resource.h>
#include <sys/stat.h>
#include <unistd.h>

using namespace ibuki;
namespace fs = std::filesystem;

class TestProject : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    int count_ = 0;

    fs::path fresh() { return folder_.filePath(QString("p%1.ibuki").arg(++count_)).toStdString(); }

    /// The story's study in a file, with its nine recordings.
    fs::path stored() {
        const fs::path path = fresh();
        story::storeMeasured(path);
        return path;
    }

private slots:
    void everythingIsThereAfterReopening() {
        const fs::path path = stored();
        Project first = Project::open(path);
        const Document before = first.document();
        { Project gone = std::move(first); }
        QVERIFY(story::same(Project::open(path).document(), before));
        QCOMPARE(before.all<Mount>().size(), std::size_t{9});
    }
    void tracesComeBackExactly() {
        const fs::path path = stored();
        const Project project = Project::open(path);
        const Recording& recording = project.document().all<Recording>().begin()->second;
        const Trace trace = project.loadTrace(recording.id);
        for (const ImportedLog& log : story::nineLogs())
            if (log.fileName == recording.fileName) {
                QCOMPARE(trace.timeS, log.trace.timeS);
                QCOMPARE(trace.channels, log.trace.channels);
            }
    }
    void everyMemberOfEveryEntitySurvives() {
        const fs::path path = fresh();
        Document wanted;
        {
            Project project = Project::create(path);
            Edit edit(project.document(), "all");
            const Id<Bench> bench = edit.add(Bench{{}, "b", "note"});
            Configuration c;
            c.bench = bench;
            c.name = "c";
            c.since = parseInstant("2031-03-04T10:11:12.345");
            c.cooler = "cooler";
            c.fan = FanSetting::automatic;
            c.fanNote = "note";
            c.lid = LidState::bareDie;
            c.pinsOnChip = YesNo::yes;
            c.mountForce = Newton{320};
            c.plateThickness = Millimetre{2};
            c.plateRadius = Millimetre{30};
            c.powerLimit = Watt{200};
            c.temperatureLimit = Celsius{88.5};
            c.ambientGradient = Kelvin{0.3};
            const Id<Configuration> configuration = edit.add(c);
            c.variantOf = configuration;
            edit.add(c);
            Site s;
            s.configuration = configuration;
            s.name = "s";
            s.kind = SiteKind::memory;
            s.lowerFace = Metal::copper;
            s.upperFace = Metal::aluminium;
            s.finish = "lapped";
            s.width = Millimetre{12};
            s.length = Millimetre{14};
            s.gap = Millimetre{1.5};
            s.alike = 8;
            s.contactsNear = YesNo::yes;
            s.aluminiumNear = YesNo::no;
            const Id<Site> site = edit.add(s);
            edit.add(Layer{{},
                           configuration,
                           3,
                           LayerKind::interface,
                           "l",
                           Metal::steel,
                           Millimetre{1},
                           Millimetre{2},
                           Millimetre{3},
                           WattPerMetreKelvin{390},
                           site});
            edit.add(Sensor{{},
                            configuration,
                            Role::gpuClock,
                            2,
                            "col",
                            "chip",
                            Kelvin{1},
                            Kelvin{0.5},
                            Kelvin{-0.2},
                            0.02,
                            30.0,
                            Kelvin{0.3}});
            Material m;
            m.name = "m";
            m.kind = MaterialClass::liquidMetal;
            m.claimedConductivity = WattPerMetreKelvin{70};
            m.densityGPerMl = 6.4;
            m.bondLine = Micrometre{20};
            m.thickness = Millimetre{0.1};
            m.yieldPa = 150;
            m.viscosityPaS = 90;
            m.modulusMPa = 0.4;
            m.coldest = Celsius{-20};
            m.hottest = Celsius{120};
            m.melts = Celsius{11};
            m.conductsElectricity = YesNo::yes;
            m.containsGallium = YesNo::yes;
            m.reusable = YesNo::no;
            m.conditioningCycles = 3;
            m.conditioningLow = Celsius{25};
            m.conditioningHigh = Celsius{70};
            m.conditioningRest = Hour{8};
            m.reapplyYears = 2.5;
            m.statedMm2KPerW = 9.5;
            m.conditioning = "cond";
            m.note = "n";
            const Id<Material> material = edit.add(m);
            edit.add(Package{{}, material, 4, ContentUnit::millilitre, 9.5, "NOK", "n"});
            const auto day = parseInstant("2030-01-02");
            Lot l;
            l.material = material;
            l.name = "lot";
            l.supplier = "sup";
            l.made = l.bought = l.opened = l.expires = day;
            l.storage = "cool";
            l.condition = LotCondition::cracked;
            l.content = 1.0;
            l.remaining = 0.5;
            l.takenBefore = 0.2;
            l.contentUnit = ContentUnit::sheet;
            l.sheetWidth = Millimetre{80};
            l.sheetLength = Millimetre{60};
            l.price = 24.0;
            l.currency = "NOK";
            l.note = "n";
            const Id<Lot> lot = edit.add(l);
            edit.add(Offcut{{}, lot, Millimetre{30}, Millimetre{20}, true});
            const StoredFile file = storedFile(std::string("\x00\xff'\n", 4));
            edit.add(LotPicture{{}, lot, "tube.jpg", file.sha256, 4});
            edit.add(ExchangeRate{{}, "EUR", "NOK", 11.6});
            Application a;
            a.site = site;
            a.lot = lot;
            a.amount = Gram{0.1};
            a.syringeBefore = Gram{12.3};
            a.syringeAfter = Gram{12.19};
            a.area = SquareMillimetre{168};
            a.pattern = ApplicationPattern::dot;
            a.start = a.end = day;
            a.spreads = 1;
            a.staysPut = 2;
            a.comesOff = 3;
            a.cleansUp = 4;
            a.note = "n";
            const Id<Application> application = edit.add(a);
            edit.add(
                Acknowledgement{{}, "GA-CU", material, lot, site, std::nullopt, "technician", *day, "why"});
            const Id<Mount> mount = edit.add(Mount{{},
                                                   configuration,
                                                   "mount",
                                                   day,
                                                   true,
                                                   4,
                                                   "block",
                                                   NewtonMetre{0.6},
                                                   true,
                                                   "slipped",
                                                   "n",
                                                   "first technician",
                                                   Instant{7'000}});
            edit.add(MountUse{
                {}, mount, day, Instant{9'000}, 7.5, Watt{60}, 2.5, Celsius{71}, Celsius{18}, "office"});
            edit.add(MountOutcome{{}, mount, OutcomeKind::leaked, false, day, Celsius{-20}, 120.0, "n"});
            edit.add(AgeingRules{{}, bench, Kelvin{1.5}, Kelvin{0.4}, Kelvin{0.1}, 3.0, 25.0, 40.0, "EUR"});
            edit.add(MountApplication{{}, mount, application, ApplicationUse::laidAgain});
            const Id<Recording> recording = edit.add(
                Recording{{}, bench, "f.csv", "abc", 12345, day, true, 99, 98.5, true, said("tabs"), {}, {}});
            edit.add(
                Recording{{}, bench, "g.csv", "abd", 1, day, false, 9, 8.5, false, {}, recording, -37.0});
            const Id<Study> study =
                edit.add(Study{{}, bench, "study", StudyState::closed, StudyTemplate::ageing, "held", "n"});
            const Id<Load> earlier = edit.add(
                Load{{}, study, 1, "load", Watt{180}, 1800.0, true, std::nullopt, {"burn", "--all cores"}});
            const Id<Load> load = edit.add(Load{{}, study, 2, "found", {}, {}, false, earlier, {}});
            edit.add(BenchSource{{}, bench, 1, "hwmon"});
            edit.add(RecordingMark{
                {}, recording, 12.5, MarkKind::warning, {"watch-fan", {{"rpm", 1200.0}, {"usual", 1420.0}}}});
            const Id<Run> run = edit.add(Run{{},
                                             mount,
                                             recording,
                                             1,
                                             load,
                                             2,
                                             Purpose::conditioning,
                                             Celsius{21},
                                             Kelvin{0.3},
                                             48.0,
                                             3.0,
                                             10.0,
                                             900.0,
                                             600.0,
                                             880.0,
                                             true,
                                             true,
                                             "why"});
            const Id<JointInspection> look = edit.add(JointInspection{
                {},   mount, site, Instant{2'000}, true,           true, true, true,
                true, true,  true, true,           true,           true, true, CameOff::warmedAndTwisted,
                3,    4.5,   6,    "a bent pin",   LookJoin::both, true, true, "grey rim"});
            edit.add(JointPicture{{},
                                  look,
                                  LookSide::plate,
                                  "plate.jpg",
                                  file.sha256,
                                  4,
                                  1200,
                                  900,
                                  std::array<double, 8>{1, 2, 3, 4, 5, 6, 7, 8.5},
                                  Millimetre{30},
                                  Millimetre{25},
                                  0.45,
                                  file.sha256,
                                  0.7,
                                  0.6,
                                  0.8,
                                  12.5,
                                  60,
                                  -2,
                                  8,
                                  "glare blurred"});
            edit.add(EnteredReading{{},
                                    run,
                                    SideResponse::other,
                                    "frames in hand",
                                    "1",
                                    3.5,
                                    Better::higher,
                                    Instant{1'000},
                                    "n"});
            edit.add(HeaderRole{{}, "0123456789abcdef", "Kern 1", Role::core});
            const Id<Question> question = edit.add(Question{{},
                                                            study,
                                                            site,
                                                            Factor::torque,
                                                            Factor::pattern,
                                                            Goal::equivalence,
                                                            std::nullopt,
                                                            Metric::p95,
                                                            ReferenceTemperature::coolant,
                                                            Normalisation::perWatt,
                                                            Watt{180},
                                                            Kelvin{0.02},
                                                            0.9,
                                                            std::nullopt,
                                                            true,
                                                            Metric::hottest,
                                                            ReferenceTemperature::room,
                                                            Normalisation::raw,
                                                            load,
                                                            BlockBy::person,
                                                            true,
                                                            Covariate::power,
                                                            MountSpread::own,
                                                            4.0});
            edit.add(SideMargin{{}, question, SideResponse::other, "hum", 0.5});
            edit.add(ExternalResult{{},
                                    question,
                                    material,
                                    material,
                                    "a club's table",
                                    Kelvin{2.5},
                                    Watt{90},
                                    120,
                                    LidState::bareDie,
                                    KelvinPerWatt{0.08},
                                    3,
                                    "one evening"});
            const Id<Level> level = edit.add(Level{{},
                                                   question,
                                                   2,
                                                   "lev",
                                                   material,
                                                   lot,
                                                   Gram{0.2},
                                                   ApplicationPattern::dot,
                                                   NewtonMetre{0.6},
                                                   configuration,
                                                   true,
                                                   Placement::lastOfAll,
                                                   3,
                                                   true});
            const Id<Slot> slot =
                edit.add(Slot{{}, study, 1, SlotKind::checkMount, level, level, 2, mount, day, "late"});
            edit.add(SlotLevel{{}, slot, question, level});
            edit.add(Plan{{},
                          study,
                          4,
                          0.8,
                          Kelvin{0.4},
                          9,
                          material,
                          3,
                          true,
                          ApplicationPattern::cross,
                          Gram{0.2},
                          NewtonMetre{0.6},
                          day,
                          17.5,
                          3,
                          parseWeekdays("Sat"),
                          "Europe/Oslo",
                          parseDelays("24 h, 6 mo"),
                          2});
            edit.add(ProtocolStep{{},
                                  study,
                                  load,
                                  1,
                                  StepKind::soak,
                                  20,
                                  GateKind::remainingBelow,
                                  0.2,
                                  true,
                                  4,
                                  Celsius{75},
                                  Celsius{45}});
            edit.add(Practice{
                {}, study, Scenario::mutedLoop, 7, 600, {{3}, {5}}, level, "A is cooler", Instant{2'000}});
            edit.add(StepTime{{}, bench, StepKind::clean, MaterialClass::putty, 12});
            edit.add(FollowUp{{}, slot, {5, Delay::Unit::days}, true, "gone"});
            edit.add(ReductionRules{{}, study, 60, 900, 4, 5, 0.1, 8, 12, 0.1});
            edit.add(InterimLook{{}, study, *day, 6, true, true});
            project.apply(edit.finish(), {{}, {file}});
            wanted = project.document();
            QCOMPARE(project.loadFile(file.sha256), file.bytes);
        }
        QVERIFY(story::same(Project::open(path).document(), wanted));
    }
    void undoAndRedoThroughTheFile() {
        const fs::path path = stored();
        Project project = Project::open(path);
        const Document before = project.document();
        Edit edit(project.document(), "Rename");
        Material material = project.document().all<Material>().begin()->second;
        material.name = "Heron HV";
        edit.put(material);
        const ChangeSet set = edit.finish();
        project.apply(set);
        QCOMPARE(project.document().find(material.id)->name, std::string("Heron HV"));
        project.apply(inverse(set), {}, Direction::undo);
        QVERIFY(story::same(project.document(), before));
        const auto history = project.history();
        QCOMPARE(history.back().action, std::string("undo"));
        QCOMPARE(history[history.size() - 2].title.code, std::string("Rename"));
        QVERIFY(history.back().changes.find("Heron HV") != std::string::npos);
        QVERIFY(history.back().changes.find("Tern 11") != std::string::npos);
    }
    void undoOfAnImportKeepsItsSamples() {
        const fs::path path = stored();
        Project project = Project::open(path);
        Edit edit(project.document(), "take back");
        Recording recording = project.document().all<Recording>().begin()->second;
        recording.withdrawn = true;
        edit.put(recording);
        project.apply(edit.finish());
        QCOMPARE(project.loadTrace(recording.id).samples(), std::size_t(recording.samples));
    }
    void refusesWhatIsNoProject_data() {
        QTest::addColumn<QByteArray>("bytes");
        QTest::addColumn<QString>("code");
        QTest::newRow("text") << QByteArray("Kittiwake, compute room.\n") << "project-not-one";
        QTest::newRow("empty") << QByteArray() << "project-not-one";
        QTest::newRow("binary") << QByteArray(4096, '\x7f') << "project-not-one";
    }
    void refusesWhatIsNoProject() {
        QFETCH(QByteArray, bytes);
        QFETCH(QString, code);
        const fs::path path = fresh();
        std::ofstream(path, std::ios::binary).write(bytes.constData(), bytes.size());
        QCOMPARE(story::codeOf([&] { Project::open(path); }), code);
        QCOMPARE(fs::file_size(path), std::uintmax_t(bytes.size())); // untouched
    }
    void refusesMissingFilesAndFolders() {
        QCOMPARE(story::codeOf([&] { Project::open(fresh()); }), "file-missing");
        QCOMPARE(story::codeOf([&] { Project::open(folder_.path().toStdString()); }), "project-not-one");
        QCOMPARE(story::codeOf([&] { Project::create("/nowhere/at/all.ibuki"); }), "file-not-writable");
        const fs::path path = stored();
        QCOMPARE(story::codeOf([&] { Project::create(path); }), "file-exists");
    }
    void refusesAProjectFromANewerVersion() {
        const fs::path path = stored();
        {
            SQLite::Database database(path.string(), SQLite::OPEN_READWRITE);
            database.exec("PRAGMA user_version = 99");
        }
        QCOMPARE(story::codeOf([&] { Project::open(path); }), "project-newer");
        QVERIFY(!fs::exists(path.string() + "-lock"));
    }
    void refusesAForeignDatabase() {
        const fs::path path = fresh();
        {
            SQLite::Database database(path.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
            database.exec("CREATE TABLE bench (id INTEGER)");
        }
        QCOMPARE(story::codeOf([&] { Project::open(path); }), "project-not-one");
    }
    void aDamagedCellNamesItsPlace() {
        const fs::path path = stored();
        {
            SQLite::Database database(path.string(), SQLite::OPEN_READWRITE);
            database.exec("UPDATE channel SET unit = 'furlong'");
            database.exec("UPDATE level SET pattern = 'zigzag' WHERE id = (SELECT min(id) FROM level)");
        }
        try {
            Project::open(path);
            QFAIL("not refused");
        } catch (const InputError& error) {
            QVERIFY(words::sentence(error).find("table level, column pattern, id") != std::string::npos);
        }
    }
    void anUnknownUnitIsRefusedWhenItIsRead() {
        const fs::path path = stored();
        {
            SQLite::Database database(path.string(), SQLite::OPEN_READWRITE);
            database.exec("UPDATE channel SET unit = 'furlong'");
        }
        const Project project = Project::open(path);
        QCOMPARE(
            story::codeOf([&] { project.loadTrace(project.document().all<Recording>().begin()->first); }),
            "project-damaged");
    }
    void aDamagedCellIsOneClearSentence() {
        const fs::path path = stored();
        {
            SQLite::Database database(path.string(), SQLite::OPEN_READWRITE);
            database.exec("UPDATE material SET class = 'nonsense'");
        }
        QCOMPARE(story::codeOf([&] { Project::open(path); }), "project-damaged");
    }
    void aSecondWriterIsRefusedAReaderIsNot() {
        const fs::path path = stored();
        const Project first = Project::open(path);
        QCOMPARE(story::codeOf([&] { Project::open(path); }), "project-locked");
        QCOMPARE(Project::open(path, Access::readOnly).document().all<Mount>().size(), std::size_t{9});
    }
    void aReaderCannotWrite() {
        Project reader = Project::open(stored(), Access::readOnly);
        Edit edit(reader.document(), "x");
        edit.add(story::benchNamed("b"));
        QCOMPARE(story::codeOf([&] { reader.apply(edit.finish()); }), "file-not-writable");
    }
    void aReplacedFileIsNotedAndNothingChanges() {
        const fs::path path = stored();
        Project project = Project::open(path);
        const fs::path other = stored();
        fs::rename(other, path);
        const Document before = project.document();
        Edit edit(project.document(), "x");
        edit.add(story::benchNamed("b"));
        QCOMPARE(story::codeOf([&] { project.apply(edit.finish()); }), "project-moved");
        QVERIFY(story::same(project.document(), before));
    }
    void aFailedWriteChangesNothing() { // a reference to a mount that is not there breaks the transaction
        const fs::path path = stored();
        Project project = Project::open(path);
        const Document before = project.document();
        Edit edit(project.document(), "broken");
        edit.add(MountApplication{{}, Id<Mount>{424242}, Id<Application>{424242}, ApplicationUse::fresh});
        QCOMPARE(story::codeOf([&] { project.apply(edit.finish()); }), "project-damaged");
        QVERIFY(story::same(project.document(), before));
        Edit good(project.document(), "good");
        good.add(story::benchNamed("b"));
        project.apply(good.finish()); // and it goes on
    }
    void whenTheDiskIsFullNothingChanges() { // a file-size limit stands in for a full disk
        const fs::path path = stored();
        Project project = Project::open(path);
        const Document before = project.document();
        Edit edit(project.document(), "large");
        Bench bench = story::benchNamed("b");
        bench.note = std::string(4'000'000, 'x');
        edit.add(bench);
        rlimit old{};
        ::getrlimit(RLIMIT_FSIZE, &old);
        std::signal(SIGXFSZ, SIG_IGN);
        const rlimit small{1'000'000, old.rlim_max};
        ::setrlimit(RLIMIT_FSIZE, &small);
        const QString code = story::codeOf([&] { project.apply(edit.finish()); });
        ::setrlimit(RLIMIT_FSIZE, &old);
        QVERIFY2(code == "disk-full" || code == "file-not-writable", qPrintable(code));
        QVERIFY(story::same(project.document(), before));
        project.apply(edit.finish()); // there is room again
        QCOMPARE(project.document().all<Bench>().size(), before.all<Bench>().size() + 1);
    }
    void aCopyIsWholeAndNotTheProjectItself() {
        const fs::path path = stored();
        const Project project = Project::open(path);
        QCOMPARE(story::codeOf([&] { project.saveCopy(path); }), "copy-onto-itself");
        const fs::path target = fresh();
        std::ofstream(target) << "old contents";
        project.saveCopy(target);
        QVERIFY(story::same(Project::open(target).document(), project.document()));
        for (const auto& entry : fs::directory_iterator(folder_.path().toStdString()))
            QVERIFY2(entry.path().string().find(".part-") == std::string::npos, entry.path().c_str());
    }
    void packingIsExact() {
        const std::vector<double> values{
            0.0, -0.0, 1.5, std::nan(""), std::numeric_limits<double>::infinity(), 5e-324, -1e308};
        const auto back = unpackNumbers(packNumbers(values), values.size());
        for (std::size_t i = 0; i < values.size(); ++i)
            QCOMPARE(std::bit_cast<std::uint64_t>(back[i]), std::bit_cast<std::uint64_t>(values[i]));
        QVERIFY(unpackNumbers(packNumbers({}), 0).empty());
        const std::vector<std::string> words{"ok", "", "two words"};
        QCOMPARE(unpackWords(packWords(words), 3), words);
        QCOMPARE(story::codeOf([] { unpackNumbers("rubbish", 3); }), "project-damaged");
        QCOMPARE(story::codeOf([&] { unpackNumbers(packNumbers(values), 3); }), "project-damaged");
        QCOMPARE(
            sha256("abc"),
            std::string("ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad")); // FIPS 180-4
    }
};

IBUKI_TEST(TestProject)
#include "tst_project.moc"
