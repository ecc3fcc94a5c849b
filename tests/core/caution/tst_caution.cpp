// SPDX-License-Identifier: GPL-3.0-or-later
// Every rule once firing and once not, as a table; then what the document's own values make of them.
#include "core/caution/blocking_caution.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/study.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"
#include "words/words.h"

#include <set>

using namespace ibuki;

namespace {

struct Case {
    const char* rule;
    Facts fires;
    Facts doesNot;
};

Fact word(const char* text) { return Fact(std::string(text)); }

const std::vector<Case>& cases() {
    const Facts gallium{{"material.gallium", true}};
    const auto with = [](Facts facts, const char* name, Fact value) {
        facts[name] = std::move(value);
        return facts;
    };
    const Facts pad{{"material.class", word("gap pad")}};
    const Facts sheet{{"material.class", word("sheet")}};
    const Facts film{{"material.class", word("phase change")}};
    const Facts bench{{"subject.bench", true}};
    static const std::vector<Case> all{
        {"GA-AL",
         with(gallium, "face.upper", word("aluminium")),
         {{"material.gallium", true},
          {"face.lower", word("copper")},
          {"face.upper", word("copper")},
          {"near.aluminium", false}}},
        {"GA-CU", with(gallium, "face.lower", word("copper")), with(gallium, "face.lower", word("steel"))},
        {"GA-NI", with(gallium, "face.upper", word("nickel on copper")),
         with(gallium, "face.upper", word("copper"))},
        {"GA-SPILL", with(gallium, "near.contacts", true), with(gallium, "near.contacts", false)},
        {"COND-CONTACTS",
         {{"material.conducts", true}, {"near.contacts", true}},
         {{"material.conducts", false}, {"near.contacts", true}}},
        {"SHEET-OVERHANG", with(sheet, "piece.overhangs", true), with(sheet, "piece.overhangs", false)},
        {"SHEET-AGAIN", with(sheet, "application.again", true), with(pad, "application.again", true)},
        {"MELTS-LATE", with(with(film, "bench.hottest", 56.9), "melts.plus5", 57.0),
         with(with(film, "bench.hottest", 57.1), "melts.plus5", 57.0)},
        {"FILM-AGAIN", with(film, "application.again", true), with(film, "application.again", false)},
        {"TOO-HOT",
         {{"material.hottest", 120.0}, {"bench.hottest", 121.0}},
         {{"material.hottest", 120.0}, {"bench.hottest", 119.0}}},
        {"PAD-SMALL", with(pad, "piece.small", true), with(pad, "piece.small", false)},
        {"PAD-THICK", with(pad, "pad.strain", 0.41),
         with(with(pad, "pad.strain", 0.2), "pad.loadShare", 0.4)},
        {"PAD-THIN", with(pad, "pad.strain", 0.04), with(pad, "pad.strain", 0.05)},
        {"PAD-STACK", with(pad, "pad.layers", 2.0), with(pad, "pad.layers", 1.0)},
        {"LOT-EXPIRED", {{"lot.expired", true}}, {{"lot.expired", false}}},
        {"LOT-DRY", {{"lot.condition", word("cracked")}}, {{"lot.condition", word("even")}}},
        {"LOT-SEPARATED", {{"lot.condition", word("oily")}}, {{"lot.condition", word("dry")}}},
        {"LOT-SHORT", {{"lot.tooLittle", true}}, {{"lot.tooLittle", false}}},
        {"BARE-DIE", with(bench, "chip.lid", word("bare die")), with(bench, "chip.lid", word("lidded"))},
        {"LID-REMOVAL", with(bench, "site.kind", word("die–lid")),
         with(bench, "site.kind", word("lid–plate"))},
        {"BLADES", pad, {{"material.class", word("paste")}}},
        {"STUCK-PINS", with(bench, "chip.pins", true), with(bench, "chip.pins", false)},
        {"PULLED-BEFORE", with(bench, "bench.pulledBefore", true), with(bench, "bench.pulledBefore", false)},
        {"HOT-PARTS", with(bench, "bench.hottest", 43.1), with(bench, "bench.hottest", 43.0)},
        {"FANS", with(bench, "fan.turns", true), with(bench, "fan.turns", false)},
        {"MAINS", bench, {{"subject.bench", false}}},
        {"SOLVENT", {{"subject.material", true}}, {{"subject.material", false}}},
        {"RESIDUE", {{"subject.material", true}}, {{"subject.material", false}}},
        {"DISPOSAL", {{"subject.material", true}}, {{"subject.material", false}}},
        {"WARRANTY", bench, {{"subject.bench", false}}},
    };
    return all;
}

const Caution* found(const std::vector<Caution>& cautions, std::string_view rule) {
    for (const Caution& caution : cautions)
        if (caution.rule->id == rule) return &caution;
    return nullptr;
}

} // namespace

class TestCaution : public QObject {
    Q_OBJECT

    /// A liquid metal at a copper lid under a plate of unknown metal.
    struct Situation {
        Document document;
        Id<Material> material;
        Id<Site> site;
        Id<Question> question;
    };
    static Situation situation() {
        Situation made;
        const auto asked = story::ask();
        made.document = asked.document;
        Edit edit(made.document, "metal");
        Material metal = story::materialNamed("Quickfin");
        metal.kind = MaterialClass::liquidMetal;
        made.material = edit.add(metal);
        const Question& question = *firstQuestion(edit.document(), asked.study);
        made.question = question.id;
        made.site = question.site;
        Site site = *edit.document().find(question.site);
        site.lowerFace = Metal::copper;
        site.upperFace = Metal::unknown;
        site.width = site.length = Millimetre{30};
        edit.put(site);
        Level level;
        level.question = question.id;
        level.position = 9;
        level.name = "Quickfin";
        level.material = made.material;
        edit.add(level);
        apply(made.document, edit.finish());
        return made;
    }
    static void change(Situation& on, const std::function<void(Site&)>& how) {
        Edit edit(on.document, "site");
        Site site = *edit.document().find(on.site);
        how(site);
        edit.put(site);
        apply(on.document, edit.finish());
    }

private slots:
    void theTableNamesEveryRule() {
        std::set<std::string> named;
        for (const Case& one : cases()) named.insert(one.rule);
        QCOMPARE(named.size(), cases().size());
        for (const CautionRule& rule : cautionRules())
            QVERIFY2(named.contains(std::string(rule.id)), rule.id.data());
        QCOMPARE(cautionRules().size(), cases().size());
    }
    void everyRuleFiresAndDoesNot_data() {
        QTest::addColumn<int>("number");
        for (std::size_t i = 0; i < cases().size(); ++i)
            QTest::addRow("%s", cases()[i].rule) << static_cast<int>(i);
    }
    void everyRuleFiresAndDoesNot() {
        QFETCH(int, number);
        const Case& one = cases()[static_cast<std::size_t>(number)];
        const auto fired = cautionsFor(one.fires);
        const Caution* yes = found(fired, one.rule);
        QVERIFY(yes && yes->state == CautionState::applies);
        QVERIFY(yes->asks.empty());
        QVERIFY(!found(cautionsFor(one.doesNot), one.rule));
        QVERIFY(!words::text(reasonOf(*yes->rule)).empty() && !words::mend(reasonOf(*yes->rule)).empty());
    }
    void onlyTheStopForAluminiumCannotBeLifted() {
        for (const CautionRule& rule : cautionRules()) QCOMPARE(rule.mayOverride, rule.id != "GA-AL");
        QCOMPARE(cautionRule("GA-AL")->severity, CautionSeverity::stop);
        QVERIFY(!cautionRule("NO-SUCH"));
    }
    void theUnknownIsAskedWhereItCouldBeGrave() {
        const auto asked = cautionsFor({{"material.gallium", true}, {"face.lower", word("copper")}});
        const Caution* stop = found(asked, "GA-AL");
        QVERIFY(stop && stop->state == CautionState::asks);
        QCOMPARE(stop->asks, (std::vector<std::string>{"face.upper", "near.aluminium"}));
        for (const std::string& fact : stop->asks) QVERIFY(words::text(questionFor(fact)).ends_with("?"));
        QVERIFY(found(asked, "GA-CU")); // one known face is enough
        QVERIFY(!found(cautionsFor({{"material.class", word("sheet")}}),
                       "SHEET-AGAIN")); // a mere caution is silent
    }
    void gravestComeFirst() {
        Facts many;
        for (const Case& one : cases())
            for (const auto& [name, value] : one.fires) many[name] = value;
        const auto cautions = cautionsFor(many);
        for (std::size_t i = 1; i < cautions.size(); ++i)
            QVERIFY(cautions[i - 1].rule->severity >= cautions[i].rule->severity);
    }
    void negationAndRangesInThreeValues() {
        Condition inner;
        inner.fact = "x";
        inner.value = true;
        Condition negated;
        negated.kind = Condition::Kind::negated;
        negated.parts = {inner};
        QCOMPARE(negated.on({{"x", true}}), Truth::no);
        QCOMPARE(negated.on({{"x", false}}), Truth::yes);
        QCOMPARE(negated.on({}), Truth::unknown);
        Condition atMost;
        atMost.kind = Condition::Kind::lessOrEqual;
        atMost.fact = "y";
        atMost.value = 2.0;
        QCOMPARE(atMost.on({{"y", 2.0}}), Truth::yes);
        QCOMPARE(atMost.on({{"y", 2.1}}), Truth::no);
        QCOMPARE(atMost.on({}), Truth::unknown);
    }
    void aPlanIsHeldUntilTheFacesAreKnown() {
        Situation on = situation();
        auto blocking = blockingCautions(on.document, *on.document.find(on.question), {});
        const auto held = [&](std::string_view rule) {
            return std::any_of(blocking.begin(), blocking.end(), [&](const BlockingCaution& one) {
                return one.caution.rule->id == rule && one.material == on.material;
            });
        };
        QVERIFY(held("GA-AL"));
        change(on, [](Site& site) {
            site.upperFace = Metal::nickelOnCopper;
            site.aluminiumNear = YesNo::no;
            site.contactsNear = YesNo::no;
        });
        blocking = blockingCautions(on.document, *on.document.find(on.question), {});
        QVERIFY(blocking.empty());
        change(on, [](Site& site) { site.aluminiumNear = YesNo::yes; });
        blocking = blockingCautions(on.document, *on.document.find(on.question), {});
        QCOMPARE(blocking.size(), std::size_t{1});
        QCOMPARE(blocking.front().caution.state, CautionState::applies);
        // Nothing lifts it, not even a reason.
        Edit edit(on.document, "read");
        edit.add(
            Acknowledgement{{}, "GA-AL", on.material, {}, on.site, {}, "technician", Instant{5}, "we must"});
        apply(on.document, edit.finish());
        QVERIFY(!blockingCautions(on.document, *on.document.find(on.question), {}).empty());
    }
    void anAcknowledgementCountsForWhatItNames() {
        Situation on = situation();
        const Material* material = on.document.find(on.material);
        const Site* site = on.document.find(on.site);
        Edit edit(on.document, "read");
        edit.add(Acknowledgement{{}, "GA-CU", on.material, {}, on.site, {}, "technician", Instant{5}, {}});
        apply(on.document, edit.finish());
        const CautionSubject here{on.document.find(on.material), nullptr, on.document.find(on.site), nullptr,
                                  nullptr};
        QVERIFY(acknowledgementOf(on.document, "GA-CU", here));
        QVERIFY(!acknowledgementOf(on.document, "GA-NI", here));
        CautionSubject external = here;
        external.site = nullptr;
        QVERIFY(!acknowledgementOf(on.document, "GA-CU", external));
        QVERIFY(material && site);
    }
    void lotAndMountBringTheirFacts() {
        Situation on = situation();
        Edit edit(on.document, "mounted");
        const Site site = *on.document.find(on.site);
        Material sheet = story::materialNamed("Slate 25");
        sheet.kind = MaterialClass::sheet;
        sheet.id = edit.add(sheet);
        Lot lot = story::lotOf(sheet.id, "Slate 25, sheet 1");
        lot.contentUnit = ContentUnit::squareMillimetre;
        lot.content = 2000;
        lot.expires = *makeInstant(2031, 3, 1);
        lot.condition = LotCondition::cracked;
        lot.id = edit.add(lot);
        Mount mount;
        mount.configuration = site.configuration;
        mount.id = edit.add(mount);
        Application laid;
        laid.site = site.id;
        laid.lot = lot.id;
        laid.area = SquareMillimetre{1000}; // the face has 900 mm²
        laid.id = edit.add(laid);
        edit.add(MountApplication{{}, mount.id, laid.id, ApplicationUse::laidAgain});
        apply(on.document, edit.finish());
        const CautionSubject subject{&sheet, &lot, &site, on.document.find(site.configuration), &mount};
        const Instant now = *makeInstant(2031, 3, 2);
        const Facts facts = cautionFacts(on.document, subject, now);
        QCOMPARE(std::get<bool>(facts.at("lot.expired")), true);
        QCOMPARE(std::get<bool>(facts.at("lot.tooLittle")), false); // 1000 mm² left, 900 needed
        QCOMPARE(std::get<bool>(facts.at("application.again")), true);
        QCOMPARE(std::get<bool>(facts.at("piece.overhangs")), true);
        const auto cautions = cautionsFor(facts);
        for (const char* rule : {"LOT-EXPIRED", "LOT-DRY", "SHEET-AGAIN", "SHEET-OVERHANG", "BLADES"})
            QVERIFY2(found(cautions, rule), rule);
        QVERIFY(!found(cautions, "LOT-SHORT"));
        QVERIFY(!found(cautions, "PAD-SMALL"));
        // Without the mount nothing is known of the piece: it counts as cut to the face.
        const CautionSubject planned{&sheet, &lot, &site, nullptr, nullptr};
        QVERIFY(!found(cautionsFor(cautionFacts(on.document, planned, now)), "SHEET-OVERHANG"));
        Edit more(on.document, "again");
        laid.id = {};
        more.add(laid);
        apply(on.document, more.finish());
        QVERIFY(found(cautionsFor(cautionFacts(on.document, subject, now)), "LOT-SHORT")); // nothing is left
    }
    /// The cautions of a piece of this class laid at a face of 30 mm × 30 mm.
    std::vector<Caution> laidAs(MaterialClass kind, const Application& stated, ApplicationUse use) {
        Situation on = situation();
        Edit edit(on.document, "laid");
        const Site site = *on.document.find(on.site);
        Material material = story::materialNamed("Slate 25");
        material.kind = kind;
        material.id = edit.add(material);
        Mount mount;
        mount.configuration = site.configuration;
        mount.id = edit.add(mount);
        Application laid = stated;
        laid.site = site.id;
        laid.id = edit.add(laid);
        edit.add(MountApplication{{}, mount.id, laid.id, use});
        apply(on.document, edit.finish());
        return cautionsFor(
            cautionFacts(on.document, {&material, nullptr, on.document.find(on.site), nullptr, &mount}, {}));
    }
    void sidesOfAPieceCountAndNotItsArea() {
        const auto piece = [](double widthMm, double lengthMm) {
            Application laid;
            laid.pieceWidth = Millimetre{widthMm};
            laid.pieceLength = Millimetre{lengthMm};
            return laid;
        };
        const Application narrow = piece(20, 40); // 800 mm² of 900 mm², and over the edge all the same
        const auto sheet = laidAs(MaterialClass::sheet, narrow, ApplicationUse::fresh);
        QVERIFY(found(sheet, "SHEET-OVERHANG"));
        QVERIFY(found(sheet, "PAD-SMALL"));
        const auto pad = laidAs(MaterialClass::gapPad, piece(46, 20), ApplicationUse::fresh); // 920 mm²
        QVERIFY(found(pad, "PAD-SMALL"));
        const auto fits = laidAs(MaterialClass::sheet, piece(30, 30), ApplicationUse::fresh);
        QVERIFY(!found(fits, "SHEET-OVERHANG") && !found(fits, "PAD-SMALL"));
    }
    void piecesOnEachOtherAreCautioned() {
        Application two;
        two.layers = 2;
        QVERIFY(found(laidAs(MaterialClass::gapPad, two, ApplicationUse::fresh), "PAD-STACK"));
        QVERIFY(!found(laidAs(MaterialClass::gapPad, {}, ApplicationUse::fresh), "PAD-STACK"));
    }
    void onlyWhatIsLaidAgainIsCautionedAsThat() {
        for (const auto& [kind, rule] : {std::pair{MaterialClass::sheet, "SHEET-AGAIN"},
                                         std::pair{MaterialClass::phaseChange, "FILM-AGAIN"}}) {
            QVERIFY(found(laidAs(kind, {}, ApplicationUse::laidAgain), rule));
            QVERIFY(!found(laidAs(kind, {}, ApplicationUse::continued), rule)); // never taken apart
            QVERIFY(!found(laidAs(kind, {}, ApplicationUse::fresh), rule));
        }
    }
    void theHottestTemperatureComesFromRunsElseFromTheLimit() {
        const auto measured = story::measured();
        const Configuration& rig = *currentConfiguration(measured.document, measured.bench);
        const Material& paste = measured.document.all<Material>().begin()->second;
        const Facts facts = cautionFacts(measured.document, {&paste, nullptr, nullptr, &rig, nullptr}, {});
        double hottest = 0;
        for (const auto& [id, stored] : measured.document.all<RunReduction>())
            for (const auto& [metric, value] : stored.reduction->main()->metrics)
                hottest = std::max(hottest, *value.temperatureC);
        QVERIFY(hottest > 60);
        QCOMPARE(std::get<double>(facts.at("bench.hottest")), hottest);
        const auto asked = story::ask();
        Configuration cold = *currentConfiguration(asked.document, asked.bench);
        QVERIFY(!cautionFacts(asked.document, {&paste, nullptr, nullptr, &cold, nullptr}, {})
                     .contains("bench.hottest"));
        cold.temperatureLimit = Celsius{88};
        QCOMPARE(std::get<double>(cautionFacts(asked.document, {&paste, nullptr, nullptr, &cold, nullptr}, {})
                                      .at("bench.hottest")),
                 88.0);
    }
    void aPadsStrainAndLoadComeFromTheSite() {
        Document document;
        Edit edit(document, "pad");
        Configuration rig;
        rig.mountForce = Newton{300};
        rig.id = edit.add(rig);
        Site memory;
        memory.configuration = rig.id;
        memory.kind = SiteKind::memory;
        memory.width = Millimetre{12};
        memory.length = Millimetre{14};
        memory.gap = Millimetre{1.2};
        memory.alike = 8;
        memory.id = edit.add(memory);
        Material pad = story::materialNamed("Basalt 2.0");
        pad.kind = MaterialClass::gapPad;
        pad.thickness = Millimetre{2};
        pad.modulusMPa = 0.5;
        pad.id = edit.add(pad);
        apply(document, edit.finish());
        const Facts facts = cautionFacts(document, {&pad, nullptr, &memory, &rig, nullptr}, {});
        QVERIFY_NEAR(std::get<double>(facts.at("pad.strain")), 0.4, 1e-12);
        QVERIFY_NEAR(std::get<double>(facts.at("pad.loadShare")), 268.8 / 300,
                     1e-9); // physics of pads, 2.0 mm
        QVERIFY(found(cautionsFor(facts), "PAD-THICK"));
    }
};

IBUKI_TEST(TestCaution)
#include "tst_caution.moc"
