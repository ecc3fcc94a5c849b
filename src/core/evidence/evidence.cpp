// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/evidence.h"

#include "core/domain/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/evidence/look.h"
#include "core/evidence/response.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <fmt/ranges.h>
#include <set>

namespace ibuki {
namespace {

void addFigures(TidyRow& row, const LoadReduction& load, const Question& question) {
    for (const auto& [metric, value] : load.metrics) row.metricsC[metric] = value.temperatureC;
    const auto metric = metricFromName(question.metric);
    if (metric && load.metrics.contains(*metric)) row.deltaK = load.metrics.at(*metric).deltaK;
    row.powerW = load.powerW;
    if (row.deltaK && row.powerW && *row.powerW > 0) row.rthKPerW = *row.deltaK / *row.powerW;
    row.response = responseOf(load, question);
    // A run at its limit gives up power, not temperature: only temperatures are lower bounds.
    row.limitBound = load.limit.bound;
}

TidyRow rowOf(const Document& document, const Question& question, const Slot& slot, const Mount& mount,
              const Run& run) {
    TidyRow row;
    row.mountId = mount.id;
    row.runId = run.id;
    row.kind = slot.kind;
    if (const Study* study = document.find(question.study)) row.study = study->name;
    if (const Bench* bench = benchOf(document, mount)) row.bench = bench->name;
    if (const Site* site = document.find(question.site)) row.site = site->name;
    const Level* level = levelIn(document, question, slot);
    if (level) row.level = level->name;
    if (const Level* second = question.secondFactor ? document.find(slot.second) : nullptr)
        row.second = second->name;
    if (const Application* application = applicationAt(document, mount.id, question.site))
        if (const Lot* lot = document.find(application->lot)) row.lot = lot->name;
    if (const Material* material = materialAt(document, mount.id, question.site))
        row.material = material->name;
    else if (const Material* named = level ? document.find(level->material) : nullptr)
        row.material = named->name;
    row.mount = mount.name;
    row.block = mount.block;
    row.order = mount.order;
    row.run = fmt::format("{}/{}", mount.name, run.repeat);
    row.load = run.load;
    row.purpose = word(slot.kind == SlotKind::checkMount ? Purpose::check : run.purpose);
    if (run.sinceApplication) row.ageH = run.sinceApplication->value;
    row.cycles = run.cycles;
    if (const Reduction* reduction = reductionOf(document, run.id))
        if (const LoadReduction* load = loadOf(*reduction, run)) addFigures(row, *load, question);
    row.excluded = mount.rejected || run.rejected;
    row.reason = mount.rejected ? mount.reason : run.rejected ? run.reason : "";
    return row;
}

std::vector<Flag> runFlags(const Document& document, const std::vector<TidyRow>& rows) {
    std::map<std::string, std::pair<Flag, int>> counted;
    for (const TidyRow& row : rows) {
        if (row.excluded || row.kind != SlotKind::level) continue;
        const Reduction* reduction = reductionOf(document, row.runId);
        if (!reduction) continue;
        for (const Flag& flag : reduction->flags) {
            if (flag.severity == Severity::info) continue;
            auto& [first, count] = counted[flag.code];
            if (count++ == 0) first = flag;
        }
    }
    std::vector<Flag> flags;
    for (auto& [code, entry] : counted) {
        auto& [flag, count] = entry;
        flag.message = fmt::format("{} ({} {})", flag.message, count, count == 1 ? "run" : "runs");
        flags.push_back(flag);
    }
    return flags;
}

} // namespace

std::vector<TidyRow> tidyTable(const Document& document, const Question& question) {
    std::vector<TidyRow> rows;
    for (const Slot* slot : slotsOf(document, question.study)) {
        const Mount* mount = document.find(slot->mount);
        if (!mount) continue;
        for (const Run* run : runsOf(document, mount->id))
            rows.push_back(rowOf(document, question, *slot, *mount, *run));
    }
    std::stable_sort(rows.begin(), rows.end(),
                     [](const TidyRow& a, const TidyRow& b) { return a.order < b.order; });
    return rows;
}

namespace {

bool enters(const TidyRow& row) {
    return !row.excluded && row.kind == SlotKind::level && row.purpose == word(Purpose::fresh) && row.response
           && !row.level.empty();
}

} // namespace

std::string comparedLoad(const std::vector<TidyRow>& rows, const Question& question) {
    if (!question.load.empty()) return question.load;
    std::map<std::string, std::set<std::int64_t>> mounts;
    std::vector<std::string> order;
    for (const TidyRow& row : rows) {
        if (!enters(row)) continue;
        if (!mounts.contains(row.load)) order.push_back(row.load);
        mounts[row.load].insert(row.mountId.value);
    }
    std::string best;
    for (const std::string& load : order)
        if (best.empty() || mounts[load].size() > mounts[best].size()) best = load;
    return best;
}

std::vector<std::string> loadChoices(const Document& document, Id<Study> study) {
    std::vector<std::string> names;
    const auto take = [&](const std::string& name) {
        if (!name.empty() && std::find(names.begin(), names.end(), name) == names.end())
            names.push_back(name);
    };
    for (const Load* load : loadsOf(document, study)) take(load->name);
    for (const Slot* slot : slotsOf(document, study))
        if (slot->mount)
            for (const Run* run : runsOf(document, *slot->mount)) take(run->load);
    return names;
}

std::vector<RunValue> comparedRuns(const std::vector<TidyRow>& rows, const std::string& load) {
    std::vector<RunValue> values;
    for (const TidyRow& row : rows) {
        if (!enters(row) || row.load != load) continue; // different loads are no repeats
        const std::string group = row.second.empty() ? row.level : row.level + ", " + row.second;
        values.push_back({group, row.mount, *row.response, row.limitBound});
    }
    return values;
}

namespace {

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
    for (const Flag& flag : more.flags) raise(all.flags, flag);
    const double ss =
        all.df * std::pow(all.pooledSd.value_or(0), 2) + more.df * std::pow(more.pooledSd.value_or(0), 2);
    all.df += more.df;
    if (all.df > 0) all.pooledSd = std::sqrt(ss / all.df);
    all.options = more.options;
}

/// Levels of the first factor against each other inside each level of the second. Whether the second changes
/// their differences (interaction) is not tested, and that is said.
Comparison compareWithin(const Evidence& evidence, const std::vector<const Level*>& second,
                         const CompareOptions& options, bool neverBound) {
    Comparison all;
    std::string reason;
    for (const Level* at : second) {
        std::vector<TidyRow> inside;
        for (const TidyRow& row : evidence.rows)
            if (row.second == at->name) inside.push_back(row);
        auto values = comparedRuns(inside, evidence.load);
        if (neverBound)
            for (RunValue& value : values) value.limitBound = false;
        CompareOptions here = options;
        if (!here.reference.empty()) here.reference += ", " + at->name;
        if (values.empty()) continue;
        try {
            append(all, compare(values, here));
        } catch (const InputError& error) {
            reason = sentence(error);
            raise(all.flags, {"not-compared", Severity::warn, at->name + ": " + reason});
        }
    }
    if (all.groups.empty())
        throw InputError("compare-no-df", {},
                         reason.empty() ? "no mount tells its level of the second factor" : reason,
                         "Measure at least two materials at one of its levels, one of them twice");
    raise(all.flags,
          {"interaction-not-tested", Severity::info,
           "Levels are compared inside each level of the second factor; whether it changes their differences "
           "was not tested"});
    return all;
}

/// Groups appear in the order of the question's levels.
void orderByLevel(std::vector<RunValue>& values, const std::vector<const Level*>& levels) {
    const auto place = [&](const RunValue& value) {
        return std::find_if(levels.begin(), levels.end(),
                            [&](const Level* level) { return level->name == value.group; })
               - levels.begin();
    };
    std::stable_sort(values.begin(), values.end(),
                     [&](const RunValue& a, const RunValue& b) { return place(a) < place(b); });
}

/// Runs under other loads than the compared one are no repeats; that they are left out is told.
void flagOtherLoads(Evidence& evidence) {
    const auto left = std::count_if(evidence.rows.begin(), evidence.rows.end(), [&](const TidyRow& row) {
        return enters(row) && row.load != evidence.load;
    });
    if (left > 0)
        raise(evidence.comparison->flags,
              {"other-loads", Severity::info,
               fmt::format("Compared are the runs under \"{}\"; {} under other loads {} left out",
                           evidence.load, left, left == 1 ? "is" : "are")});
}

/// Under the lid only one layer may change: mounts whose upper layers are known to differ changed two.
void flagUpperLayer(const Document& document, const Question& question, Evidence& evidence) {
    const Site* site = document.find(question.site);
    if (!site || site->kind != SiteKind::dieLid || !evidence.comparison) return;
    std::set<std::string> upper;
    for (const TidyRow& row : evidence.rows) {
        if (row.excluded || row.kind != SlotKind::level) continue;
        for (const Site* other : document.where(&Site::configuration, site->configuration))
            if (other->kind == SiteKind::lidPlate)
                if (const Material* material = materialAt(document, row.mountId, other->id))
                    upper.insert(material->name);
    }
    if (upper.size() > 1)
        raise(evidence.comparison->flags,
              {"two-changes", Severity::warn,
               fmt::format("The layer above the lid was not the same ({}): two things changed at once",
                           fmt::join(upper, ", "))});
}

} // namespace

Evidence gatherEvidence(const Document& document, const Question& question) {
    Evidence evidence;
    evidence.rows = tidyTable(document, question);
    std::set<std::string> excluded;
    for (const TidyRow& row : evidence.rows)
        if (row.excluded) excluded.insert(row.mount);
    evidence.excludedMounts = static_cast<int>(excluded.size());
    const Study* study = document.find(question.study);
    evidence.inSequence = study && study->began == StudyTemplate::stepByStep;
    evidence.runFlags = runFlags(document, evidence.rows);
    evidence.load = comparedLoad(evidence.rows, question);
    auto values = comparedRuns(evidence.rows, evidence.load);
    if (evidence.inSequence) orderByLevel(values, levelsOf(document, question.id));
    if (question.normalisation == Normalisation::perWatt)
        for (RunValue& value : values) value.limitBound = false; // K/W is measured in full at the limit too
    if (values.empty()) {
        evidence.whyNot =
            std::any_of(evidence.rows.begin(), evidence.rows.end(), enters)
                ? fmt::format(
                    "No mount has been measured under \"{}\" yet. Measure it, or choose another load "
                    "on Question.",
                    evidence.load)
                : "No mount has been measured yet. Bring the logs to Bench.";
        return evidence;
    }
    CompareOptions options;
    options.margin = question.margin.value;
    options.confidence = 1 - nominalAlpha(1 - question.confidence, plannedLooks(document, question.study));
    if (const Level* held = referenceLevelOf(document, question)) options.reference = held->name;
    try {
        const bool neverBound = question.normalisation == Normalisation::perWatt;
        evidence.comparison =
            question.secondFactor
                ? compareWithin(evidence, secondLevelsOf(document, question.id), options, neverBound)
                : compare(values, options);
        flagUpperLayer(document, question, evidence);
        flagOtherLoads(evidence);
        if (const int looks = plannedLooks(document, question.study); looks > 1)
            raise(evidence.comparison->flags,
                  {"declared-looks", Severity::info,
                   fmt::format("{} looks were declared: each is judged at {:.1f} %, so that all of them "
                               "together keep {:.0f} %, whichever of them is the last",
                               looks, 100 * options.confidence, 100 * question.confidence)});
        if (hasUnplannedLook(document, question.study))
            raise(
                evidence.comparison->flags,
                {"unplanned-look", Severity::warn,
                 "Mounts were added after the verdict had been seen, and that look was not planned: the true "
                 "confidence is lower than stated"});
    } catch (const InputError& error) {
        evidence.whyNot = sentence(error);
        evidence.whyNot.front() =
            static_cast<char>(std::toupper(static_cast<unsigned char>(evidence.whyNot.front())));
    }
    return evidence;
}

} // namespace ibuki
