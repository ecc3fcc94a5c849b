// SPDX-License-Identifier: GPL-3.0-or-later
// From logs to figures, through the real widgets, on the demo project and on a new one: how a log was read
// and putting that right, a room probe with its own clock, borders moved by mouse and keys, the asymptote,
// the uncertainty budget, other rules tried on the whole study.

#include "app/import/import_table.h"
#include "app/run/budget_sheet.h"
#include "app/run/rules_sheet.h"
#include "app/run/trace_plot.h"
#include "core/domain/plan.h"
#include "core/domain/run_reduction.h"
#include "core/evidence/response.h"
#include "support/places.h"
#include "support/story_window.h"
#include "support/test_class.h"

#include <QCheckBox>
#include <QClipboard>
#include <QListWidget>
#include <QTableWidget>
#include <QTemporaryDir>

using namespace ibuki;

class TestReadingStory : public QObject {
    Q_OBJECT

    const story::Where where_;
    QTemporaryDir folder_;
    std::unique_ptr<MainWindow> window_;
    std::size_t mounts_ = 0; ///< when the story begins

    Session& session() { return window_->session(); }
    const Document& document() { return session().document(); }
    template <class W> W* find(const char* name) { return story::visible<W>(*window_, name); }
    QString path(const char* name) { return folder_.filePath(name); }
    std::size_t mountsOfStudy() {
        const auto slots_ = slotsOf(document(), session().study()->id);
        return static_cast<std::size_t>(std::count_if(
            slots_.begin(), slots_.end(), [](const Slot* slot) { return slot->mount.has_value(); }));
    }
    TracePlot* plot() { return window_->benchView().findChild<TracePlot*>(); }
    const Run& run() { return *runsOf(document(), session().mount()->id).front(); }
    const LoadReduction& load() { return *reductionOf(document(), run().id)->main(); }
    void write(const char* name, const std::string& text) { std::ofstream(path(name).toStdString()) << text; }
    ImportDialog* bringIn(const QStringList& files) {
        window_->benchView().bringIn(files);
        return story::sheet<ImportDialog>();
    }

public:
    explicit TestReadingStory(story::Where where) : where_(where) {}

private slots:
    void initTestCase() {
        window_ = story::windowOn(where_, "reading-story", folder_.filePath("reading.ibuki"));
        QVERIFY(window_);
        if (where_ == story::Where::fresh) {
            QVERIFY(story::beginStudy(*window_, "rank materials", "Three pastes",
                                      {"Tern 11", "Plover 4", "Dunlin C"}));
            QVERIFY(story::bringIn(*window_, story::nineLogFiles(folder_.path())));
        }
        mounts_ = document().all<Mount>().size();
        QVERIFY(mounts_ >= 9);
        window_->showStage(Stage::bench);
        for (const auto& [id, mount] : document().all<Mount>())
            if (mount.name == "Tern 11 2") session().selectMount(id);
        QTRY_VERIFY(session().mount() && plot());
    }
    void cleanupTestCase() { window_.reset(); }

    void keysMoveABorder() {
        const Phase before = *load().window;
        plot()->setFocus();
        QTRY_VERIFY(plot()->accessibleDescription().contains("start of the window"));
        QTest::keyClick(plot(), Qt::Key_Right, Qt::ShiftModifier);
        QTRY_VERIFY(run().windowStartS.has_value()); // once the keys rest
        QVERIFY(std::abs(*run().windowStartS - before.startS - 60) < 1);
        QTRY_VERIFY(load().foundWindow.has_value());
        QCOMPARE(load().foundWindow->startS, before.startS); // what was found stays on record
        QVERIFY(load().window->startS > before.startS + 50);
        QVERIFY(hasFlag(load().flags, "set-by-hand"));
        QTRY_VERIFY(plot()->accessibleDescription().contains("by hand"));
        session().undoStack().undo();
        QVERIFY(!run().windowStartS);
        QCOMPARE(*load().window, before);
    }
    void aRefreshTakesNothingOutOfTheHand() {
        QTest::qWait(60); // the view follows the last undo
        const double before = load().window->startS;
        plot()->setFocus();
        QTest::keyClick(plot(), Qt::Key_Right, Qt::ShiftModifier);
        window_->benchView().refresh(); // another change of the project, while the keys still rest
        QTRY_VERIFY(run().windowStartS.has_value());
        QVERIFY(std::abs(*run().windowStartS - before - 60) < 1);
        QTRY_VERIFY(load().foundWindow.has_value());
        session().undoStack().undo();
    }
    void theMouseMovesABorder() {
        QWidget* canvas = nullptr;
        for (QWidget* child : plot()->findChildren<QWidget*>())
            if (child->inherits("QCustomPlot")) canvas = child;
        QVERIFY(canvas);
        QTRY_VERIFY(plot()->isVisible());
        std::optional<int> border; // from the right: the end of the load or of its window
        for (int x = canvas->width() - 60; x > 60 && !border; --x) {
            QTest::mouseMove(canvas, QPoint(x, canvas->height() / 2));
            QMouseEvent move(QEvent::MouseMove, QPointF(x, canvas->height() / 2),
                             canvas->mapToGlobal(QPointF(x, canvas->height() / 2)), Qt::NoButton,
                             Qt::NoButton, Qt::NoModifier);
            QApplication::sendEvent(canvas, &move);
            if (canvas->cursor().shape() == Qt::SplitHCursor) border = x;
        }
        QVERIFY(border);
        const QPoint from(*border - 2, canvas->height() / 2);
        const QPoint to = from - QPoint(40, 0);
        QTest::mousePress(canvas, Qt::LeftButton, {}, from);
        QMouseEvent drag(QEvent::MouseMove, QPointF(to), canvas->mapToGlobal(QPointF(to)), Qt::LeftButton,
                         Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(canvas, &drag);
        QTest::mouseRelease(canvas, Qt::LeftButton, {}, to);
        QTRY_VERIFY(run().loadEndS || run().windowEndS);
        QTRY_VERIFY(hasFlag(load().flags, "set-by-hand"));
        QVERIFY(story::press(*window_, "As found"));
        QTRY_VERIFY(!run().loadEndS && !run().windowEndS);
        QTRY_VERIFY(!hasFlag(load().flags, "set-by-hand"));
        session().undoStack().undo();
        session().undoStack().undo();
    }
    void theAsymptoteCountsWhenTheUserSaysSo() {
        auto* box = find<QCheckBox>("Count where its tail leads");
        QVERIFY(box);
        const Id<Mount> typical = session().mount()->id;
        for (const auto& [id, stored] : document().all<RunReduction>())
            if (stored.reduction->main() && stored.reduction->main()->steady.asymptoteK)
                session().selectMount(document().find(stored.run)->mount);
        QVERIFY(load().steady.asymptoteK.has_value());
        QTest::qWait(60); // the view follows once the event is over
        QTRY_VERIFY(box->isEnabled());
        const double mean = *responseOf(load(), *session().question());
        QTest::mouseClick(box, Qt::LeftButton, {}, QPoint(8, box->height() / 2));
        QTRY_VERIFY(run().useAsymptote && load().extrapolated);
        QVERIFY(hasFlag(load().flags, "extrapolated"));
        QCOMPARE(*responseOf(load(), *session().question()), *load().steady.asymptoteK);
        session().undoStack().undo();
        QCOMPARE(*responseOf(load(), *session().question()), mean);
        session().selectMount(typical);
    }
    void theUncertaintyIsATable() {
        QVERIFY(story::press(*window_, "Uncertainty…"));
        auto* sheet = story::sheet<BudgetSheet>();
        QVERIFY(sheet);
        QVERIFY(sheet->findChild<QLabel*>("Budget head")->text().contains("±"));
        auto* table = sheet->findChild<QTableWidget*>("Uncertainty budget");
        // On a new project nothing is stated of the sensors yet, and that is said.
        QVERIFY(table->rowCount() >= (where_ == story::Where::demo ? 3 : 1));
        const auto labels = sheet->findChildren<QLabel*>();
        const bool missing = std::any_of(labels.begin(), labels.end(), [](const QLabel* label) {
            return label->text().contains("Not stated, so not counted");
        });
        QCOMPARE(missing, where_ == story::Where::fresh);
        QCOMPARE(table->item(0, 0)->text(), QString("re-mounting"));
        QVERIFY(story::press(*sheet, "Copy"));
        QVERIFY(QApplication::clipboard()->text().contains("re-mounting\t"));
        sheet->close();
    }
    void rulesAreTriedBeforeTheyAreTaken() {
        QVERIFY(story::press(*window_, "Rules…"));
        auto* sheet = story::sheet<RulesSheet>();
        QVERIFY(sheet);
        auto* most = sheet->findChild<QLineEdit*>("Window at most, s");
        story::type(most, "a while");
        QVERIFY(story::press(*sheet, "Try on all runs"));
        QVERIFY(sheet->findChild<QLabel*>("Rules words")->text().contains("is no number"));
        story::type(most, "200");
        QVERIFY(story::press(*sheet, "Try on all runs"));
        auto* list = sheet->findChild<QTableWidget*>("Before and after");
        QTRY_VERIFY_WITH_TIMEOUT(list->rowCount() >= static_cast<int>(mountsOfStudy()), 20'000);
        QVERIFY(document().all<ReductionRules>().empty()); // nothing is changed yet
        const double before = load().window->endS - load().window->startS;
        QVERIFY(before > 250);
        QVERIFY(story::press(*sheet, "Take over"));
        QCOMPARE(document().all<ReductionRules>().size(), std::size_t{1});
        QVERIFY(load().window->endS - load().window->startS <= 201);
        for (const auto& [id, stored] : document().all<RunReduction>())
            if (stored.run == run().id) QCOMPARE(stored.settings.windowMaxS, 200.0);
        sheet->close();
        session().undoStack().undo();
        QVERIFY(document().all<ReductionRules>().empty());
        QCOMPARE(load().window->endS - load().window->startS, before);
    }
    void aLogIsReadAnewAsTheUserSays() {
        std::string text = logText(story::trace("Tern 11", 1));
        const auto end = text.find(" [°C]", text.find("Package"));
        const auto at = text.find(',', end) + 1;                   // the room stands behind the package
        text.replace(at, text.find(" [°C]", at) - at, "Sensor 3"); // nobody can know
        text += "Average,1\n";
        write("tern-11_7.csv", text);
        ImportDialog* dialog = bringIn({path("tern-11_7.csv")});
        QVERIFY(dialog);
        QVERIFY(dialog->rows()[0].level.has_value());
        auto* columns = dialog->findChild<QTableWidget*>("Columns");
        auto* figures = dialog->findChild<QTableWidget*>("Logs to bring in");
        int row = -1;
        for (int i = 0; i < columns->rowCount(); ++i)
            if (columns->item(i, 0)->text().startsWith("Sensor 3")) row = i;
        QVERIFY(row >= 0);
        QCOMPARE(figures->item(0, 2)->text(), QString("no room"));
        QVERIFY(dialog->findChild<QListWidget*>("Mended lines")->item(0)->text().startsWith("Line "));
        QVERIFY(dialog->findChild<QTableWidget*>("Rows read")->rowCount() > 10);
        auto* is = qobject_cast<QComboBox*>(columns->cellWidget(row, 2));
        for (QComboBox* box :
             dialog->findChildren<QComboBox*>()) // the user's own choice outlives a second reading
            if (box->accessibleName() == "Level of tern-11_7.csv") box->setCurrentText("Plover 4");
        is->setCurrentText("ambient");
        emit is->activated(is->currentIndex());
        QTRY_VERIFY(figures->item(0, 2)->text().contains("K"));
        for (QComboBox* box : dialog->findChildren<QComboBox*>())
            if (box->accessibleName() == "Level of tern-11_7.csv" && box->isVisible())
                QCOMPARE(box->currentText(), QString("Plover 4"));
        auto* separator = dialog->findChild<QComboBox*>("Fields apart by");
        separator->setCurrentText("tab");
        emit separator->activated(separator->currentIndex());
        QTRY_VERIFY(separator->currentIndex() == 0); // refused: what holds is shown again
        QTest::mouseClick(dialog->findChild<QPushButton*>("accept"), Qt::LeftButton);
        QTRY_VERIFY(!document().all<HeaderRole>().empty());
        // The next log of that header is known.
        write("tern-11_8.csv", text + "# another evening\n");
        dialog = bringIn({path("tern-11_8.csv")});
        QVERIFY(dialog);
        QVERIFY(dialog->findChild<QTableWidget*>("Logs to bring in")->item(0, 2)->text().contains("K"));
        dialog->reject();
        session().undoStack().undo();
        QVERIFY(document().all<HeaderRole>().empty());
    }
    void aRoomProbeIsLaidBesideItsLog() {
        const QString logs = QString(places::testData) + "/logs/";
        const auto recordings = document().all<Recording>().size();
        ImportDialog* dialog = bringIn({logs + "probe.csv", logs + "probe-room.csv"});
        QVERIFY(dialog);
        QCOMPARE(dialog->rows()[1].probeOf, std::optional<std::size_t>(0));
        QVERIFY(dialog->findChild<QTableWidget*>("Logs to bring in")->item(0, 2)->text().contains("K"));
        for (QComboBox* box : dialog->findChildren<QComboBox*>())
            if (box->accessibleName() == "Level of probe.csv") box->setCurrentIndex(1);
        QTest::mouseClick(dialog->findChild<QPushButton*>("accept"), Qt::LeftButton);
        QTRY_COMPARE(document().all<Recording>().size(), recordings + 2);
        const Recording* joined = nullptr;
        for (const auto& [id, recording] : document().all<Recording>())
            if (recording.probe) joined = &recording;
        QVERIFY(joined);
        const auto runs = document().where(&Run::recording, joined->id);
        QCOMPARE(runs.size(), std::size_t{1});
        session().selectMount(runs.front()->mount);
        QTRY_VERIFY(find<QPushButton>("Probe's clock…"));
        QCOMPARE(load().ambient.source, AmbientSource::probe);
        QVERIFY(story::press(*window_, "Probe's clock…"));
        QVERIFY(story::answer("soon").contains("no number of seconds"));
        QCOMPARE(story::answer("37"), QString());
        QTRY_COMPARE(load().ambient.probeShiftS, std::optional(37.0));
        session().undoStack().undo();
        QVERIFY(load().ambient.probeShiftS != std::optional(37.0));
        QTest::qWait(150); // the plot shows the probe by its own clock again
        const double found = *load().ambient.probeShiftS;
        plot()->setFocus();
        QTest::keyClick(plot(), Qt::Key_Right, Qt::AltModifier | Qt::ShiftModifier); // on the plot
        QTRY_VERIFY(std::abs(*load().ambient.probeShiftS - found - 30) < 0.1);
        session().undoStack().undo();
        session().undoStack().undo();
        QCOMPARE(document().all<Mount>().size(), mounts_);
    }
    void sixtyLogsStayUsable() {
        const auto nine = story::nineLogs();
        LogBatch batch;
        for (int i = 0; i < 60; ++i) {
            batch.logs.push_back(nine[static_cast<std::size_t>(i) % 9]);
            ImportedLog& log = batch.logs.back();
            log.fileName = (i % 4 == 0 ? "evening-" : "tern-11_") + std::to_string(i) + ".csv";
            log.sha256 = std::to_string(i);
            log.trace.start = Instant{log.trace.start->ms + 86'400'000LL * (i / 6)};
        }
        batch.sources.resize(batch.logs.size());
        ImportDialog dialog(window_->session(), batch, {});
        dialog.show();
        auto* table = dialog.findChild<ImportTable*>();
        auto* sort = dialog.findChild<QComboBox*>("In which order");
        QCOMPARE(sort->currentIndex(), static_cast<int>(ImportSort::byDay));
        QVERIFY(table->rowCount() > 60); // with the headings of the days
        const auto shown = [&] {
            QStringList files;
            for (int visual = 0; visual < table->rowCount(); ++visual) {
                const int row = table->verticalHeader()->logicalIndex(visual);
                if (row < 60 && !table->isRowHidden(row))
                    files << table->item(row, ImportTable::file)->text();
            }
            return files;
        };
        QCOMPARE(shown().size(), 60);
        auto* find = dialog.findChild<QLineEdit*>("Find among the logs");
        story::type(find, "evening");
        QCOMPARE(shown().size(), 15);
        auto* summary = dialog.findChild<QLabel*>("Summary of the logs");
        QVERIFY2(summary->text().startsWith("60 logs, 60 to bring in"), qPrintable(summary->text()));
        // The level of the topmost goes into all that are shown, with names of their own.
        sort->setCurrentIndex(static_cast<int>(ImportSort::byFile));
        table->clearSelection();
        for (int visual = 0; visual < table->rowCount(); ++visual) {
            const int row = table->verticalHeader()->logicalIndex(visual);
            if (row < 60 && !table->isRowHidden(row))
                table->selectionModel()->select(table->model()->index(row, 1),
                                                QItemSelectionModel::Select | QItemSelectionModel::Rows);
        }
        const int top = 0; // evening-0
        auto* level = qobject_cast<QComboBox*>(table->cellWidget(top, ImportTable::level));
        level->setCurrentIndex(2);
        emit level->activated(2);
        level = qobject_cast<QComboBox*>(table->cellWidget(top, ImportTable::level));
        const QString wanted = level->currentText();
        QTest::keyClick(table, Qt::Key_D, Qt::ControlModifier);
        std::set<std::string> names;
        for (std::size_t i = 0; i < 60; i += 4) {
            QCOMPARE(table->lines()[i].level, wanted);
            QVERIFY(dialog.rows()[i].mountName.starts_with(wanted.toStdString()));
            names.insert(dialog.rows()[i].mountName);
        }
        QCOMPARE(names.size(), std::size_t{15});
        QTest::keyClick(table, Qt::Key_Space); // leaves them all
        QVERIFY(summary->text().startsWith("60 logs, 45 to bring in"));
        find->clear();
        dialog.findChild<QCheckBox*>("Only what is to look at")->setChecked(true);
        QVERIFY(shown().size() < 60);
        // A time that is none is shown even where it was filtered out.
        table->item(1, ImportTable::time)->setText("some evening");
        table->setRowHidden(1, true);
        QTest::mouseClick(dialog.findChild<QPushButton*>("accept"), Qt::LeftButton);
        QVERIFY(dialog.isVisible() && !table->isRowHidden(1));
        dialog.reject();
    }
};

IBUKI_STORY_ON_BOTH(TestReadingStory)
#include "tst_reading_story.moc"
