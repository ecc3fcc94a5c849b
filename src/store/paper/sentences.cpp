// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/sentences.h"

#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/words.h"
#include "core/evidence/response.h"

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
    return fmt::format("{} to {}", plainAmount(std::min(a, b), unit), amountText(std::max(a, b), unit));
}

std::string singleMountNote(const GroupSummary& a, const GroupSummary& b) {
    if (a.mounts > 1 && b.mounts > 1) return "";
    return fmt::format(" {} is from a single mount.", a.mounts == 1 ? a.name : b.name);
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
    return fmt::format("{} and {}", fmt::join(names.begin(), names.end() - 1, ", "), names.back());
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
    sentence.text = fmt::format("{} ran {} cooler than {} ({:.0f} % interval {})", sides.cool.name,
                                amountText(std::abs(*pair.difference), unit), sides.warm.name,
                                100 * comparison.options.confidence, rangeText(*pair.ci, sides.sign, unit));
    if (pair.size == DifferenceSize::beyondMargin)
        sentence.text +=
            fmt::format(", more than your margin of {}", amountText(comparison.options.margin, unit));
    std::vector<std::string> others;
    for (std::size_t index : pairs)
        if (index != nearest) others.push_back(sidesOf(comparison, comparison.pairs[index]).warm.name);
    if (!others.empty()) sentence.text += fmt::format("; cooler than {} too", joined(others));
    sentence.text += '.';
    sentence.text += singleMountNote(sides.cool, sides.warm);
    return sentence;
}

VerdictSentence pairSentence(const Comparison& comparison, std::size_t index, std::string_view unit) {
    const PairComparison& pair = comparison.pairs[index];
    const auto& [cool, warm, sign] = sidesOf(comparison, pair);
    const std::string margin = amountText(comparison.options.margin, unit);
    const double percent = 100 * comparison.options.confidence;
    VerdictSentence sentence;
    sentence.pair = index;
    if (pair.verdict == Verdict::different) {
        sentence.kind = SentenceKind::practical;
        sentence.text =
            fmt::format("{} was measurably cooler than {} ({}), but by less than {}: practically the same.",
                        cool.name, warm.name, rangeText(*pair.ci, sign, unit), margin);
    } else if (pair.verdict == Verdict::equivalent) {
        sentence.kind = SentenceKind::practical;
        sentence.text =
            fmt::format("{} and {} are the same within ±{} ({:.0f} % interval {}).", cool.name, warm.name,
                        margin, 100 - 2 * (100 - percent), rangeText(*pair.equivalenceCi, sign, unit));
    } else {
        sentence.kind = SentenceKind::open;
        sentence.text = fmt::format("{} and {} are not settled: the difference may lie anywhere from {}.",
                                    cool.name, warm.name, rangeText(*pair.ci, sign, unit));
        sentence.text +=
            pair.furtherMounts
                ? fmt::format(" About {} more {} of each would settle it.", *pair.furtherMounts,
                              *pair.furtherMounts == 1 ? "mount" : "mounts")
                : std::string(" Mounting them again will not settle it: widen the margin or calm the bench.");
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
                 fmt::format("The step from {} to {} {} {} ({:.0f} % interval {}).",
                             comparison.groups[pair.a].name, comparison.groups[pair.b].name,
                             cooler ? "gained" : "cost", amountText(std::abs(*pair.difference), unit),
                             100 * comparison.options.confidence, rangeText(*pair.ci, cooler ? 1 : -1, unit)),
                 i});
        }
}

void addCaveats(std::vector<VerdictSentence>& sentences, const Evidence& evidence, std::string_view unit) {
    const Comparison& comparison = *evidence.comparison;
    for (const GroupSummary& group : comparison.groups)
        if (group.bound)
            sentences.push_back(
                {SentenceKind::caveat,
                 fmt::format("{} reached the temperature limit in {} of {} mounts; its difference is at "
                             "least {}. Compare it by thermal resistance or power.",
                             group.name, group.limitBoundMounts, group.mounts,
                             amountText(*group.bound, unit)),
                 {}});
    if (evidence.excludedMounts > 0)
        sentences.push_back(
            {SentenceKind::caveat,
             fmt::format("{} rejected {} left out; the table of runs keeps the reason.",
                         evidence.excludedMounts, evidence.excludedMounts == 1 ? "mount is" : "mounts are"),
             {}});
    for (const Flag& flag : evidence.runFlags)
        if (flag.code != "limit-bound") sentences.push_back({SentenceKind::caveat, flag.message + ".", {}});
    for (const Flag& flag : comparison.flags)
        if (isTold(flag.code)) sentences.push_back({SentenceKind::caveat, flag.message + ".", {}});
}

} // namespace

std::string amountText(double value, std::string_view unit) {
    return plainAmount(value, unit) + " " + std::string(unit);
}

std::vector<VerdictSentence> verdictSentences(const Evidence& evidence, const Question& question) {
    if (!evidence.comparison) return {{SentenceKind::caveat, evidence.whyNot, {}}};
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
    static constexpr std::array<std::pair<const char*, const char*>, 9> names{{{"material", "materials"},
                                                                               {"amount", "amounts"},
                                                                               {"pattern", "patterns"},
                                                                               {"torque", "torques"},
                                                                               {"lid state", "lid states"},
                                                                               {"cooler", "coolers"},
                                                                               {"supplier", "suppliers"},
                                                                               {"age", "ages"},
                                                                               {"state", "states"}}};
    const auto& [one, many] = names.at(static_cast<std::size_t>(factor));
    return fmt::format("{} {}", count, count == 1 ? one : many);
}

std::string loadWords(const Document& document, const Question& question) {
    if (const Load* compared = document.find(question.load)) return compared->name;
    const auto loads = loadsOf(document, question.study);
    if (loads.empty()) return "any load";
    if (loads.size() == 1) return loads.front()->name;
    return fmt::format("{} loads", loads.size());
}

} // namespace

std::vector<SentencePiece> studySentencePieces(const Document& document, const Question& question) {
    using enum AskedPart;
    const Study* study = document.find(question.study);
    const Bench* at = study ? document.find(study->bench) : nullptr;
    const Site* where = document.find(question.site);
    const bool same = question.goal == Goal::equivalence;
    std::vector<SentencePiece> pieces{
        {"On ", plain},
        {at ? at->name : "a bench", bench},
        {", at ", plain},
        {where ? where->name : "a site", site},
        {same ? ", show whether " : ", compare ", plain},
        {counted(levelsOf(document, question.id).size(), question.factor), levels}};
    if (question.secondFactor) {
        pieces.push_back({" with ", plain});
        pieces.push_back(
            {counted(secondLevelsOf(document, question.id).size(), *question.secondFactor), secondLevels});
    }
    pieces.push_back({same ? " are the same by " : " by ", plain});
    pieces.push_back({std::string(metricTitle(question.metric)), metric});
    pieces.push_back({" over ", plain});
    pieces.push_back({question.reference == ReferenceTemperature::room ? "room" : "coolant", reference});
    if (question.normalisation != Normalisation::raw) {
        pieces.push_back({", ", plain});
        pieces.push_back(
            {question.normalisation == Normalisation::perWatt ? "per watt" : "at nominal power", taken});
    }
    pieces.push_back({" under ", plain});
    pieces.push_back({loadWords(document, question), loads});
    pieces.push_back({"; a difference of ", plain});
    pieces.push_back({amountText(question.margin.value, responseUnit(question)), margin});
    pieces.push_back({" matters, ", plain});
    pieces.push_back({fmt::format("{:.0f} %", 100 * question.confidence), confidence});
    pieces.push_back({" sure", plain});
    if (const Level* held = referenceLevelOf(document, question)) {
        pieces.push_back({", against ", plain});
        pieces.push_back({held->name, heldAgainst});
    }
    pieces.push_back({".", plain});
    return pieces;
}

std::string studySentence(const Document& document, const Question& question) {
    std::string text;
    for (const SentencePiece& piece : studySentencePieces(document, question)) text += piece.text;
    return text;
}

bool isAboutLot(const CautionRule& rule) { return rule.id.starts_with("LOT-"); }

std::string cautionText(const Caution& caution) {
    const auto name = severityName(caution.rule->severity);
    std::string text(name);
    text[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(text[0])));
    if (caution.state == CautionState::applies)
        return fmt::format("{}: {} {}", text, caution.rule->reason, caution.rule->advice);
    std::string questions;
    for (const std::string& fact : caution.asks) questions += fmt::format(" {}", questionFor(fact));
    return fmt::format("Not known yet ({}):{} {}", name, questions, caution.rule->reason);
}

std::vector<std::string> cautionSentences(const Document& document, const Question& question, Instant now) {
    const Study* study = document.find(question.study);
    CautionSubject subject;
    subject.site = document.find(question.site);
    subject.configuration = study ? currentConfiguration(document, study->bench) : nullptr;
    std::map<const CautionRule*, std::pair<Caution, std::vector<std::string>>> byRule;
    const auto note = [&](const std::string& of) {
        for (const Caution& caution : cautionsFor(cautionFacts(document, subject, now))) {
            if (subject.lot && !isAboutLot(*caution.rule)) continue; // told with the material
            auto& [first, names] =
                byRule.try_emplace(caution.rule, caution, std::vector<std::string>{}).first->second;
            std::string name = of;
            if (const Acknowledgement* read = acknowledgementOf(document, caution.rule->id, subject))
                name += fmt::format(" (read by {} on {}{}{})", read->role, dateText(read->at),
                                    read->reason.empty() ? "" : ": ", read->reason);
            names.push_back(name);
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
            const auto& [caution, names] = found->second;
            const bool anyRead = std::any_of(names.begin(), names.end(), [](const std::string& name) {
                return name.find("(read by") != std::string::npos;
            });
            const std::string who = names.size() == all && !anyRead && !isAboutLot(rule)
                                        ? ""
                                        : fmt::format(" [{}]", fmt::join(names, ", "));
            sentences.push_back(cautionText(caution) + who);
        }
    sentences.emplace_back(cautionPreamble);
    return sentences;
}

} // namespace ibuki
