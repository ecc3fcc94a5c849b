// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/caution/blocking_caution.h"
#include "core/domain/study.h"
#include "core/shelf/cut_job.h"
#include "core/shelf/shelf.h"
#include "core/shelf/shelf_edit.h"
#include "core/shelf/shelf_worth.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"

using namespace ibuki;

class TestShelf : public QObject {
    Q_OBJECT

    /// One paste in a 4 g tube for 9.00, and a 30 × 30 mm site: the worked example of docs/methods.md,
    /// "Dose".
    struct Shelf {
        Document document;
        Id<Material> paste;
        Id<Lot> tube;
        Id<Site> site;
        Id<Study> study;
    };
    static Shelf shelf() {
        Shelf made;
        const auto asked = story::ask();
        made.document = asked.document;
        made.study = asked.study;
        const Question& question = *firstQuestion(made.document, asked.study);
        made.site = question.site;
        Edit edit(made.document, "fill");
        Site site = *edit.document().find(question.site);
        site.width = site.length = Millimetre{30};
        edit.put(site);
        made.paste = levelMaterials(edit.document(), question).front()->id;
        Material paste = *edit.document().find(made.paste);
        paste.bondLine = Micrometre{40};
        paste.densityGPerMl = 2.6;
        paste.reapplyYears = 3;
        edit.put(paste);
        Lot tube = *edit.document().where(&Lot::material, made.paste).front();
        made.tube = tube.id;
        tube.content = 4;
        tube.price = 9;
        tube.currency = "NOK";
        edit.put(tube);
        apply(made.document, edit.finish());
        return made;
    }
    template <class E> static void put(Document& document, const E& entity) {
        Edit edit(document, "put");
        edit.put(entity);
        apply(document, edit.finish());
    }
    static Application taken(const Shelf& from, std::optional<double> grams) {
        Application application;
        application.site = from.site;
        application.lot = from.tube;
        if (grams) application.amount = Gram{*grams};
        return application;
    }
    static const Lot& tube(const Shelf& from) { return *from.document.find(from.tube); }

private slots:
    void aMountTakesItsAmountOff() {
        Shelf on = shelf();
        Edit edit(on.document, "mounts");
        edit.add(taken(on, 0.14));
        Application weighed = taken(on, 9.0); // the weighings go before the stated amount
        weighed.syringeBefore = Gram{12.50};
        weighed.syringeAfter = Gram{12.31};
        edit.add(weighed);
        edit.add(taken(on, std::nullopt));
        apply(on.document, edit.finish());
        const LotState state = lotState(on.document, tube(on), {});
        QVERIFY_NEAR(state.taken, 0.33, 1e-12);
        QVERIFY_NEAR(*state.left, 3.67, 1e-12);
        QVERIFY_NEAR(*state.share, 3.67 / 4, 1e-12);
        QCOMPARE(state.silent, 1);
        QVERIFY_NEAR(*massAppliedG(weighed), 0.19, 1e-12);
    }
    void aStatedRestCountsFromThen() {
        Shelf on = shelf();
        Edit edit(on.document, "mounts");
        edit.add(taken(on, 0.5));
        Lot lot = tube(on);
        lot.remaining = 3.2; // weighed after the first mount
        lot.takenBefore = 0.5;
        edit.put(lot);
        edit.add(taken(on, 0.2));
        apply(on.document, edit.finish());
        QVERIFY_NEAR(*lotState(on.document, tube(on), {}).left, 3.0, 1e-12);
    }
    void takingMoreThanThereIsIsSaid() {
        Shelf on = shelf();
        Edit edit(on.document, "mounts");
        edit.add(taken(on, 4.3));
        apply(on.document, edit.finish());
        const LotState state = lotState(on.document, tube(on), {});
        QCOMPARE(*state.left, 0.0);
        QVERIFY_NEAR(state.overdrawn, 0.3, 1e-12);
        QVERIFY(tooLittleFor(on.document, tube(on), *on.document.find(on.site), {}));
    }
    void ageAndExpiry() {
        Shelf on = shelf();
        Lot lot = tube(on);
        lot.bought = *makeInstant(2031, 1, 1);
        lot.opened = *makeInstant(2031, 3, 1);
        lot.expires = *makeInstant(2031, 3, 10);
        put(on.document, lot);
        const LotState before = lotState(on.document, lot, *makeInstant(2031, 3, 8));
        QCOMPARE(*before.ageDays, 66.0);
        QCOMPARE(*before.openDays, 7.0);
        QVERIFY(!before.expired);
        QVERIFY(lotState(on.document, lot, *makeInstant(2031, 3, 11)).expired);
    }
    void moneyFollowsTheWorkedExample() {
        const Shelf on = shelf();
        const LotCost cost = costOf(on.document, tube(on), on.document.find(on.site), {});
        QVERIFY_NEAR(cost.perGram->amount, 2.25, 1e-12);
        QVERIFY_NEAR(cost.perApplication->amount, 0.3159, 1e-9); // 0.1404 g
        QVERIFY_NEAR(cost.perFaceMm2->amount, 0.3159 / 900, 1e-12);
        QCOMPARE(*cost.applicationsLeft, 28);
        QVERIFY_NEAR(cost.tenYears->amount, 4 * 0.3159, 1e-9); // now and after 3, 6, 9 years
        QCOMPARE(cost.tenYears->currency, std::string("NOK"));
    }
    void currenciesMeetOnlyByARate() {
        Shelf on = shelf();
        const std::vector<Money> mixed{{10, "NOK"}, {2, "EUR"}};
        QVERIFY(!sum(mixed, "NOK", on.document));
        Edit edit(on.document, "rate");
        edit.add(ExchangeRate{{}, "EUR", "NOK", 11.5});
        apply(on.document, edit.finish());
        QVERIFY_NEAR(sum(mixed, "NOK", on.document)->amount, 33, 1e-12);
        QVERIFY_NEAR(convert({23, "NOK"}, "EUR", on.document)->amount, 2, 1e-12);
        QVERIFY(!convert({1, "NOK"}, "SEK", on.document));
    }
    void whatIsLeftHasItsWorthInEachCurrency() {
        Shelf on = shelf();
        QCOMPARE(worthLeft(on.document, {}).byCurrency.size(), std::size_t{1});
        QVERIFY_NEAR(worthLeft(on.document, {}).total->amount, 9, 1e-9); // nothing was taken from the tube
        Edit edit(on.document, "another");
        Lot euros = tube(on);
        euros.id = {};
        euros.price = 5;
        euros.currency = "EUR";
        edit.add(euros);
        Lot unpriced = tube(on);
        unpriced.id = {};
        unpriced.price.reset();
        edit.add(unpriced);
        apply(on.document, edit.finish());
        const ShelfWorth apart = worthLeft(on.document, {});
        QCOMPARE(apart.byCurrency.size(), std::size_t{2});
        QVERIFY(!apart.total); // no rate
        Edit rate(on.document, "rate");
        rate.add(ExchangeRate{{}, "EUR", "NOK", 11.5});
        apply(on.document, rate.finish());
        QCOMPARE(worthLeft(on.document, {}).total->currency, std::string("NOK"));
        QVERIFY_NEAR(worthLeft(on.document, {}).total->amount, 9 + 5 * 11.5, 1e-9);
    }
    void whatIsUsedIsKnown() {
        Shelf on = shelf();
        QVERIFY(!isUsed(on.document, tube(on)));
        QVERIFY(isUsed(on.document, *on.document.find(on.paste))); // it has a lot and stands in a study
        Edit edit(on.document, "take");
        Application application;
        application.site = on.site;
        application.lot = on.tube;
        edit.add(application);
        edit.add(story::materialNamed("Knot 7"));
        apply(on.document, edit.finish());
        QVERIFY(isUsed(on.document, tube(on)));
        QVERIFY(!isUsed(on.document, on.document.all<Material>().back().second));
    }
    void lotsThatCannotBeAreRefused() {
        const auto refused = [](const std::function<void(Lot&)>& spoil) -> std::string {
            Lot lot;
            lot.price = 3;
            lot.currency = "NOK";
            spoil(lot);
            try {
                checkLot(lot);
            } catch (const InputError& error) {
                return error.code;
            }
            return "accepted";
        };
        QCOMPARE(refused([](Lot&) {}), std::string("accepted"));
        QCOMPARE(refused([](Lot& lot) { lot.currency.clear(); }), std::string("price-currency"));
        QCOMPARE(refused([](Lot& lot) { lot.content = -1; }), std::string("shelf-value"));
        QCOMPARE(refused([](Lot& lot) { lot.price = -3; }), std::string("shelf-value"));
        QCOMPARE(refused([](Lot& lot) { lot.sheetWidth = Millimetre{0}; }), std::string("shelf-value"));
    }
    void ratingsFillInFromMounts() {
        Shelf on = shelf();
        Edit edit(on.document, "rate");
        for (int points : {4, 5}) {
            Application application = taken(on, 0.1);
            application.spreads = points;
            edit.add(application);
        }
        apply(on.document, edit.finish());
        const Ratings ratings = ratingsOf(on.document, on.paste);
        QCOMPARE(ratings.spreads->mean, 4.5);
        QCOMPARE(ratings.spreads->count, 2);
        QVERIFY(!ratings.comesOff);
    }
    void defaultsAreMarked() {
        Material pad = story::materialNamed("Basalt 2.0");
        pad.kind = MaterialClass::gapPad;
        QVERIFY(factsOf(pad).bondLineUm.isDefault);
        pad.thickness = Millimetre{2};
        QVERIFY(!factsOf(pad).bondLineUm.isDefault);
        QCOMPARE(factsOf(pad).bondLineUm.value, 2000.0);
        QVERIFY(factsOf(pad).gallium.isDefault && !factsOf(pad).gallium.value);
        pad.kind = MaterialClass::liquidMetal;
        QVERIFY(factsOf(pad).gallium.value);
        pad.containsGallium = YesNo::no;
        QVERIFY(!factsOf(pad).gallium.value && !factsOf(pad).gallium.isDefault);
    }
    void aPlanThatNeedsMoreThanIsLeftSaysSo() {
        Shelf on = shelf();
        const Question& question = *firstQuestion(on.document, on.study);
        Edit edit(on.document, "plan");
        Lot lot = tube(on);
        lot.remaining = 0.3;
        edit.put(lot);
        for (int i = 0; i < 3; ++i)
            edit.add(Slot{{},
                          on.study,
                          i,
                          SlotKind::level,
                          levelsOf(on.document, question.id).front()->id,
                          {},
                          0,
                          {},
                          {},
                          {}});
        apply(on.document, edit.finish());
        const auto shortages = shortagesOf(on.document, *firstQuestion(on.document, on.study), {});
        QCOMPARE(shortages.size(), std::size_t{1});
        QCOMPARE(shortages.front().mounts, 3);
        QVERIFY_NEAR(shortages.front().needed, 3 * 0.1404, 1e-9);
        QCOMPARE(shortages.front().left, 0.3);
    }
    void whatIsCutLeavesTheShelfAndOffcutsStay() {
        Shelf on = shelf();
        Edit edit(on.document, "pads");
        Material pad = story::materialNamed("Basalt 2.0");
        pad.kind = MaterialClass::gapPad;
        pad.thickness = Millimetre{2};
        pad.id = edit.add(pad);
        Lot sheets = story::lotOf(pad.id, "Basalt 2.0, sheets");
        sheets.contentUnit = ContentUnit::sheet;
        sheets.content = 3;
        sheets.remaining = 2.42; // an off-cut counts in
        sheets.sheetWidth = sheets.sheetLength = Millimetre{100};
        sheets.id = edit.add(sheets);
        const Id<Offcut> old = edit.add(Offcut{{}, sheets.id, Millimetre{100}, Millimetre{42}, false});
        apply(on.document, edit.finish());
        const auto there = sheetsOf(on.document, pad, {});
        QCOMPARE(there.size(), std::size_t{2});
        QVERIFY(there[0].offcut && there[0].sheet.offcut);
        QCOMPARE(there[1].sheet.count, std::optional(2));
        CutJob job;
        job.pieces = {{"memory", 14, 12, 2, 30, true}};
        std::vector<std::optional<ShelfSheet>> origins;
        for (const ShelfSheet& one : there) {
            job.sheets.push_back(one.sheet);
            origins.emplace_back(one);
        }
        const CutPlan plan = planCuts(job);
        QVERIFY(plan.missing.empty());
        Edit cut(on.document, "cut");
        keepCut(cut, plan, origins, 10, {});
        apply(on.document, cut.finish());
        QVERIFY(on.document.find(old)->used);
        double offcuts = 0;
        for (const Offcut* one : on.document.where(&Offcut::lot, sheets.id)) {
            if (one->used) continue;
            QVERIFY(one->width.value >= 10 && one->length.value >= 10);
            offcuts += one->width.value * one->length.value;
        }
        // What is left is whole sheets and the off-cuts kept; the rest became pieces or waste.
        const double left = *lotState(on.document, *on.document.find(sheets.id), {}).left;
        QVERIFY_NEAR(left * 1e4, (2 - plan.fullSheets) * 1e4 + offcuts, 1e-6);
        for (const ShelfSheet& one : sheetsOf(on.document, pad, {}))
            if (!one.offcut) QCOMPARE(*one.sheet.count, 2 - plan.fullSheets);
    }
    void piecesComeFromTheSites() {
        const auto asked = story::ask();
        Document document = asked.document;
        Edit edit(document, "card");
        const Id<Bench> card = addBench(edit, BenchTemplate::graphicsCard, "render-1");
        const Configuration rig = *currentConfiguration(edit.document(), card);
        for (const Site* each : edit.document().where(&Site::configuration, rig.id)) {
            Site site = *each;
            site.alike = site.kind == SiteKind::memory ? 8 : site.alike;
            if (site.kind == SiteKind::memory) site.width = Millimetre{14};
            if (site.kind == SiteKind::memory) site.length = Millimetre{12};
            edit.put(site);
        }
        apply(document, edit.finish());
        Material pad = story::materialNamed("Basalt 2.0");
        pad.kind = MaterialClass::gapPad;
        pad.thickness = Millimetre{2};
        const auto pieces = piecesFor(document, rig, pad, nullptr);
        QCOMPARE(pieces.size(), std::size_t{1}); // the power stages state no size
        QCOMPARE(pieces.front().count, 8);
        QCOMPARE(pieces.front().thicknessMm, 2.0);
        pad.kind = MaterialClass::sheet;
        QVERIFY(piecesFor(document, rig, pad, nullptr).empty());
    }
    void whatLeavesTheShelfTakesItsOwnAlong() {
        Shelf on = shelf();
        Edit edit(on.document, "more");
        const Id<Offcut> offcut = edit.add(Offcut{{}, on.tube, Millimetre{5}, Millimetre{5}, false});
        const Id<LotPicture> picture = edit.add(LotPicture{{}, on.tube, "a.jpg", "abc", 1});
        const Id<Package> package = edit.add(Package{{}, on.paste, 4, ContentUnit::gram, 9, "NOK", {}});
        const Id<Package> other =
            edit.add(Package{{}, Id<Material>{4242}, 4, ContentUnit::gram, 9, "NOK", {}});
        removeLot(edit, on.tube);
        removeMaterial(edit, on.paste);
        QVERIFY(!edit.document().find(offcut) && !edit.document().find(picture)
                && !edit.document().find(package));
        QVERIFY(edit.document().find(other));
        QVERIFY(!edit.document().find(on.tube) && !edit.document().find(on.paste));
    }
};

IBUKI_TEST(TestShelf)
#include "tst_shelf.moc"
