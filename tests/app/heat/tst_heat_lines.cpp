// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/external_lines.h"
#include "app/heat/transient_lines.h"
#include "support/test_class.h"

using namespace ibuki;

namespace {

TransientStudy studied() {
    TransientStudy study;
    study.atS = 5;
    study.intervalS = 1;
    study.sensorStepK = 0.5;
    study.stepW = 120;
    study.startKPerW = 0.0004;
    Comparison comparison;
    comparison.groups.resize(2);
    comparison.groups[0].name = "Tern 11";
    comparison.groups[1].name = "Plover 4";
    study.comparison = comparison;
    TransientPair pair;
    pair.read.a = 0;
    pair.read.b = 1;
    pair.read.difference = -0.0123;
    pair.read.ci = Interval{-0.02, -0.005};
    pair.read.verdict = Verdict::different;
    pair.steadyKPerW = -0.015;
    pair.curves.leastP = 0.01;
    pair.curves.p = 0.4;
    study.pairs = {pair};
    return study;
}

} // namespace

class TestHeatLines : public QObject {
    Q_OBJECT

private slots:
    void aTimeThatWasNotDeclaredIsToldFirst() {
        QVERIFY(transientLines(studied(), {}).first().contains("No time was declared"));
        QVERIFY(transientLines(studied(), 8.0).first().startsWith("Declared is 8 s"));
        QVERIFY(transientLines(studied(), 5.0).first().startsWith("Sampled every 1 s in steps of 0.5 K"));
    }
    void whatALogCannotSeeIsSaid() {
        TransientStudy study = studied();
        QVERIFY(transientLines(study, 5.0).join(" ").contains("layers cannot"));
        study.sight = TransientSight::layers;
        QVERIFY(transientLines(study, 5.0).join(" ").contains("layers are seen"));
        study.leftOut = {{"transient-moved", 3}, {"transient-ramp", 1}, {"transient-no-rest", 2}};
        const QString reported = transientLines(study, 5.0).join("\n");
        QVERIFY2(reported.contains("2 runs without a rest")
                     && reported.contains("1 run whose power came as a ramp"),
                 qPrintable(reported));
        QVERIFY(reported.contains("3 runs not logged"));
        study.isAmbientKnown = false;
        QVERIFY(transientLines(study, 5.0).join(" ").contains("Not every log has a room"));
    }
    void aPairIsARow() {
        const TransientStudy study = studied();
        const QStringList row = transientRow(study, study.pairs[0]);
        QCOMPARE(row.size(), transientHeads(study).size());
        QCOMPARE(row[0], QString("Tern 11 less Plover 4"));
        QCOMPARE(row[1], QString("✓ −0.0123"));
        QCOMPARE(row[3], QString("−1.5")); // 0.0123 K/W × 120 W
        QVERIFY(row[5].startsWith("nowhere apart"));
        TransientPair pair = study.pairs[0];
        pair.apartFromS = 1.25;
        QCOMPARE(transientRow(study, pair)[5], QString("apart from 1.25 s on"));
        pair.apartFromS.reset();
        pair.curves.leastP = 0.1;
        QCOMPARE(transientRow(study, pair)[5], QString("too few mounts to tell"));
    }
    void accountAddsUpInWords() {
        Disagreement found;
        found.hereK = 1.8;
        found.expectedK = 0.9;
        found.expectedCi = Interval{0.6, 1.2};
        found.reportedK = 3;
        found.scatterK = 1.1;
        found.byScatterK = 1.1;
        found.leftK = 1.0;
        ExternalResult read;
        read.power = Watt{65};
        read.chipMm2 = 120;
        read.lid = LidState::bareDie;
        const QString reported = accountText(found, "A", "B", 150, read);
        for (const char* part :
             {"A ran 1.8 K hotter than B at 150 W", "65 W, 120 mm², bare die", "0.9 K (0.6 K to 1.2 K)",
              "they read 3.0 K", "1 mount of each", "1.0 K are left"})
            QVERIFY2(reported.contains(part), qPrintable(reported));
        found.leftK = 0;
        QVERIFY(accountText(found, "A", "B", 150, read).contains("both results agree"));
        found.hereK = -1.8;
        QVERIFY(accountText(found, "A", "B", 150, read).contains("A ran 1.8 K cooler than B"));
        found.scatterK.reset();
        QVERIFY(accountText(found, "A", "B", 150, read).contains("No material was mounted twice"));
    }
    void kelvinsHaveTheirSign() {
        QCOMPARE(kelvinText(1.26), QString("1.3 K"));
        QCOMPARE(kelvinText(-1.26), QString("−1.3 K"));
        QCOMPARE(kelvinText(1.26, true), QString("+1.3 K"));
        QCOMPARE(kelvinText(-0.01, true), QString("0.0 K"));
    }
};

IBUKI_TEST(TestHeatLines)
#include "tst_heat_lines.moc"
