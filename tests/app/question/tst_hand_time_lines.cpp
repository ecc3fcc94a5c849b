// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/hand_time_lines.h"
#include "core/domain/lookup.h"
#include "support/story.h"
#include "support/test_class.h"

using namespace ibuki;

class TestHandTimeLines : public QObject {
    Q_OBJECT
private slots:
    void stepsOfHandsStandForEachClassWithTheirSource() {
        auto asked = story::ask();
        const Question question = *firstQuestion(asked.document, asked.study);
        const auto typical = handTimeLines(asked.document, question, asked.bench);
        QCOMPARE(typical.size(), std::size_t{3}); // paste: take off, clean, apply
        for (const HandTimeLine& line : typical) {
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

IBUKI_TEST(TestHandTimeLines)
#include "tst_hand_time_lines.moc"
