// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/claims.h"

#include "core/comparison/order_statistics.h"
#include "core/domain/lookup.h"
#include "core/evidence/response.h"
#include "store/paper/ladder_layout.h"
#include "store/table/table.h"
#include "words/words.h"

#include <algorithm>
#include <array>
#include <fmt/format.h>
#include <map>

namespace ibuki {
namespace {

/// The cooler and the warmer group of a judged pair, and how far they are apart at least and at most.
struct Apart {
    std::size_t cool = 0; ///< index into the groups
    std::size_t warm = 0;
    double least = 0;
    double most = 0;
};

Apart apartOf(const PairComparison& pair) {
    const bool aIsCool = *pair.difference <= 0;
    const double sign = aIsCool ? -1 : 1;
    return {aIsCool ? pair.a : pair.b, aIsCool ? pair.b : pair.a,
            std::min(sign * pair.ci->lo, sign * pair.ci->hi),
            std::max(sign * pair.ci->lo, sign * pair.ci->hi)};
}

std::string pairName(const Comparison& comparison, const PairComparison& pair) {
    return comparison.groups[pair.a].name + " – " + comparison.groups[pair.b].name;
}

class Claims {
public:
    Claims(const Document& document, const Question& question, const Evidence& evidence)
        : document_(document),
          question_(question),
          evidence_(evidence),
          comparison_(*evidence.comparison),
          unit_(responseUnit(question)) {}

    std::vector<Claim> all() {
        for (const PairComparison& pair : comparison_.pairs)
            if (pair.ci) addPair(pair);
        addCooler();
        if (!open_.empty())
            add(ClaimKind::may, words::say("Not told apart with these mounts: {pairs}.", {{"pairs", open_}}));
        if (claims_.empty()) add(ClaimKind::may, words::say("What each mount measured, without a ranking."));
        addWith();
        addMayNot();
        std::stable_sort(claims_.begin(), claims_.end(),
                         [](const Claim& a, const Claim& b) { return a.kind < b.kind; });
        return std::move(claims_);
    }

private:
    void add(ClaimKind kind, std::string text, std::string because = {}) {
        claims_.push_back({kind, std::move(text), std::move(because)});
    }

    void addPair(const PairComparison& pair) {
        const Apart apart = apartOf(pair);
        const Fields fields{{"cool", comparison_.groups[apart.cool].name},
                            {"warm", comparison_.groups[apart.warm].name},
                            {"least", amountText(apart.least, unit_)},
                            {"most", amountText(apart.most, unit_)},
                            {"margin", amountText(comparison_.options.margin, unit_)}};
        if (pair.provisional) {
            add(ClaimKind::may,
                pair.verdict == Verdict::different
                    ? words::say("In one mount of each {cool} ran cooler than {warm}.", fields)
                    : words::say("{cool} and {warm}: one mount of each, closer than mounting "
                                 "again would move them.",
                                 fields));
        } else if (pair.verdict == Verdict::equivalent) {
            add(ClaimKind::may, words::say("{cool} and {warm} are the same within ±{margin} here.", fields));
        } else if (pair.verdict == Verdict::unresolved) {
            open_.push_back(pairName(comparison_, pair));
        } else if (pair.size == DifferenceSize::withinMargin) {
            add(ClaimKind::may,
                words::say("{cool} ran cooler than {warm} here, by less than {margin}: practically the same.",
                           fields));
        } else {
            cooler_[apart.cool].push_back(words::say("{warm} (by {least} to {most})", fields));
            if (pair.size != DifferenceSize::beyondMargin)
                little_[apart.cool].push_back(words::say("{warm} (it may be {least} only)", fields));
        }
    }

    /// One line for each that ran cooler than others; what is ahead by perhaps too little is said again.
    void addCooler() {
        for (std::size_t group : bestFirst(comparison_)) {
            const std::string& cool = comparison_.groups[group].name;
            if (const auto warm = cooler_.find(group); warm != cooler_.end())
                add(ClaimKind::may, words::say("{cool} ran cooler here than {warm}.",
                                               {{"cool", cool}, {"warm", listed(warm->second)}}));
            if (const auto warm = little_.find(group); warm != little_.end())
                add(ClaimKind::mayNot,
                    words::say("That {cool} is ahead by what matters of {warm}.",
                               {{"cool", cool}, {"warm", listed(warm->second)}}),
                    words::say("{margin} is what you said matters",
                               {{"margin", amountText(comparison_.options.margin, unit_)}}));
        }
    }

    /// Bench, load, mounts; what was left out and what was changed.
    void addWith() {
        const Study* study = document_.find(question_.study);
        const Bench* bench = study ? document_.find(study->bench) : nullptr;
        const Load* load = studysLoad(document_, question_.study, evidence_.load);
        const Site* site = document_.find(question_.site);
        std::vector<std::string> counts;
        for (const GroupSummary& group : comparison_.groups)
            counts.push_back(fmt::format("{} {}", group.name, group.mounts));
        add(ClaimKind::with, words::say("Measured on {bench}, at {site}, under {load}; mounts: {counts}.",
                                        {{"bench", bench ? bench->name : words::say("one bench")},
                                         {"site", site ? site->name : words::say("one face")},
                                         {"load", load ? load->name : words::say("one load")},
                                         {"counts", counts}}));
        if (!isProvisional(comparison_))
            add(ClaimKind::with,
                words::say("Intervals at {confidence:.0f} %, between mounts, for all pairs together.",
                           {{"confidence", 100 * comparison_.options.confidence}}));
        if (evidence_.excludedMounts > 0)
            add(ClaimKind::with, words::sayMany("{count} mount was left out, with its reason.",
                                                "{count} mounts were left out, with their reasons.",
                                                evidence_.excludedMounts));
        if (isResponseChanged(question_))
            add(ClaimKind::with, words::say("What is compared was changed after mounts had been measured."));
        if (hasFlag(comparison_.flags, "unplanned-look"))
            add(ClaimKind::with, words::say("Mounts were added after the verdict had been seen."));
        if (hasFlag(comparison_.flags, "scatter-assumed"))
            add(ClaimKind::with,
                words::say("One mount of each: how far mounting again moves a figure is assumed."));
    }

    void addMayNot() {
        addBest();
        if (!open_.empty())
            add(ClaimKind::mayNot, words::say("That those which were not told apart are equal."),
                words::say("not told apart is not shown to be the same"));
        if (const auto spread = spreadOfIdentical(comparison_))
            add(ClaimKind::mayNot, words::say("A ranking from the first to the last."),
                words::say("identical materials, mounted as often, would spread by {spread}",
                           {{"spread", amountText(*spread, unit_)}}));
        add(ClaimKind::mayNot, words::say("That it is so on another chip, cooler, face or power."),
            words::say("thickness, pressure and power change what a material gains"));
        add(ClaimKind::mayNot, words::say("That it stays so."),
            words::say("only fresh mounts are compared here"));
    }

    /// A best one is told apart from every other.
    void addBest() {
        const GroupSummary* best = nullptr;
        for (const GroupSummary& group : comparison_.groups)
            if (group.adjusted && (!best || *group.adjusted < *best->adjusted)) best = &group;
        if (!best || comparison_.groups.size() < 2) return;
        std::vector<std::string> open;
        std::vector<std::string> same;
        bool provisional = false;
        for (const PairComparison& pair : comparison_.pairs) {
            const GroupSummary& a = comparison_.groups[pair.a];
            const GroupSummary& b = comparison_.groups[pair.b];
            if (&a != best && &b != best) continue;
            provisional = provisional || pair.provisional;
            const std::string& other = &a == best ? b.name : a.name;
            if (pair.verdict == Verdict::unresolved) open.push_back(other);
            if (pair.verdict == Verdict::equivalent) same.push_back(other);
        }
        std::string because;
        if (!open.empty())
            because = words::say("it was not told apart from {names}", {{"names", open}});
        else if (!same.empty())
            because = words::say("it is the same as {names} within the margin", {{"names", same}});
        else if (provisional)
            because = words::say("each was mounted once");
        if (!because.empty())
            add(ClaimKind::mayNot, words::say("That {best} is the best of them.", {{"best", best->name}}),
                because);
    }

    const Document& document_;
    const Question& question_;
    const Evidence& evidence_;
    const Comparison& comparison_;
    std::string_view unit_;
    std::vector<std::string> open_;
    std::map<std::size_t, std::vector<std::string>> cooler_; ///< than which, by the cooler group
    std::map<std::size_t, std::vector<std::string>> little_; ///< of these: perhaps by less than the margin
    std::vector<Claim> claims_;
};

} // namespace

std::vector<Claim> claimsOf(const Document& document, const Question& question, const Evidence& evidence) {
    if (!evidence.comparison) return {};
    return Claims(document, question, evidence).all();
}

std::string publishable(const std::vector<Claim>& claims) {
    std::string text;
    for (const Claim& claim : claims)
        if (claim.kind != ClaimKind::mayNot) text += claim.text + "\n";
    return text;
}

std::string claimsCsv(const std::vector<Claim>& claims) {
    static constexpr std::array<std::string_view, 3> kinds{"may", "with", "may-not"};
    std::string csv = "kind,text,because\n";
    for (const Claim& claim : claims)
        csv += fmt::format("{},{},{}\n", kinds.at(static_cast<std::size_t>(claim.kind)), csvField(claim.text),
                           csvField(claim.because));
    return csv;
}

} // namespace ibuki
