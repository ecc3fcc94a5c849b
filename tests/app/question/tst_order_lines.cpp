// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/order_lines.h"
#include "support/laid.h"
#include "support/near.h"
#include "support/test_class.h"

#include <limits>

using namespace ibuki;
using story::Laid;
using story::now;

class TestOrderLines : public QObject {
    Q_OBJECT
private slots:
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
        QVERIFY2(hint.contains(" K, differences"), qPrintable(hint));
        Question perWatt = question; // a scatter is told in the unit that it is in, with digits to see it by
        perWatt.normalisation = Normalisation::perWatt;
        const QString byWatt = extensionHint(measured.document, perWatt, known);
        QVERIFY2(byWatt.contains(QRegularExpression("\\(0\\.00\\d{3} K/W, differences")), qPrintable(byWatt));
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
