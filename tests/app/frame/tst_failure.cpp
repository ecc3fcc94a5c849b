// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/failure.h"
#include "app/frame/main_window.h"
#include "core/base/input_error.h"
#include "support/story_window.h"
#include "support/test_class.h"

#include <QTemporaryDir>

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
};

IBUKI_TEST(TestFailure)
#include "tst_failure.moc"
