// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/evening_lines.h"
#include "support/laid.h"
#include "support/test_class.h"

using namespace ibuki;
using story::Laid;
using story::now;

namespace {

EveningLines linesOf(const Document& document, const Question& question) {
    return eveningLines(document, question, planFigures(document, &question, now), now);
}

} // namespace

class TestEveningLines : public QObject {
    Q_OBJECT
private slots:
    void aDrawnOrderHasItsEvenings() {
        const auto asked = story::ask();
        const Question question = *firstQuestion(asked.document, asked.study);
        const EveningLines told = linesOf(asked.document, question);
        QCOMPARE(told.title, QString("Evenings, if it is done in the order drawn"));
        QVERIFY(!told.canBeDatedAnew && told.later.isEmpty());
        const PlanFigures figures = planFigures(asked.document, &question, now);
        QCOMPARE(told.evenings.size(), static_cast<int>(figures.analysis->schedule.evenings.size()));
        // Every mount of the analysis is named once.
        const QString all = told.evenings.join(' ');
        int named = 0;
        for (const auto& [name, resistance] : story::materials)
            named += static_cast<int>(all.count(QString::fromStdString(name)));
        QCOMPARE(named, figures.analysis->mountsToCome);
    }
    void whatIsOnTheTapeIsToldWithItsDates() {
        const Laid laid;
        const EveningLines told = linesOf(laid.asked.document, laid.question);
        QCOMPARE(told.title, QString("Evenings of what is on the tape"));
        QVERIFY(!told.canBeDatedAnew);
        const Instant first = *laid.planned().front()->plannedFor;
        QVERIFY2(told.evenings.front().contains(QString::fromStdString(dateText(first))),
                 qPrintable(told.evenings.front()));
        QVERIFY2(told.evenings.front().contains(QString::fromStdString(dateTimeText(first).substr(11))),
                 qPrintable(told.evenings.front()));
    }
    void otherDatesOnTheTapeCanBeLaidAnew() {
        Laid laid;
        laid.change([&](Edit& edit) {
            Slot slot = *laid.planned().back();
            slot.plannedFor = *parseInstant("2032-01-01");
            edit.put(slot);
        });
        const EveningLines told = linesOf(laid.asked.document, laid.question);
        QVERIFY(told.canBeDatedAnew);
        QCOMPARE(told.title, QString("Evenings of what is on the tape, if dated anew"));
    }
    void anEveningTooShortSaysSo() {
        auto asked = story::ask();
        Edit edit(asked.document, "short");
        Plan plan = planFor(asked.document, asked.study);
        plan.hours = 0.25;
        putPlan(edit, plan);
        apply(asked.document, edit.finish());
        const QString last =
            linesOf(asked.document, *firstQuestion(asked.document, asked.study)).evenings.back();
        QVERIFY2(last.endsWith("lengthen the evening."), qPrintable(last));
    }
    void whatToComeBackToIsCounted() {
        Laid laid;
        laid.comeBackAfter("5 d");
        const QString later = linesOf(laid.asked.document, laid.question).later;
        QVERIFY2(later.startsWith("9 to come back to, first: "), qPrintable(later));
    }
    void whatCannotBePlannedSaysWhy() {
        const auto asked = story::ask();
        Question question = *firstQuestion(asked.document, asked.study);
        question.margin.value = 0;
        const EveningLines told = linesOf(asked.document, question);
        QCOMPARE(told.evenings.size(), 1);
        QCOMPARE(told.evenings.front(), planFigures(asked.document, &question, now).whyNot);
        QVERIFY(told.title.isEmpty());
    }
    void stepsOfHandsStandForEachClassWithTheirSource() {
        auto asked = story::ask();
        const Question question = *firstQuestion(asked.document, asked.study);
        const auto usual = handTimeLines(asked.document, question, asked.bench);
        QCOMPARE(usual.size(), std::size_t{3}); // paste: take off, clean, apply
        for (const HandTimeLine& line : usual) {
            QCOMPARE(line.material, MaterialClass::paste);
            QCOMPARE(line.source, QString("usual"));
            QVERIFY(line.minutes.toInt() > 0);
        }
        Edit edit(asked.document, "state");
        StepTime stated;
        stated.bench = asked.bench;
        stated.kind = StepKind::clean;
        stated.material = MaterialClass::paste;
        stated.minutes = 33;
        edit.add(stated);
        Material pad = asked.document.all<Material>().begin()->second;
        pad.kind = MaterialClass::gapPad;
        edit.put(pad);
        apply(asked.document, edit.finish());
        const auto both = handTimeLines(asked.document, question, asked.bench);
        QCOMPARE(both.size(), std::size_t{6});
        const auto clean = std::find_if(both.begin(), both.end(), [](const HandTimeLine& line) {
            return line.material == MaterialClass::paste && line.step == StepKind::clean;
        });
        QCOMPARE(clean->minutes, QString("33"));
        QCOMPARE(clean->source, QString("stated"));
    }
    void theTurnaroundIsLearnedOnlyFromRecordings() {
        const auto asked = story::ask();
        QVERIFY(turnaroundText(asked.document, asked.bench).startsWith("Learned from the recordings once"));
    }
};

IBUKI_TEST(TestEveningLines)
#include "tst_evening_lines.moc"
