// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/sentences.h"

#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/words.h"
#include "core/evidence/response.h"
#include "words/words.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <fmt/format.h>
#include <fmt/ranges.h>
#include <map>

namespace ibuki {
namespace {

std::string plainAmount(double value, std::string_view unit) {
    const std::string digits = fmt::format("{:.{}f}", std::abs(value), unit == "K" ? 1 : 4);
    const bool isZero = digits.find_first_not_of("0.") == std::string::npos;
    return value < 0 && !isZero ? "−" + digits : digits;
}

/// Interval of |difference|, smaller end first.
std::string rangeText(const Interval& ci, double sign, std::string_view unit) {
    const double a = sign * ci.lo;
    const double b = sign * ci.hi;
    return words::say("{low} to {high}", {{"low", plainAmount(std::min(a, b), unit)},
                                          {"high", amountText(std::max(a, b), unit)}});
}

std::string singleMountNote(const GroupSummary& a, const GroupSummary& b) {
    if (a.mounts > 1 && b.mounts > 1) return "";
    return words::say(" {level} is from a single mount.", {{"level", a.mounts == 1 ? a.name : b.name}});
}

/// The cooler and the warmer group of a pair.
struct Sides {
    const GroupSummary& cool;
    const GroupSummary& warm;
    double sign; ///< difference × sign is not negative
};

Sides sidesOf(const Comparison& comparison, const PairComparison& pair) {
    const bool aIsCool = *pair.difference <= 0;
    return {comparison.groups[aIsCool ? pair.a : pair.b], comparison.groups[aIsCool ? pair.b : pair.a],
            aIsCool ? -1.0 : 1.0};
}

std::string joined(const std::vector<std::string>& names) {
    if (names.size() < 2) return fmt::format("{}", fmt::join(names, ""));
    return words::say(
        "{others} and {last}",
        {{"others", std::vector<std::string>(names.begin(), names.end() - 1)}, {"last", names.back()}});
}

/// "Quickfin ran 2.2 K cooler than Tern 11 (95 % interval …), more than your margin …; cooler than … too."
/// The nearest of the groups that ran warmer is told with its figures, the others by name.
VerdictSentence coolerSentence(const Comparison& comparison, const std::vector<std::size_t>& pairs,
                               std::string_view unit) {
    const auto nearest = *std::min_element(pairs.begin(), pairs.end(), [&](std::size_t x, std::size_t y) {
        return std::abs(*comparison.pairs[x].difference) < std::abs(*comparison.pairs[y].difference);
    });
    const PairComparison& pair = comparison.pairs[nearest];
    const Sides sides = sidesOf(comparison, pair);
    VerdictSentence sentence;
    sentence.pair = nearest;
    std::vector<std::string> others;
    for (std::size_t index : pairs)
        if (index != nearest) others.push_back(sidesOf(comparison, comparison.pairs[index]).warm.name);
    const Fields fields{{"cool", sides.cool.name},
                        {"warm", sides.warm.name},
                        {"difference", amountText(std::abs(*pair.difference), unit)},
                        {"confidence", 100 * comparison.options.confidence},
                        {"interval", rangeText(*pair.ci, sides.sign, unit)},
                        {"margin", amountText(comparison.options.margin, unit)},
                        {"others", joined(others)}};
    const bool beyond = pair.size == DifferenceSize::beyondMargin;
    if (others.empty())
        sentence.text =
            beyond ? words::say("{cool} ran {difference} cooler than {warm} ({confidence:.0f} % interval "
                                "{interval}), more than your margin of {margin}.",
                                fields)
                   : words::say("{cool} ran {difference} cooler than {warm} ({confidence:.0f} % interval "
                                "{interval}).",
                                fields);
    else
        sentence.text =
            beyond ? words::say("{cool} ran {difference} cooler than {warm} ({confidence:.0f} % interval "
                                "{interval}), more than your margin of {margin}; cooler than {others} too.",
                                fields)
                   : words::say("{cool} ran {difference} cooler than {warm} ({confidence:.0f} % interval "
                                "{interval}); cooler than {others} too.",
                                fields);
    sentence.text += singleMountNote(sides.cool, sides.warm);
    return sentence;
}

VerdictSentence pairSentence(const Comparison& comparison, std::size_t index, std::string_view unit) {
    const PairComparison& pair = comparison.pairs[index];
    const auto& [cool, warm, sign] = sidesOf(comparison, pair);
    const double percent = 100 * comparison.options.confidence;
    const bool equivalent = pair.verdict == Verdict::equivalent;
    const Fields fields{{"cool", cool.name},
                        {"warm", warm.name},
                        {"margin", amountText(comparison.options.margin, unit)},
                        {"confidence", equivalent ? 100 - 2 * (100 - percent) : percent},
                        {"interval", rangeText(equivalent ? *pair.equivalenceCi : *pair.ci, sign, unit)}};
    VerdictSentence sentence;
    sentence.pair = index;
    sentence.kind = pair.verdict == Verdict::unresolved ? SentenceKind::open : SentenceKind::practical;
    if (pair.verdict == Verdict::different) {
        sentence.text =
            words::say("{cool} was measurably cooler than {warm} ({interval}), but by less than {margin}: "
                       "practically the same.",
                       fields);
    } else if (equivalent) {
        sentence.text =
            words::say("{cool} and {warm} are the same within ±{margin} ({confidence:.0f} % interval "
                       "{interval}).",
                       fields);
    } else {
        sentence.text = words::say("{cool} and {warm} are not settled: the difference may lie anywhere from "
                                   "{interval}.",
                                   fields);
        sentence.text += " ";
        sentence.text +=
            pair.furtherMounts
                ? words::sayMany("About {count} more mount of each would settle it.",
                                 "About {count} more mounts of each would settle it.", *pair.furtherMounts)
                : words::say("Mounting them again will not settle it: widen the margin or calm the bench.");
    }
    sentence.text += singleMountNote(cool, warm);
    return sentence;
}

/// Pairs told apart by more than the margin's inside, gathered by their cooler group.
std::map<std::string, std::vector<std::size_t>> coolerThan(const Comparison& comparison) {
    std::map<std::string, std::vector<std::size_t>> gathered;
    for (std::size_t i = 0; i < comparison.pairs.size(); ++i) {
        const PairComparison& pair = comparison.pairs[i];
        if (pair.verdict == Verdict::different && pair.size != DifferenceSize::withinMargin)
            gathered[sidesOf(comparison, pair).cool.name].push_back(i);
    }
    return gathered;
}

/// Flags of a comparison that no other sentence tells.
bool isTold(std::string_view code) {
    static constexpr std::array<std::string_view, 7> codes{
        "declared-looks",         "other-loads", "unequal-runs", "unplanned-look", "two-changes",
        "interaction-not-tested", "not-compared"};
    return std::find(codes.begin(), codes.end(), code) != codes.end();
}

/// A chain of changes: each step is credited with its own gain on the one before.
void addSteps(std::vector<VerdictSentence>& sentences, const Comparison& comparison, std::string_view unit) {
    for (std::size_t step = 1; step < comparison.groups.size(); ++step)
        for (std::size_t i = 0; i < comparison.pairs.size(); ++i) {
            const PairComparison& pair = comparison.pairs[i];
            if (pair.a != step - 1 || pair.b != step || !pair.difference || !pair.ci) continue;
            const bool cooler = *pair.difference > 0;
            sentences.push_back(
                {pair.verdict == Verdict::different ? SentenceKind::settled : SentenceKind::open,
                 words::say(
                     cooler ? words::mark(
                         "The step from {from} to {to} gained {amount} ({confidence:.0f} % interval "
                         "{interval}).")
                            : words::mark(
                                "The step from {from} to {to} cost {amount} ({confidence:.0f} % interval "
                                "{interval})."),
                     {{"from", comparison.groups[pair.a].name},
                      {"to", comparison.groups[pair.b].name},
                      {"amount", amountText(std::abs(*pair.difference), unit)},
                      {"confidence", 100 * comparison.options.confidence},
                      {"interval", rangeText(*pair.ci, cooler ? 1 : -1, unit)}}),
                 i});
        }
}

void addCaveats(std::vector<VerdictSentence>& sentences, const Evidence& evidence, std::string_view unit) {
    const Comparison& comparison = *evidence.comparison;
    for (const GroupSummary& group : comparison.groups)
        if (group.bound)
            sentences.push_back({SentenceKind::caveat,
                                 words::say("{level} reached the temperature limit in {bound} of {mounts} "
                                            "mounts; its difference is at "
                                            "least {least}. Compare it by thermal resistance or power.",
                                            {{"level", group.name},
                                             {"bound", group.limitBoundMounts},
                                             {"mounts", group.mounts},
                                             {"least", amountText(*group.bound, unit)}}),
                                 {}});
    if (evidence.excludedMounts > 0)
        sentences.push_back(
            {SentenceKind::caveat,
             words::sayMany("{count} rejected mount is left out; the table of runs keeps the reason.",
                            "{count} rejected mounts are left out; the table of runs keeps the reason.",
                            evidence.excludedMounts),
             {}});
    for (const Flag& flag : evidence.runFlags)
        if (flag.code != "limit-bound")
            sentences.push_back({SentenceKind::caveat, words::text(flag.message) + ".", {}});
    for (const Flag& flag : comparison.flags)
        if (isTold(flag.code))
            sentences.push_back({SentenceKind::caveat, words::text(flag.message) + ".", {}});
}

} // namespace

std::string amountText(double value, std::string_view unit) {
    return plainAmount(value, unit) + " " + std::string(unit);
}

std::vector<VerdictSentence> verdictSentences(const Evidence& evidence, const Question& question) {
    if (!evidence.comparison)
        return {{SentenceKind::caveat, evidence.whyNot ? words::complaint(*evidence.whyNot) : "", {}}};
    const Comparison& comparison = *evidence.comparison;
    const std::string_view unit = responseUnit(question);
    std::vector<VerdictSentence> sentences;
    if (evidence.inSequence) addSteps(sentences, comparison, unit);
    for (const auto& [name, pairs] : coolerThan(comparison))
        sentences.push_back(coolerSentence(comparison, pairs, unit));
    for (std::size_t i = 0; i < comparison.pairs.size(); ++i) {
        const PairComparison& pair = comparison.pairs[i];
        const bool told = pair.verdict == Verdict::different && pair.size != DifferenceSize::withinMargin;
        if (pair.difference && !told) sentences.push_back(pairSentence(comparison, i, unit));
    }
    const auto coolest = [&](const VerdictSentence& sentence) {
        const PairComparison& pair = comparison.pairs[*sentence.pair];
        return std::min(*comparison.groups[pair.a].mean, *comparison.groups[pair.b].mean);
    };
    std::stable_sort(sentences.begin(), sentences.end(),
                     [&](const VerdictSentence& a, const VerdictSentence& b) {
                         if (a.kind != b.kind) return a.kind < b.kind;
                         return coolest(a) < coolest(b);
                     });
    addCaveats(sentences, evidence, unit);
    return sentences;
}

namespace {

std::string counted(std::size_t count, Factor factor) {
    const auto n = static_cast<long>(count);
    using words::sayMany;
    switch (factor) {
    case Factor::material:
        return sayMany("{count} material", "{count} materials", n);
    case Factor::amount:
        return sayMany("{count} amount", "{count} amounts", n);
    case Factor::pattern:
        return sayMany("{count} pattern", "{count} patterns", n);
    case Factor::torque:
        return sayMany("{count} torque", "{count} torques", n);
    case Factor::lidState:
        return sayMany("{count} lid state", "{count} lid states", n);
    case Factor::cooler:
        return sayMany("{count} cooler", "{count} coolers", n);
    case Factor::supplier:
        return sayMany("{count} supplier", "{count} suppliers", n);
    case Factor::age:
        return sayMany("{count} age", "{count} ages", n);
    case Factor::beforeAfter:
        return sayMany("{count} state", "{count} states", n);
    }
    return {};
}

/// A sentence of which some parts can be edited where it is shown, wherever the reader's language puts them:
/// they are worded as marks and put in afterwards.
class EditableSentence {
public:
    std::string part(std::string text, AskedPart of) {
        parts_.push_back({std::move(text), of});
        return {mark, static_cast<char>(parts_.size())};
    }
    std::vector<SentencePiece> cut(const std::string& sentence) const {
        std::vector<SentencePiece> pieces;
        std::size_t from = 0;
        for (std::size_t at = sentence.find(mark); at != std::string::npos; at = sentence.find(mark, from)) {
            if (at > from) pieces.push_back({sentence.substr(from, at - from), AskedPart::plain});
            pieces.push_back(parts_.at(static_cast<std::size_t>(sentence.at(at + 1)) - 1));
            from = at + 2;
        }
        if (from < sentence.size()) pieces.push_back({sentence.substr(from), AskedPart::plain});
        return pieces;
    }

private:
    static constexpr char mark = '\x1f';
    std::vector<SentencePiece> parts_;
};

std::string loadWords(const Document& document, const Question& question) {
    if (const Load* compared = document.find(question.load)) return compared->name;
    const auto loads = loadsOf(document, question.study);
    if (loads.empty()) return words::say("any load");
    if (loads.size() == 1) return loads.front()->name;
    return words::sayMany("{count} load", "{count} loads", static_cast<long>(loads.size()));
}

} // namespace

std::vector<SentencePiece> studySentencePieces(const Document& document, const Question& question) {
    using enum AskedPart;
    const Study* study = document.find(question.study);
    const Bench* at = study ? document.find(study->bench) : nullptr;
    const Site* where = document.find(question.site);
    EditableSentence asked;
    const std::string compared =
        asked.part(counted(levelsOf(document, question.id).size(), question.factor), levels);
    const bool raw = question.normalisation == Normalisation::raw;
    const Level* held = referenceLevelOf(document, question);
    const Fields fields{
        {"bench", asked.part(at ? at->name : words::say("a bench"), bench)},
        {"site", asked.part(where ? where->name : words::say("a site"), site)},
        {"levels",
         !question.secondFactor
             ? compared
             : words::say("{levels} with {second}",
                          {{"levels", compared},
                           {"second", asked.part(counted(secondLevelsOf(document, question.id).size(),
                                                         *question.secondFactor),
                                                 secondLevels)}})},
        {"metric", asked.part(words::term(metricTitle(question.metric)), metric)},
        {"reference", asked.part(words::term(word(question.reference)), reference)},
        {"taken", raw ? std::string() : ", " + asked.part(words::term(word(question.normalisation)), taken)},
        {"loads", asked.part(loadWords(document, question), loads)},
        {"margin", asked.part(amountText(question.margin.value, responseUnit(question)), margin)},
        {"confidence", asked.part(fmt::format("{:.0f} %", 100 * question.confidence), confidence)},
        {"against",
         held ? ", " + words::say("against {level}", {{"level", asked.part(held->name, heldAgainst)}})
              : std::string()}};
    return asked.cut(
        question.goal == Goal::equivalence
            ? words::say("On {bench}, at {site}, show whether {levels} are the same by {metric} over "
                         "{reference}{taken} under {loads}; a difference of {margin} matters, "
                         "{confidence} sure{against}.",
                         fields)
            : words::say("On {bench}, at {site}, compare {levels} by {metric} over {reference}{taken} "
                         "under {loads}; a difference of {margin} matters, {confidence} sure{against}.",
                         fields));
}

std::string studySentence(const Document& document, const Question& question) {
    std::string text;
    for (const SentencePiece& piece : studySentencePieces(document, question)) text += piece.text;
    return text;
}

bool isAboutLot(const CautionRule& rule) { return rule.id.starts_with("LOT-"); }

std::string cautionText(const Caution& caution) {
    const std::string severity = words::term(severityName(caution.rule->severity));
    std::string capital = severity;
    capital[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(capital[0])));
    std::string questions;
    for (const std::string& fact : caution.asks) {
        if (!questions.empty()) questions += ' ';
        questions += words::text(questionFor(fact));
    }
    const Fields fields{{"Severity", capital},
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
    struct Told {
        Caution caution;
        std::vector<std::string> names;
        bool anyRead = false;
    };
    std::map<const CautionRule*, Told> byRule;
    const auto note = [&](const std::string& of) {
        for (const Caution& caution : cautionsFor(cautionFacts(document, subject, now))) {
            if (subject.lot && !isAboutLot(*caution.rule)) continue; // told with the material
            Told& told = byRule.try_emplace(caution.rule, Told{caution, {}}).first->second;
            std::string name = of;
            if (const Acknowledgement* read = acknowledgementOf(document, caution.rule->id, subject)) {
                name += " (" + readBy(*read) + ")";
                told.anyRead = true;
            }
            told.names.push_back(name);
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
