// SPDX-License-Identifier: GPL-3.0-or-later
// The verdict's pages through the real widgets, on the demo project and on a new one: what else the mounts
// were compared by, what matters in it, value, what may be said, what is taken out, every page as a file.

#include "app/forms/ask.h"
#include "core/evidence/evidence.h"
#include "support/story_window.h"
#include "support/test_class.h"

#include <QApplication>
#include <QCheckBox>
#include <QClipboard>
#include <QElapsedTimer>
#include <QListWidget>
#include <QRegularExpression>
#include <QSlider>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QXmlStreamReader>

using namespace ibuki;

class TestVerdictStory : public QObject {
    Q_OBJECT

    const story::Where where_;
    QTemporaryDir folder_;
    std::unique_ptr<MainWindow> window_;

    bool isDemo() const { return where_ == story::Where::demo; }
    Session& session() { return window_->session(); }
    const Document& document() { return session().document(); }
    template <class W> W* find(const char* name) { return story::visible<W>(*window_, name); }
    bool openPage(const char* name) { return story::press(*window_, QString("Page ") + name); }
    bool choose(const char* study) {
        for (const auto& [id, one] : document().all<Study>())
            if (one.name == study) {
                Selection selection;
                selection.bench = one.bench;
                selection.study = id;
                session().select(selection);
                QTest::qWait(30);
                return true;
            }
        return false;
    }
    QStringList sentences() {
        QStringList all;
        auto* list = find<QListWidget>("Verdict in sentences");
        for (int i = 0; list && i < list->count(); ++i) all << list->item(i)->text();
        return all;
    }
    /// The page as a file of that ending; its bytes.
    QByteArray exported(const char* page, const QString& ending) {
        const QString path = folder_.filePath(QString("%1.%2").arg(page, ending));
        answerFiles([path](const FileWish&) { return QStringList{path}; });
        openPage(page);
        story::press(*window_, "Export…");
        answerFiles({});
        QFile file(path);
        return file.open(QFile::ReadOnly) ? file.readAll() : QByteArray();
    }

public:
    explicit TestVerdictStory(story::Where where) : where_(where) {}

private slots:
    void initTestCase() {
        window_ = story::windowOn(where_, "verdict-story", folder_.filePath("verdict.ibuki"));
        QVERIFY(window_);
        if (!isDemo()) {
            QVERIFY(story::beginStudy(*window_, "rank materials", "Three pastes",
                                      {"Tern 11", "Plover 4", "Dunlin C"}));
            QVERIFY(story::bringIn(*window_, story::nineLogFiles(folder_.path())));
        }
        window_->showStage(Stage::verdict);
        QTRY_VERIFY(find<QListWidget>("Verdict in sentences"));
    }
    void cleanupTestCase() { window_.reset(); }

    void responsesAreComparedAndTheirMarginIsStated() {
        QVERIFY(openPage("Responses"));
        auto* table = find<QTableWidget>("Responses and what matters in them");
        QTRY_VERIFY(table && table->rowCount() >= 2);
        const auto rowOf = [&](const QString& name) {
            for (int row = 0; row < table->rowCount(); ++row)
                if (table->item(row, 0)->text().startsWith(name)) return row;
            return -1;
        };
        QVERIFY(rowOf("power") >= 0 && rowOf("thermal resistance") >= 0);
        table->item(rowOf("power"), 1)->setText("3,5");
        QTRY_COMPARE(document().all<SideMargin>().size(), std::size_t{1});
        QCOMPARE(document().all<SideMargin>().begin()->second.margin, 3.5);
        table->item(rowOf("power"), 1)->setText("many");
        QTest::qWait(30);
        QCOMPARE(table->item(rowOf("power"), 1)->text(), QString("3.5")); // put back, nothing lost
        session().undoStack().undo();
        QTRY_VERIFY(document().all<SideMargin>().empty());
    }
    void everyPageIsAFile() {
        const QByteArray csv = exported("Ladder", "csv");
        QVERIFY2(csv.startsWith("group,mount,value_K,mean_K,low_K,high_K\n"), csv.left(80).constData());
        QVERIFY(csv.count('\n') >= 10);
        for (const char* page : {"Ladder", "Pairs", "Responses", "Plain words"}) {
            const QByteArray svg = exported(page, "svg");
            QXmlStreamReader reader(svg);
            int drawn = 0;
            while (!reader.atEnd())
                if (reader.readNext() == QXmlStreamReader::StartElement) ++drawn;
            QVERIFY2(!reader.hasError() && drawn > 20, page);
            QVERIFY2(exported(page, "png").startsWith("\x89PNG"), page);
            QVERIFY2(exported(page, "csv").count('\n') >= 3, page);
        }
    }
    void whatMayBeSaidIsCopied() {
        QVERIFY(openPage("Plain words"));
        auto* list = find<QListWidget>("What you may say, and what not");
        QTRY_VERIFY(list && list->count() > 6);
        QCOMPARE(list->item(0)->text(), QString("You may say"));
        QVERIFY(story::press(*window_, "Copy what you may say"));
        const QString copied = QApplication::clipboard()->text();
        QVERIFY(copied.contains("ran cooler here than") && copied.contains("Measured on node-2"));
        QVERIFY(!copied.contains("ranking"));
    }
    void meanMedianAndBestStandBesideEachOther() {
        QVERIFY(openPage("Pairs"));
        auto* table = find<QTableWidget>("Mean, median and best");
        QTRY_VERIFY(table && table->rowCount() >= 3);
        QCOMPARE(table->horizontalHeaderItem(3)->text(), QString("Median"));
        QCOMPARE(table->columnCount(), isDemo() ? 4 : 5); // the demo's materials were not mounted as often
    }
    void theValuePageAsksForPricesOrJudges() {
        QVERIFY(openPage("Value"));
        QTest::qWait(30);
        auto* reported = find<QLabel>("Value told");
        QVERIFY(reported);
        if (!isDemo()) {
            QVERIFY2(reported->text().contains("Fewer than two of the materials have a price"),
                     qPrintable(reported->text()));
            return;
        }
        auto* table = find<QTableWidget>("Scores and shares");
        QTRY_VERIFY(table && table->rowCount() >= 4);
        find<QSlider>("Weight temperature")->setValue(0);
        find<QSlider>("Weight price")->setValue(10);
        const QString cheapest = table->item(0, 0)->text();
        find<QSlider>("Weight temperature")->setValue(10);
        find<QSlider>("Weight price")->setValue(0);
        QCOMPARE(table->item(0, 0)->text(), QString("Quickfin"));
        QVERIFY(cheapest != "Quickfin");
        auto* uses = find<QListWidget>("What to take for which use");
        QCOMPARE(uses->count(), 7);
        QVERIFY2(uses->item(0)->text().startsWith("As cold as can be: Quickfin"),
                 qPrintable(uses->item(0)->text()));
    }
    void whatIsTakenOutIsChosenAndSaid() {
        const int before = static_cast<int>(sentences().size());
        Question changed = *session().question();
        changed.blocks = BlockBy::evening;
        Edit edit(document(), "evenings");
        edit.put(changed);
        QVERIFY(session().perform(edit.finish()));
        QTRY_VERIFY(sentences().join(' ').contains("Differences by evening are taken out"));
        session().undoStack().undo();
        QTRY_COMPARE(static_cast<int>(sentences().size()), before);
    }
    void conductorsArePutAside() {
        QVERIFY(openPage("Ladder"));
        auto* aside = window_->findChild<QCheckBox*>();
        QVERIFY(aside);
        if (!isDemo()) return; // three pastes: nothing conducts
        auto* ladder = find<QWidget>("Ladder of materials");
        QVERIFY(ladder->accessibleDescription().contains("Quickfin"));
        for (QCheckBox* box : window_->findChildren<QCheckBox*>())
            if (box->isVisible() && box->text().contains("conducts")) box->setChecked(true);
        QVERIFY(!ladder->accessibleDescription().contains("Quickfin"));
        QVERIFY(ladder->accessibleDescription().contains("Tern 11"));
        QVERIFY(sentences().join(' ').contains("Quickfin")); // what was found stays
    }
    void theDemosStudiesSayWhatTheyShow() {
        if (!isDemo()) return;
        QVERIFY(choose("Paste or sheet, and under which cooler"));
        QTRY_VERIFY(sentences().join(' ').contains("The order turns over"));
        QVERIFY(openPage("Factors"));
        QVERIFY(find<QLabel>("Factors told")->text().contains("Interaction: F(1, 8)"));
        QVERIFY(choose("Does the film hold up at full power"));
        QVERIFY(openPage("Sweep"));
        QTRY_VERIFY(find<QLabel>("Sweep told")->text().contains("K/W"));
        QVERIFY(sentences().join(' ').contains("Mounted by 2 people"));
        QVERIFY(choose("Two pastes beside the engine"));
        QTRY_VERIFY(sentences().join(' ').contains("The bench moved"));
        QVERIFY(openPage("Checks"));
        QVERIFY(find<QLabel>("Checks told")->text().contains("repeat these, not all"));
        QVERIFY(choose("Is the bridge laptop worth repasting"));
        QTRY_VERIFY(sentences().join(' ').contains("equal temperature at the limit"));
        QVERIFY(sentences().join(' ').contains("% faster by score"));
    }
    void aSentenceLeadsToItsEvidence() {
        if (!isDemo()) return;
        auto* list = find<QListWidget>("Verdict in sentences");
        const auto open = [&](const QString& part) {
            for (int i = 0; i < list->count(); ++i)
                if (list->item(i)->text().contains(part)) {
                    list->setCurrentRow(i);
                    emit list->itemActivated(list->item(i));
                    return true;
                }
            return false;
        };
        QVERIFY(choose("Is the bridge laptop worth repasting"));
        QTRY_VERIFY(open("faster by score"));
        QTRY_VERIFY(find<QTableWidget>("Responses and what matters in them"));
        QVERIFY(choose("Two pastes beside the engine"));
        QTRY_VERIFY(open("The bench moved"));
        QTRY_VERIFY(find<QLabel>("Checks told"));
        QVERIFY(choose("Paste or sheet, and under which cooler"));
        QTRY_VERIFY(open("Plover 4, tall cooler ran"));
        QTRY_VERIFY(find<QWidget>("Ladder of materials"));
    }
    void figuresAreCopiedWithUnitAndInterval() {
        QVERIFY(choose(isDemo() ? "Node coolers before the next voyage" : "Three pastes"));
        QVERIFY(openPage("Ladder"));
        auto* ladder = find<QWidget>("Ladder of materials");
        QTRY_VERIFY(ladder);
        QTest::keySequence(ladder, QKeySequence::Copy);
        const QString copied = QApplication::clipboard()->text();
        QVERIFY2(
            copied.contains(QRegularExpression("\\d\\.\\d K \\(\\d+\\.\\d K to \\d+\\.\\d K\\), 3 mounts")),
            qPrintable(copied));
        auto* list = find<QListWidget>("Verdict in sentences");
        list->setCurrentRow(0);
        QTest::keySequence(list, QKeySequence::Copy);
        QVERIFY(QApplication::clipboard()->text().contains("ran"));
    }
    void anEmptyPageSaysWhatWouldBeHere() {
        QVERIFY(openPage("Sweep"));
        QTest::qWait(30);
        QVERIFY(!find<QLabel>("Sweep told")->text().isEmpty());
        answerFiles([this](const FileWish&) { return QStringList{folder_.filePath("none.svg")}; });
        story::press(*window_, "Export…");
        answerFiles({});
        QCOMPARE(QFile::exists(folder_.filePath("none.svg")), false);
    }
};

IBUKI_STORY_ON_BOTH(TestVerdictStory)
#include "tst_verdict_story.moc"
