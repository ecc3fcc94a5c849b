// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/run/run_lines.h"
#include "core/domain/run_reduction.h"
#include "support/story.h"
#include "support/test_class.h"

using namespace ibuki;

namespace {

/// A load of 40.26 K over a room of 22 °C at 100 W.
LoadReduction load() {
    LoadReduction one;
    one.metric = Metric::hottest;
    one.metrics[Metric::hottest] = {62.26, 40.26, 0.04};
    one.metrics[Metric::vrm] = {48.0, std::nullopt, std::nullopt};
    one.ambient.meanC = 22.0;
    one.powerW = 100;
    one.steady.reached = true;
    return one;
}

Reduction reductionOfOne() {
    Reduction reduction;
    reduction.metric = Metric::hottest;
    reduction.loads = {load()};
    reduction.longest = 0;
    return reduction;
}

Mount mountNamed(const std::string& name) {
    Mount mount;
    mount.name = name;
    return mount;
}

RunLines linesOf(const LoadReduction& load, const Question& question = {}, const Mount& mount = {}) {
    return runLines(mount, reductionOfOne(), &load, question);
}

} // namespace

class TestRunLines : public QObject {
    Q_OBJECT
private slots:
    void aRunOfTheStoryTellsWhatItsReductionHas() {
        const auto asked = story::measured();
        const Question question = *firstQuestion(asked.document, asked.study);
        for (const Mount* mount : mountsOf(asked.document, asked.bench)) {
            const Run* run = runsOf(asked.document, mount->id).front();
            const Reduction& reduction = *reductionOf(asked.document, run->id);
            const LoadReduction* load = loadOf(reduction, *run, question.metric);
            const RunLines reported = runLines(*mount, reduction, load, question);
            QCOMPARE(reported.figure, QString::number(*responseOf(*load, question), 'f', 1));
            QCOMPARE(reported.unit, QString("K over room"));
            QCOMPARE(reported.title, QString::fromStdString(mount->name));
            QCOMPARE(reported.conditions.front(), QString::fromStdString(dateTimeText(*mount->at)));
            QCOMPARE(reported.metrics.size(), load->metrics.size());
        }
    }
    void figureAndUnitFollowTheQuestion() {
        Question question;
        QCOMPARE(linesOf(load(), question).figure, QString("40.3"));
        question.normalisation = Normalisation::perWatt;
        const RunLines perWatt = linesOf(load(), question);
        QCOMPARE(perWatt.unit, QString("K/W"));
        QCOMPARE(perWatt.figure, QString::number(*responseOf(load(), question), 'f', 3));
    }
    void atTheLimitTheFigureIsAtLeastThat() {
        LoadReduction bound = load();
        bound.limit.censored = true;
        QVERIFY(linesOf(bound).figure.startsWith("≥ "));
    }
    void withoutALoadThereIsNoFigure() {
        Reduction empty;
        const RunLines reported = runLines(mountNamed("Tern 11 1"), empty, nullptr, {});
        QCOMPARE(reported.figure, QString("–"));
        QVERIFY(reported.metrics.empty());
        QVERIFY(reported.conditions.isEmpty());
    }
    void conditionsAreToldWhereTheyAreKnown() {
        LoadReduction known = load();
        known.ambient.probeShiftS = 45;
        Mount mount = mountNamed("Tern 11 1");
        mount.at = parseInstant("2031-03-04 18:30");
        mount.atAssumed = true;
        mount.torque = NewtonMetre{0.6};
        const QString all = linesOf(known, {}, mount).conditions.join("|");
        for (const char* part : {"2031-03-04 18:30 (assumed)", "room 22.0 °C", "100.0 W", "steady",
                                 "probe's clock 45 s", "0.6 N·m"})
            QVERIFY2(all.contains(part), part);
        LoadReduction bare;
        QCOMPARE(linesOf(bare).conditions, QStringList("cannot tell whether it was steady"));
    }
    void aRunStoppedEarlyTellsWhereItsTailLeads() {
        LoadReduction early = load();
        early.steady.reached = false;
        early.steady.asymptoteK = 42.4;
        early.steady.asymptoteIntervalK = {41.9, 43.0};
        const QString all = linesOf(early).conditions.join("|");
        QVERIFY(all.contains("not steady yet|tail leads to 42.4 K (41.9 to 43.0)"));
        early.steady.reached = true; // nobody needs it then
        QVERIFY(!linesOf(early).conditions.join("|").contains("tail leads"));
    }
    void rejectionAndWarningsAreDoubts() {
        LoadReduction doubtful = load();
        addFlag(doubtful.flags, makeFlag(Severity::warn, "stuck-sensor", {{"column", "Core 3"}}));
        addFlag(doubtful.flags, makeFlag(Severity::info, "unit-assumed", {{"column", "Fan"}}));
        addFlag(doubtful.flags, makeFlag(Severity::info, "set-by-hand"));
        Mount mount = mountNamed("Tern 11 1");
        mount.rejected = true;
        mount.reason = "plate was tilted";
        const RunLines reported = linesOf(doubtful, {}, mount);
        QCOMPARE(reported.title, QString("Tern 11 1  (rejected)"));
        QCOMPARE(reported.doubts,
                 (QStringList{"Rejected: plate was tilted", "▸ \"Core 3\" never moves and is left out",
                              "▸ Borders of the load or of its window were set by hand"}));
    }
    void metricsWithoutARoomHaveNoDifference() {
        const auto lines = linesOf(load()).metrics;
        QCOMPARE(lines.size(), std::size_t{2});
        for (const MetricLine& line : lines) QCOMPARE(line.difference == "–", line.temperature == "48.0");
        const auto hottest = std::find_if(lines.begin(), lines.end(),
                                          [](const MetricLine& line) { return line.temperature == "62.3"; });
        QVERIFY(hottest != lines.end());
        QCOMPARE(hottest->uncertainty, QString("0.04"));
    }
};

IBUKI_TEST(TestRunLines)
#include "tst_run_lines.moc"
