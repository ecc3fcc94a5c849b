// SPDX-License-Identifier: GPL-3.0-or-later
// The rules themselves. A new caution is one entry here and one line in the table of tst_caution.

#include "core/caution/caution.h"

namespace ibuki {
namespace {

using Kind = Condition::Kind;

Condition is(const char* fact, Fact value = true) {
    Condition made;
    made.fact = fact;
    made.value = std::move(value);
    return made;
}
Condition is(const char* fact, const char* word) { return is(fact, Fact(std::string(word))); }
Condition number(Kind kind, const char* fact, double value) {
    Condition made;
    made.kind = kind;
    made.fact = fact;
    made.value = value;
    return made;
}
Condition less(const char* fact, double value) { return number(Kind::less, fact, value); }
Condition greater(const char* fact, double value) { return number(Kind::greater, fact, value); }
Condition atLeast(const char* fact, double value) { return number(Kind::greaterOrEqual, fact, value); }
Condition lessThan(const char* fact, const char* other) {
    Condition made;
    made.kind = Kind::lessThanFact;
    made.fact = fact;
    made.otherFact = other;
    return made;
}
Condition oneOf(const char* fact, std::initializer_list<const char*> words) {
    Condition made;
    made.kind = Kind::in;
    made.fact = fact;
    for (const char* word : words) made.values.emplace_back(std::string(word));
    return made;
}
Condition combined(Kind kind, std::initializer_list<Condition> parts) {
    Condition made;
    made.kind = kind;
    made.parts = parts;
    return made;
}
Condition all(std::initializer_list<Condition> parts) { return combined(Kind::all, parts); }
Condition any(std::initializer_list<Condition> parts) { return combined(Kind::any, parts); }

CautionRule rule(std::string_view id, CautionSeverity severity, Condition when, std::string_view reason,
                 std::string_view advice, std::string_view source = {}) {
    return {id, severity, true, std::move(when), reason, advice, source, false};
}

const Condition gallium = is("material.gallium");
const Condition conducts = is("material.conducts");
const Condition padLike = oneOf("material.class", {"gap pad", "putty"});

void addMaterialRules(std::vector<CautionRule>& rules) {
    CautionRule aluminium = rule(
        "GA-AL", CautionSeverity::stop,
        all({gallium,
             any({is("face.lower", "aluminium"), is("face.upper", "aluminium"), is("near.aluminium")})}),
        "Gallium creeps along the grain boundaries of aluminium, through its oxide; the part can lose its "
        "strength and crumble.",
        "Never together. Use a copper or nickel-plated cooler, or another class of material; look for "
        "scratches through the plating.",
        "Nicholas & Old 1979");
    aluminium.mayOverride = false;
    rules.push_back(aluminium);
    rules.push_back(
        rule("GA-CU", CautionSeverity::warning,
             all({gallium, any({is("face.lower", "copper"), is("face.upper", "copper")})}),
             "Gallium forms an alloy with bare copper: a lasting silvery stain, and the film thins "
             "over weeks.",
             "Expect a second application, or prefer a nickel-plated face. The stain is no defect."));
    rules.push_back(rule(
        "GA-NI", CautionSeverity::info,
        all({gallium, any({is("face.lower", "nickel on copper"), is("face.upper", "nickel on copper")})}),
        "Gallium reacts slowly with nickel and is usually stable on it.", "Look at it once a year."));
    rules.push_back(
        rule("GA-SPILL", CautionSeverity::danger, all({gallium, is("near.contacts")}),
             "A conductive droplet can run onto open contacts and short them.",
             "A thin film only; insulate and fence the parts beside it; try it lying flat first."));
    rules.push_back(rule("COND-CONTACTS", CautionSeverity::danger, all({conducts, is("near.contacts")}),
                         "The material conducts: what is squeezed out can short capacitors or open contacts. "
                         "Carbon conducts enough for that.",
                         "Insulate or mask them first, or use an insulating paste."));
    rules.push_back(rule("SHEET-OVERHANG", CautionSeverity::danger,
                         all({is("material.class", "sheet"), lessThan("face.mm2", "piece.mm2")}),
                         "A carbon sheet larger than the face has conductive edges and sheds flakes.",
                         "Trim it to the face, with no overhang; never lay a creased one again."));
    rules.push_back(rule("SHEET-AGAIN", CautionSeverity::warning,
                         all({is("material.class", "sheet"), is("application.again")}),
                         "A sheet takes a set under its first load and touches less well the next time.",
                         "Record it as used again, with its load."));
    rules.push_back(
        rule("MELTS-LATE", CautionSeverity::warning,
             all({is("material.class", "phase change"), lessThan("bench.hottest", "melts.plus5")}),
             "The film never melts on this bench and never wets the faces.",
             "Raise the load until it melts and hold it ten minutes, or choose another material."));
    rules.push_back(rule("FILM-AGAIN", CautionSeverity::info,
                         all({is("material.class", "phase change"), is("application.again")}),
                         "A film that was parted has to wet the faces anew.",
                         "Count its conditioning cycles from zero."));
    rules.push_back(rule("TOO-HOT", CautionSeverity::warning, lessThan("material.hottest", "bench.hottest"),
                         "The bench runs hotter than the material is made for; it can dry out or decompose.",
                         "Stay below its limit or choose another material."));
}

void addPadRules(std::vector<CautionRule>& rules) {
    rules.push_back(rule("PAD-SMALL", CautionSeverity::warning,
                         all({any({padLike, oneOf("material.class", {"sheet", "phase change"})}),
                              lessThan("piece.mm2", "face.mm2")}),
                         "The piece is smaller than the face: a bare edge stays hotter.",
                         "Cut it to the face's size."));
    rules.push_back(rule("PAD-THICK", CautionSeverity::danger,
                         all({padLike, any({greater("pad.strain", 0.4), atLeast("pad.loadShare", 0.5)})}),
                         "The pad is pressed too far: it can lift the cooler off the die and bend the board.",
                         "Use a thinner or softer pad and look at the die's imprint."));
    rules.push_back(rule("PAD-THIN", CautionSeverity::danger, all({padLike, less("pad.strain", 0.05)}),
                         "The pad hardly touches, or not at all: what it should cool overheats.",
                         "Use a thicker pad and look at its imprint."));
    rules.push_back(rule("PAD-STACK", CautionSeverity::warning, all({padLike, greater("pad.layers", 1)}),
                         "Stacked pads slip and add an interface.", "Use one pad of the right thickness."));
}

void addLotRules(std::vector<CautionRule>& rules) {
    rules.push_back(rule("LOT-EXPIRED", CautionSeverity::warning, is("lot.expired"),
                         "The lot is past its date.", "Compare it with a fresh lot before you trust it."));
    rules.push_back(rule("LOT-DRY", CautionSeverity::warning, oneOf("lot.condition", {"dry", "cracked"}),
                         "A dry or cracked lot spreads and wets badly.",
                         "Use a fresh lot, or test it as its own."));
    rules.push_back(rule("LOT-SEPARATED", CautionSeverity::warning, is("lot.condition", "oily"),
                         "Oil has separated: the first of the tube is thinner than the rest.",
                         "Stir or discard the first of it as its maker says; note it with the lot."));
    rules.push_back(rule("LOT-SHORT", CautionSeverity::warning, is("lot.tooLittle"),
                         "Less is left than this site needs.", "Open another lot or plan a smaller amount."));
}

void addHandlingRules(std::vector<CautionRule>& rules) {
    const Condition mounting = is("subject.bench");
    rules.push_back(rule("BARE-DIE", CautionSeverity::danger, all({mounting, is("chip.lid", "bare die")}),
                         "A bare die is as brittle as glass: uneven screws crack its corners.",
                         "Tighten crosswise in two or three passes, without tilt, below its maker's load."));
    rules.push_back(
        rule("LID-REMOVAL", CautionSeverity::danger, all({mounting, is("site.kind", "die–lid")}),
             "Taking a lid off means blades, and a die or its capacitors can be sheared or cracked.",
             "Only if you accept losing the chip: a supported fixture, cut-proof gloves, eye "
             "protection. Never force a lid that is soldered to the die."));
    rules.push_back(rule("BLADES", CautionSeverity::danger,
                         oneOf("material.class", {"gap pad", "sheet", "phase change"}),
                         "Scissors and blades cut more than pads.",
                         "Cut away from your hand on a mat, change a blunt blade, cover it when you put it "
                         "down, and keep it away from children."));
    rules.push_back(rule("STUCK-PINS", CautionSeverity::danger, all({mounting, is("chip.pins")}),
                         "A stuck cooler can pull the chip out of its socket and bend the pins.",
                         "Run it warm, shut down, unplug, open the clamp; twist gently to and fro until it "
                         "slides, then lift. Never pry or pull straight."));
    rules.push_back(rule("HOT-PARTS", CautionSeverity::warning, all({mounting, greater("bench.hottest", 43)}),
                         "Metal above about 43 °C burns skin that stays on it (ISO 13732-1).",
                         "Let it cool before you touch it."));
    rules.push_back(rule("FANS", CautionSeverity::danger, all({mounting, is("fan.turns")}),
                         "Fans and pumps catch fingers, cables and hair.",
                         "Switch off before you reach in."));
    rules.push_back(rule("MAINS", CautionSeverity::danger, mounting,
                         "Capacitors stay charged, and power supplies carry mains voltage.",
                         "Switch off, unplug, hold the power button, wait, touch ground. Never open a power "
                         "supply; leave electrical work to licensed people."));
    rules.push_back(
        rule("SOLVENT", CautionSeverity::danger, is("subject.material"),
             "Cleaners are flammable and attack some plastics.",
             "Power off, air the room, no flame or hot surface, gloves; let all dry before power."));
    rules.push_back(rule("RESIDUE", CautionSeverity::info, is("subject.material"),
                         "A new material over the rest of another is no fair comparison.",
                         "Clean both faces until the wipe stays clean."));
    rules.push_back(
        rule("DISPOSAL", CautionSeverity::info, is("subject.material"),
             "Pastes, metals and wipes are not household waste everywhere.",
             "Keep away from eyes, skin and children; dispose of by the safety sheet and local rules."));
    rules.push_back(rule("WARRANTY", CautionSeverity::info, mounting,
                         "Taking a cooler or a lid off may end a warranty; rules differ by country.",
                         "Ask the maker first."));
}

} // namespace

const std::vector<CautionRule>& cautionRules() {
    static const std::vector<CautionRule> rules = [] {
        std::vector<CautionRule> made;
        addMaterialRules(made);
        addPadRules(made);
        addLotRules(made);
        const std::size_t fitting = made.size();
        addHandlingRules(made);
        for (std::size_t i = fitting; i < made.size(); ++i) made[i].handling = true;
        return made;
    }();
    return rules;
}

std::string questionFor(std::string_view fact) {
    struct Asked {
        std::string_view fact;
        const char* text;
    };
    constexpr std::array<Asked, 9> questions{{
        {"face.lower", "Which metal is the face towards the chip?"},
        {"face.upper", "Which metal is the face towards the cooler?"},
        {"near.aluminium", "Is any aluminium within reach of a squeezed-out drop?"},
        {"near.contacts", "Are there capacitors or open contacts beside it?"},
        {"chip.pins", "Does the chip stand on pins?"},
        {"face.mm2", "How large is the face?"},
        {"piece.mm2", "How large is the piece?"},
        {"pad.strain", "How wide is the gap, and how thick the pad?"},
        {"pad.loadShare", "With what force do the screws hold the cooler?"},
    }};
    for (const Asked& question : questions)
        if (question.fact == fact) return question.text;
    return "What is " + std::string(fact) + "?";
}

} // namespace ibuki
