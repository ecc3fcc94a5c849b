// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/step_sentences.h"

#include "store/paper/sentence_parts.h"
#include "words/words.h"

#include <cmath>

namespace ibuki {
namespace {

/// The pair of two groups, a before b; nothing where it could not be judged.
std::optional<std::size_t> judgedPair(const Comparison& comparison, std::size_t a, std::size_t b) {
    for (std::size_t i = 0; i < comparison.pairs.size(); ++i) {
        const PairComparison& pair = comparison.pairs[i];
        if (pair.a == a && pair.b == b && pair.difference && pair.ci) return i;
    }
    return std::nullopt;
}

bool isDistinguished(const Comparison& comparison, std::size_t pair) {
    return comparison.pairs[pair].verdict == Verdict::different;
}

Fields stepFields(const Comparison& comparison, const PairComparison& pair, std::string_view unit) {
    const bool cooler = *pair.difference > 0;
    const bool equivalent = pair.verdict == Verdict::equivalent;
    const double percent = 100 * comparison.options.confidence;
    return {{"from", comparison.groups[pair.a].name},
            {"to", comparison.groups[pair.b].name},
            {"amount", amountText(std::abs(*pair.difference), unit)},
            {"margin", amountText(comparison.options.margin, unit)},
            {"confidence", equivalent ? 100 - 2 * (100 - percent) : percent},
            {"interval", rangeText(equivalent ? *pair.equivalenceCi : *pair.ci, cooler ? 1 : -1, unit)},
            {"gained", rangeText(*pair.ci, 1, unit)}};
}

VerdictSentence stepSentence(const Comparison& comparison, std::size_t index, std::string_view unit) {
    const PairComparison& pair = comparison.pairs[index];
    const Fields fields = stepFields(comparison, pair, unit);
    if (pair.verdict == Verdict::unresolved)
        return {
            SentenceKind::open,
            words::say("What the step from {from} to {to} gained is open: anything from {gained}.", fields)
                + (pair.provisional ? std::string() : furtherText(pair)),
            index};
    if (pair.verdict == Verdict::equivalent)
        return {
            SentenceKind::practical,
            words::say("The step from {from} to {to} changed less than {margin} ({confidence:.0f} % interval "
                       "{interval}).",
                       fields),
            index};
    return {pair.provisional ? SentenceKind::provisional : SentenceKind::settled,
            words::say(
                *pair.difference > 0
                    ? words::mark("The step from {from} to {to} gained {amount} ({confidence:.0f} % interval "
                                  "{interval}).")
                    : words::mark("The step from {from} to {to} cost {amount} ({confidence:.0f} % interval "
                                  "{interval})."),
                fields),
            index};
}

/// Steps of which none is told apart from nothing though all of them together are: credited as one.
VerdictSentence joinedSteps(const Comparison& comparison, std::size_t index, std::string_view unit) {
    const PairComparison& pair = comparison.pairs[index];
    std::vector<std::string> between;
    for (std::size_t g = pair.a + 1; g < pair.b; ++g) between.push_back(comparison.groups[g].name);
    Fields fields = stepFields(comparison, pair, unit);
    fields.push_back({"between", listed(between)});
    VerdictSentence sentence = stepSentence(comparison, index, unit);
    sentence.text = words::say(
        *pair.difference > 0
            ? words::mark(
                "The steps from {from} over {between} to {to} cannot be separated: together they gained "
                "{amount} ({confidence:.0f} % interval {interval}).")
            : words::mark(
                "The steps from {from} over {between} to {to} cannot be separated: together they cost "
                "{amount} ({confidence:.0f} % interval {interval})."),
        fields);
    return sentence;
}

/// Where the longest chain of steps from `from` ends that are nothing one by one and something together.
std::size_t endOfJoined(const Comparison& comparison, std::size_t from) {
    std::size_t end = from + 1;
    for (std::size_t to = from + 1; to < comparison.groups.size(); ++to) {
        const auto step = judgedPair(comparison, to - 1, to);
        if (!step || isDistinguished(comparison, *step)) break;
        const auto whole = judgedPair(comparison, from, to);
        if (whole && isDistinguished(comparison, *whole)) end = to;
    }
    return end;
}

} // namespace

std::vector<VerdictSentence> stepSentences(const Comparison& comparison, std::string_view unit) {
    std::vector<VerdictSentence> sentences;
    for (std::size_t from = 0; from + 1 < comparison.groups.size();) {
        const std::size_t to = endOfJoined(comparison, from);
        if (const auto pair = judgedPair(comparison, from, to))
            sentences.push_back(to > from + 1 ? joinedSteps(comparison, *pair, unit)
                                              : stepSentence(comparison, *pair, unit));
        from = to;
    }
    return sentences;
}

bool isStep(const Evidence& evidence, const PairComparison& pair) {
    return evidence.inSequence && pair.b == pair.a + 1;
}

} // namespace ibuki
