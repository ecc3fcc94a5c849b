// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/order_lines.h"
#include "support/laid.h"
#include "support/near.h"
#include "support/test_class.h"

#include <limits>

using namespace ibuki;
using story::Laid;
using story::now;

namespace {

OrderLines linesOf(const Document& document, const Question& question) {
    return orderLines(document, question, planFigures(document, &question, now));
}

/// All the words of the first mount that is not yet made.
QString firstOpen(const OrderLines& told) {
    for (const OrderLine& line : told.lines)
        if (!line.quiet) return line.text;
    return {};
}

} // namespace

class TestOrderLines : public QObject {
    Q_OBJECT
private slots:
    void withoutATapeTheDrawIsTold() {
        const auto asked = story::ask();
        const OrderLines told = linesOf(asked.document, *firstQuestion(asked.document, asked.study));
        QCOMPARE(told.title, QString("As drawn, not on the tape yet"));
        QVERIFY(!told.lines.empty());
        for (const OrderLine& line : told.lines) {
            QVERIFY(!line.slot && !line.quiet);
            QVERIFY2(line.text.contains("block "), qPrintable(line.text));
        }
    }
    void whatCannotBePlannedSaysWhy() {
        auto asked = story::ask();
        Question question = *firstQuestion(asked.document, asked.study);
        question.margin.value = 0;
        const OrderLines told = linesOf(asked.document, question);
        QVERIFY(told.lines.empty());
        QCOMPARE(told.costs, QStringList(planFigures(asked.document, &question, now).whyNot));
        QVERIFY(!told.costs.front().isEmpty());
    }
    void onTheTapeEveryMountHasItsSlotAndDate() {
        const Laid laid(3, 2);
        const OrderLines told = linesOf(laid.asked.document, laid.question);
        QCOMPARE(told.title, QString("On the tape"));
        QCOMPARE(told.lines.size(), laid.planned().size());
        for (std::size_t i = 0; i < told.lines.size(); ++i) {
            QCOMPARE(told.lines[i].slot, std::optional(laid.planned()[i]->id));
            QVERIFY2(told.lines[i].text.startsWith(QString::number(i + 1) + " "),
                     qPrintable(told.lines[i].text));
            QVERIFY2(told.lines[i].text.endsWith(
                         QString::fromStdString(dateTimeText(*laid.planned()[i]->plannedFor))),
                     qPrintable(told.lines[i].text));
        }
        QVERIFY(told.lines.front().text.contains("check mount"));
    }
    void aTapeThatIsNoLongerThePlanSaysSo() {
        Laid laid;
        laid.change([&](Edit& edit) {
            Plan plan = planFor(laid.asked.document, laid.asked.study);
            plan.mountsPerLevel = 5;
            putPlan(edit, plan);
        });
        QCOMPARE(linesOf(laid.asked.document, laid.question).title,
                 QString("On the tape, but not the plan as it is now"));
    }
    void skippedMountsKeepTheirPlaceAndReason() {
        Laid laid;
        const Id<Slot> gone = laid.planned().front()->id;
        laid.change([&](Edit& edit) { skipSlot(edit, gone, "tube ran dry"); });
        const OrderLines told = linesOf(laid.asked.document, laid.question);
        QCOMPARE(told.lines.size(), std::size_t{9});
        const auto line = std::find_if(told.lines.begin(), told.lines.end(),
                                       [&](const OrderLine& one) { return one.slot == gone; });
        QVERIFY(line != told.lines.end() && line->quiet);
        QVERIFY2(line->text.endsWith("skipped: tube ran dry"), qPrintable(line->text));
        QVERIFY(!firstOpen(told).contains("skipped"));
    }
    void aStoppedStudyTellsWhatWasLeft() {
        Laid laid;
        laid.change([&](Edit& edit) { stopEarly(edit, laid.asked.study, "bench sold"); });
        const OrderLines told = linesOf(laid.asked.document, laid.question);
        QCOMPARE(told.title, QString("Stopped: what was left is skipped"));
        QVERIFY(std::all_of(told.lines.begin(), told.lines.end(), [](const OrderLine& line) {
            return line.quiet && line.text.contains("bench sold");
        }));
    }
    void costsFollowFromTheOrderAlone() {
        const std::vector<std::string> names{"Tern 11", "Plover 4"};
        // T T P P: places 1.5 and 3.5 on average.
        const std::vector<OrderedMount> inRows{{0, 1}, {0, 1}, {1, 2}, {1, 2}};
        const QStringList rows = orderCostSentences(orderCosts(inRows, 2), names);
        QVERIFY(rows.front().startsWith("On average Plover 4 stands 2.0 places later than Tern 11"));
        QVERIFY2(rows.front().contains("0.10 K between them"), qPrintable(rows.front()));
        QVERIFY(rows.join(' ').contains("All mounts of Tern 11 stand in one row"));
        // T P P T: no drift between them.
        const std::vector<OrderedMount> balanced{{0, 1}, {1, 1}, {1, 2}, {0, 2}};
        QVERIFY(orderCostSentences(orderCosts(balanced, 2), names)
                    .front()
                    .startsWith("No level stands earlier than another on average"));
        const QStringList alternating =
            orderCostSentences(orderCosts({{0, 1}, {1, 1}, {0, 2}, {1, 2}}, 2), names);
        QVERIFY(alternating.join(' ').contains("Tern 11 opens every block"));
        OrderCosts confounded;
        confounded.levels.resize(2);
        confounded.driftInflation = std::numeric_limits<double>::infinity();
        QVERIFY(orderCostSentences(confounded, names).join(' ').contains("Order and level are the same"));
        confounded.driftInflation = 1.5;
        QVERIFY(orderCostSentences(confounded, names).join(' ').contains("cost 50 % more mounts"));
        confounded.missing = {{0, 1}, {1, 2}};
        QVERIFY(orderCostSentences(confounded, names).back().startsWith("2 times a block lacks a level"));
        QVERIFY(orderCostSentences(confounded, {"Tern 11"}).isEmpty()); // nothing to compare
    }
    void extendingTellsTheScatterSoFarAndThatItIsALook() {
        Laid laid;
        const PlanFigures figures = planFigures(laid.asked.document, &laid.question, now);
        QCOMPARE(extensionHint(laid.asked.document, laid.question, figures),
                 QString("More mounts of each level")); // nothing was measured
        auto measured = story::measured();
        const Question question = *firstQuestion(measured.document, measured.study);
        const PlanFigures known = planFigures(measured.document, &question, now);
        const QString hint = extensionHint(measured.document, question, known);
        QVERIFY2(hint.startsWith("From the scatter alone ("), qPrintable(hint));
        QVERIFY2(hint.contains("there are 3."), qPrintable(hint)); // three mounts of each
        Edit edit(measured.document, "seen");
        InterimLook look;
        look.study = measured.study;
        edit.add(look);
        apply(measured.document, edit.finish());
        QVERIFY(extensionHint(measured.document, question, known).startsWith("The verdict was seen"));
    }
};

IBUKI_TEST(TestOrderLines)
#include "tst_order_lines.moc"
