// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawn/theme.h"
#include "app/forms/next_step_bar.h"
#include "app/frame/main_window.h"
#include "app/frame/start_page.h"
#include "app/frame/tape.h"
#include "app/session/session.h"
#include "core/domain/lookup.h"
#include "core/domain/plan.h"
#include "support/stored_story.h"
#include "support/test_class.h"

#include <QAction>
#include <QLabel>
#include <QPushButton>
#include <QSettings>
#include <QSignalSpy>
#include <QTemporaryDir>

using namespace ibuki;

class TestStartPage : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;

    static bool says(const QWidget& in, const QString& text) {
        for (const auto* label : in.findChildren<QLabel*>())
            if (label->text().contains(text)) return true;
        return false;
    }

private slots:
    void initTestCase() { applyTheme(*qApp, Shade::light); }
    void init() { QSettings().remove("recentProjects"); }
    void theNewestStandsFirstAndNoneTwice() {
        for (const char* path : {"/a", "/b", "/c", "/a", "/d", "/e", "/f"}) StartPage::remember(path);
        QCOMPARE(StartPage::recent(), QStringList({"/f", "/e", "/d", "/a", "/c"}));
        StartPage::forget("/d");
        QCOMPARE(StartPage::recent(), QStringList({"/f", "/e", "/a", "/c"}));
    }
    void aProjectIsListedWithWhatItIsAbout() {
        const QString path = folder_.filePath("pastes.ibuki");
        story::storeMeasured(path.toStdString());
        StartPage::remember(folder_.filePath("gone.ibuki"));
        StartPage::remember(path);
        QAction action("New");
        JobService jobs;
        StartPage page({&action, &action, &action, &action, &action}, jobs);
        page.show();
        QTRY_COMPARE(page.findChildren<QPushButton*>("Recent").size(), 2);
        QVERIFY(says(page, "node-2, Three pastes: 9 of 9 mounts made"));
        QVERIFY(says(page, "is not there any more"));
        QSignalSpy wanted(&page, &StartPage::projectWanted);
        const auto names = page.findChildren<QPushButton*>("Recent");
        QVERIFY(!names[1]->isEnabled());
        names[0]->click();
        QCOMPARE(wanted.count(), 1);
        QCOMPARE(wanted[0][0].toString(), path);
    }
    void aProjectIsListedOnceItWasOpened() {
        const QString path = folder_.filePath("listed.ibuki");
        story::storeMeasured(path.toStdString());
        MainWindow window({});
        window.show();
        auto* page = window.findChild<StartPage*>();
        emit page->projectWanted(path);
        QVERIFY(window.session().isOpen());
        QCOMPARE(StartPage::recent().front(), path);
        QVERIFY(!page->isVisible());
        window.session().closeProject();
        QTRY_VERIFY(page->isVisible());
        QTRY_COMPARE(page->findChildren<QPushButton*>("Recent").size(), 1);
    }
    void whatWantsALookIsToldBeforeAnythingIsOpened() {
        const QString path = folder_.filePath("wanted.ibuki");
        story::storeMeasured(path.toStdString());
        MainWindow window({});
        window.show();
        auto* page = window.findChild<StartPage*>();
        emit page->projectWanted(path);
        Session& session = window.session();
        Edit edit(session.document(), said("come back"));
        const auto mounts = mountsOf(session.document(), *session.selection().bench);
        Mount mount = *mounts.back(); // the one that stands
        const QDateTime wall = QDateTime::currentDateTime();
        mount.at = Instant{wall.toMSecsSinceEpoch() + 1'000LL * wall.offsetFromUtc() - 5LL * 86'400'000};
        mount.order = 1'000;
        edit.put(mount);
        FollowUp later;
        later.slot = session.document().where(&Slot::mount, std::optional(mount.id)).front()->id;
        later.after = {7, Delay::Unit::days};
        edit.add(later);
        QVERIFY(session.perform(edit.finish()));
        session.closeProject();
        auto* wanted = page->findChild<QLabel*>("Wanted this week");
        QTRY_VERIFY(wanted->isVisible());
        QCOMPARE(wanted->text(), QString("1 mount wants a look this week"));
    }
    void whatAStudyWaitsForIsOfferedWhereItIsMissed() {
        MainWindow window({});
        window.show();
        window.session().createProject(folder_.filePath("plan.ibuki"));
        const auto asked = story::ask();
        window.session().perform(story::everythingOf(asked.document));
        Selection selection;
        selection.study = asked.study;
        window.session().select(selection);
        for (const Stage stage : {Stage::verdict, Stage::bench}) {
            window.showStage(stage);
            auto* bar = window.findChildren<NextStepBar*>().last();
            QVERIFY(bar);
            QTRY_VERIFY(bar->isVisible());
            QVERIFY(says(*bar, "stands on the tape as a draft"));
        }
        auto* tape = window.findChild<Tape*>();
        QTRY_VERIFY(!tape->tiles().empty());
        QVERIFY(tape->tiles().front().state == TileState::draft);
        window.findChildren<NextStepBar*>().last()->findChild<QPushButton*>("NextStepWay")->click();
        QCOMPARE(window.stage(), Stage::question);
    }
};

IBUKI_TEST(TestStartPage)
#include "tst_start_page.moc"
