// SPDX-License-Identifier: GPL-3.0-or-later
// What somebody does who has logs and nothing else: the start page, the files, a place for the project, the
// table of the import; then there is a figure. Actions are counted as the user's: a button, a chosen file, a
// sheet accepted.

#include "app/bench/bench_view.h"
#include "app/forms/ask.h"
#include "app/frame/start_page.h"
#include "app/import/import_dialog.h"
#include "app/verdict/ladder.h"
#include "core/domain/lookup.h"
#include "store/log/log_writer.h"
#include "support/story.h"
#include "support/story_window.h"
#include "support/test_class.h"

#include <fstream>

using namespace ibuki;

class TestFirstFigure : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    std::unique_ptr<MainWindow> window_;
    int actions_ = 0;

    QString written(const QString& name, const std::string& material) {
        const QString path = folder_.filePath(name);
        std::ofstream(path.toStdString()) << logText(story::trace(material, 2));
        return path;
    }
    /// From the start page to the table of the import, and through it.
    void lookAt(const QStringList& logs, const QString& project) {
        actions_ = 0;
        window_ = story::emptyWindow("first-figure");
        answerFiles([&](const FileWish& wish) {
            ++actions_;
            if (wish.kind == FileWish::Kind::openMany) return logs;
            return QStringList{folder_.filePath(project)};
        });
        auto* start = window_->findChild<StartPage*>();
        story::press(*start, "Look at logs…");
        ++actions_;
        auto* table = story::sheet<ImportDialog>();
        QVERIFY(table);
        story::press(*table, "accept");
        ++actions_;
        answerFiles({});
        QTRY_COMPARE(window_->session().document().all<Mount>().size(), std::size_t(logs.size()));
    }

private slots:
    void oneLogIsAFigureInAtMostEightActions() {
        lookAt({written("tern.csv", "Tern 11")}, "one.ibuki");
        auto* big = window_->benchView().findChild<QLabel*>("Steady difference");
        QVERIFY(big);
        QTRY_VERIFY(big->text().toDouble() > 20);
        QVERIFY2(actions_ <= 8, qPrintable(QString::number(actions_)));
        QCOMPARE(window_->session().bench()->name, std::string("bench 1"));
    }
    void twoLogsStandBesideEachOtherInAtMostTen() {
        lookAt({written("before.csv", "Dunlin C"), written("after.csv", "Tern 11")}, "two.ibuki");
        window_->showStage(Stage::paper);
        ++actions_;
        QVERIFY2(actions_ <= 10, qPrintable(QString::number(actions_)));
        const Question* question = window_->session().question();
        QVERIFY(question);
        const auto levels = levelsOf(window_->session().document(), question->id);
        QCOMPARE(levels.size(), std::size_t{2});
        QCOMPARE(levels[0]->name, std::string("before"));
        window_->session().undoStack().undo(); // one undo takes the logs back, another the study
        QVERIFY(window_->session().document().all<Mount>().empty());
    }
};

IBUKI_TEST(TestFirstFigure)
#include "tst_first_figure.moc"
