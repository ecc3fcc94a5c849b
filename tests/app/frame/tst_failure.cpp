// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/failure.h"
#include "app/frame/main_window.h"
#include "core/base/input_error.h"
#include "support/places.h"
#include "support/story_window.h"
#include "support/test_class.h"

#include <QTemporaryDir>
#include <SQLiteCpp/SQLiteCpp.h>

using namespace ibuki;

class TestFailure : public QObject {
    Q_OBJECT

    static QString reportOf(const std::function<void()>& call) {
        QString reported;
        if (guarded(call, [&](const QString& what) { reported = what; })) return "nothing";
        return reported;
    }

private slots:
    void initTestCase() { QStandardPaths::setTestModeEnabled(true); }
    void whateverIsThrownIsToldInWords() {
        QCOMPARE(reportOf([] {}), QString("nothing"));
        QCOMPARE(reportOf([] { throw std::runtime_error("the table is gone"); }),
                 QString("the table is gone"));
        QCOMPARE(reportOf([] { throw std::bad_alloc(); }), QString("There is not enough memory for that."));
        QVERIFY(reportOf([] { throw InputError("file-missing", {"a.csv", {}, {}}); }).contains("a.csv"));
        QVERIFY(!reportOf([] { throw 42; }).isEmpty());
    }
    void theReportSaysWhatHappened() {
        const QTemporaryDir folder;
        const QString path = writeFailureReport(folder.filePath("not/yet/there"), "the table is gone");
        QFile file(path);
        QVERIFY(file.open(QIODevice::ReadOnly));
        QVERIFY(file.readAll().startsWith("the table is gone\n"));
        QVERIFY(writeFailureReport("/proc/nowhere", "x").isEmpty());
    }
    void theProjectIsClosedInOrderAndTheReportNamed() {
        const QTemporaryDir folder;
        const QString path = folder.filePath("a.ibuki");
        const auto window = story::freshWindow("failure", path);
        QVERIFY(window != nullptr);
        window->giveUp("the table is gone");
        QVERIFY(!window->session().isOpen());
        const QString notice = window->findChild<QLabel*>("Notice")->text();
        QVERIFY2(notice.contains("the table is gone") && notice.contains("failure-"), qPrintable(notice));
        QVERIFY(window->session().openProject(path)); // nobody holds it any more
        QCOMPARE(window->session().document().all<Bench>().size(), std::size_t{1});
    }
    /// Views ask for figures before all of them were looked through: what they find is no mistake of ours.
    void aDamagedFigureIsToldAsSuchWhateverAsksForItFirst() {
        const QTemporaryDir folder;
        const QString path = folder.filePath("damaged.ibuki");
        QVERIFY(QFile::copy(places::sampleProject, path));
        QFile::setPermissions(path, QFile::permissions(path) | QFileDevice::WriteOwner);
        {
            SQLite::Database database(path.toStdString(), SQLite::OPEN_READWRITE);
            database.exec("UPDATE run_reduction SET reduction = '{'");
        }
        const auto window = story::emptyWindow("damaged");
        QString failed;
        const auto visit = [&] {
            for (int stage = 0; stage <= static_cast<int>(Stage::paper) && window->session().isOpen();
                 ++stage) {
                window->showStage(static_cast<Stage>(stage));
                window->grab();
            }
        };
        QVERIFY(window->session().openProject(path));
        QVERIFY2(guarded(visit, [&](const QString& what) { failed = what; }), qPrintable(failed));
        QTRY_VERIFY_WITH_TIMEOUT(!window->session().isOpen(), 20'000);
        const QString notice = window->findChild<QLabel*>("Notice")->text();
        QVERIFY2(notice.contains(path) && notice.contains("run_reduction") && !notice.contains("mistake"),
                 qPrintable(notice));
    }
};

IBUKI_TEST(TestFailure)
#include "tst_failure.moc"
