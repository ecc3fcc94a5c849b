// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/evidence.h"

#include "core/base/input_error.h"
#include "core/comparison/order_statistics.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/words.h"
#include "core/evidence/asked_options.h"
#include "core/evidence/interim_look.h"
#include "core/evidence/response.h"
#include "core/evidence/scatter.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <fmt/ranges.h>
#include <set>

namespace ibuki {
namespace {

std::vector<Flag> runFlags(const Document& document, const std::vector<RunRow>& rows, Metric metric) {
    std::map<std::string, std::pair<Flag, std::set<Id<Run>>>> runs;
    for (const RunRow& row : rows) {
        if (row.excluded || row.kind != SlotKind::level) continue;
        const Reduction* reduction = reductionOf(document, row.runId);
        if (!reduction) continue;
        for (const Flag& flag : *judgedBy(*reduction, metric).flags)
            if (flag.severity != Severity::info)
                runs.try_emplace(flag.code, flag, std::set<Id<Run>>{}).first->second.second.insert(row.runId);
    }
    std::vector<Flag> flags;
    for (auto& [code, entry] : runs) {
        auto& [flag, carriers] = entry;
        flag.message = Message{"of-runs", {{"flag", flag.message}, {"count", carriers.size()}}};
        flags.push_back(flag);
    }
    return flags;
}

/// Puts the groups of `more` behind those of `all`; their pairs refer to them there.
void append(Comparison& all, const Comparison& more) {
    const std::size_t offset = all.groups.size();
    all.groups.insert(all.groups.end(), more.groups.begin(), more.groups.end());
    for (PairComparison pair : more.pairs) {
        pair.a += offset;
        pair.b += offset;
        all.pairs.push_back(pair);
    }
    for (std::vector<std::size_t> tier : more.tiers) {
        for (std::size_t& group : tier) group += offset;
        all.tiers.push_back(std::move(tier));
    }
    for (const Flag& flag : more.flags) addFlag(all.flags, flag);
    if (!std::isfinite(all.df) || !std::isfinite(more.df)) { // assumed as known, for all parts alike
        all.df = more.df;
        all.pooledSd = more.pooledSd;
        all.options = more.options;
        return;
    }
    const double ss =
        all.df * std::pow(all.pooledSd.value_or(0), 2) + more.df * std::pow(more.pooledSd.value_or(0), 2);
    all.df += more.df;
    if (all.df > 0) all.pooledSd = std::sqrt(ss / all.df);
    all.options = more.options;
}

/// The group that the others are held against: the cell of the question's reference level and, with a second
/// factor, of one of its levels.
std::optional<std::int64_t> referenceGroup(const Document& document, const Question& question,
                                           const Design& design, std::optional<Id<Level>> second) {
    const Level* held = referenceLevelOf(document, question);
    if (!held) return std::nullopt;
    for (const DesignCell& cell : design.cells)
        if (cell.level == held->id && cell.second == second) return groupId(cell);
    return std::nullopt;
}

/// Both factors in one model; nothing where no combination was mounted twice.
std::optional<TwoFactors> bothFactors(const Document& document, const Evidence& evidence,
                                      const std::vector<RunValue>& values, const CompareOptions& options) {
    std::vector<TwoFactorRun> runs;
    for (const RunValue& value : values) {
        const DesignCell& cell = cellOfGroup(evidence.design, value.group.id);
        const Level* first = document.find(cell.level);
        const Level* second = document.find(cell.second);
        if (!first || !second || value.censored) return std::nullopt;
        runs.push_back({value, {second->id.value, second->name}});
        runs.back().run.group = {first->id.value, first->name};
    }
    try {
        return compareTwoFactors(runs, options);
    } catch (const InputError&) {
        return std::nullopt;
    }
}

/// A pair that is told apart one way under one level of the second factor and the other way under another.
std::optional<Message> turnOver(const TwoFactors& factors) {
    for (const PairWithin& one : factors.within)
        for (const PairWithin& other : factors.within) {
            const bool same = one.pair.a == other.pair.a && one.pair.b == other.pair.b;
            if (!same || one.pair.verdict != Verdict::different || other.pair.verdict != Verdict::different)
                continue;
            if (!(*one.pair.difference < 0 && *other.pair.difference > 0)) continue;
            return Message{"interaction.turns",
                           {{"cool", factors.firstLevels[one.pair.a].name},
                            {"warm", factors.firstLevels[one.pair.b].name},
                            {"here", factors.secondLevels[one.second].name},
                            {"there", factors.secondLevels[other.second].name}}};
        }
    return std::nullopt;
}

/// Whether the second factor changes the first one's differences.
Flag interactionFlag(const std::optional<TwoFactors>& factors, double alpha) {
    if (!factors || !factors->interaction) return makeFlag(Severity::info, "interaction-not-tested");
    const Fields p{{"p", factors->interaction->p}};
    if (factors->interaction->p >= alpha) return makeFlag(Severity::info, "interaction.none", p);
    if (const auto turns = turnOver(*factors)) return {"interaction", Severity::warn, *turns};
    return makeFlag(Severity::warn, "interaction.found", p);
}

/// Levels of the first factor against each other inside each level of the second.
Comparison compareWithin(const Document& document, const Question& question, const Evidence& evidence,
                         const std::vector<RunValue>& values, const CompareOptions& options) {
    Comparison all;
    std::optional<Message> reason;
    for (const Level* at : secondLevelsOf(document, question.id)) {
        std::vector<RunValue> inside;
        for (const RunValue& value : values)
            if (cellOfGroup(evidence.design, value.group.id).second == at->id) inside.push_back(value);
        if (inside.empty()) continue;
        CompareOptions here = options;
        here.reference = referenceGroup(document, question, evidence.design, at->id);
        try {
            append(all, compare(inside, here));
        } catch (const InputError& error) {
            reason = error.message;
            addFlag(all.flags,
                    makeFlag(Severity::warn, "not-compared", {{"level", at->name}, {"reason", *reason}}));
        }
    }
    if (all.groups.empty())
        throw reason ? InputError("compare-no-df.inside", {}, {{"reason", *reason}})
                     : InputError("compare-no-df.second-factor", {});
    addFlag(all.flags, interactionFlag(evidence.factors, 1 - options.confidence));
    return all;
}

std::string nameOfLoad(const Document& document, const Question& question, Id<Load> load) {
    const Load* known = studysLoad(document, question.study, load);
    return known ? known->name : std::string();
}

/// Runs under other loads than the compared one are no repeats; that they are left out is told.
void flagOtherLoads(const Document& document, const Question& question, Evidence& evidence) {
    const auto left = std::count_if(evidence.rows.begin(), evidence.rows.end(), [&](const RunRow& row) {
        return enters(row) && row.loadId != evidence.load;
    });
    if (left > 0)
        addFlag(evidence.comparison->flags,
                makeFlag(Severity::info, "other-loads",
                         {{"load", nameOfLoad(document, question, evidence.load)}, {"count", left}}));
}

/// A mean over runs of unlike power is one of several loads: it is formed, and told.
void flagUnlikeLoads(Evidence& evidence) {
    const auto mounts = mountsOfUnlikePower(evidence.rows, evidence.load);
    if (!mounts.empty())
        addFlag(evidence.comparison->flags,
                makeFlag(Severity::warn, "loads-unlike.compared", {{"mounts", mounts}}));
}

/// Once for all of them, and not at each.
void flagFigures(const Document& document, Evidence& evidence) {
    const auto stated = std::count_if(evidence.rows.begin(), evidence.rows.end(), [&](const RunRow& row) {
        const Run* run = document.find(row.runId);
        const Recording* recording = run ? document.find(run->recording) : nullptr;
        return enters(row) && row.loadId == evidence.load && recording
               && recording->state == RecordingState::figures;
    });
    if (stated > 0)
        addFlag(evidence.comparison->flags, makeFlag(Severity::info, "no-log.compared", {{"count", stated}}));
}

/// Under the lid only one layer may change: mounts whose upper layers are known to differ changed two.
void flagUpperLayer(const Document& document, const Question& question, Evidence& evidence) {
    const Site* site = document.find(question.site);
    if (!site || site->kind != SiteKind::dieLid || !evidence.comparison) return;
    std::map<Id<Material>, std::string> upper;
    for (const RunRow& row : evidence.rows) {
        if (row.excluded || row.kind != SlotKind::level) continue;
        for (const Site* other : document.where(&Site::configuration, site->configuration))
            if (other->kind == SiteKind::lidPlate)
                if (const Material* material = materialAt(document, row.mountId, other->id))
                    upper.emplace(material->id, material->name);
    }
    if (upper.size() < 2) return;
    std::vector<std::string> names;
    for (const auto& [id, name] : upper) names.push_back(name);
    addFlag(evidence.comparison->flags, makeFlag(Severity::warn, "two-changes", {{"names", names}}));
}

/// Looks at the data before the end, as planned or not.
void flagLooks(const Document& document, const Question& question, double confidence,
               std::vector<Flag>& flags) {
    if (const int looks = plannedLooks(document, question.study); looks > 1)
        addFlag(flags, makeFlag(Severity::info, "declared-looks",
                                {{"looks", looks},
                                 {"confidence", 100 * confidence},
                                 {"together", 100 * question.confidence}}));
    if (hasUnplannedLook(document, question.study))
        addFlag(flags, makeFlag(Severity::warn, "unplanned-look"));
}

} // namespace

Id<Level> levelOfGroup(const Evidence& evidence, const GroupSummary& group) {
    return cellOfGroup(evidence.design, group.id).level;
}

namespace {

/// How the people who mounted repeat and differ, where it is stated of every mount.
std::optional<Reproducibility> peopleOf(const Evidence& evidence, const Question& question) {
    Question byPerson = question;
    byPerson.blocks = BlockBy::person;
    const auto values = comparedRuns(evidence.rows, evidence.load, evidence.design, byPerson);
    return areBlocksStated(values) ? reproducibilityOf(values) : std::nullopt;
}

Evidence gather(const Document& document, const Question& question,
                const std::optional<KnownScatter>& assumed) {
    Evidence evidence;
    evidence.design = designOf(document, question);
    evidence.rows = runRows(document, question, evidence.design);
    std::set<Id<Mount>> excluded;
    for (const RunRow& row : evidence.rows)
        if (row.excluded) excluded.insert(row.mountId);
    evidence.excludedMounts = static_cast<int>(excluded.size());
    evidence.inSequence = evidence.design.factors.front().inSequence;
    evidence.runFlags = runFlags(document, evidence.rows, question.metric);
    evidence.load = comparedLoad(document, evidence.rows, question);
    auto values = comparedRuns(evidence.rows, evidence.load, evidence.design, question);
    if (evidence.inSequence) // cells stand in the order of the question's levels
        std::stable_sort(values.begin(), values.end(),
                         [&design = evidence.design](const RunValue& a, const RunValue& b) {
                             return placeOfGroup(design, a.group.id) < placeOfGroup(design, b.group.id);
                         });
    if (values.empty()) {
        if (std::any_of(evidence.rows.begin(), evidence.rows.end(), enters))
            evidence.reason =
                Message{"nothing-measured.load", {{"load", nameOfLoad(document, question, evidence.load)}}};
        else
            evidence.reason = Message{"nothing-measured", {}};
        return evidence;
    }
    evidence.people = peopleOf(evidence, question);
    auto [options, couldNot] = askedOptions(document, question, values);
    options.assumed = assumed;
    if (assumed)
        options.blocks = options.drift = options.covariate = false; // single mounts tell no such things
    if (!question.secondFactor)
        options.reference = referenceGroup(document, question, evidence.design, std::nullopt);
    else
        evidence.factors = bothFactors(document, evidence, values, options);
    std::function<Comparison()> within;
    if (question.secondFactor)
        within = [&, &asked = options] { return compareWithin(document, question, evidence, values, asked); };
    static_cast<Judged&>(evidence) = judge(values, options, within);
    if (!evidence.comparison) return evidence;
    for (const Flag& flag : couldNot) addFlag(evidence.comparison->flags, flag);
    for (const Flag& flag : takenOutFlags(*evidence.comparison, question, values))
        addFlag(evidence.comparison->flags, flag);
    flagUpperLayer(document, question, evidence);
    flagOtherLoads(document, question, evidence);
    flagUnlikeLoads(evidence);
    flagFigures(document, evidence);
    flagLooks(document, question, options.confidence, evidence.comparison->flags);
    return evidence;
}

/// What mounts of such levels scatter by, from elsewhere. What a plan states is a wish, no measurement.
KnownScatter assumedScatter(const Document& document, const Question& question) {
    const Scatter scatter = expectedScatter(document, question, nullptr);
    KnownScatter assumed;
    assumed.sd = scatter.sd;
    if (scatter.df) assumed.df = *scatter.df;
    assumed.source = scatter.source == ScatterSource::finishedStudies
                         ? Message{"scatter-finished", {{"count", scatter.studies}}}
                         : Message{"scatter-usual", {}};
    return assumed;
}

bool lacksRepeatedMounts(const Evidence& evidence) {
    return !evidence.comparison && evidence.reason && evidence.reason->code.starts_with("compare-no-df")
           && evidence.reason->code != "compare-no-df.blocks";
}

} // namespace

Evidence measuredEvidence(const Document& document, const Question& question) {
    return gather(document, question, std::nullopt);
}

Evidence gatherEvidence(const Document& document, const Question& question) {
    Evidence evidence = measuredEvidence(document, question);
    if (lacksRepeatedMounts(evidence)) {
        Evidence provisional = gather(document, question, assumedScatter(document, question));
        if (provisional.comparison) evidence = std::move(provisional);
    }
    if (evidence.comparison && !question.secondFactor) {
        const auto chances = chancesOfBest(*evidence.comparison);
        for (std::size_t i = 0; i < chances.size(); ++i)
            evidence.comparison->groups[i].chanceOfBest = chances[i];
    }
    evidence.byLook = lookRejections(document, question);
    return evidence;
}

} // namespace ibuki
