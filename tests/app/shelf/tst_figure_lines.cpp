// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/figure_lines.h"
#include "core/domain/material.h"
#include "support/story.h"
#include "support/test_class.h"

using namespace ibuki;

class TestFigureLines : public QObject {
    Q_OBJECT

    /// A paste with a claim and a priced tube, a pad without any lot.
    struct Things {
        Document document;
        ShelfThing paste;
        ShelfThing pad;
        Id<Site> site;
    };
    static Things things() {
        Things made;
        const auto asked = story::ask();
        made.document = asked.document;
        Edit edit(made.document, "shelf");
        Material paste = made.document.all<Material>().begin()->second;
        paste.claimedConductivity = WattPerMetreKelvin{12.5};
        paste.densityGPerMl = 2.6;
        edit.put(paste);
        Lot tube = *made.document.where(&Lot::material, paste.id).front();
        tube.content = 4;
        tube.price = 9;
        tube.currency = "NOK";
        tube.supplier = "Harbour Supply";
        edit.put(tube);
        Material pad = story::materialNamed("Slate 25");
        pad.kind = MaterialClass::gapPad;
        made.pad = {edit.add(pad), {}};
        made.paste = {paste.id, tube.id};
        Site site = *made.document.find(firstQuestion(asked.document, asked.study)->site);
        site.width = Millimetre{30};
        site.length = Millimetre{30};
        edit.put(site);
        made.site = site.id;
        apply(made.document, edit.finish());
        return made;
    }
    static QStringList valuesOf(const FigureTable& reported, const QString& name) {
        for (const FigureLine& line : reported.lines)
            if (line.name == name) return line.values;
        return {};
    }

private slots:
    void oneThingHasNoHead() {
        const Things on = things();
        const FigureTable reported = figureTable(on.document, {on.paste}, on.document.find(on.site), {});
        QVERIFY(reported.heads.isEmpty() && !reported.lacksSite);
        QCOMPARE(valuesOf(reported, "Claim"), QStringList("label says 12.5 W/(m·K)"));
        QCOMPARE(valuesOf(reported, "Supplier"), QStringList("Harbour Supply"));
        QCOMPARE(valuesOf(reported, "Price per g"), QStringList("2.25 NOK"));
        for (const FigureLine& line : reported.lines) QCOMPARE(line.values.size(), 1);
    }
    void whatTheUserNeverSaidIsMarked() {
        const Things on = things();
        const FigureTable reported = figureTable(on.document, {on.paste}, nullptr, {});
        QCOMPARE(valuesOf(reported, "Density"), QStringList("2.6 g/mL"));
        QVERIFY(valuesOf(reported, "Bond line").front().endsWith("(usual)"));
    }
    void twoThingsStandBesideEachOther() {
        const Things on = things();
        const FigureTable reported =
            figureTable(on.document, {on.paste, on.pad}, on.document.find(on.site), {});
        QCOMPARE(reported.heads, (QStringList{"Tern 11, tube", "Slate 25"}));
        for (const FigureLine& line : reported.lines) QCOMPARE(line.values.size(), 2);
        QCOMPARE(valuesOf(reported, "Supplier"), (QStringList{"Harbour Supply", "–"})); // the pad has no lot
        QCOMPARE(valuesOf(reported, "Bond line").back(), QString("–"));                 // it has a thickness
        QCOMPARE(valuesOf(reported, "Thickness").front(), QString("–"));
        const FigureTable turned =
            figureTable(on.document, {on.pad, on.paste}, on.document.find(on.site), {});
        QCOMPARE(valuesOf(turned, "Supplier"), (QStringList{"–", "Harbour Supply"}));
    }
    void withoutASiteNothingIsToldOfOneApplication() {
        const Things on = things();
        const FigureTable reported = figureTable(on.document, {on.paste}, nullptr, {});
        QVERIFY(reported.lacksSite);
        QCOMPARE(valuesOf(reported, "Price per application"), QStringList("–"));
        QVERIFY(valuesOf(figureTable(on.document, {on.paste}, on.document.find(on.site), {}),
                         "Price per application")
                    .front()
                    .endsWith(" NOK"));
    }
    void whatIsGoneIsLeftOut() {
        const Things on = things();
        const FigureTable reported =
            figureTable(on.document, {{Id<Material>{424242}, {}}, on.paste}, nullptr, {});
        QCOMPARE(reported.heads, QStringList("Tern 11, tube"));
        for (const FigureLine& line : reported.lines) QCOMPARE(line.values.size(), 1);
        QVERIFY(reported == figureTable(on.document, {{Id<Material>{424242}, {}}, on.paste}, nullptr, {}));
    }
};

IBUKI_TEST(TestFigureLines)
#include "tst_figure_lines.moc"
