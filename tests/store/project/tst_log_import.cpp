// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/header_roles.h"
#include "store/log/log_writer.h"
#include "store/project/log_import.h"
#include "support/stored_story.h"
#include "support/test_class.h"

#include <QTemporaryDir>
#include <fstream>

using namespace ibuki;

class TestLogImport : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;

    /// Two logs of Tern 11 with a rail that nobody has a use for.
    LogBatch twoLogs() {
        std::vector<std::string> files;
        for (int mount : {1, 2}) {
            Trace trace = story::trace("Tern 11", mount);
            Channel rail;
            rail.column = "Rail [V]";
            rail.values.assign(trace.samples(), 12.5);
            trace.channels.push_back(rail);
            files.push_back(folder_.filePath(QString("tern-11_%1.csv").arg(mount)).toStdString());
            std::ofstream(files.back()) << logText(trace);
        }
        return readLogBatch(files, {}, {}, [](double) {});
    }

private slots:
    void aBatchGoesIntoAProjectWithoutTheWindow() {
        const story::Asked asked = story::ask();
        const LogBatch batch = twoLogs();
        const auto rows = proposeImport(asked.document, asked.study, batch.logs);
        const LogImport made = importOf(asked.document, asked.study, batch, rows);
        QCOMPARE(made.acquired.recordings.size(), std::size_t{2});
        QCOMPARE(made.toKeep.size(), std::size_t{2});

        const std::string path = folder_.filePath("a.ibuki").toStdString();
        {
            Project project = Project::create(path);
            project.apply(story::everythingOf(asked.document));
            project.apply(made.set, made.acquired);
        }
        for (const KeepTask& task : made.toKeep) keepOtherChannels(path, task);
        const Project back = Project::open(path, Access::readOnly);
        QCOMPARE(back.document().all<Run>().size(), std::size_t{2});
        for (const KeepTask& task : made.toKeep) {
            const auto rail = loadKeptChannel(path, task.recording, "Rail [V]");
            QVERIFY(rail && rail->values.size() == back.loadTrace(task.recording).samples());
        }
    }
    void whatWasSaidOfTheColumnsIsRememberedByTheSameAction() {
        const story::Asked asked = story::ask();
        LogBatch batch = twoLogs();
        batch.sources.front().options.roles = {{"Rail [V]", Role::ignore}};
        const auto rows = proposeImport(asked.document, asked.study, batch.logs);
        Document document = asked.document;
        const LogImport made = importOf(document, asked.study, batch, rows);
        apply(document, made.set);
        QCOMPARE(rememberedRoles(document).at(batch.sources.front().report.fingerprint).at("Rail [V]"),
                 Role::ignore);
        apply(document, inverse(made.set));
        QVERIFY(rememberedRoles(document).empty());
        QVERIFY(document.all<Run>().empty() && document.all<Mount>().empty());
        for (const auto& [id, recording] : document.all<Recording>()) QVERIFY(recording.withdrawn);
    }
    void aRowThatIsNotTakenBringsNothing() {
        const story::Asked asked = story::ask();
        const LogBatch batch = twoLogs();
        auto rows = proposeImport(asked.document, asked.study, batch.logs);
        rows.front().take = false;
        const LogImport made = importOf(asked.document, asked.study, batch, rows);
        QCOMPARE(made.toKeep.size(), std::size_t{1});
        QCOMPARE(made.toKeep.front().sha256, batch.logs[1].sha256);
    }
};

IBUKI_TEST(TestLogImport)
#include "tst_log_import.moc"
