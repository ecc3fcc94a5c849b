// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/sentences.h"

#include "core/comparison/order_statistics.h"
#include "core/evidence/check_mounts.h"
#include "core/evidence/response.h"
#include "store/paper/step_sentences.h"
#include "words/words.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace ibuki {
namespace {

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
                        {"others", listed(others)}};
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
        sentence.text += furtherText(pair);
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
                        {"others", listed(others)}};
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

/// Pairs told apart by more than the margin's inside, gathered by their cooler group, in order of its name;
/// two groups of one name stay two.
std::map<std::pair<std::string, std::int64_t>, std::vector<std::size_t>>
coolerThan(const Evidence& evidence) {
    const Comparison& comparison = *evidence.comparison;
    std::map<std::pair<std::string, std::int64_t>, std::vector<std::size_t>> gathered;
    for (std::size_t i = 0; i < comparison.pairs.size(); ++i) {
        const PairComparison& pair = comparison.pairs[i];
        if (!isSettled(pair) || isStep(evidence, pair)) continue;
        const GroupSummary& cool = sidesOf(comparison, pair).cool;
        gathered[{cool.name, cool.id}].push_back(i);
    }
    return gathered;
}

/// Flags of a comparison that no other sentence tells.
bool isReported(std::string_view code) {
    static constexpr std::array<std::string_view, 19> codes{"no-log",
                                                            "confounded",
                                                            "loads-unlike",
                                                            "declared-looks",
                                                            "other-loads",
                                                            "runs-weighted",
                                                            "unplanned-look",
                                                            "two-changes",
                                                            "interaction-not-tested",
                                                            "not-compared",
                                                            "blocks-unknown",
                                                            "blocks-taken-out",
                                                            "own-spread",
                                                            "own-spread-left",
                                                            "order-taken-out",
                                                            "covariate-unknown",
                                                            "covariate-taken-out",
                                                            "slopes-differ",
                                                            "left-with-two-factors"};
    return std::find(codes.begin(), codes.end(), code) != codes.end();
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
                 {},
                 EvidenceOn::factors});
        else
            sentences.push_back(
                {SentenceKind::open,
                 words::say("Averaged over the second factor, {cool} and {warm} are not told apart: "
                            "the difference may lie anywhere from {interval}.",
                            fields),
                 {},
                 EvidenceOn::factors});
    }
}

/// Pairs whose verdict would be another one with the mounts that were rejected by look.
std::vector<std::string> pairsThatWouldChange(const Comparison& now, const Comparison& with) {
    std::vector<std::string> changed;
    for (const PairComparison& pair : now.pairs)
        for (const PairComparison& other : with.pairs) {
            const auto same = [&](std::size_t a, std::size_t b) {
                return now.groups[a].id == with.groups[b].id;
            };
            const bool straight = same(pair.a, other.a) && same(pair.b, other.b);
            if (!straight && !(same(pair.a, other.b) && same(pair.b, other.a))) continue;
            const bool isOther =
                pair.verdict != other.verdict
                || (pair.verdict == Verdict::different && pair.difference && other.difference
                    && (*pair.difference > 0) != ((straight ? 1 : -1) * *other.difference > 0));
            if (isOther)
                changed.push_back(fmt::format("{} – {}", now.groups[pair.a].name, now.groups[pair.b].name));
        }
    return changed;
}

void addRejectedByLook(std::vector<VerdictSentence>& sentences, const Evidence& evidence) {
    if (!evidence.byLook) return;
    const LookRejections& looks = *evidence.byLook;
    std::string text =
        words::sayMany("{count} mount was rejected by what its joint looked like",
                       "{count} mounts were rejected by what their joints looked like", looks.mounts);
    if (looks.figureKnown > 0)
        text =
            fmt::format("{} {}", text,
                        words::sayMany("({count} when its figure was known already)",
                                       "({count} when their figures were known already)", looks.figureKnown));
    const auto changed = evidence.comparison && looks.with
                             ? pairsThatWouldChange(*evidence.comparison, *looks.with)
                             : std::vector<std::string>{};
    std::string with = words::say("With them every pair would be judged the same.");
    if (!looks.with || !evidence.comparison)
        with = words::say("With them nothing could be compared.");
    else if (!changed.empty())
        with = words::say("With them another verdict would stand for {pairs}.",
                          {{"pairs", fmt::format("{}", fmt::join(changed, ", "))}});
    text = fmt::format("{}. {}", text, with);
    sentences.push_back({SentenceKind::caveat, text, {}});
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
                                             {"bound", group.censoredMounts},
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
    addRejectedByLook(sentences, evidence);
    for (const Flag& flag : evidence.runFlags)
        if (flag.code != "limit-bound")
            sentences.push_back({SentenceKind::caveat, words::text(flag.message) + ".", {}});
    for (const Flag& flag : comparison.flags)
        if (isReported(flag.code))
            sentences.push_back({SentenceKind::caveat, words::text(flag.message) + ".", {}});
}

} // namespace

std::string spreadSentence(const Comparison& comparison, std::string_view unit) {
    const auto spread = spreadOfIdentical(comparison);
    if (!spread) return {};
    return words::say(
        "Identical materials, mounted as often, would spread by {spread} from the first to the last.",
        {{"spread", amountText(*spread, unit)}});
}

namespace {

/// A response chosen after mounts were measured could have been chosen for its winner.
void addChangedResponse(std::vector<VerdictSentence>& sentences, const Question& question) {
    if (!isResponseChanged(question)) return;
    sentences.insert(sentences.begin(),
                     {SentenceKind::caveat,
                      words::say("Judged by {now}; fixed before the first mount was {fixed}. Report both.",
                                 {{"now", words::text(responseTitle(question))},
                                  {"fixed", words::text(responseTitle(asFixed(question)))}}),
                      {}});
}

/// What has to be read before all the rest: an assumed scatter, a second factor that turns the order over.
void addFirst(std::vector<VerdictSentence>& sentences, const Comparison& comparison, std::string_view unit) {
    for (const Flag& flag : comparison.flags) {
        if (flag.code == "scatter-assumed") {
            Message message = flag.message; // a table's comparison does not know its unit
            message.code += ".in-unit";
            message.fields.emplace_back("unit", unit);
            sentences.insert(sentences.begin(), {SentenceKind::provisional, words::text(message) + ".", {}});
        }
        if (flag.code != "interaction") continue;
        const std::string text = words::text(flag.message) + ".";
        if (flag.severity == Severity::info)
            sentences.push_back({SentenceKind::caveat, text, {}});
        else
            sentences.insert(sentences.begin(), {SentenceKind::settled, text, {}, EvidenceOn::factors});
    }
}

/// A bench that moved touches some of the mounts; which, and corrected figures, stand with its check mounts.
void addHealth(std::vector<VerdictSentence>& sentences, const Evidence& evidence, const Question& question) {
    const CheckEvidence checks = checkEvidence(question, evidence);
    if (!checks.health || (!checks.health->moved && !drifts(*checks.health))) return;
    sentences.push_back(
        {SentenceKind::caveat,
         checks.touched.empty()
             ? words::say("The check mounts drift: see them for figures with the order of mounts taken out.")
             : words::sayMany(
                 "The bench moved, as its check mounts show: {count} compared mount should be repeated, "
                 "not all of them.",
                 "The bench moved, as its check mounts show: {count} compared mounts should be "
                 "repeated, not all of them.",
                 static_cast<long>(checks.touched.size())),
         {},
         EvidenceOn::checks});
}

/// People who mount differ too; what the verdict rests on is one of them, or all.
void addPeople(std::vector<VerdictSentence>& sentences, const Evidence& evidence, std::string_view unit) {
    const auto& people = evidence.people;
    if (!people) return;
    sentences.push_back({SentenceKind::caveat,
                         words::say("Mounted by {count} people: one and the same repeats to {repeat}, any of "
                                    "them to {both} (standard "
                                    "deviations; ISO 5725).",
                                    {{"count", people->persons},
                                     {"repeat", amountText(people->repeatabilitySd, unit)},
                                     {"both", amountText(people->reproducibilitySd, unit)}}),
                         {}});
}

} // namespace

std::vector<VerdictSentence> verdictSentences(const Evidence& evidence, const Question& question) {
    if (!evidence.comparison)
        return {{SentenceKind::caveat, evidence.reason ? words::complaint(*evidence.reason) : "", {}}};
    const Comparison& comparison = *evidence.comparison;
    const std::string_view unit = responseUnit(question);
    std::vector<VerdictSentence> sentences;
    if (evidence.inSequence) sentences = stepSentences(comparison, unit);
    for (const auto& [cool, pairs] : coolerThan(evidence))
        sentences.push_back(comparison.pairs[pairs.front()].provisional
                                ? provisionallyCooler(comparison, pairs, unit)
                                : coolerSentence(comparison, pairs, unit));
    for (std::size_t i = 0; i < comparison.pairs.size(); ++i) {
        const PairComparison& pair = comparison.pairs[i];
        if (!pair.difference || isSettled(pair) || isStep(evidence, pair)) continue;
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
    addFirst(sentences, comparison, unit);
    addPeople(sentences, evidence, unit);
    addHealth(sentences, evidence, question);
    addCaveats(sentences, evidence, unit);
    addChangedResponse(sentences, question);
    return sentences;
}

} // namespace ibuki
