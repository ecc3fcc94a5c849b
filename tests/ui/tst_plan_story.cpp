// SPDX-License-Identifier: GPL-3.0-or-later
// The story of a plan, through the real widgets, on the demo project and on a new one: a question from a kind
// of study, the number of mounts and its chances, the order and what it costs, skipping, adding, extending,
// evenings, the calendar, the card.

#include "app/frame/tape.h"
#include "app/question/board_page.h"
#include "app/question/chance_curve.h"
#include "app/question/evening_board.h"
#include "app/question/later_days.h"
#include "app/question/level_sheet.h"
#include "app/question/part_sheet.h"
#include "app/question/plan_sheet.h"
#include "app/question/protocol_curve.h"
#include "app/question/question_view.h"
#include "app/recording/card_sheet.h"
#include "core/domain/lookup.h"
#include "core/plan/step_times.h"
#include "core/setup/plan_setup.h"
#include "support/story_window.h"
#include "support/test_class.h"

#include <QAction>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QSlider>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QTextBrowser>
#include <QToolButton>
#include <QToolTip>
#include <QtTest>

using namespace ibuki;

class TestPlanStory : public QObject {
    Q_OBJECT

    const story::Where where_;
    QTemporaryDir folder_;
    std::unique_ptr<MainWindow> window_;
    int before_ = 0; ///< steps of undo when the story begins

    Session& session() { return window_->session(); }
    const Document& document() { return session().document(); }
    QuestionView& view() { return window_->questionView(); }
    template <class W> W* find(const char* name) { return story::visible<W>(*window_, name); }
    void press(const char* name) { QVERIFY2(story::press(*window_, name), name); }
    /// Of the sentence; empty while it is being laid anew.
    QString marginPart() {
        auto* part = find<QToolButton>("Part 9");
        return part ? part->text() : QString();
    }
    /// Presses a part of the sentence; the sheet that it opens.
    template <class Sheet> Sheet* opened(const char* part) {
        QToolButton* at = nullptr;
        if (!QTest::qWaitFor([&] { return (at = find<QToolButton>(part)); })) return nullptr;
        at->setFocus();
        QTest::keyClick(at, Qt::Key_Space);
        return story::sheet<Sheet>();
    }
    QString notice() { return story::notice(*window_); }
    std::vector<const Slot*> planned() { return plannedSlots(document(), session().study()->id); }
    EveningBoard* board() { return find<EveningBoard>("Board"); }
    std::size_t bars() { return board()->lines().bars.size(); }
    /// The window shows a change once it is idle.
    bool boardFollows() {
        return QTest::qWaitFor([this] {
            const auto on = planned();
            const auto& bars = board()->lines().bars;
            return std::equal(bars.begin(), bars.end(), on.begin(), on.end(),
                              [](const BoardBar& bar, const Slot* slot) { return bar.slot == slot->id; });
        });
    }
    /// Of the menu More.
    void choose(const char* name) {
        auto* action = view().findChild<QAction*>(name);
        QVERIFY2(action && action->isEnabled(), name);
        action->trigger();
    }

public:
    explicit TestPlanStory(story::Where where) : where_(where) {}

private slots:
    void initTestCase() {
        window_ = story::windowOn(where_, "plan-story", folder_.filePath("plan.ibuki"));
        QVERIFY(window_);
        if (where_ == story::Where::fresh) {
            QVERIFY(story::putOnShelf(*window_, "Plover 4", "Plover 4, tube A"));
            window_->showStage(Stage::question); // another study, for the protocols to differ from
            QVERIFY(story::beginStudy(*window_, "rank materials", "Another", {"Tern 11", "Dunlin C"}));
        }
        before_ = session().undoStack().index();
        window_->showStage(Stage::question);
    }
    void cleanupTestCase() { window_.reset(); }

    void aQuestionBeginsFromAKind() {
        QVERIFY(story::trigger(*window_, "New study…"));
        auto* sheet = story::sheet<NewStudyDialog>();
        QVERIFY(sheet);
        auto* kind = sheet->findChild<QComboBox*>("Kind of study");
        QVERIFY(kind->count() >= 14);
        kind->setCurrentText("which pattern");
        sheet->findChild<QLineEdit*>("Name of the study")->setText("Which pattern for Plover 4?");
        QTest::mouseClick(sheet->findChild<QPushButton*>("accept"), Qt::LeftButton);
        QVERIFY(notice().contains("asks for 1 material")); // none is ticked
        auto* materials = sheet->findChild<QListWidget*>("Materials");
        for (int i = 0; i < materials->count(); ++i)
            if (materials->item(i)->text() == "Plover 4") materials->item(i)->setCheckState(Qt::Checked);
        QTest::mouseClick(sheet->findChild<QPushButton*>("accept"), Qt::LeftButton);
        QTRY_COMPARE(session().study()->name, std::string("Which pattern for Plover 4?"));
        QCOMPARE(session().question()->factor, Factor::pattern);
        QCOMPARE(levelsOf(document(), session().question()->id).size(), std::size_t{5});
    }
    void aPartOfTheSentenceOpensItsSheet() {
        QTRY_VERIFY(find<QWidget>("Sentence")->accessibleDescription().contains("5 patterns"));
        QTRY_VERIFY(marginPart().contains("1.0 K"));
        auto* sheet = opened<PartSheet>("Part 9");
        QVERIFY(sheet);
        auto* field = sheet->findChild<QLineEdit*>("Difference that matters");
        QVERIFY(field);
        field->setText("0.8");
        emit field->editingFinished();
        QCOMPARE(session().question()->margin.value, 0.8);
        QTRY_VERIFY(marginPart().contains("0.8 K"));
        field->setText("0");
        emit field->editingFinished();
        QVERIFY(notice().contains("above 0"));
        session().undoStack().undo();
        QCOMPARE(session().question()->margin.value, 1.0);
        sheet->close();
    }
    void everyPartHasASheet() {
        const std::vector<std::pair<const char*, const char*>> parts{{"Part 2", "Site under study"},
                                                                     {"Part 5", "Judged by"},
                                                                     {"Part 6", "Measured over"},
                                                                     {"Part 10", "Sure, in %"},
                                                                     {"Part 3", "What varies"}};
        for (const auto& [part, field] : parts) {
            auto* sheet = opened<QDialog>(part);
            QVERIFY2(sheet && sheet->findChild<QWidget*>(field), field);
            sheet->close();
            QTRY_VERIFY(!openSheet());
        }
        view().showPage(QuestionView::Page::asked);
        press("More…");
        auto* more = story::sheet<PartSheet>();
        QVERIFY(more);
        auto* goal = more->findChild<QComboBox*>("To show");
        emit goal->activated(1);
        QTRY_VERIFY(find<QWidget>("Sentence")->accessibleDescription().contains("are the same by"));
        session().undoStack().undo();
        QTRY_COMPARE(goal->currentIndex(), 0);
        more->close();
    }
    void theLoadThatCountsIsChosen() {
        auto* sheet = opened<LoadsSheet>("Part 8");
        QVERIFY(sheet);
        auto* box = sheet->findChild<QComboBox*>("Compared under");
        QVERIFY(box && box->count() >= 2);
        QCOMPARE(box->currentIndex(), 0); // that of the most mounts
        box->setFocus();
        QTest::keyClick(box, Qt::Key_Down);
        emit box->activated(box->currentIndex());
        const Id<Load> chosen{box->currentData().toLongLong()};
        QVERIFY(chosen);
        QTRY_COMPARE(session().question()->load, std::optional(chosen));
        QTRY_VERIFY(find<QWidget>("Sentence")->accessibleDescription().contains(box->currentText()));
        session().undoStack().undo();
        QVERIFY(!session().question()->load);
        QTRY_COMPARE(box->currentIndex(), 0);
        sheet->close();
    }
    void moreMountsChangeTheChanceAtOnce() {
        view().showPage(QuestionView::Page::chances);
        auto* slider = find<QSlider>("Mounts of each level");
        auto* live = find<QLabel>("Live figures");
        slider->setValue(3);
        QTRY_VERIFY(live->text().contains("% to see"));
        const QString three = live->text();
        slider->setFocus();
        for (int i = 0; i < 3; ++i) QTest::keyClick(slider, Qt::Key_Right);
        QVERIFY(live->text() != three);
        QCOMPARE(planOf(document(), session().study()->id)->mountsPerLevel, 6);
        auto* curve = find<ChanceCurve>("Chance curves");
        QVERIFY(curve);
        curve->setFocus();
        QTest::keyClick(curve, Qt::Key_Right);
        QVERIFY(curve->accessibleDescription().contains("7 mounts of each"));
        QTest::keyClick(curve, Qt::Key_Return);
        QTRY_COMPARE(planOf(document(), session().study()->id)->mountsPerLevel, 7);
        while (planOf(document(), session().study()->id)->mountsPerLevel != 3) session().undoStack().undo();
        QTRY_COMPARE(live->text(), three);
    }
    void aQuestionWithoutLevelsSaysSo() {
        const std::string before = live();
        Edit edit(document(), "fewer");
        const auto levels = levelsOf(document(), session().question()->id);
        for (std::size_t i = 1; i < levels.size(); ++i) edit.remove(levels[i]->id);
        QVERIFY(session().perform(edit.finish()));
        QTRY_VERIFY(find<QLabel>("Live figures")->text().contains("nothing to be compared with"));
        session().undoStack().undo();
        QTRY_COMPARE(live(), before);
    }
    void aDraftIsMovedAndIsOnTheTapeByThat() {
        view().showPage(QuestionView::Page::board);
        QTRY_COMPARE(bars(), std::size_t{15});
        QVERIFY(planned().empty());
        const QString first = board()->lines().bars[0].title.section("  ", 1).section(',', 0, 0);
        board()->setFocus();
        board()->chooseBar(0);
        QTest::keyClick(board(), Qt::Key_Right, Qt::AltModifier);
        QTRY_COMPARE(planned().size(), std::size_t{15});
        QTRY_VERIFY(board()->lines().bars[1].slot);
        QCOMPARE(board()->chosenBar(), std::optional<std::size_t>(1));
        QVERIFY(board()->lines().bars[1].title.contains(first));
        session().undoStack().undo(); // one step
        QVERIFY(planned().empty());
    }
    void theOrderGoesOnTheTape() {
        QTRY_COMPARE(bars(), std::size_t{15});
        press("Put on the tape");
        QTRY_COMPARE(planned().size(), std::size_t{15});
        QTRY_VERIFY(board()->lines().bars[0].slot);
        QVERIFY(board()->lines().bars[0].title.contains("block 1"));
        auto* tape = window_->findChild<Tape*>();
        const auto next = std::count_if(tape->tiles().begin(), tape->tiles().end(),
                                        [](const TapeTile& tile) { return tile.state == TileState::next; });
        QCOMPARE(next, std::ptrdiff_t{1});
    }
    void rearrangingTellsWhatItCosts() {
        auto* costs = find<QLabel>("Order costs");
        const QString before = costs->text();
        // All mounts of the last level to the front.
        const auto last = planned().back()->level;
        for (int moved = 0; moved < 3; ++moved) {
            const auto mounts = planned();
            const auto found = std::find_if(mounts.rbegin(), mounts.rend() - moved,
                                            [&](const Slot* slot) { return slot->level == last; });
            const Id<Slot> id = (*found)->id;
            QVERIFY(boardFollows());
            board()->chooseSlot(id);
            press("Do it next");
            QCOMPARE(planned().front()->id, id);
        }
        QTRY_VERIFY(costs->text() != before);
        QVERIFY2(costs->text().contains("stand in one row"), qPrintable(costs->text()));
        QVERIFY(costs->text().contains("a bench that drifts"));
        for (int i = 0; i < 3; ++i) session().undoStack().undo();
        QTRY_COMPARE(costs->text(), before);
    }
    void keysWalkAndMoveMounts() {
        QVERIFY(boardFollows());
        board()->setFocus();
        QTest::keyClick(board(), Qt::Key_Home);
        QCOMPARE(board()->chosenBar(), std::optional<std::size_t>(0));
        const Id<Slot> first = planned().front()->id;
        QVERIFY(board()->accessibleDescription().contains("min"));
        QTest::keyClick(board(), Qt::Key_Right, Qt::AltModifier);
        QCOMPARE(planned()[1]->id, first);
        QVERIFY(boardFollows());
        QCOMPARE(board()->chosenSlot(), std::optional(first)); // the choice goes with the mount
        QTest::keyClick(board(), Qt::Key_Right, Qt::AltModifier);
        QCOMPARE(planned()[2]->id, first);
        QVERIFY(boardFollows());
        QTest::keyClick(board(), Qt::Key_Home, Qt::AltModifier);
        QCOMPARE(planned()[0]->id, first);
        for (int i = 0; i < 3; ++i) session().undoStack().undo();
        QVERIFY(boardFollows());
        QTest::keyClick(board(), Qt::Key_Right);
        auto* chosen = find<QLabel>("Chosen mount");
        QVERIFY2(chosen->text().contains("the bench runs by itself. Meanwhile: "),
                 qPrintable(chosen->text()));
        QTest::keyClick(board(), Qt::Key_Plus);
        QTest::keyClick(board(), Qt::Key_Minus);
    }
    void aBarIsDragged() {
        const auto before = planned();
        const Id<Slot> first = before.front()->id;
        auto* costs = find<QLabel>("Order costs");
        QVERIFY(boardFollows());
        const QString typical = costs->text();
        board()->chooseBar(0);
        const auto middle = [&](std::size_t bar) {
            for (int x = 0; x < board()->width(); x += 3)
                for (int y = 0; y < board()->height(); y += 3) {
                    QHelpEvent help(QEvent::ToolTip, {x, y}, board()->mapToGlobal(QPoint(x, y)));
                    QApplication::sendEvent(board(), &help);
                    if (QToolTip::text().startsWith(board()->lines().bars[bar].title))
                        return QPoint(x + 6, y + 3);
                }
            return QPoint();
        };
        const QPoint from = middle(0);
        const QPoint to = middle(2) + QPoint(90, 0);
        QVERIFY(!from.isNull());
        QTest::mousePress(board(), Qt::LeftButton, {}, from);
        QTest::mouseMove(board(), from + QPoint(40, 0));
        QTest::mouseMove(board(), to);
        const QString previewed = costs->text();
        QTest::mouseRelease(board(), Qt::LeftButton, {}, to);
        QVERIFY(planned().front()->id != first);
        QVERIFY(boardFollows());
        QCOMPARE(costs->text(), previewed); // it costs what was told while it was held
        QVERIFY(costs->text() != typical);
        session().undoStack().undo();
        QTRY_COMPARE(planned().front()->id, first);
    }
    void skippingAsksForAReason() {
        const auto first = planned().front()->plannedFor;
        QVERIFY(boardFollows());
        board()->chooseBar(0);
        press("Skip…");
        QVERIFY(story::answer("").contains("with a reason only")); // told in the sheet, which stays
        QCOMPARE(story::answer("the tube is empty"), QString());
        QTRY_COMPARE(planned().size(), std::size_t{14});
        QTRY_COMPARE(board()->lines().past.size(), std::size_t{1});
        QCOMPARE(board()->lines().past[0].detail, QString("skipped: the tube is empty"));
        QCOMPARE(planned().front()->plannedFor, first); // what comes behind it moves up
        board()->chooseSlot(board()->lines().past[0].slot);
        QTRY_VERIFY(find<QPushButton>("Skip…")->text() == "Take up again");
        press("Skip…");
        QTRY_COMPARE(planned().size(), std::size_t{15});
        QCOMPARE(planned().front()->plannedFor, first);
        QVERIFY(planned()[1]->plannedFor > first);
    }
    void aStudyIsExtendedAndStopped() {
        choose("Extend…");
        QCOMPARE(story::answer("2"), QString());
        QTRY_COMPARE(planned().size(), std::size_t{25});
        session().undoStack().undo();
        QTRY_COMPARE(planned().size(), std::size_t{15});
        choose("Stop early…");
        QCOMPARE(story::answer("the voyage begins"), QString());
        QTRY_VERIFY(planned().empty());
        QCOMPARE(session().study()->state, StudyState::closed);
        QTRY_VERIFY(!board()->lines().past.empty());
        QCOMPARE(board()->lines().past[0].detail, QString("skipped: the voyage begins"));
        board()->chooseSlot(board()->lines().past[0].slot);
        press("Skip…"); // one of them is taken up again: the study goes on
        QTRY_COMPARE(planned().size(), std::size_t{1});
        QCOMPARE(session().study()->state, StudyState::planned);
        session().undoStack().undo();
        session().undoStack().undo();
        QTRY_COMPARE(planned().size(), std::size_t{15});
    }
    void eveningsFollowTheHours() {
        const auto evenings = [this] { return board()->lines().evenings.size(); };
        QTRY_VERIFY(evenings() > 2);
        const std::size_t before = evenings();
        press("Times and checks…");
        auto* sheet = view().findChild<PlanSheet*>();
        QVERIFY(sheet);
        auto* hours = sheet->findChild<QLineEdit*>("Hours an evening");
        const auto last = planned().back()->plannedFor;
        hours->setText("8");
        emit hours->editingFinished();
        QTRY_VERIFY(evenings() < before);
        QVERIFY(planned().back()->plannedFor < last); // the tape and the calendar follow
        auto* days = sheet->findChild<QLineEdit*>("Days");
        days->setFocus();
        days->setText("Someday");
        emit days->editingFinished();
        QVERIFY2(notice().contains("no day of the week"), qPrintable(notice()));
        session().undoStack().undo(); // nothing was stored for it
        QTRY_COMPARE(evenings(), before);
        auto* times = sheet->findChild<QTableWidget*>("Minutes of hands");
        times->item(0, 1)->setText("45");
        QTRY_COMPARE(document().all<StepTime>().size(), std::size_t{1});
        session().undoStack().undo();
        sheet->close();
    }
    void anEveningThatWentByOtherwiseIsDatedAnew() {
        auto* anew = view().findChild<QAction*>("Date the tape anew");
        QVERIFY(anew && !anew->isEnabled());
        Edit edit(document(), "an evening went by");
        Slot moved = *planned().front();
        const auto due = moved.plannedFor;
        moved.plannedFor = Instant{due->ms - 86'400'000};
        edit.put(moved);
        QVERIFY(session().perform(edit.finish()));
        QTRY_VERIFY(anew->isEnabled());
        choose("Date the tape anew");
        QTRY_COMPARE(planned().front()->plannedFor, due);
        QTRY_VERIFY(!anew->isEnabled());
        session().undoStack().undo();
        session().undoStack().undo();
    }
    void theCalendarIsWritten() {
        press("Times and checks…");
        auto* sheet = view().findChild<PlanSheet*>();
        auto* later = sheet->findChild<QLineEdit*>("Come back after");
        later->setText("24 h, 6 mo");
        emit later->editingFinished();
        sheet->close();
        choose("Plan follow-ups");
        QTRY_COMPARE(document().all<FollowUp>().size() >= 30, true);
        QTRY_VERIFY(find<LaterDays>("Days to come back"));
        auto* days = find<LaterDays>("Days to come back");
        days->setFocus();
        QTest::keyClick(days, Qt::Key_End);
        QVERIFY(days->accessibleDescription().contains("after 6 mo"));
        const QString path = folder_.filePath("plan.ics");
        QVERIFY(view().board().exportCalendar(path));
        QFile file(path);
        QVERIFY(file.open(QIODevice::ReadOnly));
        const QByteArray text = file.readAll();
        QVERIFY(text.startsWith("BEGIN:VCALENDAR"));
        QVERIFY(text.count("BEGIN:VEVENT") > 30);
        QVERIFY(!view().board().exportCalendar("/nowhere/plan.ics"));
        QVERIFY(notice().contains("/nowhere/plan.ics"));
        bool dated = false;
        for (const TapeTile& tile : window_->findChild<Tape*>()->tiles()) dated = dated || tile.followUp;
        QVERIFY(dated);
        session().undoStack().undo();
        session().undoStack().undo();
    }
    void aProtocolBeginsFromAPreset() {
        view().showPage(QuestionView::Page::protocol);
        auto* steps = find<QTableWidget>("Steps");
        const auto second = planned()[1]->plannedFor;
        QTRY_COMPARE(steps->rowCount(), 5);
        steps->item(2, 2)->setText("30");
        QTRY_COMPARE(document().where(&ProtocolStep::study, session().study()->id).size(), std::size_t{5});
        QVERIFY(planned()[1]->plannedFor > second); // a longer soak: the next mount begins later
        QTRY_VERIFY(find<QLabel>("Difference")->text().contains("30 min"));
        steps->item(2, 2)->setText("long");
        QVERIFY(notice().contains("no number"));
        session().undoStack().undo();
        QTRY_VERIFY(document().where(&ProtocolStep::study, session().study()->id).empty());
    }
    void theCurveIsMovedByKeysAndByHand() {
        view().showPage(QuestionView::Page::protocol);
        auto* curve = find<ProtocolCurve>("Protocol curve");
        auto* forecast = find<QLabel>("Forecast of the step");
        const auto soak = [this] { return protocolOf(document(), session().study()->id)[2]; };
        const auto chooseSoak = [&] {
            curve->setFocus();
            QTest::keyClick(curve, Qt::Key_Home);
            QTest::keyClick(curve, Qt::Key_Right);
            QTest::keyClick(curve, Qt::Key_Right);
        };
        QTRY_COMPARE(curve->drawing().protocol.at(2).minutes, 20.0);
        chooseSoak();
        QVERIFY2(forecast->text().startsWith("soak"), qPrintable(forecast->text()));
        QVERIFY(forecast->text().contains("predicted remaining rise"));
        QCOMPARE(find<QTableWidget>("Steps")->currentRow(), 2); // the table follows
        QTest::keyClick(curve, Qt::Key_Right, Qt::AltModifier);
        QCOMPARE(soak().minutes, 21.0);
        QTest::keyClick(curve, Qt::Key_Left, Qt::AltModifier | Qt::ShiftModifier);
        QCOMPARE(soak().minutes, 16.0);
        QTest::keyClick(curve, Qt::Key_Up, Qt::AltModifier);
        QCOMPARE(soak().gateValue, 0.25);
        for (int i = 0; i < 3; ++i) session().undoStack().undo();
        QCOMPARE(soak().minutes, 20.0);
        QTRY_COMPARE(curve->drawing().protocol[2].minutes, 20.0);
        const int undone = session().undoStack().index();
        const QPoint handle = curve->handleOf(2).toPoint() + QPoint(0, 4);
        QTest::mousePress(curve, Qt::LeftButton, {}, handle);
        QTest::mouseMove(curve, handle + QPoint(60, 0));
        QVERIFY(curve->drawing().protocol[2].minutes > 20); // drawn, not stored
        QCOMPARE(session().undoStack().index(), undone);
        QTest::mouseRelease(curve, Qt::LeftButton, {}, handle + QPoint(60, 0));
        QVERIFY(soak().minutes > 20);
        session().undoStack().undo();
        QTRY_COMPARE(curve->drawing().protocol[2].minutes, 20.0);
        const QPoint gate = curve->gateOf(2).toPoint();
        QTest::mousePress(curve, Qt::LeftButton, {}, gate);
        QTest::mouseMove(curve, gate - QPoint(12, 0));
        QTest::mouseRelease(curve, Qt::LeftButton, {}, gate - QPoint(12, 0));
        QVERIFY(soak().gateValue > 0.2); // earlier on the curve more is left
        session().undoStack().undo();
    }
    void spaceOpensWhatToDoNext() {
        auto* tape = window_->findChild<Tape*>();
        tape->setFocus();
        QTest::keyClick(tape, Qt::Key_Space);
        QCOMPARE(window_->stage(), Stage::bench);
        QCOMPARE(session().selection().slot, std::optional(planned().front()->id));
        QTRY_VERIFY(find<QLabel>("Planned title"));
        const Level* level = document().find(planned().front()->level);
        QVERIFY(find<QLabel>("Planned title")->text() == QString::fromStdString(level->name));
        QVERIFY(find<QLabel>("Planned hands")->text().contains("Plover 4, tube A"));
        QVERIFY(find<QLabel>("Planned steps")->text().contains("Soak"));
    }
    void theCardIsPrinted() {
        press("Card…");
        CardSheet* sheet = nullptr;
        QTRY_VERIFY((sheet = window_->findChild<CardSheet*>()));
        const QString text = sheet->findChild<QTextBrowser*>("Card")->toPlainText();
        QVERIFY(text.contains("Plover 4, tube A"));
        QVERIFY(text.contains("Soak"));
        QVERIFY(text.contains("Manufacturers' instructions"));
        const QString path = folder_.filePath("card.pdf");
        QVERIFY(sheet->saveTo(path));
        QFile pdf(path);
        QVERIFY(pdf.open(QIODevice::ReadOnly));
        QVERIFY(pdf.read(5) == "%PDF-");
        sheet->close();
    }
    void anotherQuestionOfTheSameMounts() {
        window_->showStage(Stage::question);
        press("Ask another…");
        QCOMPARE(story::answer("other levels, at die–lid"), QString());
        QTRY_COMPARE(document().where(&Question::study, session().study()->id).size(), std::size_t{2});
        QTRY_COMPARE(document().find(session().question()->site)->kind, SiteKind::dieLid);
        QVERIFY(levelsOf(document(), session().question()->id).empty());
        press("Drop question");
        QTRY_COMPARE(document().where(&Question::study, session().study()->id).size(), std::size_t{1});
        press("Drop question");
        QVERIFY(notice().contains("first question stays"));
    }
    void everythingIsUndone() {
        while (session().undoStack().index() > before_) session().undoStack().undo();
        for (const auto& [id, study] : document().all<Study>())
            QVERIFY(study.name != "Which pattern for Plover 4?");
        QTRY_VERIFY(!session().study() || session().study()->name != "Which pattern for Plover 4?");
    }

private:
    std::string live() { return find<QLabel>("Live figures")->text().toStdString(); }
};

IBUKI_STORY_ON_BOTH(TestPlanStory)
#include "tst_plan_story.moc"
