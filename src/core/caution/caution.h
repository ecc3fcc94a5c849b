// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Cautions as data: each rule says when it applies, how grave it is, why, and what to do. General guidance;
// manufacturers' instructions, safety sheets and local rules take precedence (docs/methods.md, "Cautions").

#include "core/base/message.h"
#include "core/domain/document.h"
#include "core/domain/mount.h"

#include <map>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

namespace ibuki {

enum class CautionSeverity { info, warning, danger, stop };
std::string_view severityName(CautionSeverity severity); ///< "note", "caution", "danger", "stop"

/// What is known about material, site, plan and mount, by name; a missing name is unknown.
using Fact = std::variant<bool, double, std::string>;
using Facts = std::map<std::string, Fact, std::less<>>;

enum class Truth { no, unknown, yes };

/// A condition over facts, in three-valued logic: a comparison with a missing fact is unknown; `all` is no as
/// soon as one part is, `any` yes as soon as one part is.
class Condition {
public:
    enum class Kind {
        equals,
        less,
        lessOrEqual,
        greater,
        greaterOrEqual,
        in,
        lessThanFact,
        all,
        any,
        negated
    };

    Truth on(const Facts& facts) const;
    /// Names of the facts that are missing and could decide it.
    std::vector<std::string> asks(const Facts& facts) const;

    Kind kind = Kind::equals;
    std::string fact;
    Fact value;
    std::string otherFact;        ///< of lessThanFact
    std::vector<Fact> values;     ///< of in
    std::vector<Condition> parts; ///< of all, any, negated
};

/// Its reason is the sentence of reasonOf, with the advice as what mends it.
struct CautionRule {
    std::string_view id;
    CautionSeverity severity = CautionSeverity::info;
    bool mayOverride = true; ///< false: no reason lifts the stop
    Condition when;
    std::string_view source; ///< empty: common practice
    bool handling = false;   ///< of everyone's work with hands and mains, whatever the material
};

const std::vector<CautionRule>& cautionRules();
const CautionRule* cautionRule(std::string_view id);
Message reasonOf(const CautionRule& rule);

enum class CautionState { applies, asks };

struct Caution {
    const CautionRule* rule = nullptr;
    CautionState state = CautionState::applies;
    std::vector<std::string> asks; ///< questions whose answers would decide it
};

/// Gravest first. A danger or stop whose facts are missing asks; a lesser rule then does not apply.
std::vector<Caution> cautionsFor(const Facts& facts);

/// The question that settles a missing fact: "Which metal is the upper face?"
Message questionFor(std::string_view fact);

/// What the caution is about; any member may be nullptr.
struct CautionSubject {
    const Material* material = nullptr;
    const Lot* lot = nullptr;
    const Site* site = nullptr;
    const Configuration* configuration = nullptr;
    const Mount* mount = nullptr;
};

/// What the document knows about the subject. hottestC: highest joint temperature known or expected on the
/// bench. Handling cautions (solvent, disposal, hot parts …) apply whenever there is a material.
Facts cautionFacts(const Document& document, const CautionSubject& subject, Instant now);

/// The newest acknowledgement of the rule for this subject, or nullptr. One given for a material counts for
/// all its lots; one given for a site or mount only there.
const Acknowledgement* acknowledgementOf(const Document& document, std::string_view rule,
                                         const CautionSubject& subject);

} // namespace ibuki
