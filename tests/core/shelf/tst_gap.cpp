// SPDX-License-Identifier: GPL-3.0-or-later
// Reference values: docs/methods.md, "Pads and gaps": gap 1.2 mm, eight pads of 12 × 14 mm at 0.5 MPa, 300 N.
#include "core/domain/bench.h"
#include "core/domain/material.h"
#include "core/shelf/gap.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"

using namespace ibuki;

class TestGap : public QObject {
    Q_OBJECT

    struct Card {
        Document document;
        Configuration rig;
        Material pad;
        Id<Site> memory;
        Id<Site> stages;
    };
    static Card card() {
        Card made;
        Edit edit(made.document, "card");
        const Id<Bench> bench = addBench(edit, BenchTemplate::graphicsCard, "render-1");
        Configuration rig = *currentConfiguration(edit.document(), bench);
        rig.mountForce = Newton{300};
        rig.plateThickness = Millimetre{2};
        rig.plateRadius = Millimetre{30};
        edit.put(rig);
        made.rig = rig;
        for (const Site* each : edit.document().where(&Site::configuration, rig.id)) {
            Site site = *each;
            if (site.kind == SiteKind::powerStage) made.stages = site.id;
            if (site.kind != SiteKind::memory) continue;
            site.width = Millimetre{12};
            site.length = Millimetre{14};
            site.gap = Millimetre{1.2};
            site.alike = 8;
            edit.put(site);
            made.memory = site.id;
        }
        made.pad = story::materialNamed("Basalt 2.0");
        made.pad.kind = MaterialClass::gapPad;
        made.pad.thickness = Millimetre{2};
        made.pad.modulusMPa = 0.5;
        apply(made.document, edit.finish());
        return made;
    }

private slots:
    void thickerPadsTakeTheLoadOffTheDie_data() {
        QTest::addColumn<double>("thickness");
        QTest::addColumn<double>("force");
        QTest::addColumn<bool>("touches");
        QTest::newRow("1.0 mm: no contact") << 1.0 << 0.0 << true;
        QTest::newRow("1.5 mm") << 1.5 << 134.4 << true;
        QTest::newRow("2.0 mm") << 2.0 << 268.8 << true;
        QTest::newRow("2.5 mm") << 2.5 << 349.44 << false;
    }
    void thickerPadsTakeTheLoadOffTheDie() {
        QFETCH(double, thickness);
        QFETCH(double, force);
        QFETCH(bool, touches);
        const Card on = card();
        const GapReport report = gapReport(on.document, on.rig, on.pad, {{on.memory, thickness}});
        QCOMPARE(report.lines.size(), std::size_t{1});
        QVERIFY_NEAR(report.padForceN, force, 1e-9);
        QVERIFY_NEAR(report.dieForceN, 300 - force, 1e-9);
        QCOMPARE(report.dieTouches, touches);
        QCOMPARE(report.lines.front().state.fit == PadFit::noContact, thickness < 1.2);
    }
    void theBackplateBows() {
        const Card on = card();
        const GapReport report = gapReport(on.document, on.rig, on.pad);
        QVERIFY_NEAR(report.bow->clampedUm, 37, 0.5);
        QVERIFY_NEAR(report.bow->supportedUm, 94, 0.5);
        QVERIFY_NEAR(gapReport(on.document, on.rig, on.pad, {}, 600).bow->clampedUm,
                     2 * report.bow->clampedUm, 1e-9);
    }
    void onlyUsualThicknessesThatFitAreNamed() {
        const Card on = card();
        const auto fitting = gapReport(on.document, on.rig, on.pad).lines.front().fitting;
        QCOMPARE(fitting, (std::vector<double>{1.5})); // 20 %; 1.75 mm would be 31 %, 1.25 mm 4 %
    }
    void sitesWithoutSizeOrGapAreNamed() {
        const Card on = card();
        const GapReport report = gapReport(on.document, on.rig, on.pad);
        QVERIFY(std::find(report.missing.begin(), report.missing.end(), on.stages) != report.missing.end());
        QVERIFY(std::find(report.missing.begin(), report.missing.end(), on.memory) == report.missing.end());
    }
    void theForceIsTheUsualOneWhereNoneIsStated() {
        Card on = card();
        on.rig.mountForce.reset();
        on.rig.plateRadius.reset();
        const GapReport report = gapReport(on.document, on.rig, on.pad);
        QCOMPARE(report.mountForceN, 300.0);
        QVERIFY(!report.bow);
    }
};

IBUKI_TEST(TestGap)
#include "tst_gap.moc"
