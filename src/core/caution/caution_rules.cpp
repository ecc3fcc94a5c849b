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

CautionRule rule(std::string_view id, CautionSeverity severity, Condition when,
                 std::string_view source = {}) {
    return {id, severity, true, std::move(when), source, false};
}

const Condition gallium = is("material.gallium");
const Condition conducts = is("material.conducts");
const Condition padLike = oneOf("material.class", {"gap pad", "putty"});

void addMaterialRules(std::vector<CautionRule>& rules) {
    CautionRule aluminium =
        rule("GA-AL", CautionSeverity::stop,
             all({gallium,
                  any({is("face.lower", "aluminium"), is("face.upper", "aluminium"), is("near.aluminium")})}),
             "Nicholas & Old 1979");
    aluminium.mayOverride = false;
    rules.push_back(aluminium);
    rules.push_back(rule("GA-CU", CautionSeverity::warning,
                         all({gallium, any({is("face.lower", "copper"), is("face.upper", "copper")})})));
    rules.push_back(rule(
        "GA-NI", CautionSeverity::info,
        all({gallium, any({is("face.lower", "nickel on copper"), is("face.upper", "nickel on copper")})})));
    rules.push_back(rule("GA-SPILL", CautionSeverity::danger, all({gallium, is("near.contacts")})));
    rules.push_back(rule("COND-CONTACTS", CautionSeverity::danger, all({conducts, is("near.contacts")})));
    rules.push_back(rule("SHEET-OVERHANG", CautionSeverity::danger,
                         all({is("material.class", "sheet"), is("piece.overhangs")})));
    rules.push_back(rule("SHEET-AGAIN", CautionSeverity::warning,
                         all({is("material.class", "sheet"), is("application.again")})));
    rules.push_back(
        rule("MELTS-LATE", CautionSeverity::warning,
             all({is("material.class", "phase change"), lessThan("bench.hottest", "melts.plus5")})));
    rules.push_back(rule("FILM-AGAIN", CautionSeverity::info,
                         all({is("material.class", "phase change"), is("application.again")})));
    rules.push_back(rule("TOO-HOT", CautionSeverity::warning, lessThan("material.hottest", "bench.hottest")));
}

void addPadRules(std::vector<CautionRule>& rules) {
    rules.push_back(
        rule("PAD-SMALL", CautionSeverity::warning,
             all({any({padLike, oneOf("material.class", {"sheet", "phase change"})}), is("piece.small")})));
    rules.push_back(rule("PAD-THICK", CautionSeverity::danger,
                         all({padLike, any({greater("pad.strain", 0.4), atLeast("pad.loadShare", 0.5)})})));
    rules.push_back(rule("PAD-THIN", CautionSeverity::danger, all({padLike, less("pad.strain", 0.05)})));
    rules.push_back(rule("PAD-STACK", CautionSeverity::warning, all({padLike, greater("pad.layers", 1)})));
}

void addLotRules(std::vector<CautionRule>& rules) {
    rules.push_back(rule("LOT-EXPIRED", CautionSeverity::warning, is("lot.expired")));
    rules.push_back(rule("LOT-DRY", CautionSeverity::warning, oneOf("lot.condition", {"dry", "cracked"})));
    rules.push_back(rule("LOT-SEPARATED", CautionSeverity::warning, is("lot.condition", "oily")));
    rules.push_back(rule("LOT-SHORT", CautionSeverity::warning, is("lot.tooLittle")));
}

void addHandlingRules(std::vector<CautionRule>& rules) {
    const Condition mounting = is("subject.bench");
    rules.push_back(rule("BARE-DIE", CautionSeverity::danger, all({mounting, is("chip.lid", "bare die")})));
    rules.push_back(
        rule("LID-REMOVAL", CautionSeverity::danger, all({mounting, is("site.kind", "die–lid")})));
    rules.push_back(rule("BLADES", CautionSeverity::danger,
                         oneOf("material.class", {"gap pad", "sheet", "phase change"})));
    rules.push_back(rule("STUCK-PINS", CautionSeverity::danger, all({mounting, is("chip.pins")})));
    rules.push_back(
        rule("PULLED-BEFORE", CautionSeverity::danger, all({mounting, is("bench.pulledBefore")})));
    rules.push_back(
        rule("HOT-PARTS", CautionSeverity::warning, all({mounting, greater("bench.hottest", 43)})));
    rules.push_back(rule("FANS", CautionSeverity::danger, all({mounting, is("fan.turns")})));
    rules.push_back(rule("MAINS", CautionSeverity::danger, mounting));
    rules.push_back(rule("SOLVENT", CautionSeverity::danger, is("subject.material")));
    rules.push_back(rule("RESIDUE", CautionSeverity::info, is("subject.material")));
    rules.push_back(rule("DISPOSAL", CautionSeverity::info, is("subject.material")));
    rules.push_back(rule("WARRANTY", CautionSeverity::info, mounting));
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

Message questionFor(std::string_view fact) { return {"asks." + std::string(fact), {}}; }

} // namespace ibuki
