// SPDX-License-Identifier: GPL-3.0-or-later
// The story of a first evening, through the real widgets: new project, bench from a template, study, nine
// logs brought in, verdict, undo, reopen, export.

#include "app/forms/entity_form.h"
#include "app/frame/command_palette.h"
#include "app/frame/stage_bar.h"
#include "app/frame/strip.h"
#include "app/frame/tape.h"
#include "app/paper/paper_view.h"
#include "app/question/part_sheet.h"
#include "app/question/question_view.h"
#include "app/verdict/ladder.h"
#include "core/domain/run_reduction.h"
#include "core/evidence/evidence.h"
#include "support/places.h"
#include "support/story_window.h"
#include "support/test_class.h"

#include <QDropEvent>
#include <QLabel>
#include <QListWidget>
#include <QMimeData>
#include <QPointer>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QtTest>
#include <atomic>
#include <fstream>
#include <thread>

using namespace ibuki;

class TestStory : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    std::unique_ptr<MainWindow> window_;

    QString path(const QString& name) const { return folder_.filePath(name); }
    Session& session() { return window_->session(); }
    const Document& document() { return session().document(); }

    QString notice() { return story::notice(*window_); }

private slots:
    void initTestCase() { window_ = story::emptyWindow("story"); }
    void cleanupTestCase() { window_.reset(); }

    void aNewProjectAsksForABench() {
        QVERIFY(session().createProject(path("evening.ibuki")));
        window_->showStage(Stage::question);
        QVERIFY(story::trigger(*window_, "Describe a bench…"));
        auto* sheet = story::sheet<NewBenchDialog>();
        QVERIFY(sheet);
        QTest::mouseClick(sheet->findChild<QPushButton*>("accept"), Qt::LeftButton); // without a name
        QVERIFY(notice().contains("needs a name"));
        story::type(sheet->findChild<QLineEdit*>("Name of the bench"), "node-2");
        QTest::keyClick(sheet->findChild<QLineEdit*>("Name of the bench"), Qt::Key_Return);
        QTRY_VERIFY(session().bench());
        QCOMPARE(session().bench()->name, std::string("node-2"));
        QCOMPARE(notice(), QString()); // the refusal is over
    }
    void theStripOpensALayerByKeyboard() {
        auto* strip = window_->findChild<Strip*>();
        strip->setFocus();
        QTest::keyClick(strip, Qt::Key_Home);
        for (int i = 0; i < 2; ++i) QTest::keyClick(strip, Qt::Key_Right);
        QTest::keyClick(strip, Qt::Key_Return);
        auto* sheet = story::sheet<LayerSheet>();
        QVERIFY(sheet);
        auto* width = sheet->findChild<QLineEdit*>("Width, mm");
        story::type(width, "34");
        QTest::keyClick(width, Qt::Key_Tab);
        const auto layers = layersOf(document(), session().configuration()->id);
        QCOMPARE(layers[2]->width->value, 34.0);
        story::type(width, "wide");
        QTest::keyClick(width, Qt::Key_Tab);
        QVERIFY(notice().contains("is no number"));
        QVERIFY(width->property("wrong").toBool());
        QCOMPARE(layersOf(document(), session().configuration()->id)[2]->width->value, 34.0);
        sheet->close();
    }
    void aStudyIsAsked() {
        QVERIFY(story::trigger(*window_, "New study…"));
        auto* sheet = story::sheet<NewStudyDialog>();
        QVERIFY(sheet);
        story::type(sheet->findChild<QLineEdit*>("Name of the study"), "Three pastes");
        for (const auto& [name, resistance] : story::materials) {
            story::type(sheet->findChild<QLineEdit*>("Name of a new material"), QString::fromStdString(name));
            QTest::mouseClick(sheet->findChild<QPushButton*>("Add material"), Qt::LeftButton);
        }
        QTest::mouseClick(sheet->findChild<QPushButton*>("accept"), Qt::LeftButton);
        QTRY_VERIFY(session().study());
        QCOMPARE(levelsOf(document(), session().question()->id).size(), std::size_t{3});
        QCOMPARE(document().find(session().question()->site)->kind, SiteKind::lidPlate);
    }
    void nineLogsAreDropped() {
        QMimeData data;
        QList<QUrl> urls;
        for (const QString& file : story::nineLogFiles(folder_.path())) urls << QUrl::fromLocalFile(file);
        data.setUrls(urls);
        QDragEnterEvent enter(QPoint(400, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(window_.get(), &enter);
        QDropEvent drop(QPointF(400, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(window_.get(), &drop);
        auto* table = story::sheet<ImportDialog>();
        QVERIFY(table);
        QCOMPARE(table->rows().size(), std::size_t{9});
        QCOMPARE(table->findChild<QTableWidget*>("Logs to bring in")->rowCount(), 9);
        QTest::mouseClick(table->findChild<QPushButton*>("accept"), Qt::LeftButton);
        QTRY_COMPARE(document().all<Mount>().size(), std::size_t{9});
        QCOMPARE(document().all<Recording>().size(), std::size_t{9});
    }
    void theVerdictIsThere() {
        window_->showStage(Stage::verdict);
        const Evidence evidence = gatherEvidence(document(), *session().question());
        QVERIFY(evidence.comparison.has_value());
        auto* ladder = window_->findChild<Ladder*>();
        QVERIFY(ladder->accessibleDescription().startsWith("Tern 11"));
        bool reported = false;
        for (QListWidget* list : window_->findChildren<QListWidget*>())
            if (list->accessibleName() == "Verdict in sentences")
                reported = list->item(0)->text().contains("Tern 11 ran");
        QVERIFY(reported);
        // A mark leads to its mount, by keyboard.
        ladder->setFocus();
        QTest::keyClick(ladder, Qt::Key_Down);
        QTest::keyClick(ladder, Qt::Key_Return);
        QVERIFY(session().mount());
        QVERIFY(session().mount()->name.starts_with("Plover 4"));
    }
    void oneUndoTakesTheWholeImportBack() {
        QVERIFY(story::trigger(*window_, "Undo Bring in 9 logs"));
        QCOMPARE(document().all<Mount>().size(), std::size_t{0});
        QCOMPARE(document().all<Recording>().size(), std::size_t{9}); // kept, withdrawn
        QVERIFY(story::trigger(*window_, "Redo Bring in 9 logs"));
        QCOMPARE(document().all<Mount>().size(), std::size_t{9});
        QVERIFY(story::traceOf(session(), document().all<Recording>().begin()->first).timeS.size() > 1);
    }
    void theTapeSelectsByKeyboard() {
        auto* tape = window_->findChild<Tape*>();
        QCOMPARE(tape->tiles().size(), std::size_t{9});
        tape->setFocus();
        QTest::keyClick(tape, Qt::Key_Home);
        QTest::keyClick(tape, Qt::Key_Right);
        QTest::keyClick(tape, Qt::Key_Return);
        QCOMPARE(session().selection().mount, tape->tiles()[1].mount);
    }
    void aSettingOfTheQuestionIsOneUndo() {
        window_->showStage(Stage::question);
        PartSheet sheet(session(), AskedPart::margin, window_.get());
        sheet.show();
        auto* margin = sheet.findChild<QLineEdit*>("Difference that matters");
        QVERIFY(margin);
        story::type(margin, "0,5");
        QTest::keyClick(margin, Qt::Key_Return);
        QCOMPARE(session().question()->margin.value, 0.5);
        story::type(margin, "0");
        QTest::keyClick(margin, Qt::Key_Return);
        QVERIFY(notice().contains("above 0"));
        QCOMPARE(session().question()->margin.value, 0.5);
        session().undoStack().undo();
        QCOMPARE(session().question()->margin.value, 1.0);
    }
    void theShelfIsEdited() {
        window_->showStage(Stage::shelf);
        QTest::mouseClick(window_->findChild<QPushButton*>("Add material to the shelf"), Qt::LeftButton);
        QCOMPARE(document().all<Material>().size(), std::size_t{4});
        auto* name = window_->findChild<QLineEdit*>("Material");
        story::type(name, "Quickfin");
        QTest::keyClick(name, Qt::Key_Return);
        QTRY_COMPARE(document().find(*session().selection().material)->name, std::string("Quickfin"));
        session().undoStack().undo();
        session().undoStack().undo();
        QCOMPARE(document().all<Material>().size(), std::size_t{3});
    }
    void badFilesAreNamedAndNothingChanges() {
        const auto before = document().all<Mount>();
        window_->showStage(Stage::bench);
        window_->benchView().bringIn(
            {QString(places::testData) + "/logs/prose.txt", QString(places::testData) + "/logs/empty.csv"});
        QTRY_VERIFY(notice().contains("prose.txt"));
        QCOMPARE(document().all<Mount>(), before);
        QVERIFY(!session().openProject(QString(places::testData) + "/logs/prose.txt"));
        QVERIFY(notice().contains("not an Ibuki project"));
        QCOMPARE(document().all<Mount>(), before);
    }
    void everythingIsThereAfterReopening() {
        const QString file = session().path();
        const auto mounts = document().all<Mount>();
        const auto reductions = document().all<RunReduction>();
        session().closeProject();
        QVERIFY(!session().isOpen());
        QVERIFY(session().openProject(file));
        QCOMPARE(document().all<Mount>(), mounts);
        QCOMPARE(document().all<RunReduction>(), reductions);
        QVERIFY(session().study());
    }
    void tableReportAndCopyAreWritten() {
        window_->showStage(Stage::paper);
        for (const char* name : {"study.csv", "study.html", "study.json", "study.pdf"}) {
            QVERIFY(window_->paperView().exportTo(path(name)));
            QVERIFY2(QFileInfo(path(name)).size() > 500, name);
        }
        QFile pdf(path("study.pdf"));
        QVERIFY(pdf.open(QIODevice::ReadOnly));
        QVERIFY(pdf.read(5) == "%PDF-");
        QVERIFY(session().saveCopy(path("copy.ibuki")));
        QVERIFY(!window_->paperView().exportTo("/nowhere/study.csv"));
        QVERIFY(notice().contains("/nowhere/study.csv"));
    }
    void stagesAndPaletteByKeyboard() {
        auto* stages = window_->findChild<StageBar*>();
        stages->setFocus();
        for (int i = 0; i < 7; ++i) QTest::keyClick(stages, Qt::Key_Up);
        QTest::keyClick(stages, Qt::Key_Return);
        QCOMPARE(window_->stage(), Stage::question);
        QVERIFY(story::trigger(*window_, "Find or do…"));
        auto* palette = story::sheet<CommandPalette>();
        QVERIFY(palette);
        story::type(palette->findChild<QLineEdit*>(), "verdict");
        QTest::keyClick(palette->findChild<QLineEdit*>(), Qt::Key_Return);
        QTRY_COMPARE(window_->stage(), Stage::verdict);
    }
    void everyFieldHasAnAccessibleName() {
        for (Stage stage : {Stage::question, Stage::shelf, Stage::bench, Stage::verdict, Stage::paper}) {
            window_->showStage(stage);
            for (QWidget* widget : window_->findChildren<QWidget*>()) {
                if (!widget->isVisible() || widget->focusPolicy() == Qt::NoFocus) continue;
                const bool field = qobject_cast<QLineEdit*>(widget) || qobject_cast<QComboBox*>(widget)
                                   || qobject_cast<QAbstractItemView*>(widget)
                                   || qobject_cast<QPlainTextEdit*>(widget);
                const bool inner = qobject_cast<QComboBox*>(widget->parentWidget()) != nullptr;
                if (field && !inner)
                    QVERIFY2(!widget->accessibleName().isEmpty(), widget->metaObject()->className());
            }
        }
    }
    void theLookChangesAroundTheViewsThatAreThere() {
        const QPointer<QWidget> bench(&window_->benchView());
        const QPointer<QWidget> question(&window_->questionView());
        auto* label = bench->findChild<QLabel*>("Steady difference");
        QVERIFY(label);
        const double before = label->font().pointSizeF();
        bool kept = false;
        std::atomic<bool> release = false;
        session().jobs().queue(
            "keep",
            [&release](const std::stop_token&, const Progress&) {
                while (!release) std::this_thread::yield();
            },
            [&kept] { kept = true; }, [](const InputError&) {});
        window_->setLook(Shade::dark, 1.5);
        QVERIFY(bench && question && &window_->benchView() == bench);
        QCOMPARE(label->font().pointSizeF(), 1.5 * before);
        release = true;
        QTRY_VERIFY(kept); // what was under way goes on
        window_->setLook(Shade::light, 1.0);
        QCOMPARE(label->font().pointSizeF(), before);
    }
    void nothingIsClippedAtLargeTextInEitherShade() {
        for (Shade shade : {Shade::dark, Shade::light})
            for (double scale : {1.5, 1.0}) {
                window_->setLook(shade, scale);
                window_->resize(1280, 800);
                for (Stage stage :
                     {Stage::question, Stage::shelf, Stage::bench, Stage::verdict, Stage::paper}) {
                    window_->showStage(stage);
                    QTest::qWait(30);
                    QVERIFY(window_->width() <= 1280 && window_->height() <= 800);
                    for (QPushButton* button : window_->findChildren<QPushButton*>())
                        if (button->isVisible())
                            QVERIFY2(button->width() >= button->minimumSizeHint().width() - 1,
                                     qPrintable(button->text()));
                }
            }
    }
    void theDemoOpens() {
        QVERIFY(window_->openDemo(path("demo.ibuki")));
        QVERIFY(document().all<Mount>().size() >= 20);
        QVERIFY(document().all<Material>().size() >= 5);
        const Evidence evidence = gatherEvidence(document(), *session().question());
        QVERIFY(evidence.comparison.has_value());
        QVERIFY(evidence.excludedMounts >= 1);
        QVERIFY(hasFlag(evidence.comparison->flags, "limit-bound"));
    }
};

IBUKI_TEST(TestStory)
#include "tst_story.moc"
