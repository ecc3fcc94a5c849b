// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/setup/plan_setup.h"
#include "core/setup/project_summary.h"
#include "support/laid.h"
#include "support/test_class.h"

#include <QtTest>

using namespace ibuki;
using story::Laid;
using story::now;

class TestNextStep : public QObject {
    Q_OBJECT
private slots:
    void aStudyWaitsForItsPlanThenMountsThenLogs() {
        story::Asked asked = story::ask();
        QCOMPARE(nextStep(asked.document, asked.study).needs, StudyNeeds::plan);
        Laid laid(3, 2);
        NextStep step = nextStep(laid.asked.document, laid.asked.study);
        QCOMPARE(step.needs, StudyNeeds::mount);
        QCOMPARE(step.slot, std::optional(laid.planned().front()->id));
        QCOMPARE(step.planned, std::size_t{11});
        QCOMPARE(step.mounted, std::size_t{0});
        Id<Mount> made;
        laid.change([&](Edit& edit) {
            Mount mount;
            mount.name = "first";
            made = edit.add(mount);
            Slot filled = *laid.planned().front();
            filled.mount = made;
            edit.put(filled);
        });
        step = nextStep(laid.asked.document, laid.asked.study);
        QCOMPARE(step.needs, StudyNeeds::log);
        QCOMPARE(step.mount, std::optional(made));
        QCOMPARE(step.planned, std::size_t{10});
    }
    void allMeasuredWaitsForNothing() {
        const story::Asked asked = story::measured();
        QCOMPARE(nextStep(asked.document, asked.study).needs, StudyNeeds::nothing);
        QCOMPARE(nextStep(asked.document, asked.study).mounted, std::size_t{9});
    }
    void theDraftIsWhatWouldBeLaid() {
        story::Asked asked = story::ask();
        const auto draft = draftedSlots(asked.document, asked.study, now);
        QVERIFY(!draft.empty());
        Edit edit(asked.document, "lay");
        layPlan(edit, *firstQuestion(asked.document, asked.study), planFor(asked.document, asked.study), now);
        apply(asked.document, edit.finish());
        const auto laid = slotsOf(asked.document, asked.study);
        QCOMPARE(draft.size(), laid.size());
        for (std::size_t i = 0; i < laid.size(); ++i) {
            QCOMPARE(draft[i].level, laid[i]->level);
            QCOMPARE(draft[i].kind, laid[i]->kind);
            QCOMPARE(draft[i].plannedFor, laid[i]->plannedFor);
        }
        QVERIFY(draftedSlots(asked.document, asked.study, now).empty()); // it is there now
    }
    void aSummaryTellsTheOpenStudy() {
        Laid laid(3, 2);
        const ProjectSummary summary = summaryOf(laid.asked.document);
        QCOMPARE(summary.bench, std::string("node-2"));
        QCOMPARE(summary.study, std::string("Three pastes"));
        QVERIFY(!summary.isClosed);
        QCOMPARE(summary.step.planned, std::size_t{11});
        QCOMPARE(summary.due, laid.planned().front()->plannedFor);
        laid.change([&](Edit& edit) {
            Study closed = *laid.asked.document.find(laid.asked.study);
            closed.state = StudyState::closed;
            edit.put(closed);
        });
        QVERIFY(summaryOf(laid.asked.document).isClosed);
        QCOMPARE(summaryOf(Document()).bench, std::string());
    }
};

IBUKI_TEST(TestNextStep)
#include "tst_next_step.moc"
