// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/import/import_lines.h"
#include "support/story.h"
#include "support/test_class.h"

using namespace ibuki;

class TestImportLines : public QObject {
    Q_OBJECT

    story::Asked asked_ = story::ask();
    Question question_ = *firstQuestion(asked_.document, asked_.study);
    ImportedLog log_ = story::nineLogs().front();

private slots:
    void loadsAreToldOnceEach() {
        Document document;
        Edit edit(document, "load");
        Load kiln;
        kiln.name = "kiln";
        const Id<Load> id = edit.add(kiln);
        apply(document, edit.finish());
        ImportRow row;
        QVERIFY(loadText(document, row).isEmpty());
        row.runs.resize(3);
        row.runs[0].load = id;
        row.runs[1].newLoad = "120 W";
        row.runs[1].purpose = Purpose::check;
        row.runs[2].load = id;
        QCOMPARE(loadText(document, row), QString("kiln; 120 W, check"));
    }
    void theFigureIsWhatTheQuestionCompares() {
        const LoadReduction* load = judgedBy(log_.reduction, question_.metric).load(-1);
        QCOMPARE(steadyText(log_, {}, &question_),
                 QString("%1 K").arg(*responseOf(*load, question_), 0, 'f', 1));
        Question perWatt = question_;
        perWatt.normalisation = Normalisation::perWatt;
        QCOMPARE(steadyText(log_, {}, &perWatt),
                 QString("%1 K/W").arg(*responseOf(*load, perWatt), 0, 'f', 4));
        QVERIFY(steadyText(log_, {}, nullptr).isEmpty());
    }
    void whatIsMissingForItIsSaid() {
        ImportedLog idle = log_;
        idle.reduction = {};
        QCOMPARE(steadyText(idle, {}, &question_), QString("no load"));
        ImportedLog roomless = log_;
        roomless.trace.channels.erase(
            std::remove_if(roomless.trace.channels.begin(), roomless.trace.channels.end(),
                           [](const Channel& channel) { return channel.role == Role::ambient; }),
            roomless.trace.channels.end());
        roomless.reduction = reduceByEveryMetric(roomless.trace);
        QCOMPARE(steadyText(roomless, {}, &question_), QString("no room"));
    }
    void aProbeTellsItsMeanRoom() {
        ImportedLog probe;
        probe.trace.timeS = {0, 1, 2};
        probe.trace.channels.push_back({});
        probe.trace.channels.back().role = Role::ambient;
        probe.trace.channels.back().values = {21, std::numeric_limits<double>::quiet_NaN(), 22};
        ImportRow row;
        row.probeOf = 0;
        QCOMPARE(steadyText(probe, row, &question_), QString("room 21.5 °C"));
        probe.trace.channels.clear();
        QCOMPARE(steadyText(probe, row, &question_), QString("no room"));
    }
    void doubtsAreNamedOnce() {
        ImportedLog doubtful = log_;
        doubtful.reduction.flags.clear();
        QVERIFY(doubtText(doubtful, {}).isEmpty());
        addFlag(doubtful.reduction.flags, makeFlag(Severity::warn, "clock-jump", {{"count", 1}}));
        addFlag(doubtful.reduction.flags, makeFlag(Severity::info, "unit-assumed", {{"column", "Fan"}}));
        addFlag(doubtful.reduction.flags, makeFlag(Severity::warn, "no-load-found")); // said by the figure
        ImportRow row;
        row.atAssumed = true;
        QCOMPARE(doubtText(doubtful, row), QString("time assumed; clock jump"));
        row.probeOf = 1; // flags of loads say nothing of a probe
        QCOMPARE(doubtText(doubtful, row), QString("time assumed"));
    }
    void theProposalsDoubtStandsFirst() {
        ImportedLog clean = log_;
        clean.reduction.flags.clear();
        auto logs = std::vector<ImportedLog>{clean};
        logs.front().fileName = "nobody-knows.csv";
        const ImportRow row = proposeImport(asked_.document, asked_.study, logs).front();
        QVERIFY(row.doubt.has_value());
        QVERIFY(!doubtText(logs.front(), row).isEmpty());
    }
};

IBUKI_TEST(TestImportLines)
#include "tst_import_lines.moc"
