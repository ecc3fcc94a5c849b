// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/sentences.h"

#include "core/domain/lookup.h"
#include "words/words.h"

#include <algorithm>
#include <fmt/format.h>
#include <fmt/ranges.h>
#include <map>

namespace ibuki {

bool isAboutLot(const CautionRule& rule) { return rule.id.starts_with("LOT-"); }

std::string reasonAndAdvice(const CautionRule& rule) {
    return words::say("{reason} {reason_mend}", {{"reason", reasonOf(rule)}});
}

std::string cautionText(const Caution& caution) {
    const std::string severity = words::term(severityName(caution.rule->severity));
    std::string questions;
    for (const std::string& fact : caution.asks) {
        if (!questions.empty()) questions += ' ';
        questions += words::text(questionFor(fact));
    }
    const Fields fields{{"Severity", words::capital(severity)},
                        {"severity", severity},
                        {"questions", questions},
                        {"reason", reasonOf(*caution.rule)}};
    return caution.state == CautionState::applies
               ? words::say("{Severity}: {reason} {reason_mend}", fields)
               : words::say("Not known yet ({severity}): {questions} {reason}", fields);
}

std::string readBy(const Acknowledgement& read) {
    const Fields fields{{"role", read.role}, {"day", dateText(read.at)}, {"reason", read.reason}};
    return read.reason.empty() ? words::say("read by {role} on {day}", fields)
                               : words::say("read by {role} on {day}: {reason}", fields);
}

std::vector<std::string> cautionSentences(const Document& document, const Question& question, Instant now) {
    const Study* study = document.find(question.study);
    CautionSubject subject;
    subject.site = document.find(question.site);
    subject.configuration = study ? currentConfiguration(document, study->bench) : nullptr;
    struct Reported {
        Caution caution;
        std::vector<std::string> names;
        bool anyRead = false;
    };
    std::map<const CautionRule*, Reported> byRule;
    const auto note = [&](const std::string& of) {
        for (const Caution& caution : cautionsFor(cautionFacts(document, subject, now))) {
            if (subject.lot && !isAboutLot(*caution.rule)) continue; // told with the material
            Reported& reported = byRule.try_emplace(caution.rule, Reported{caution, {}}).first->second;
            std::string name = of;
            if (const Acknowledgement* read = acknowledgementOf(document, caution.rule->id, subject)) {
                name += " (" + readBy(*read) + ")";
                reported.anyRead = true;
            }
            reported.names.push_back(name);
        }
    };
    for (const Material* material : levelMaterials(document, question)) {
        subject.material = material;
        subject.lot = nullptr;
        note(material->name);
        for (const Lot* lot : document.where(&Lot::material, material->id)) {
            const auto taken = document.where(&Application::lot, std::optional(lot->id));
            if (taken.empty()) continue;
            subject.lot = lot;
            note(lot->name);
        }
    }
    const std::size_t all = levelMaterials(document, question).size();
    std::vector<std::string> sentences;
    for (CautionSeverity severity :
         {CautionSeverity::stop, CautionSeverity::danger, CautionSeverity::warning, CautionSeverity::info})
        for (const CautionRule& rule : cautionRules()) {
            const auto found = byRule.find(&rule);
            if (found == byRule.end() || rule.severity != severity) continue;
            const auto& [caution, names, anyRead] = found->second;
            const std::string who = names.size() == all && !anyRead && !isAboutLot(rule)
                                        ? ""
                                        : fmt::format(" [{}]", fmt::join(names, ", "));
            sentences.push_back(cautionText(caution) + who);
        }
    sentences.push_back(words::text({"caution-preamble", {}}));
    return sentences;
}

} // namespace ibuki
