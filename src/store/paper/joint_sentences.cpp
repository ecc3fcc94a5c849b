// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/joint_sentences.h"

#include "core/domain/words.h"
#include "core/evidence/response.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace ibuki {
namespace {

int decimalsFor(double smallest) {
    if (!(smallest > 0)) return 1;
    return std::clamp(static_cast<int>(std::ceil(-std::log10(smallest))), 0, 6);
}

/// "7 to 9", or "8" where nothing lies between the two.
std::string between(double low, double high, int decimals) {
    const std::string a = fmt::format("{:.{}f}", low, decimals);
    const std::string b = fmt::format("{:.{}f}", high, decimals);
    return a == b ? a : words::say("{low} to {high}", {{"low", a}, {"high", b}});
}

/// Of an interval that lies on one side of 0: of its size.
Interval sizeOf(const Interval& ci) {
    return {std::min(std::abs(ci.lo), std::abs(ci.hi)), std::max(std::abs(ci.lo), std::abs(ci.hi))};
}

/// How much of the second's mean, in %, and which way.
std::string shareText(const SideGain& gain) {
    const double scale = 100 / *gain.reference;
    const Interval size = sizeOf(gain.ci.value_or(Interval{gain.difference, gain.difference}));
    return between(size.lo * scale, size.hi * scale, size.lo * scale < 2 ? 1 : 0);
}

/// "12 (8 to 16)"
std::string amountWithInterval(const SideGain& gain, int decimals) {
    std::string amount = fmt::format("{:.{}f}", std::abs(gain.difference), decimals);
    if (!gain.ci) return amount;
    const Interval size = sizeOf(*gain.ci);
    return words::say("{amount} ({interval})",
                      {{"amount", amount}, {"interval", between(size.lo, size.hi, decimals)}});
}

/// What a response is called where the first has more of it, and where it has less.
struct Phrases {
    SideResponse response;
    const char* more;
    const char* less;
};
constexpr Phrases shares[] = {
    {SideResponse::clock, words::mark("{share} % higher clock"), words::mark("{share} % lower clock")},
    {SideResponse::score, words::mark("{share} % faster by score"), words::mark("{share} % slower by score")},
    {SideResponse::frameRate, words::mark("{share} % more frames"), words::mark("{share} % fewer frames")},
    {SideResponse::lowFrameRate, words::mark("{share} % more frames in the slowest hundredth"),
     words::mark("{share} % fewer frames in the slowest hundredth")},
    {SideResponse::renderTime, words::mark("{share} % more render time"),
     words::mark("{share} % less render time")}};
constexpr Phrases amounts[] = {
    {SideResponse::power, words::mark("{amount} W more heat carried"),
     words::mark("{amount} W less heat carried")},
    {SideResponse::perWatt, words::mark("{amount} K/W more"), words::mark("{amount} K/W less")},
    {SideResponse::fanSpeed, words::mark("{amount} {unit} more fan"),
     words::mark("{amount} {unit} less fan")},
    {SideResponse::fanShare, words::mark("{amount} points more fan"),
     words::mark("{amount} points less fan")},
    {SideResponse::noise, words::mark("{amount} {unit} louder"), words::mark("{amount} {unit} quieter")},
    {SideResponse::wallPower, words::mark("{amount} W more at the wall"),
     words::mark("{amount} W less at the wall")},
    {SideResponse::other, words::mark("{amount} {unit} more {name}"),
     words::mark("{amount} {unit} less {name}")}};

std::string phraseOf(const SideGain& gain, const SideComparison& side) {
    for (const Phrases& phrases : shares)
        if (phrases.response == side.response && gain.reference)
            return words::say(gain.difference > 0 ? phrases.more : phrases.less,
                              {{"share", shareText(gain)}});
    for (const Phrases& phrases : amounts)
        if (phrases.response == side.response || phrases.response == SideResponse::other)
            return words::say(gain.difference > 0 ? phrases.more : phrases.less,
                              {{"amount", amountWithInterval(gain, sideDecimals(side))},
                               {"unit", side.unit},
                               {"name", sideName(side)}});
    return {};
}

std::string temperatureText(const JointReading& reading, std::string_view unit) {
    switch (reading.temperature) {
    case TemperatureReading::cooler:
        return words::say("{difference} cooler",
                          {{"difference", amountText(std::abs(*reading.pair->difference), unit)}});
    case TemperatureReading::warmer:
        return words::say("{difference} hotter",
                          {{"difference", amountText(std::abs(*reading.pair->difference), unit)}});
    case TemperatureReading::same:
        return words::say("no cooler");
    case TemperatureReading::open:
        return words::say("not told apart by temperature");
    case TemperatureReading::atLimit:
        return words::say("equal temperature at the limit");
    }
    return {};
}

std::string linked(const JointReading& reading, const std::vector<std::string>& merits,
                   const std::vector<std::string>& losses, std::string_view unit) {
    const Fields fields{{"first", reading.firstName},
                        {"second", reading.secondName},
                        {"temperature", temperatureText(reading, unit)},
                        {"merits", listed(merits)},
                        {"losses", listed(losses)}};
    const bool gains = reading.temperature == TemperatureReading::cooler;
    if (reading.temperature == TemperatureReading::atLimit && losses.empty())
        return words::say("{first} against {second}: {temperature}, {merits}", fields);
    if (losses.empty())
        return gains && merits.size() == 1
                   ? words::say("{first} against {second}: {temperature} and {merits}", fields)
               : gains ? words::say("{first} against {second}: {temperature}, {merits}", fields)
                       : words::say("{first} against {second}: {temperature}, but {merits}", fields);
    if (merits.empty())
        return gains ? words::say("{first} against {second}: {temperature}, but {losses}", fields)
                     : words::say("{first} against {second}: {temperature} and {losses}", fields);
    return words::say("{first} against {second}: {temperature}, {merits}, but {losses}", fields);
}

std::string fanText(const JointReading& reading) {
    if (reading.fan == JointReading::Fan::hides)
        return words::say(": both are understated, since the fan moved");
    if (reading.fan == JointReading::Fan::helps)
        return words::say(": a part of it is the fan's, not the material's");
    return {};
}

const SideComparison* comparedBy(const std::vector<SideComparison>& sides, SideResponse response) {
    for (const SideComparison& side : sides)
        if (side.response == response && side.comparison) return &side;
    return nullptr;
}

/// The pair of a group at the limit and another, by K/W or power: who is better, by how much.
struct LimitPair {
    PairComparison pair; ///< better − worse
    std::string good;
    std::string bad;
};

std::string amountOf(const SideComparison& side, double value) {
    return fmt::format("{:.{}f} {}", std::abs(value), sideDecimals(side), side.unit);
}

std::string intervalOf(const SideComparison& side, const Interval& ci) {
    const Interval size = sizeOf(ci);
    return between(size.lo, size.hi, sideDecimals(side));
}

/// The nearest of those it is told apart from is told with its figures, the others by name.
VerdictSentence limitSettled(const SideComparison& side, const std::vector<LimitPair>& pairs) {
    const auto nearest =
        std::min_element(pairs.begin(), pairs.end(), [](const LimitPair& a, const LimitPair& b) {
            return std::abs(*a.pair.difference) < std::abs(*b.pair.difference);
        });
    std::vector<std::string> others;
    for (const LimitPair& one : pairs)
        if (one.good != nearest->good) others.push_back(one.good);
    const Fields fields{{"good", nearest->good},
                        {"bad", nearest->bad},
                        {"difference", amountOf(side, *nearest->pair.difference)},
                        {"confidence", 100 * side.comparison->options.confidence},
                        {"interval", intervalOf(side, *nearest->pair.ci)},
                        {"others", listed(others)}};
    std::string text =
        side.response == SideResponse::perWatt
            ? words::say(
                "{good} passed the heat better than {bad}: {difference} less ({confidence:.0f} % interval "
                "{interval})",
                fields)
            : words::say(
                "{good} carried {difference} more than {bad} at the limit ({confidence:.0f} % interval "
                "{interval})",
                fields);
    text += others.empty() ? "." : words::say("; so did {others}.", fields);
    return {SentenceKind::settled, std::move(text), {}, EvidenceOn::responses};
}

VerdictSentence limitOpen(const SideComparison& side, const std::vector<LimitPair>& pairs) {
    std::vector<std::string> others;
    for (const LimitPair& one : pairs) others.push_back(one.good);
    const Fields fields{{"others", listed(others)}, {"bad", pairs.front().bad}};
    return {SentenceKind::open,
            side.response == SideResponse::perWatt
                ? words::say("By K/W, {bad} is not told apart from {others}.", fields)
                : words::say("By the power that was carried, {bad} is not told apart from {others}.", fields),
            {},
            EvidenceOn::responses};
}

/// Group ids that were held at the limit.
std::vector<std::int64_t> censoredGroups(const Evidence& evidence) {
    std::vector<std::int64_t> bound;
    const Comparison* shown = evidence.shown();
    for (const GroupSummary& group : shown->groups)
        if (group.censoredMounts > 0) bound.push_back(group.id);
    return bound;
}

} // namespace

std::string sideName(const SideComparison& side) {
    return side.name.empty() ? words::term(word(side.response)) : side.name;
}

int sideDecimals(const SideComparison& side) { return decimalsFor(side.margin / 3); }

std::vector<VerdictSentence>
jointSentences(const Evidence& evidence, const std::vector<SideComparison>& sides, const Question& question) {
    std::vector<VerdictSentence> sentences;
    for (const JointReading& reading : jointReadings(evidence, sides)) {
        std::vector<std::string> merits;
        std::vector<std::string> losses;
        bool single = reading.pair && reading.pair->provisional;
        for (const SideGain& gain : reading.gains) {
            (gain.isMerit ? merits : losses).push_back(phraseOf(gain, sides[gain.side]));
            single = single || !gain.ci;
        }
        std::string text = linked(reading, merits, losses, responseUnit(question)) + fanText(reading);
        text +=
            single
                ? words::say("; from one mount each, so that what mounting again would change is not known.")
                : ".";
        sentences.push_back({single ? SentenceKind::provisional : SentenceKind::settled,
                             std::move(text),
                             {},
                             EvidenceOn::responses});
    }
    return sentences;
}

std::vector<VerdictSentence>
limitSentences(const Evidence& evidence, const std::vector<SideComparison>& sides, const Question& question) {
    std::vector<VerdictSentence> sentences;
    if (question.normalisation != Normalisation::raw || !isHeldAtLimit(evidence)) return sentences;
    const SideComparison* side = comparedBy(sides, SideResponse::perWatt);
    if (!side) side = comparedBy(sides, SideResponse::power);
    if (!side) return sentences;
    const auto bound = censoredGroups(evidence);
    const auto isCensored = [&](std::int64_t id) {
        return std::find(bound.begin(), bound.end(), id) != bound.end();
    };
    const double better = side->response == SideResponse::perWatt ? -1 : 1;
    for (const GroupSummary& group : side->comparison->groups) {
        if (!isCensored(group.id)) continue;
        std::vector<LimitPair> settled;
        std::vector<LimitPair> open;
        for (const GroupSummary& other : side->comparison->groups) {
            auto pair = pairBetween(*side->comparison, other.id, group.id);
            if (!pair || !pair->difference || !pair->ci) continue;
            const bool reported = isCensored(other.id) && other.id < group.id; // from the other's side
            if (pair->verdict != Verdict::different && !reported)
                open.push_back({*pair, other.name, group.name});
            if (pair->verdict == Verdict::different && better * *pair->difference > 0)
                settled.push_back({*pair, other.name, group.name});
        }
        if (!settled.empty()) sentences.push_back(limitSettled(*side, settled));
        if (!open.empty()) sentences.push_back(limitOpen(*side, open));
    }
    return sentences;
}

std::vector<VerdictSentence> allSentences(const Evidence& evidence, const std::vector<SideComparison>& sides,
                                          const Question& question) {
    std::vector<VerdictSentence> all = verdictSentences(evidence, question);
    const auto behind = [&](auto isBefore) { // a response chosen afterwards stands before all
        const auto from = all.begin() + (isResponseChanged(question) && !all.empty() ? 1 : 0);
        return std::find_if(from, all.end(), [&](const VerdictSentence& one) { return !isBefore(one.kind); });
    };
    const auto joint = jointSentences(evidence, sides, question);
    all.insert(behind([](SentenceKind kind) { return kind != SentenceKind::caveat; }), joint.begin(),
               joint.end());
    // Where nothing else is settled they lead.
    const auto limit = limitSentences(evidence, sides, question);
    const auto settled = behind([](SentenceKind kind) { return kind == SentenceKind::settled; });
    all.insert(evidence.comparison ? settled : all.begin(), limit.begin(), limit.end());
    return all;
}

} // namespace ibuki
