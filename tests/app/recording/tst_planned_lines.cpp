// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/recording/planned_lines.h"
#include "support/laid.h"
#include "support/test_class.h"

using namespace ibuki;
using story::Laid;
using story::now;

class TestPlannedLines : public QObject {
    Q_OBJECT
private slots:
    void aPlannedMountTellsLevelDateAndSteps() {
        const Laid laid;
        const Slot& slot = *laid.planned().front();
        const PlannedLines reported = slotLines(laid.asked.document, slot, now);
        const QString level = QString::fromStdString(laid.asked.document.find(slot.level)->name);
        QVERIFY2(reported.title.contains(level), qPrintable(reported.title));
        QVERIFY(reported.when.front().contains(QString::fromStdString(dateTimeText(*slot.plannedFor))));
        QVERIFY(reported.when.contains("block 1"));
        QVERIFY(reported.steps.size() >= 5);
        for (int i = 0; i < reported.steps.size(); ++i)
            QVERIFY(reported.steps[i].startsWith(QString::number(i + 1) + ".  "));
    }
    void withoutSizeAndTubeItSaysWhatIsMissing() {
        Laid laid;
        laid.change([&](Edit& edit) {
            for (const auto& [id, lot] : laid.asked.document.all<Lot>()) edit.remove(id);
        });
        QCOMPARE(slotLines(laid.asked.document, *laid.planned().front(), now).manualWork,
                 QString("Dose and tube are not known: state the site's size and a lot."));
    }
    void aSkippedMountTellsItsReason() {
        Laid laid;
        const Id<Slot> slot = laid.planned().front()->id;
        laid.change([&](Edit& edit) { skipSlot(edit, slot, "tube ran dry"); });
        QVERIFY(slotLines(laid.asked.document, *laid.asked.document.find(slot), now)
                    .when.contains("skipped: tube ran dry"));
    }
    void whatHoldsThePlanStandsFirstAndCautionsEndWithWhoDecides() {
        Laid laid;
        laid.change([&](Edit& edit) {
            for (const auto& [id, material] : laid.asked.document.all<Material>()) {
                Material metal = material;
                metal.kind = MaterialClass::liquidMetal;
                edit.put(metal);
            }
            Site site = *laid.asked.document.find(laid.question.site);
            site.lowerFace = Metal::aluminium;
            edit.put(site);
        });
        const QStringList cautions = slotLines(laid.asked.document, *laid.planned().front(), now).cautions;
        QVERIFY2(cautions.front().startsWith("Held. "), qPrintable(cautions.front()));
        QVERIFY(cautions.size() >= 3);
        const QString preamble = cautions.back();
        QVERIFY2(preamble.contains("manufacturer", Qt::CaseInsensitive), qPrintable(preamble));
    }
    void aLaterRunTellsWhenAndOnWhat() {
        Laid laid;
        laid.comeBackAfter("5 d");
        const FollowUp later = laid.asked.document.all<FollowUp>().begin()->second;
        const PlannedLines reported = followUpLines(laid.asked.document, later);
        QCOMPARE(reported.title, QString("Come back to the mount planned here"));
        QVERIFY2(reported.manualWork.startsWith("After 5 d: run the same load"),
                 qPrintable(reported.manualWork));
        QVERIFY2(reported.when.front().startsWith("Due "), qPrintable(reported.when.front()));
        QCOMPARE(reported.steps.size(), 1);
    }
    void aLaterRunOfAnUndatedMountSaysSo() {
        Laid laid;
        laid.comeBackAfter("5 d");
        const FollowUp later = laid.asked.document.all<FollowUp>().begin()->second;
        laid.change([&](Edit& edit) {
            Slot slot = *laid.asked.document.find(later.slot);
            slot.plannedFor.reset();
            edit.put(slot);
        });
        QCOMPARE(followUpLines(laid.asked.document, later).when.front(),
                 QString("Not dated: put the plan on the tape."));
    }
};

IBUKI_TEST(TestPlannedLines)
#include "tst_planned_lines.moc"
