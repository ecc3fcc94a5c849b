// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/tidy_rows.h"

#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/words.h"
#include "core/evidence/response.h"

#include <algorithm>
#include <fmt/format.h>
#include <limits>
#include <set>

namespace ibuki {
namespace {

void addFigures(TidyRow& row, const LoadReduction& load, const Question& question) {
    for (const auto& [metric, value] : load.metrics) row.metricsC[metric] = value.temperatureC;
    row.deltaK = countedDeltaK(load, question.metric);
    row.powerW = load.powerW;
    row.rthKPerW = countedRthKPerW(load, question.metric);
    row.response = responseOf(load, question);
    // A run at its limit gives up power, not temperature: only temperatures are lower bounds.
    row.limitBound = load.limit.bound;
    row.roomC = load.ambient.meanC;
    row.clockMHz = load.clockMHz;
    row.fan = load.fan;
}

TidyRow rowOf(const Document& document, const Question& question, const Slot& slot,
              std::optional<std::size_t> cell, const Mount& mount, const Run& run) {
    TidyRow row;
    row.cell = cell;
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
    if (const Material* material = studiedMaterial(document, question, mount.id))
        row.material = material->name;
    row.mount = mount.name;
    row.block = mount.block;
    row.person = mount.mountedBy;
    row.order = mount.order;
    row.run = fmt::format("{}/{}", mount.name, run.repeat);
    if (const Load* load = document.find(run.load)) {
        row.load = load->name;
        row.loadId = loadIdentity(*load);
    }
    row.purpose = word(slot.kind == SlotKind::checkMount ? Purpose::check : run.purpose);
    if (run.sinceApplication) row.ageH = run.sinceApplication->value;
    row.cycles = run.cycles;
    if (const Reduction* reduction = reductionOf(document, run.id))
        if (const LoadReduction* load = loadOf(*reduction, run, question.metric))
            addFigures(row, *load, question);
    row.excluded = mount.rejected || run.rejected;
    row.reason = mount.rejected ? mount.reason : run.rejected ? run.reason : "";
    return row;
}

} // namespace

bool enters(const TidyRow& row) {
    return !row.excluded && row.kind == SlotKind::level && row.purpose == word(Purpose::fresh) && row.response
           && row.cell;
}

std::vector<TidyRow> tidyTable(const Document& document, const Question& question, const Design& design) {
    std::vector<TidyRow> rows;
    for (const DesignUnit& unit : design.units) {
        const Slot* slot = document.find(unit.slot);
        const Mount* mount = document.find(unit.mount);
        if (!mount) continue;
        for (const Run* run : runsOf(document, mount->id))
            rows.push_back(rowOf(document, question, *slot, unit.cell, *mount, *run));
    }
    std::stable_sort(rows.begin(), rows.end(),
                     [](const TidyRow& a, const TidyRow& b) { return a.order < b.order; });
    return rows;
}

std::vector<TidyRow> tidyTable(const Document& document, const Question& question) {
    return tidyTable(document, question, designOf(document, question));
}

Id<Load> comparedLoad(const Document& document, const std::vector<TidyRow>& rows, const Question& question) {
    if (const Load* named = document.find(question.load)) return loadIdentity(*named);
    std::map<Id<Load>, std::set<Id<Mount>>> mounts;
    std::vector<Id<Load>> order;
    for (const TidyRow& row : rows) {
        if (!enters(row)) continue;
        if (!mounts.contains(row.loadId)) order.push_back(row.loadId);
        mounts[row.loadId].insert(row.mountId);
    }
    std::optional<Id<Load>> best;
    for (Id<Load> load : order)
        if (!best || mounts[load].size() > mounts[*best].size()) best = load;
    return best.value_or(Id<Load>{});
}

std::vector<Id<Load>> loadChoices(const Document& document, Id<Study> study) {
    std::vector<Id<Load>> choices;
    std::set<Id<Load>> known;
    const auto take = [&](const Load& load) {
        if (known.insert(loadIdentity(load)).second) choices.push_back(load.id);
    };
    for (const Load* load : loadsOf(document, study)) take(*load);
    for (const Slot* slot : slotsOf(document, study))
        if (slot->mount)
            for (const Run* run : runsOf(document, *slot->mount))
                if (const Load* load = document.find(run->load)) take(*load);
    return choices;
}

const Load* studysLoad(const Document& document, Id<Study> study, Id<Load> identity) {
    for (const Load* load : document.where(&Load::study, study))
        if (loadIdentity(*load) == identity) return load;
    return document.find(identity);
}

namespace {

double covariateOf(const TidyRow& row, Covariate covariate) {
    const auto& value = covariate == Covariate::room ? row.roomC : row.powerW;
    return value.value_or(std::numeric_limits<double>::quiet_NaN());
}

} // namespace

std::vector<RunValue> comparedRuns(const std::vector<TidyRow>& rows, Id<Load> load, const Design& design,
                                   const Question& question) {
    std::vector<RunValue> values;
    std::map<std::string, std::int64_t> blocks; // days, sessions and people are told apart by their words
    for (const TidyRow& row : rows) {
        if (!enters(row) || row.loadId != load) continue; // different loads are no repeats
        const std::string& block = question.blocks == BlockBy::person ? row.person : row.block;
        const auto at = blocks.try_emplace(block, static_cast<std::int64_t>(blocks.size()) + 1).first;
        RunValue value;
        value.group = {static_cast<std::int64_t>(*row.cell) + 1, design.cells[*row.cell].name};
        value.mount = {row.mountId.value, row.mount};
        value.value = *row.response;
        value.limitBound = row.limitBound && question.normalisation != Normalisation::perWatt;
        value.block = {at->second, block};
        value.order = row.order;
        if (question.covariate) value.covariate = covariateOf(row, *question.covariate);
        values.push_back(std::move(value));
    }
    return values;
}

} // namespace ibuki
