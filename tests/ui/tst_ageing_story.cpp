// SPDX-License-Identifier: GPL-3.0-or-later
// Drift through the real widgets, on the demo project and on a new one: what is said of each material, clocks
// with a stated use and an opening, what is due, tubes, what happened, a harder test, paper.

#include "app/ageing/ageing_sheets.h"
#include "app/ageing/ageing_view.h"
#include "app/forms/ask.h"
#include "app/forms/page_export.h"
#include "app/frame/tape.h"
#include "core/domain/ageing.h"
#include "core/domain/lookup.h"
#include "core/domain/plan.h"
#include "core/setup/plan_setup.h"
#include "store/paper/report.h"
#include "support/story_window.h"
#include "support/test_class.h"

#include <QListWidget>
#include <QStackedWidget>
#include <QTableWidget>
#include <QTemporaryDir>
#include <fstream>
#include <sstream>

using namespace ibuki;

class TestAgeingStory : public QObject {
    Q_OBJECT

    const story::Where where_;
    QTemporaryDir folder_;
    std::unique_ptr<MainWindow> window_;

    Session& session() { return window_->session(); }
    template <class W> W* find(const char* name) { return story::visible<W>(*window_, name); }
    bool isDemo() const { return where_ == story::Where::demo; }

    /// The view has told of the document as it is now.
    bool reported() {
        QTest::qWait(60);
        return QTest::qWaitFor([&] { return session().jobs().running().isEmpty(); }, 20'000)
               && QTest::qWaitFor([&] { return window_->ageingView().matter() != nullptr; }, 20'000);
    }
    void choose(const std::string& study) {
        for (const auto& [id, one] : session().document().all<Study>()) {
            if (one.name != study) continue;
            Selection selection;
            selection.bench = one.bench;
            selection.study = id;
            session().select(selection);
        }
    }
    QString text(const char* label) {
        auto* found = window_->findChild<QLabel*>(label);
        return found ? found->text() : QString();
    }
    bool chooseMaterial(const QString& begins) {
        auto* list = find<QListWidget>("Materials followed");
        for (int row = 0; list && row < list->count(); ++row)
            if (list->item(row)->toolTip() == begins) {
                list->setCurrentRow(row);
                return true;
            }
        return false;
    }
    std::string fileText(const QString& path) {
        std::ifstream file(path.toStdString());
        std::ostringstream all;
        all << file.rdbuf();
        return all.str();
    }

public:
    explicit TestAgeingStory(story::Where where) : where_(where) {}

private slots:
    void initTestCase() {
        window_ = story::windowOn(where_, "drift-story", folder_.filePath("drift.ibuki"));
        QVERIFY(window_);
        if (!isDemo()) {
            QVERIFY(story::beginStudy(*window_, "rank materials", "Three pastes",
                                      {"Tern 11", "Plover 4", "Dunlin C"}));
            QVERIFY(story::bringIn(*window_, story::nineLogFiles(folder_.path())));
        } else {
            choose("What stays put on a bare die");
        }
        window_->showStage(Stage::ageing);
        QVERIFY(reported());
    }
    void cleanupTestCase() {
        answerFiles({});
        window_.reset();
    }

    void eachMaterialHasItsSentence() {
        auto* list = find<QListWidget>("Materials followed");
        QVERIFY(list);
        if (!isDemo()) {
            QCOMPARE(list->count(), 3);
            QVERIFY(list->item(0)->text().contains("no mount was measured twice"));
            QVERIFY(text("Drift head").contains("Plan to come back"));
            return;
        }
        QCOMPARE(list->count(), 4);
        QVERIFY(chooseMaterial("Heron HV")); // a break-in that is none
        QVERIFY2(text("Drift told").contains("changes by less than 0.5 K"), qPrintable(text("Drift told")));
        QVERIFY(chooseMaterial("Slate 25")); // a sheet that stays
        QVERIFY2(text("Drift told").contains("changes by less than 0.5 K"), qPrintable(text("Drift told")));
        QVERIFY(chooseMaterial("Driftwood 52")); // a film that needs four cycles
        QVERIFY2(text("Drift told").contains("cycles above its melt"), qPrintable(text("Drift told")));
        QVERIFY(chooseMaterial("Tern 11")); // a paste that is pumped out
        QVERIFY2(text("Drift told").contains("as being pumped out does"), qPrintable(text("Drift told")));
        QCOMPARE(find<QComboBox>("Clock")->currentText(), QString("Thermal cycles"));
        auto* models = find<QTableWidget>("Courses that were tried");
        QVERIFY(models && models->rowCount() == 6);
        QVERIFY(text("Drift head").contains("At the same age"));
    }
    void clocksAndScopes() {
        auto* clock = find<QComboBox>("Clock");
        for (int i = 0; i < clock->count(); ++i) {
            clock->setCurrentIndex(i);
            emit clock->activated(i);
        }
        auto* scope = find<QComboBox>("Which mounts");
        scope->setCurrentIndex(1);
        emit scope->activated(1);
        if (isDemo()) {
            QVERIFY(chooseMaterial("Plover 4"));
            QVERIFY2(text("Drift told").contains("which lies behind the last reading"),
                     qPrintable(text("Drift told")));
        }
        scope->setCurrentIndex(0);
        emit scope->activated(0);
        clock->setCurrentIndex(0);
        emit clock->activated(0);
    }
    void theCourseIsExported() {
        const QString path = folder_.filePath("course.csv");
        auto* pages = window_->ageingView().findChild<QStackedWidget*>();
        QVERIFY(exportPage(session(), *qobject_cast<ExportedPage*>(pages->currentWidget()), path));
        QVERIFY(fileText(path).starts_with("material,mount,at,hours"));
    }
    void whatMattersIsTheBenchs() {
        QVERIFY(story::press(*window_, "What matters…"));
        auto* sheet = story::sheet<AgeingRulesSheet>();
        QVERIFY(sheet);
        auto* field = sheet->findChild<QLineEdit*>("Made anew at a rise of, K");
        QVERIFY(field);
        story::type(field, "1.5");
        QTest::keyClick(field, Qt::Key_Tab);
        sheet->close();
        QVERIFY(reported());
        QCOMPARE(window_->ageingView().matter()->study.rules.threshold, Kelvin{1.5});
        session().undoStack().undo();
        session().undoStack().undo();
        QVERIFY(session().document().all<AgeingRules>().empty());
        QVERIFY(reported());
    }
    void aMountHasClocks() {
        QVERIFY(story::press(*window_, "Page Clocks"));
        auto* table = find<QTableWidget>("Clocks of the mounts");
        QVERIFY(table && table->rowCount() >= 9);
        table->setCurrentCell(0, 0);
        QTest::qWait(20);
        QVERIFY(text("Clocks told").contains("rainflow"));
        const auto before = session().document().all<MountUse>().size();
        table->setCurrentCell(table->rowCount() - 1, 0);
        QVERIFY(story::press(*window_, "How it is used…"));
        auto* sheet = story::sheet<MountUseSheet>();
        QVERIFY(sheet);
        auto* field = sheet->findChild<QLineEdit*>("Hours under load a day");
        QVERIFY(field);
        story::type(field, "6");
        QTest::keyClick(field, Qt::Key_Tab);
        sheet->close();
        QVERIFY(session().document().all<MountUse>().size() >= before);
        QVERIFY(reported());
    }
    void somethingHappened() {
        auto* table = find<QTableWidget>("Clocks of the mounts");
        table->setCurrentCell(0, 0);
        const auto before = session().document().all<MountOutcome>().size();
        QVERIFY(story::press(*window_, "What happened…"));
        auto* sheet = story::sheet<OutcomeSheet>();
        QVERIFY(sheet);
        sheet->findChild<QComboBox*>("What")->setCurrentIndex(static_cast<int>(OutcomeKind::crackedInCold));
        auto* coldest = sheet->findChild<QLineEdit*>("Coldest that it saw, °C");
        story::type(coldest, "cold");
        story::press(*sheet, "accept");
        QCOMPARE(session().document().all<MountOutcome>().size(), before); // that is no number
        coldest->clear();
        story::type(coldest, "-25");
        story::press(*sheet, "accept");
        QCOMPARE(session().document().all<MountOutcome>().size(), before + 1);
        QVERIFY(reported());
        QVERIFY(story::press(*window_, "Page Tubes and events"));
        auto* kind = find<QComboBox>("What happened");
        QVERIFY(kind && kind->findText("cracked in the cold") >= 0);
        kind->setCurrentIndex(kind->findText("cracked in the cold"));
        emit kind->activated(kind->currentIndex());
        QVERIFY2(text("Happened told").contains("1 of 1 mount"), qPrintable(text("Happened told")));
    }
    void openingEndsItsSeries() {
        QVERIFY(story::press(*window_, "Page Clocks"));
        auto* table = find<QTableWidget>("Clocks of the mounts");
        table->setCurrentCell(0, 0);
        QVERIFY(story::press(*window_, "Opened…"));
        QVERIFY(story::answer("1999-01-01").contains("before it was mounted"));
        QVERIFY(story::answer("yesterday").contains("2031-03-04"));
        const QDateTime later = QDateTime::currentDateTime().addYears(100);
        QCOMPARE(story::answer(later.toString("yyyy-MM-dd hh:mm")), QString());
        QTRY_COMPARE(session().undoStack().undoText().contains("opened"), true);
        session().undoStack().undo();
        QVERIFY(reported());
    }
    void whatIsDue() {
        if (!isDemo()) { // one mount is to be seen again
            Edit edit(session().document(), said("Come back"));
            Plan plan = planFor(session().document(), session().study()->id);
            plan.followUps = parseDelays("100 y");
            putPlan(edit, plan);
            layFollowUps(edit, plan);
            QVERIFY(session().perform(edit.finish()));
            QVERIFY(reported());
        }
        QVERIFY(story::trigger(*window_, "When to come back…"));
        QVERIFY(reported());
        auto* checks = find<QTableWidget>("Mounts to come back to");
        QVERIFY(checks && checks->rowCount() > 0);
        QVERIFY(story::press(*window_, "Page Machines"));
        auto* machines = find<QTableWidget>("Machines and when they are due");
        QVERIFY(machines && machines->rowCount() > 0);
        if (isDemo())
            QVERIFY2(text("Seasons").contains("4 machines in spring 2032: node-1, node-3, radio-1, radio-2"),
                     qPrintable(text("Seasons")));
        QVERIFY(story::press(*window_, "Page When to come back"));
        const QString path = folder_.filePath("due.ics");
        answerFiles([&](const FileWish&) { return QStringList{path}; });
        QVERIFY(story::press(*window_, "Calendar file…"));
        QTRY_VERIFY(QFile::exists(path));
        QVERIFY(fileText(path).find("BEGIN:VEVENT") != std::string::npos);
        checks->setCurrentCell(0, 0);
        QVERIFY(story::press(*window_, "Record it…"));
        QTRY_COMPARE(window_->stage(), Stage::bench);
        QVERIFY(session().selection().followUp);
        window_->showStage(Stage::ageing);
    }
    void aHarderTest() {
        QVERIFY(story::press(*window_, "Page Harder test"));
        QVERIFY(text("Harder told").contains("an hour of the test for 18.7 of it")); // 0.7 eV, 75 → 125 °C
        auto* by = find<QComboBox>("What does the harm");
        by->setCurrentIndex(1);
        emit by->activated(1);
        QVERIFY(text("Harder told").contains("a cycle of the test for 6.25 of it"));
        auto* swing = find<QLineEdit>("Test: swing, K");
        QVERIFY(swing);
        swing->setText("30"); // milder than the use
        QVERIFY(text("Harder told").contains("No test"));
        swing->setText("100");
    }
    void tubesByAge() {
        if (!isDemo()) return;
        choose("Is the old tub still good");
        QVERIFY(reported());
        QVERIFY(story::press(*window_, "Page Tubes and events"));
        QVERIFY2(text("Tubes told").contains("hotter than Dunlin C, new tub"),
                 qPrintable(text("Tubes told")));
        choose("What stays put on a bare die");
        QVERIFY(reported());
    }
    void paperTellsIt() {
        const std::string html = htmlReport(session().document(), *session().question());
        QCOMPARE(html.find("What time did to the mounts") != std::string::npos, isDemo());
        ReportParts parts;
        parts.ageing = false;
        QVERIFY(
            htmlReport(session().document(), *session().question(), parts).find("What time did to the mounts")
            == std::string::npos);
    }
};

IBUKI_STORY_ON_BOTH(TestAgeingStory)
#include "tst_ageing_story.moc"
