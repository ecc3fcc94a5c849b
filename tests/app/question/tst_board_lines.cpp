// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/board_layout.h"
#include "app/session/qtext.h"
#include "core/plan/step_times.h"
#include "support/laid.h"
#include "support/near.h"
#include "support/test_class.h"

using namespace ibuki;
using story::Laid;
using story::now;

namespace {

BoardLines linesOf(const Document& document, const Question& question) {
    return boardLines(document, question, planFigures(document, &question, now), now);
}
BoardLines linesOf(const Laid& laid) { return linesOf(laid.asked.document, laid.question); }

QStringList costsOf(const Laid& laid, std::size_t from, std::size_t to) {
    return movedCosts(laid.asked.document, laid.question,
                      planFigures(laid.asked.document, &laid.question, now), now, from, to);
}

void setPlan(Document& document, Id<Study> study, const std::function<void(Plan&)>& change) {
    Edit edit(document, "plan");
    Plan plan = planFor(document, study);
    change(plan);
    putPlan(edit, plan);
    apply(document, edit.finish());
}

} // namespace

class TestBoardLines : public QObject {
    Q_OBJECT
private slots:
    void withoutATapeTheDrawIsTold() {
        const auto asked = story::ask();
        const Question question = *firstQuestion(asked.document, asked.study);
        const BoardLines reported = linesOf(asked.document, question);
        QCOMPARE(reported.title, QString("As drawn, not on the tape yet"));
        const PlanFigures figures = planFigures(asked.document, &question, now);
        QCOMPARE(static_cast<int>(reported.bars.size()), figures.analysis->mountsToCome);
        QCOMPARE(reported.evenings.size(), figures.analysis->schedule.evenings.size());
        QCOMPARE(reported.lanes.size(), story::materials.size());
        for (const BoardBar& bar : reported.bars) QVERIFY(!bar.slot && bar.movable && !bar.steps.empty());
        QVERIFY(reported.past.empty() && reported.later.empty() && !reported.canBeDatedAnew
                && reported.reason.isEmpty());
    }
    void onTheTapeEveryMountHasItsSlotLaneAndDate() {
        const Laid laid(3, 2);
        const BoardLines reported = linesOf(laid);
        const auto planned = laid.planned();
        QCOMPARE(reported.title, QString("On the tape"));
        QCOMPARE(reported.bars.size(), planned.size());
        QCOMPARE(reported.lanes.back().name, QString("check mount"));
        QCOMPARE(reported.lanes.back().kind, std::optional(MaterialClass::paste));
        for (std::size_t i = 0; i < planned.size(); ++i) {
            QCOMPARE(reported.bars[i].slot, std::optional(planned[i]->id));
            const bool check = planned[i]->kind == SlotKind::checkMount;
            QCOMPARE(reported.lanes[reported.bars[i].lane].name,
                     check ? QString("check mount")
                           : qtext(laid.asked.document.find(planned[i]->level)->name));
            QCOMPARE(*reported.bars[i].steps.front().start, *planned[i]->plannedFor);
            QVERIFY2(reported.bars[i].when.endsWith(qtext(dateTimeText(*planned[i]->plannedFor))),
                     qPrintable(reported.bars[i].when));
            QVERIFY2(reported.bars[i].title.startsWith(QString::number(i + 1) + " "),
                     qPrintable(reported.bars[i].title));
        }
    }
    void stepsLookLikeWhatTheyAsk() {
        Laid laid;
        laid.change([&](Edit& edit) {
            usePreset(edit, laid.asked.study, ProtocolPreset::air);
            ProtocolStep idle = protocolOf(edit.document(), laid.asked.study)[1];
            idle.unattended = false;
            edit.put(idle);
        });
        const BoardBar bar = linesOf(laid).bars.front();
        std::vector<StepLook> looks;
        for (const StepOccurrence& step : bar.steps) looks.push_back(lookOf(step));
        using enum StepLook;
        QCOMPARE(looks,
                 (std::vector{manualWork, manualWork, manualWork, alone, waiting, alone, alone, alone}));
        QVERIFY2(bar.detail.contains("Meanwhile: weigh the tube of "), qPrintable(bar.detail));
    }
    void theMachineAsItStandsIsFirstAndStays() {
        Laid fresh;
        fresh.change([&](Edit& edit) {
            for (const Slot* slot : fresh.planned()) removeSlot(edit, slot->id);
        });
        Plan plan = planFor(fresh.asked.document, fresh.asked.study);
        plan.baseline = true;
        fresh.lay(plan);
        const BoardLines reported = linesOf(fresh);
        QCOMPARE(reported.lanes.front().name, QString("as it stands"));
        QVERIFY(!reported.bars.front().movable);
        QCOMPARE(reported.bars.front().lane, std::size_t{0});
        QCOMPARE(reported.lanes[reported.bars[1].lane].name,
                 qtext(fresh.asked.document.find(fresh.planned()[1]->level)->name));
    }
    void skippedMountsStandBeforeTheOthersWithTheirReason() {
        Laid laid;
        const Id<Slot> gone = laid.planned().front()->id;
        laid.change([&](Edit& edit) { skipSlot(edit, gone, "tube ran dry"); });
        const BoardLines reported = linesOf(laid);
        QCOMPARE(reported.past.size(), std::size_t{1});
        QCOMPARE(reported.past.front().slot, gone);
        QVERIFY(reported.past.front().skipped);
        QCOMPARE(reported.past.front().detail, QString("skipped: tube ran dry"));
        QCOMPARE(reported.bars.size(), std::size_t{8});
        laid.change([&](Edit& edit) { stopEarly(edit, laid.asked.study, "bench sold"); });
        const BoardLines stopped = linesOf(laid);
        QCOMPARE(stopped.title, QString("Nothing is left to do"));
        QCOMPARE(stopped.past.size(), std::size_t{9});
        QVERIFY(stopped.bars.empty());
    }
    void aTapeThatIsNotThePlanSaysSo() {
        Laid laid;
        setPlan(laid.asked.document, laid.asked.study, [](Plan& plan) { plan.mountsPerLevel = 5; });
        QCOMPARE(linesOf(laid).title, QString("On the tape, but not the plan as it is now"));
        Laid dated;
        dated.change([&](Edit& edit) {
            Slot slot = *dated.planned().back();
            slot.plannedFor = *parseInstant("2032-01-01");
            edit.put(slot);
        });
        QCOMPARE(linesOf(dated).title, QString("On the tape, with other dates than these"));
        QVERIFY(linesOf(dated).canBeDatedAnew);
    }
    void whatCannotBePlannedSaysWhy() {
        const auto asked = story::ask();
        Question question = *firstQuestion(asked.document, asked.study);
        question.margin.value = 0;
        const BoardLines reported = linesOf(asked.document, question);
        QCOMPARE(reported.reason, planFigures(asked.document, &question, now).reason);
        QVERIFY(!reported.reason.isEmpty() && reported.bars.empty() && reported.lanes.empty());
    }
    void anEveningTooShortSaysSo() {
        auto asked = story::ask();
        setPlan(asked.document, asked.study, [](Plan& plan) { plan.hours = 0.25; });
        const BoardLines reported = linesOf(asked.document, *firstQuestion(asked.document, asked.study));
        QVERIFY2(reported.overlong.endsWith("lengthen the evening."), qPrintable(reported.overlong));
    }
    void daysToComeBackGatherTheirMounts() {
        Laid laid;
        laid.comeBackAfter("5 d, 2 w");
        const auto seenOn = [&](const char* day) {
            return boardLines(laid.asked.document, laid.question,
                              planFigures(laid.asked.document, &laid.question, now), *parseInstant(day));
        };
        const BoardLines reported = seenOn("1969-12-01"); // the story's plan begins with the epoch
        std::size_t mounts = 0;
        for (std::size_t i = 0; i < reported.later.size(); ++i) {
            mounts += reported.later[i].marks.size();
            QVERIFY(!reported.later[i].overdue);
            QCOMPARE(reported.later[i].since.isEmpty(), i == 0);
            QCOMPARE(reported.later[i].detail.count('\n') + 1,
                     static_cast<int>(reported.later[i].marks.size()));
        }
        QCOMPARE(mounts, std::size_t{18});
        QVERIFY(reported.later.size() < 18);
        const BoardLines late = seenOn("2033-01-01");
        QVERIFY(late.later.front().overdue);
    }
    void aMoveTellsItsCostBeforehand() {
        Laid laid;
        const QStringList before = costsOf(laid, 0, 0);
        const QStringList moved = costsOf(laid, 8, 0);
        QVERIFY(moved != before);
        laid.change([&](Edit& edit) { moveSlot(edit, laid.planned()[8]->id, 0); });
        QCOMPARE(costsOf(laid, 0, 0), moved); // what was told is what it then is
        QVERIFY2(before.front().contains(" in ") && before.front().contains(" h "),
                 qPrintable(before.front()));
    }
    void theLayoutIsToScaleAndNightsAreNarrow() {
        Laid laid(3);
        const BoardLines lines = linesOf(laid);
        QVERIFY(lines.evenings.size() >= 2);
        BoardSizes sizes;
        sizes.pixelsAMinute = 2;
        const BoardLayout layout = layoutBoard(lines, sizes);
        for (std::size_t e = 0; e < lines.evenings.size(); ++e) {
            const double minutes =
                static_cast<double>(lines.evenings[e].end.ms - lines.evenings[e].start.ms) / 60'000;
            QVERIFY_NEAR(layout.evenings[e].width(), 2 * minutes, 1e-6);
            if (e > 0)
                QVERIFY_NEAR(layout.evenings[e].left() - layout.evenings[e - 1].right(), sizes.nightWidth,
                             1e-6);
        }
        for (std::size_t b = 0; b < lines.bars.size(); ++b) {
            if (b > 0) QVERIFY(layout.bars[b].left() >= layout.bars[b - 1].right() - 1e-6);
            for (std::size_t s = 1; s < layout.steps[b].size(); ++s) // steps follow each other without a gap
                QVERIFY(layout.steps[b][s].left() >= layout.steps[b][s - 1].right() - 1e-6);
            QCOMPARE(layout.placeAt(layout.bars[b].center().x() + 1, b), b); // let go where it was
        }
        QCOMPARE(layout.placeAt(-1e9, 4), std::size_t{0});
        QCOMPARE(layout.placeAt(1e9, 4), lines.bars.size() - 1);
        QVERIFY(layout.gapAt(0, 3) > layout.gapAt(3, 0));
        BoardSizes fitted;
        fitted.pixelsAMinute = fittingScale(lines, fitted, 4000);
        QVERIFY(fitted.pixelsAMinute > fittingScale(lines, fitted, 900));
        QVERIFY(layoutBoard(lines, fitted).width <= 4000);
    }
};

IBUKI_TEST(TestBoardLines)
#include "tst_board_lines.moc"
