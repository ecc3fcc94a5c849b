// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawn/theme.h"
#include "app/paper/paper_sheet.h"
#include "app/paper/paper_view.h"
#include "app/session/session.h"
#include "support/places.h"
#include "support/stored_story.h"
#include "support/test_class.h"

#include <QCheckBox>
#include <QFile>
#include <QProcess>
#include <QPushButton>
#include <QScrollBar>
#include <QSignalSpy>
#include <QTemporaryDir>

using namespace ibuki;

class TestPaperView : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    int count_ = 0;

    QString path(const QString& name) const { return folder_.filePath(name); }

    /// A session on the story's measured study.
    std::unique_ptr<Session> measured() {
        auto session = std::make_unique<Session>();
        session->createProject(path(QString("p%1.ibuki").arg(++count_)));
        const auto asked = story::measured();
        session->perform(story::everythingOf(asked.document));
        Selection selection;
        selection.study = asked.study;
        session->select(selection);
        return session;
    }
    static QString read(const QString& path) {
        QFile file(path);
        return file.open(QIODevice::ReadOnly) ? QString::fromUtf8(file.readAll()) : QString();
    }
    static PaperSheet* preview(PaperView& view) { return view.findChild<PaperSheet*>(); }
    static QCheckBox* box(PaperView& view, const QString& name) {
        for (auto* one : view.findChildren<QCheckBox*>())
            if (one->text() == name) return one;
        return nullptr;
    }

private slots:
    void initTestCase() { applyTheme(*qApp, Shade::light); }
    void withoutAStudyNothingCanBeTakenAlong() {
        Session session;
        session.createProject(path("empty.ibuki"));
        PaperView view(session);
        for (auto* button : view.findChildren<QPushButton*>()) QVERIFY(!button->isEnabled());
        QVERIFY(preview(view)->text().contains("Ask a question first"));
        QVERIFY(!view.exportTo(path("nothing.csv")));
        QVERIFY(!QFile::exists(path("nothing.csv")));
    }
    void switchesChooseWhatGoesIn() {
        const auto session = measured();
        PaperView view(*session);
        const QString whole = preview(view)->text();
        QVERIFY(whole.contains("Tern 11"));
        box(view, "Pairs")->setChecked(false);
        const QString less = preview(view)->text();
        QVERIFY(less.size() < whole.size());
        box(view, "Pairs")->setChecked(true);
        QCOMPARE(preview(view)->text(), whole);
    }
    void aRefreshThatChangesNothingKeepsThePageAndItsPlace() {
        const auto session = measured();
        PaperView view(*session);
        view.resize(900, 300);
        view.show();
        QTRY_VERIFY(preview(view)->verticalScrollBar()->maximum() > 50);
        preview(view)->verticalScrollBar()->setValue(50);
        const int before = preview(view)->laidOut();
        view.refresh();
        QCOMPARE(preview(view)->laidOut(), before);
        QCOMPARE(preview(view)->verticalScrollBar()->value(), 50);
        Edit edit(session->document(), "rename");
        Study study = *session->study();
        study.name = "Another name";
        edit.put(study);
        QVERIFY(session->perform(edit.finish()));
        view.refresh();
        QVERIFY(preview(view)->text().contains("Another name"));
        QCOMPARE(preview(view)->laidOut(), before + 1);            // only where the name stands
        QCOMPARE(preview(view)->verticalScrollBar()->value(), 50); // the reader stays where they read
    }
    void everyEndingWritesItsKind() {
        const auto session = measured();
        PaperView view(*session);
        QVERIFY(view.exportTo(path("r.html")) && read(path("r.html")).contains("<html"));
        QVERIFY(view.exportTo(path("r.csv")));
        QCOMPARE(read(path("r.csv")).count("\n"), 10); // a header and nine runs
        QVERIFY(view.exportTo(path("r.json")) && read(path("r.json")).trimmed().startsWith("{"));
        QVERIFY(view.exportTo(path("r.pdf")));
        QFile pdf(path("r.pdf"));
        QVERIFY(pdf.open(QIODevice::ReadOnly) && pdf.read(5) == "%PDF-");
    }
    void theProgramPrintsOntoNoProject() {
        const QString project = path("printed.ibuki");
        story::storeMeasured(project.toStdString());
        const QString other = path("other.ibuki");
        QVERIFY(QFile::copy(project, other));
        for (const QString& target : {project, other}) {
            QFile file(target);
            QVERIFY(file.open(QIODevice::ReadOnly));
            const QByteArray before = file.readAll();
            QProcess program;
            program.start(places::program, {"--report", project, "-o", target});
            QVERIFY(program.waitForFinished());
            QCOMPARE(program.exitCode(), 1);
            QVERIFY(program.readAllStandardError().contains("Choose another name"));
            file.seek(0);
            QVERIFY(file.readAll() == before);
        }
        QProcess program;
        program.start(places::program, {"--report", project, "-o", path("printed.pdf")});
        QVERIFY(program.waitForFinished());
        QCOMPARE(program.exitCode(), 0);
        QVERIFY(QFile::exists(path("printed.pdf")));
    }
    void whatCannotBeWrittenSaysWhy() {
        const auto session = measured();
        PaperView view(*session);
        QSignalSpy refused(session.get(), &Session::refused);
        for (const char* ending : {"html", "csv", "json", "pdf"})
            QVERIFY(!view.exportTo(QString("/nowhere/at/all/r.") + ending));
        QCOMPARE(refused.count(), 4);
        QVERIFY(refused.front().front().toString().contains("/nowhere/at/all/r.html"));
    }
};

IBUKI_TEST(TestPaperView)
#include "tst_paper_view.moc"
