// SPDX-License-Identifier: GPL-3.0-or-later
// The main views in a made-up language whose words are 40 % longer: nothing that is to be read is clipped.

#include "app/frame/main_window.h"
#include "app/question/question_view.h"
#include "app/shelf/shelf_view.h"
#include "support/other_language.h"
#include "support/places.h"
#include "support/story_window.h"
#include "support/test_class.h"
#include "words/words.h"

#include <QAbstractButton>
#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QTemporaryDir>
#include <QtTest>

using namespace ibuki;

namespace {

/// What a person reads of the widget; empty for none.
QString shownText(const QWidget& widget) {
    if (const auto* label = qobject_cast<const QLabel*>(&widget)) return label->text();
    if (const auto* button = qobject_cast<const QAbstractButton*>(&widget)) return button->text();
    return {};
}

/// Labels and buttons of the window that have less room than their words need. Labels that wrap need height,
/// those in something that scrolls have it.
QStringList clippedIn(const QWidget& window) {
    QStringList found;
    for (const QWidget* widget : window.findChildren<QWidget*>()) {
        const QString text = shownText(*widget);
        if (text.trimmed().isEmpty() || !widget->isVisible() || widget->visibleRegion().isEmpty()) continue;
        const auto* label = qobject_cast<const QLabel*>(widget);
        const bool wraps = label && label->wordWrap();
        const QSize needed =
            wraps ? QSize(0, label->heightForWidth(label->width())) : widget->minimumSizeHint();
        const bool drawnElsewhere = widget->property("elides").toBool();
        if (!drawnElsewhere
            && (needed.width() > widget->width() + 1 || needed.height() > widget->height() + 1))
            found << QString("%1 \"%2\" needs %3 × %4, has %5 × %6")
                         .arg(QString::fromLatin1(widget->metaObject()->className()), text.left(60))
                         .arg(needed.width())
                         .arg(needed.height())
                         .arg(widget->width())
                         .arg(widget->height());
    }
    return found;
}

} // namespace

class TestLongerWords : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;

private slots:
    void aClippedLabelIsFound() { // the test must be able to fail
        QWidget box;
        auto* label = new QLabel("A sentence that is longer than its label", &box);
        label->resize(40, 20);
        box.resize(300, 60);
        box.show();
        QCOMPARE(clippedIn(box).size(), 1);
        label->resize(label->minimumSizeHint());
        QVERIFY(clippedIn(box).isEmpty());
    }
    void noMainViewClipsLongerWords() {
        const QByteArray failure =
            test::failureInOtherLanguage("tst_longer_words", "mainViewsInTheLanguageOfTheEnvironment");
        QVERIFY2(failure.isEmpty(), failure);
    }
    void mainViewsInTheLanguageOfTheEnvironment() {
        if (!qEnvironmentVariableIsSet(test::otherLanguage)) return; // the one before runs it
        words::useLanguage(places::locale);
        const auto window = story::demoWindow("longer", folder_.filePath("longer.ibuki"));
        QVERIFY(window);
        QStringList clipped;
        const auto look = [&](const QString& view) {
            QTest::qWait(60); // what is worked out beside may come later on a busy machine
            (void)QTest::qWaitFor([&] { return clippedIn(*window).isEmpty(); }, 3'000);
            for (const QString& one : clippedIn(*window)) clipped << view + ": " + one;
        };
        for (Stage stage : {Stage::bench, Stage::verdict, Stage::paper}) {
            window->showStage(stage);
            look(QString("stage %1").arg(static_cast<int>(stage)));
        }
        window->showStage(Stage::question);
        using Asked = QuestionView::Page;
        for (Asked page : {Asked::asked, Asked::chances, Asked::board, Asked::protocol}) {
            window->questionView().showPage(page);
            look(QString("question %1").arg(static_cast<int>(page)));
        }
        window->showStage(Stage::shelf);
        for (ShelfView::Page page :
             {ShelfView::Page::shelf, ShelfView::Page::dose, ShelfView::Page::cut, ShelfView::Page::gap}) {
            window->shelfView().showPage(page);
            look(QString("shelf %1").arg(static_cast<int>(page)));
        }
        if (const QString pictures = qEnvironmentVariable("IBUKI_TEST_PICTURES"); !pictures.isEmpty())
            window->grab().save(pictures + "/longer.png");
        QVERIFY2(clipped.isEmpty(), qPrintable(clipped.join('\n')));
    }
};

IBUKI_TEST(TestLongerWords)
#include "tst_longer_words.moc"
