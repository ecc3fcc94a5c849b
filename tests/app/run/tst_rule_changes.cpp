// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/run/rule_changes.h"
#include "support/story.h"
#include "support/test_class.h"

using namespace ibuki;

namespace {

/// What is stored, as if it had been reduced anew.
std::vector<RunReduction> stored(const Document& document) {
    std::vector<RunReduction> all;
    for (const auto& [id, reduction] : document.all<RunReduction>()) all.push_back(reduction);
    return all;
}

/// Warmer by that much, whichever metric asks.
void warm(RunReduction& run, Metric metric, double byK) {
    const auto raise = [&](std::vector<LoadReduction>& loads) {
        for (LoadReduction& load : loads) *load.metrics.at(metric).deltaK += byK;
    };
    run.reduction.change([&](Reduction& reduction) {
        raise(reduction.loads);
        for (auto& [other, judged] : reduction.others) raise(judged.loads);
    });
}

} // namespace

class TestRuleChanges : public QObject {
    Q_OBJECT

    story::Asked asked_ = story::measured();
    Question question_ = *firstQuestion(asked_.document, asked_.study);

private slots:
    void theSameFiguresChangeNothing() {
        const RuleChanges reported = ruleChanges(asked_.document, question_, stored(asked_.document));
        QCOMPARE(reported.lines.size(), std::size_t{9});
        QCOMPARE(reported.changed, 0);
        for (const RuleChange& line : reported.lines) {
            QCOMPARE(line.before, line.after);
            QCOMPARE(line.change, QString("same"));
        }
        QCOMPARE(reported.summary,
                 QString("0 of 9 figures change, by 0.000 at most. Nothing is taken over yet."));
    }
    void eachChangeIsToldAndTheLargestNamed() {
        auto fresh = stored(asked_.document);
        warm(fresh[2], question_.metric, 0.25);
        warm(fresh[5], question_.metric, -1.5);
        const RuleChanges reported = ruleChanges(asked_.document, question_, fresh);
        QCOMPARE(reported.changed, 2);
        QCOMPARE(reported.lines[2].change, QString("+0.250"));
        QCOMPARE(reported.lines[5].change, QString("-1.500"));
        QCOMPARE(reported.lines[1].change, QString("same"));
        QCOMPARE(reported.summary,
                 QString("2 of 9 figures change, by 1.500 at most. Nothing is taken over yet."));
    }
    void aFigureThatGoesOrComesIsAChange() {
        auto fresh = stored(asked_.document);
        fresh[0].reduction = {};
        const RuleChanges reported = ruleChanges(asked_.document, question_, fresh);
        QCOMPARE(reported.changed, 1);
        QCOMPARE(reported.lines[0].after, QString("–"));
        QCOMPARE(reported.lines[0].change, QString("–"));
        QVERIFY(reported.lines[0].before.endsWith(" K"));
    }
    void repeatsAreToldApart() {
        Document document = asked_.document;
        Edit edit(document, "repeat");
        Run run = document.all<Run>().begin()->second;
        run.repeat = 2;
        edit.put(run);
        apply(document, edit.finish());
        const RuleChanges reported = ruleChanges(document, question_, stored(document));
        QVERIFY(reported.lines.front().run.endsWith(" / 2"));
    }
    void runsThatAreGoneAreLeftOut() {
        auto fresh = stored(asked_.document);
        fresh[0].run = Id<Run>{424242};
        QCOMPARE(ruleChanges(asked_.document, question_, fresh).lines.size(), std::size_t{8});
    }
    void warningsAreNamedInShort() {
        auto fresh = stored(asked_.document);
        const auto doubt = [](std::vector<LoadReduction>& loads) {
            for (LoadReduction& load : loads) {
                addFlag(load.flags, makeFlag(Severity::warn, "stuck-sensor", {{"column", "Core 3"}}));
                addFlag(load.flags, makeFlag(Severity::info, "set-by-hand"));
            }
        };
        fresh[0].reduction.change([&](Reduction& reduction) {
            doubt(reduction.loads);
            for (auto& [other, judged] : reduction.others) doubt(judged.loads);
        });
        QVERIFY(ruleChanges(asked_.document, question_, fresh).lines[0].flags.contains("stuck sensor"));
        QVERIFY(!ruleChanges(asked_.document, question_, fresh).lines[0].flags.contains("by hand"));
    }
};

IBUKI_TEST(TestRuleChanges)
#include "tst_rule_changes.moc"
