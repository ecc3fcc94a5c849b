// SPDX-License-Identifier: GPL-3.0-or-later
// The story of a plan, through the real widgets, on the demo project and on a new one: a question from a kind
// of study, the number of mounts and its chances, the order and what it costs, skipping, adding, extending,
// evenings, the calendar, the card.

#include "app/bench/card_sheet.h"
#include "app/frame/tape.h"
#include "app/question/chance_curve.h"
#include "app/question/evenings_page.h"
#include "app/question/question_view.h"
#include "core/domain/lookup.h"
#include "core/setup/plan_setup.h"
#include "support/story_window.h"
#include "support/test_class.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QSlider>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QTextBrowser>
#include <QToolButton>
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
    QString notice() { return story::notice(*window_); }
    std::vector<const Slot*> planned() { return plannedSlots(document(), session().study()->id); }
    QListWidget* order() { return find<QListWidget>("Order of mounts"); }

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
    void aPartOfTheSentenceLeadsToItsField() {
        QTRY_VERIFY(find<QWidget>("Sentence")->accessibleDescription().contains("5 patterns"));
        QToolButton* part = nullptr;
        QTRY_VERIFY((part = find<QToolButton>("Part 9"))); // the margin
        QVERIFY(part->text().contains("1.0 K"));
        QTest::mouseClick(part, Qt::LeftButton);
        auto* field = find<QLineEdit>("Difference that matters, K");
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
    }
    void theLoadThatCountsIsChosen() {
        auto* box = find<QComboBox>("Compared under");
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
    void theOrderGoesOnTheTape() {
        view().showPage(QuestionView::Page::order);
        QTRY_COMPARE(order()->count(), 15);
        QVERIFY(planned().empty());
        press("Put on the tape");
        QTRY_COMPARE(planned().size(), std::size_t{15});
        QTRY_VERIFY(order()->item(0)->data(Qt::UserRole).isValid());
        QVERIFY(order()->item(0)->text().contains("block 1"));
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
            const qlonglong id = (*found)->id.value;
            for (int row = 0; row < order()->count(); ++row)
                if (order()->item(row)->data(Qt::UserRole).toLongLong() == id) order()->setCurrentRow(row);
            press("Do it next");
            QTRY_COMPARE(order()->item(0)->data(Qt::UserRole).toLongLong(), id);
        }
        QTRY_VERIFY(costs->text() != before);
        QVERIFY2(costs->text().contains("stand in one row"), qPrintable(costs->text()));
        QVERIFY(costs->text().contains("a bench that drifts"));
        for (int i = 0; i < 3; ++i) session().undoStack().undo();
        QTRY_COMPARE(costs->text(), before);
        order()->setCurrentRow(0);
        order()->setFocus();
        const auto first = planned().front()->id;
        QTest::keyClick(order(), Qt::Key_Down, Qt::AltModifier);
        QTRY_COMPARE(planned()[1]->id, first);
        session().undoStack().undo();
    }
    void skippingAsksForAReason() {
        const auto first = planned().front()->plannedFor;
        order()->setCurrentRow(0);
        press("Skip…");
        QVERIFY(story::answer("").contains("with a reason only")); // told in the sheet, which stays
        QCOMPARE(story::answer("the tube is empty"), QString());
        QTRY_COMPARE(planned().size(), std::size_t{14});
        QTRY_VERIFY(order()->item(0)->text().contains("skipped: the tube is empty"));
        QCOMPARE(planned().front()->plannedFor, first); // what comes behind it moves up
        order()->setCurrentRow(1);
        order()->setCurrentRow(0);
        QVERIFY(find<QPushButton>("Skip…")->text() == "Take up again");
        press("Skip…");
        QTRY_COMPARE(planned().size(), std::size_t{15});
        QCOMPARE(planned().front()->plannedFor, first);
        QVERIFY(planned()[1]->plannedFor > first);
    }
    void aStudyIsExtendedAndStopped() {
        press("Extend…");
        QCOMPARE(story::answer("2"), QString());
        QTRY_COMPARE(planned().size(), std::size_t{25});
        session().undoStack().undo();
        QTRY_COMPARE(planned().size(), std::size_t{15});
        press("Stop early…");
        QCOMPARE(story::answer("the voyage begins"), QString());
        QTRY_VERIFY(planned().empty());
        QCOMPARE(session().study()->state, StudyState::closed);
        QTRY_VERIFY(order()->item(0)->text().contains("skipped: the voyage begins"));
        order()->setCurrentRow(0);
        press("Skip…"); // one of them is taken up again: the study goes on
        QTRY_COMPARE(planned().size(), std::size_t{1});
        QCOMPARE(session().study()->state, StudyState::planned);
        session().undoStack().undo();
        session().undoStack().undo();
        QTRY_COMPARE(planned().size(), std::size_t{15});
    }
    void eveningsFollowTheHours() {
        view().showPage(QuestionView::Page::evenings);
        auto* list = find<QListWidget>("Evenings");
        QTRY_VERIFY(list->count() > 2);
        const int before = list->count();
        auto* hours = find<QLineEdit>("Hours an evening");
        const auto last = planned().back()->plannedFor;
        hours->setText("8");
        emit hours->editingFinished();
        QTRY_VERIFY(list->count() < before);
        QVERIFY(planned().back()->plannedFor < last); // the tape and the calendar follow
        auto* days = find<QLineEdit>("Days");
        days->setText("Someday");
        emit days->editingFinished();
        QVERIFY(notice().contains("no day of the week")); // and nothing was stored
        session().undoStack().undo();
        QTRY_COMPARE(list->count(), before);
        auto* anew = find<QPushButton>("Date the tape anew");
        QVERIFY(anew && !anew->isEnabled());
        Edit edit(document(), "an evening went by");
        Slot moved = *planned().front();
        const auto due = moved.plannedFor;
        moved.plannedFor = Instant{due->ms - 86'400'000};
        edit.put(moved);
        QVERIFY(session().perform(edit.finish()));
        QTRY_VERIFY(anew->isEnabled());
        press("Date the tape anew");
        QTRY_COMPARE(planned().front()->plannedFor, due);
        QTRY_VERIFY(!anew->isEnabled());
        session().undoStack().undo();
        session().undoStack().undo();
        auto* times = find<QTableWidget>("Minutes of hands");
        times->item(0, 1)->setText("45");
        QTRY_COMPARE(document().all<StepTime>().size(), std::size_t{1});
        session().undoStack().undo();
    }
    void theCalendarIsWritten() {
        auto* later = find<QLineEdit>("Come back after");
        later->setText("24 h, 6 mo");
        emit later->editingFinished();
        press("Plan follow-ups");
        QTRY_COMPARE(document().all<FollowUp>().size() >= 30, true);
        const QString path = folder_.filePath("plan.ics");
        QVERIFY(view().evenings().exportCalendar(path));
        QFile file(path);
        QVERIFY(file.open(QIODevice::ReadOnly));
        const QByteArray text = file.readAll();
        QVERIFY(text.startsWith("BEGIN:VCALENDAR"));
        QVERIFY(text.count("BEGIN:VEVENT") > 30);
        QVERIFY(!view().evenings().exportCalendar("/nowhere/plan.ics"));
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
