// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/chance_lines.h"
#include "support/laid.h"
#include "support/test_class.h"

using namespace ibuki;
using story::now;

namespace {

QString valueOf(const ChanceLines& reported, const QString& name) {
    for (const auto& [key, value] : reported.figures)
        if (key == name) return value;
    return {};
}

ChanceLines chanceLinesFor(const Document& document, const Question& question) {
    return chanceLines(document, question, planFigures(document, &question, now));
}

} // namespace

class TestChanceLines : public QObject {
    Q_OBJECT
private slots:
    void theTitleSaysWhatTheChanceIsOf() {
        const auto asked = story::ask();
        Question question = *firstQuestion(asked.document, asked.study);
        QVERIFY(chanceLinesFor(asked.document, question).title.startsWith("Chance to tell a pair apart"));
        question.goal = Goal::equivalence;
        const ChanceLines same = chanceLinesFor(asked.document, question);
        QVERIFY(same.title.startsWith("Chance to show that a pair is the same within"));
        QVERIFY(valueOf(same, "To notice that any of them differs").isEmpty()); // an F test is of differences
    }
    void scatterSaysWhereItComesFrom() {
        auto asked = story::ask();
        const Question question = *firstQuestion(asked.document, asked.study);
        QVERIFY(valueOf(chanceLinesFor(asked.document, question), "Scatter between mounts")
                    .contains("usual for"));
        Edit edit(asked.document, "state");
        Plan plan = planFor(asked.document, asked.study);
        plan.statedScatter = Kelvin{0.42};
        putPlan(edit, plan);
        apply(asked.document, edit.finish());
        QCOMPARE(valueOf(chanceLinesFor(asked.document, question), "Scatter between mounts"),
                 QString("0.42 K, as stated"));
    }
    void aFinishedStudyGivesItsScatterWithItsInterval() {
        auto measured = story::measured();
        Edit edit(measured.document, "close");
        Study closed = *measured.document.find(measured.study);
        closed.state = StudyState::closed;
        edit.put(closed);
        std::vector<Id<Material>> materials;
        for (const auto& [id, material] : measured.document.all<Material>()) materials.push_back(id);
        const Id<Study> next =
            addStudy(edit, {StudyTemplate::rankMaterials, measured.bench, "Next", materials}, now);
        apply(measured.document, edit.finish());
        const QString scatter =
            valueOf(chanceLinesFor(measured.document, *firstQuestion(measured.document, next)),
                    "Scatter between mounts");
        QVERIFY2(
            scatter.contains("from 1 finished study on this bench (6 degrees of freedom"), // 9 mounts of 3
            qPrintable(scatter));
    }
    void figuresAreThoseOfTheAnalysis() {
        const auto asked = story::ask();
        const Question question = *firstQuestion(asked.document, asked.study);
        const PlanFigures figures = planFigures(asked.document, &question, now);
        const PowerAnalysis& analysis = *figures.analysis;
        const ChanceLines reported = chanceLines(asked.document, question, figures);
        QCOMPARE(valueOf(reported, "To notice that any of them differs"),
                 QString("%1 %").arg(100 * *analysis.anyChance, 0, 'f', 0));
        QCOMPARE(valueOf(reported, "For a chance of 90 %"),
                 QString("%1 mounts of each").arg(*analysis.neededMounts));
        QCOMPARE(valueOf(reported, "Hands on"), QString("%1 h of %2 h on the bench")
                                                    .arg(analysis.schedule.manualMinutes / 60, 0, 'f', 1)
                                                    .arg(analysis.schedule.benchMinutes / 60, 0, 'f', 1));
        QCOMPARE(valueOf(reported, "Last evening"),
                 QString::fromStdString(dateText(analysis.schedule.evenings.back().start)));
        QVERIFY(reported.helps.isEmpty() == (analysis.notes.empty() && analysis.resolvable));
    }
    void aMarginBelowWhatTheBenchResolvesNamesWhatWouldHelp() {
        auto asked = story::ask();
        Question question = *firstQuestion(asked.document, asked.study);
        question.margin.value = 0.05;
        const ChanceLines reported = chanceLinesFor(asked.document, question);
        QCOMPARE(valueOf(reported, "For a chance of 90 %"), QString("more mounts than anybody makes"));
        const QString helps = reported.helps.join(' ');
        QVERIFY2(helps.contains("mounts of each would not do. What would help:"), qPrintable(helps));
        QVERIFY(reported.helps.size() >= 2);
    }
    void needsTellWhatIsKnownOfThem() {
        auto asked = story::ask();
        const Question question = *firstQuestion(asked.document, asked.study);
        QCOMPARE(valueOf(chanceLinesFor(asked.document, question), "Tern 11"),
                 QString("dose not known: state the site's size and a lot"));
        Edit edit(asked.document, "state");
        Site site = *asked.document.find(question.site);
        site.width = Millimetre{30};
        site.length = Millimetre{40};
        edit.put(site);
        Lot lot = asked.document.all<Lot>().begin()->second;
        lot.content = 4;
        lot.price = 8;
        lot.currency = "EUR";
        edit.put(lot);
        apply(asked.document, edit.finish());
        const QString need = valueOf(chanceLinesFor(asked.document, question), "Tern 11");
        QVERIFY2(need.contains(" g of 4.0 g left, ") && need.endsWith(" EUR"), qPrintable(need));
    }
};

IBUKI_TEST(TestChanceLines)
#include "tst_chance_lines.moc"
