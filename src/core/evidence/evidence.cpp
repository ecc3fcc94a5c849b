// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/evidence.h"

#include "core/domain/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/evidence/look.h"
#include "core/evidence/response.h"

#include <algorithm>
#include <fmt/format.h>
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

std::vector<RunValue> comparedRuns(const std::vector<TidyRow>& rows) {
    std::vector<RunValue> values;
    for (const TidyRow& row : rows) {
        const bool fresh = row.purpose == word(Purpose::fresh);
        if (row.excluded || row.kind != SlotKind::level || !fresh || !row.response || row.level.empty())
            continue;
        values.push_back({row.level, row.mount, *row.response, row.limitBound});
    }
    return values;
}

Evidence gatherEvidence(const Document& document, const Question& question) {
    Evidence evidence;
    evidence.rows = tidyTable(document, question);
    std::set<std::string> excluded;
    for (const TidyRow& row : evidence.rows)
        if (row.excluded) excluded.insert(row.mount);
    evidence.excludedMounts = static_cast<int>(excluded.size());
    evidence.runFlags = runFlags(document, evidence.rows);
    auto values = comparedRuns(evidence.rows);
    if (question.normalisation == Normalisation::perWatt)
        for (RunValue& value : values) value.limitBound = false; // K/W is measured in full at the limit too
    if (values.empty()) {
        evidence.whyNot = "No mount has been measured yet. Bring the logs to Bench.";
        return evidence;
    }
    CompareOptions options;
    options.margin = question.margin.value;
    options.confidence = 1 - nominalAlpha(1 - question.confidence, plannedLooks(document, question.study));
    if (const Level* held =
            question.referenceLevel ? document.find(Id<Level>{*question.referenceLevel}) : nullptr)
        options.reference = held->name;
    try {
        evidence.comparison = compare(values, options);
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
