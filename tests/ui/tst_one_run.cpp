// SPDX-License-Identifier: GPL-3.0-or-later
// One run says the same wherever it is asked: on Bench, on Verdict, on Paper, in the table and by the
// command.

#include "app/bench/bench_view.h"
#include "app/frame/main_window.h"
#include "core/domain/lookup.h"
#include "core/evidence/evidence.h"
#include "core/evidence/reduction_task.h"
#include "core/evidence/response.h"
#include "store/log/log_writer.h"
#include "store/paper/report.h"
#include "store/table/table.h"
#include "support/places.h"
#include "support/story_window.h"
#include "support/test_class.h"

#include <QLabel>
#include <QProcess>
#include <QTemporaryDir>
#include <QtTest>
#include <nlohmann/json.hpp>

using namespace ibuki;

class TestOneRun : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    std::unique_ptr<MainWindow> window_;

    Session& session() { return window_->session(); }
    const Document& document() { return session().document(); }

    QString bench(const Run& run) {
        session().selectMount(run.mount);
        window_->showStage(Stage::bench);
        return window_->benchView().findChild<QLabel*>("Steady difference")->text().remove("≥ ");
    }
    std::map<std::string, std::string> tableRow(const Question& question, const std::string& run) {
        const Table table = readTable(tidyCsv(document(), question), "study.csv");
        for (std::size_t row = 0; row < table.rows(); ++row) {
            if (table.text(row, table.need("run")) != run) continue;
            std::map<std::string, std::string> cells;
            for (const std::string& name : table.columns()) cells[name] = table.text(row, table.need(name));
            return cells;
        }
        return {};
    }

private slots:
    void initTestCase() {
        window_ = std::make_unique<MainWindow>(places::sampleProject);
        QVERIFY(window_->openDemo(folder_.filePath("demo.ibuki")));
        window_->show();
    }
    void everyPlaceSaysTheSame_data() {
        QTest::addColumn<int>("metric");
        QTest::addColumn<bool>("asymptote");
        for (Metric metric : {Metric::hottest, Metric::coreAverage, Metric::p95})
            for (bool asymptote : {false, true})
                QTest::addRow("%s%s", std::string(metricName(metric)).c_str(),
                              asymptote ? ", extrapolated" : "")
                    << static_cast<int>(metric) << asymptote;
    }
    void everyPlaceSaysTheSame() {
        QFETCH(int, metric);
        QFETCH(bool, asymptote);
        Question question = *session().question();
        question.metric = static_cast<Metric>(metric);
        Edit edit(document(), "judge by another");
        edit.put(question);
        QVERIFY(session().perform(edit.finish()));
        const auto rows = runRows(document(), question);
        const RunRow first = *std::find_if(rows.begin(), rows.end(), [](const RunRow& row) {
            return row.cell && !row.excluded && !row.censored && row.purpose == Purpose::fresh;
        });
        Run run = *document().find(first.runId);
        if (run.useAsymptote != asymptote) {
            run.useAsymptote = asymptote;
            Edit change(document(), "count with the tail");
            change.put(run);
            const Run* one = change.document().find(run.id);
            auto tasks = reductionTasks(change.document(), std::span(&one, 1), &question);
            session().performReduced(std::move(change), std::move(tasks));
            QTRY_VERIFY(!session().work().isRunning());
            QTRY_COMPARE(document().find(run.id)->useAsymptote, asymptote);
        }
        const Reduction* stored = reductionOf(document(), run.id);
        const LoadReduction* load = loadOf(*stored, run, question.metric);
        QVERIFY(load && load->metric == question.metric);
        QCOMPARE(load->extrapolated, asymptote && load->steady.asymptoteK);
        const double response = *responseOf(*load, question);
        const double rth = *load->rthKPerW;

        QCOMPARE(bench(run), QString::number(response, 'f', 1));
        const auto cells = tableRow(question, runName(first));
        QCOMPARE(std::stod(cells.at("delta_K")), response);
        QCOMPARE(std::stod(cells.at("rth_K_per_W")), rth);
        const Evidence evidence = gatherEvidence(document(), question);
        bool compared = false;
        for (const GroupSummary& group : evidence.comparison->groups)
            for (std::size_t m = 0; m < group.mountsInOrder.size(); ++m)
                if (group.mountsInOrder[m].id == run.mount.value) {
                    compared = true;
                    if (group.runs == group.mounts) QCOMPARE(group.mountMeans[m], response);
                }
        QVERIFY(compared);
        const QString html = QString::fromStdString(htmlReport(document(), question));
        QVERIFY2(html.contains(">" + QString::number(rth, 'f', 4) + "<"),
                 qPrintable(QString::number(rth, 'f', 4)));
        if (asymptote) return; // the command has no word for it

        const QString log = folder_.filePath("log.csv");
        Trace trace = story::traceOf(session(), run.recording);
        std::erase_if(trace.channels, [](const Channel& channel) { return channel.values.empty(); });
        QFile file(log);
        QVERIFY(file.open(QIODevice::WriteOnly));
        file.write(QByteArray::fromStdString(logText(trace)));
        file.close();
        QProcess command;
        QStringList arguments{"reduce", log, "--json", "--metric",
                              QString::fromStdString(std::string(metricName(question.metric)))};
        const Configuration* rig = document().find(document().find(run.mount)->configuration);
        if (rig->temperatureLimit) arguments << "--limit" << QString::number(rig->temperatureLimit->value);
        command.start(places::command, arguments);
        QVERIFY(command.waitForFinished());
        const auto json = nlohmann::json::parse(command.readAllStandardOutput().toStdString());
        QVERIFY(std::abs(json["metrics"][std::string(metricName(question.metric))]["delta_K"].get<double>()
                         - response)
                < 1e-9);
        QVERIFY(std::abs(json["rth_K_per_W"].get<double>() - rth) < 1e-9);
    }
};

IBUKI_TEST(TestOneRun)
#include "tst_one_run.moc"
