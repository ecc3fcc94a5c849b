// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/sentences.h"

#include "core/evidence/response.h"
#include "core/stats/order_statistics.h"
#include "words/words.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace ibuki {
namespace {

/// Without the sign where nothing but noughts is left. plus: of what is above 0.
std::string digitsOf(double value, int decimals, const char* plus) {
    const std::string digits = fmt::format("{:.{}f}", std::abs(value), decimals);
    const bool isZero = digits.find_first_not_of("0.") == std::string::npos;
    return isZero ? digits : (value < 0 ? "−" : plus) + digits;
}

int decimalsOf(std::string_view unit) { return unit == "K" ? 1 : 4; }

std::string plainAmount(double value, std::string_view unit) { return digitsOf(value, decimalsOf(unit), ""); }

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

/// The pair that is least apart, and the warmer groups of the others.
std::pair<std::size_t, std::vector<std::string>> nearestOf(const Comparison& comparison,
                                                           const std::vector<std::size_t>& pairs) {
    const auto nearest = *std::min_element(pairs.begin(), pairs.end(), [&](std::size_t x, std::size_t y) {
        return std::abs(*comparison.pairs[x].difference) < std::abs(*comparison.pairs[y].difference);
    });
    std::vector<std::string> others;
    for (std::size_t index : pairs)
        if (index != nearest) others.push_back(sidesOf(comparison, comparison.pairs[index]).warm.name);
    return {nearest, others};
}

/// "Quickfin ran 2.2 K cooler than Tern 11 (95 % interval …), more than your margin …; cooler than … too."
/// The nearest of the groups that ran warmer is told with its figures, the others by name.
VerdictSentence coolerSentence(const Comparison& comparison, const std::vector<std::size_t>& pairs,
                               std::string_view unit) {
    const auto [nearest, others] = nearestOf(comparison, pairs);
    const PairComparison& pair = comparison.pairs[nearest];
    const Sides sides = sidesOf(comparison, pair);
    VerdictSentence sentence;
    sentence.pair = nearest;
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

/// From one mount each: held against what mounting again usually does. The nearest of the groups that ran
/// warmer is told with its figures, the others by name.
VerdictSentence provisionallyCooler(const Comparison& comparison, const std::vector<std::size_t>& pairs,
                                    std::string_view unit) {
    const auto [nearest, others] = nearestOf(comparison, pairs);
    const PairComparison& pair = comparison.pairs[nearest];
    const Sides sides = sidesOf(comparison, pair);
    const Fields fields{{"cool", sides.cool.name},
                        {"warm", sides.warm.name},
                        {"difference", amountText(std::abs(*pair.difference), unit)},
                        {"usual", amountText(0.5 * (pair.ci->hi - pair.ci->lo), unit)},
                        {"others", joined(others)}};
    return {SentenceKind::provisional,
            others.empty()
                ? words::say(
                    "{cool} ran {difference} cooler than {warm}: more than the {usual} by which mounting "
                    "again usually moves such a difference.",
                    fields)
                : words::say(
                    "{cool} ran {difference} cooler than {warm}: more than the {usual} by which mounting "
                    "again usually moves such a difference; cooler than {others} too.",
                    fields),
            nearest};
}

VerdictSentence provisionallyOpen(const Comparison& comparison, std::size_t index, std::string_view unit) {
    const PairComparison& pair = comparison.pairs[index];
    const auto& [cool, warm, sign] = sidesOf(comparison, pair);
    std::string text =
        words::say("{cool} and {warm} are apart by {difference}: less than the {usual} by which "
                   "mounting again usually moves such a difference.",
                   {{"cool", cool.name},
                    {"warm", warm.name},
                    {"difference", amountText(std::abs(*pair.difference), unit)},
                    {"usual", amountText(0.5 * (pair.ci->hi - pair.ci->lo), unit)}});
    text += " ";
    text += pair.furtherMounts
                ? words::sayMany("About {count} more mount of each would tell.",
                                 "About {count} more mounts of each would tell.", *pair.furtherMounts)
                : words::say("Mounting them again will hardly tell: widen the margin or calm the bench.");
    return {SentenceKind::open, std::move(text), index};
}

bool isSettled(const PairComparison& pair) {
    if (pair.provisional) return pair.verdict == Verdict::different;
    return pair.verdict == Verdict::different && pair.size != DifferenceSize::withinMargin;
}

/// Pairs told apart by more than the margin's inside, gathered by their cooler group.
std::map<std::string, std::vector<std::size_t>> coolerThan(const Comparison& comparison) {
    std::map<std::string, std::vector<std::size_t>> gathered;
    for (std::size_t i = 0; i < comparison.pairs.size(); ++i) {
        const PairComparison& pair = comparison.pairs[i];
        if (isSettled(pair)) gathered[sidesOf(comparison, pair).cool.name].push_back(i);
    }
    return gathered;
}

/// Flags of a comparison that no other sentence tells.
bool isTold(std::string_view code) {
    static constexpr std::array<std::string_view, 9> codes{
        "scatter-assumed", "confounded",  "declared-looks",         "other-loads", "runs-weighted",
        "unplanned-look",  "two-changes", "interaction-not-tested", "not-compared"};
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
                {pair.provisional                     ? SentenceKind::provisional
                 : pair.verdict == Verdict::different ? SentenceKind::settled
                                                      : SentenceKind::open,
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

/// Levels of the first factor averaged over the second, where it does not change their differences.
void addMarginal(std::vector<VerdictSentence>& sentences, const Evidence& evidence, std::string_view unit) {
    if (!evidence.factors || !hasFlag(evidence.comparison->flags, "interaction")) return;
    const TwoFactors& factors = *evidence.factors;
    if (!factors.interaction || factors.interaction->p < 1 - evidence.comparison->options.confidence) return;
    for (const PairComparison& pair : factors.marginal) {
        if (!pair.difference || !pair.ci) continue;
        const bool aIsCool = *pair.difference <= 0;
        const Fields fields{{"cool", factors.firstLevels[aIsCool ? pair.a : pair.b].name},
                            {"warm", factors.firstLevels[aIsCool ? pair.b : pair.a].name},
                            {"difference", amountText(std::abs(*pair.difference), unit)},
                            {"confidence", 100 * evidence.comparison->options.confidence},
                            {"interval", rangeText(*pair.ci, aIsCool ? -1 : 1, unit)}};
        if (pair.verdict == Verdict::different)
            sentences.push_back(
                {SentenceKind::settled,
                 words::say("Averaged over the second factor, {cool} ran {difference} cooler than "
                            "{warm} ({confidence:.0f} % interval {interval}).",
                            fields),
                 {}});
        else
            sentences.push_back(
                {SentenceKind::open,
                 words::say("Averaged over the second factor, {cool} and {warm} are not told apart: "
                            "the difference may lie anywhere from {interval}.",
                            fields),
                 {}});
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

std::string signedAmountText(double value, std::string_view unit, std::optional<int> decimals) {
    return digitsOf(value, decimals.value_or(decimalsOf(unit)), "+");
}

std::string spreadSentence(const Comparison& comparison, std::string_view unit) {
    const auto spread = spreadOfIdentical(comparison);
    if (!spread) return {};
    return words::say(
        "Identical materials, mounted as often, would spread by {spread} from the first to the last.",
        {{"spread", amountText(*spread, unit)}});
}

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
        sentences.push_back(comparison.pairs[pairs.front()].provisional
                                ? provisionallyCooler(comparison, pairs, unit)
                                : coolerSentence(comparison, pairs, unit));
    for (std::size_t i = 0; i < comparison.pairs.size(); ++i) {
        const PairComparison& pair = comparison.pairs[i];
        if (!pair.difference || isSettled(pair)) continue;
        sentences.push_back(pair.provisional ? provisionallyOpen(comparison, i, unit)
                                             : pairSentence(comparison, i, unit));
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
    addMarginal(sentences, evidence, unit);
    for (const Flag& flag : comparison.flags)
        if (flag.code == "scatter-assumed") // before all that rests on it
            sentences.insert(sentences.begin(),
                             {SentenceKind::provisional, words::text(flag.message) + ".", {}});
    addCaveats(sentences, evidence, unit);
    return sentences;
}

} // namespace ibuki
