// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/caution/caution.h"

#include <algorithm>

namespace ibuki {
namespace {

Truth truthOf(bool holds) { return holds ? Truth::yes : Truth::no; }

std::optional<double> number(const Facts& facts, const std::string& name) {
    const auto found = facts.find(name);
    if (found == facts.end()) return std::nullopt;
    const auto* value = std::get_if<double>(&found->second);
    return value ? std::optional(*value) : std::nullopt;
}

Truth compare(const Condition& condition, const Facts& facts) {
    const auto left = number(facts, condition.fact);
    const auto right = condition.kind == Condition::Kind::lessThanFact
                           ? number(facts, condition.otherFact)
                           : std::optional(std::get<double>(condition.value));
    if (!left || !right) return Truth::unknown;
    switch (condition.kind) {
    case Condition::Kind::lessOrEqual:
        return truthOf(*left <= *right);
    case Condition::Kind::greater:
        return truthOf(*left > *right);
    case Condition::Kind::greaterOrEqual:
        return truthOf(*left >= *right);
    default:
        return truthOf(*left < *right);
    }
}

Truth combined(const Condition& condition, const Facts& facts) {
    const bool isAll = condition.kind == Condition::Kind::all;
    Truth result = isAll ? Truth::yes : Truth::no;
    for (const Condition& part : condition.parts) {
        const Truth truth = part.on(facts);
        result = isAll ? std::min(result, truth) : std::max(result, truth);
    }
    return result;
}

} // namespace

Truth Condition::on(const Facts& facts) const {
    switch (kind) {
    case Kind::all:
    case Kind::any:
        return combined(*this, facts);
    case Kind::negated: {
        const Truth inner = parts.front().on(facts);
        return inner == Truth::unknown ? inner : truthOf(inner == Truth::no);
    }
    case Kind::equals:
    case Kind::in: {
        const auto found = facts.find(fact);
        if (found == facts.end()) return Truth::unknown;
        if (kind == Kind::equals) return truthOf(found->second == value);
        return truthOf(std::find(values.begin(), values.end(), found->second) != values.end());
    }
    default:
        return compare(*this, facts);
    }
}

std::vector<std::string> Condition::asks(const Facts& facts) const {
    std::vector<std::string> missing;
    if (on(facts) != Truth::unknown) return missing;
    if (parts.empty()) {
        if (!facts.contains(fact)) missing.push_back(fact);
        if (!otherFact.empty() && !facts.contains(otherFact)) missing.push_back(otherFact);
        return missing;
    }
    for (const Condition& part : parts)
        for (const std::string& name : part.asks(facts))
            if (std::find(missing.begin(), missing.end(), name) == missing.end()) missing.push_back(name);
    return missing;
}

std::string_view severityName(CautionSeverity severity) {
    constexpr std::array<std::string_view, 4> names{"note", "caution", "danger", "stop"};
    return names.at(static_cast<std::size_t>(severity));
}

const CautionRule* cautionRule(std::string_view id) {
    for (const CautionRule& rule : cautionRules())
        if (rule.id == id) return &rule;
    return nullptr;
}

Message reasonOf(const CautionRule& rule) { return {"caution." + std::string(rule.id), {}}; }

std::vector<Caution> cautionsFor(const Facts& facts) {
    std::vector<Caution> found;
    for (const CautionRule& rule : cautionRules()) {
        const Truth truth = rule.when.on(facts);
        if (truth == Truth::yes) found.push_back({&rule, CautionState::applies, {}});
        // What may be grave is asked about; a lesser rule without its facts stays silent.
        if (truth == Truth::unknown && rule.severity >= CautionSeverity::danger)
            found.push_back({&rule, CautionState::asks, rule.when.asks(facts)});
    }
    std::stable_sort(found.begin(), found.end(),
                     [](const Caution& a, const Caution& b) { return a.rule->severity > b.rule->severity; });
    return found;
}

} // namespace ibuki
