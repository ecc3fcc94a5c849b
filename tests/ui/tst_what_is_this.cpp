// SPDX-License-Identifier: GPL-3.0-or-later
// What a figure is, asked by F1 and by a held press on every view; tips that go once they were done.

#include "app/drawn/drawn_items.h"
#include "app/forms/tip.h"
#include "app/forms/topic.h"
#include "app/forms/topic_sheet.h"
#include "app/question/evening_board.h"
#include "app/question/question_view.h"
#include "app/verdict/ladder.h"
#include "support/story_window.h"
#include "support/test_class.h"

#include <QLabel>
#include <QTemporaryDir>
#include <QTextBrowser>
#include <QToolButton>
#include <QtTest>

using namespace ibuki;

class TestWhatIsThis : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    std::unique_ptr<MainWindow> window_;

    template <class W> W* find(const char* name) { return story::visible<W>(*window_, name); }
    static void closeSheet(TopicSheet* sheet) {
        sheet->close();
        QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    }

private slots:
    void initTestCase() {
        window_ = story::demoWindow("what-is-this", folder_.filePath("demo.ibuki"));
        QVERIFY(window_);
        Tip::showAllAgain();
    }
    void everythingDrawnSaysWhatItIs() {
        int drawn = 0;
        for (Stage stage : {Stage::question, Stage::shelf, Stage::bench, Stage::verdict, Stage::paper}) {
            window_->showStage(stage);
            QCoreApplication::processEvents();
        }
        for (int page = 0; page <= static_cast<int>(QuestionView::Page::rehearsal); ++page)
            window_->questionView().showPage(static_cast<QuestionView::Page>(page));
        for (DrawnItems* item : window_->findChildren<DrawnItems*>()) {
            ++drawn;
            QVERIFY2(topicOf(item), qPrintable(item->objectName() + item->accessibleName()));
        }
        QVERIFY(drawn >= 8);
        for (const char* name : {"Live figures", "Steady difference", "Order costs"})
            QVERIFY2(topicOf(window_->findChild<QLabel*>(name)), name);
    }
    void f1TellsWhatHasTheFocus() {
        window_->showStage(Stage::verdict);
        auto* ladder = window_->findChild<Ladder*>();
        QTRY_VERIFY(ladder->isVisible());
        ladder->setFocus();
        QTest::keyClick(ladder, Qt::Key_F1);
        auto* sheet = story::sheet<TopicSheet>();
        QVERIFY(sheet);
        QCOMPARE(sheet->topic(), Topic::ladder);
        QVERIFY(sheet->findChild<QLabel*>("What it is")->text().contains("holds for all of them at once"));
        auto* text = sheet->findChild<QTextBrowser*>("How it is worked out");
        QVERIFY(text->toPlainText().contains("Tukey")); // formula and source
        QTest::keyClick(sheet, Qt::Key_F1);             // once is enough
        int open = 0;
        for (QWidget* widget : QApplication::topLevelWidgets())
            open += qobject_cast<TopicSheet*>(widget) && widget->isVisible() ? 1 : 0;
        QCOMPARE(open, 1);
        sheet->tell(Topic::dose); // leafing
        QVERIFY(text->toPlainText().contains("Dose and spread"));
        closeSheet(sheet);
    }
    void aHeldPressTellsToo() {
        window_->showStage(Stage::question);
        auto* live = find<QLabel>("Live figures");
        QVERIFY(live);
        QTest::mousePress(live, Qt::LeftButton);
        auto* sheet = story::sheet<TopicSheet>(); // waits for it
        QTest::mouseRelease(live, Qt::LeftButton);
        QVERIFY(sheet);
        QCOMPARE(sheet->topic(), Topic::chance);
        closeSheet(sheet);
        QTest::mouseClick(live, Qt::LeftButton); // a click is none
        QTest::qWait(1000);
        QVERIFY(!openSheet());
        auto* button = find<QPushButton>("Ask another…"); // held buttons stay buttons
        QTest::mousePress(button, Qt::LeftButton);
        QTest::qWait(1000);
        QVERIFY(!openSheet());
        QTest::mouseMove(button, QPoint(-200, -200));
        QTest::mouseRelease(button, Qt::LeftButton, {}, QPoint(-200, -200));
    }
    void aTipGoesOnceItWasDone() {
        window_->questionView().showPage(QuestionView::Page::board);
        auto* board = find<EveningBoard>("Board");
        QTRY_VERIFY(find<QWidget>("Tip board"));
        QTRY_VERIFY(board->lines().bars.size() > 3);
        board->chooseBar(0);
        board->setFocus();
        QTest::keyClick(board, Qt::Key_Right, Qt::AltModifier);
        QVERIFY(!find<QWidget>("Tip board"));
        QVERIFY(find<QWidget>("Tip sentence")); // the others stay
        Tip another("board", "again");
        QVERIFY(another.isHidden()); // remembered
        QTest::mouseClick(find<QWidget>("Tip sentence")->findChild<QToolButton*>(), Qt::LeftButton);
        QVERIFY(!find<QWidget>("Tip sentence")); // put away
        QVERIFY(story::trigger(*window_, "Show the tips again"));
        QVERIFY(find<QWidget>("Tip board") && find<QWidget>("Tip sentence"));
        window_->session().undoStack().undo();
    }
    void cleanupTestCase() { Tip::showAllAgain(); }
};

IBUKI_TEST(TestWhatIsThis)
#include "tst_what_is_this.moc"
