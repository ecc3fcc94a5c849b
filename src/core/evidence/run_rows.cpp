// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/run_rows.h"

#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/evidence/response.h"

#include <algorithm>
#include <limits>
#include <set>

namespace ibuki {
namespace {

void addFigures(RunRow& row, const LoadReduction& load, const Question& question) {
    for (const auto& [metric, value] : load.metrics)
        if (value.temperatureC) row.metricsC[metric] = *value.temperatureC;
    row.deltaK = countedDeltaK(load, question.metric);
    row.powerW = load.powerW;
    row.rthKPerW = countedRthKPerW(load, question.metric);
    row.response = responseOf(load, question);
    // A run at its limit gives up power, not temperature: only temperatures are lower bounds.
    row.censored = load.limit.censored;
    row.ambientC = load.ambient.meanC;
    row.clockMHz = load.clockMHz;
    row.fan = load.fan;
}

RunRow rowOf(const Document& document, const Question& question, const Slot& slot,
             std::optional<std::size_t> cell, const Mount& mount, const Run& run) {
    RunRow row;
    row.cell = cell;
    row.mountId = mount.id;
    row.mount = mount.name;
    row.runId = run.id;
    row.repeat = run.repeat;
    row.kind = slot.kind;
    row.purpose = run.purpose;
    if (const Level* level = levelIn(document, question, slot)) row.level = level->id;
    if (const Application* application = applicationAt(document, mount.id, question.site))
        row.lot = application->lot;
    if (const Material* material = studiedMaterial(document, question, mount.id)) row.material = material->id;
    row.block = mount.block;
    row.person = mount.mountedBy;
    row.order = mount.order;
    row.load = run.load;
    if (const Load* load = document.find(run.load)) row.loadId = loadIdentity(*load);
    if (const Reduction* reduction = reductionOf(document, run.id))
        if (const LoadReduction* load = loadOf(*reduction, run, question.metric))
            addFigures(row, *load, question);
    row.excluded = mount.rejected || run.rejected;
    return row;
}

/// A mean that grows by one value.
void average(std::optional<double>& mean, int& count, const std::optional<double>& value) {
    if (!value) return;
    mean = mean.value_or(0) + (*value - mean.value_or(0)) / ++count;
}

bool counts(const RunRow& row, std::optional<Id<Load>> load, const MountRule& rule) {
    const bool kind = (rule.levels && row.kind == SlotKind::level)
                      || (rule.checkMounts && row.kind == SlotKind::checkMount);
    return kind && (!load || row.loadId == *load) && (rule.rejected || !row.excluded)
           && (rule.atLimit || !row.censored) && (!rule.onlyFresh || row.purpose == Purpose::fresh)
           && row.*rule.value;
}

} // namespace

bool enters(const RunRow& row) {
    return !row.excluded && row.kind == SlotKind::level && row.purpose == Purpose::fresh && row.response
           && row.cell;
}

std::string runName(const RunRow& row) { return row.mount + "/" + std::to_string(row.repeat); }

Purpose exportedPurpose(const RunRow& row) {
    return row.kind == SlotKind::checkMount ? Purpose::check : row.purpose;
}

std::vector<MountFigure> mountFigures(const std::vector<RunRow>& rows, std::optional<Id<Load>> load,
                                      const MountRule& rule) {
    struct Counts {
        int powers = 0;
        int rooms = 0;
        int clocks = 0;
    };
    std::vector<MountFigure> figures;
    std::vector<Counts> means;
    std::map<Id<Mount>, std::size_t> places;
    for (const RunRow& row : rows) {
        if (!counts(row, load, rule)) continue;
        const auto [place, isNew] = places.try_emplace(row.mountId, figures.size());
        if (isNew) {
            figures.push_back({row.mountId,
                               row.kind,
                               row.level,
                               row.material,
                               row.cell,
                               row.order,
                               0,
                               0,
                               {},
                               {},
                               {},
                               false,
                               false});
            means.emplace_back();
        }
        MountFigure& figure = figures[place->second];
        Counts& count = means[place->second];
        figure.value += (*(row.*rule.value) - figure.value) / ++figure.runs;
        average(figure.powerW, count.powers, row.powerW);
        average(figure.ambientC, count.rooms, row.ambientC);
        average(figure.clockMHz, count.clocks, row.clockMHz);
        figure.censored = figure.censored || row.censored;
        figure.excluded = figure.excluded || row.excluded;
    }
    return figures;
}

bool isUnlikePower(double a, double b) {
    const double low = std::min(a, b);
    return low > 0 ? std::max(a, b) / low > 1 + unlikePowerShare : a != b;
}

std::optional<double> runPowerW(const Document& document, const Run& run) {
    const Reduction* reduction = reductionOf(document, run.id);
    const LoadReduction* load = reduction ? loadOf(*reduction, run, reduction->metric) : nullptr;
    return load ? load->powerW : std::nullopt;
}

bool hasUnlikeTwin(const Document& document, const Run& run) {
    const auto power = runPowerW(document, run);
    if (!power || run.rejected) return false;
    for (const Run* other : runsOf(document, run.mount)) {
        if (other->load != run.load || other->purpose != run.purpose || other->rejected) continue;
        if (const auto there = runPowerW(document, *other); there && isUnlikePower(*there, *power))
            return true;
    }
    return false;
}

std::vector<std::string> mountsOfUnlikePower(const std::vector<RunRow>& rows, Id<Load> load) {
    struct Range {
        std::string mount;
        double least = 0;
        double most = 0;
    };
    std::vector<Range> ranges;
    std::map<Id<Mount>, std::size_t> places;
    for (const RunRow& row : rows) {
        if (!enters(row) || row.loadId != load || !row.powerW) continue;
        const auto [place, isNew] = places.try_emplace(row.mountId, ranges.size());
        if (isNew) ranges.push_back({row.mount, *row.powerW, *row.powerW});
        Range& range = ranges[place->second];
        range.least = std::min(range.least, *row.powerW);
        range.most = std::max(range.most, *row.powerW);
    }
    std::vector<std::string> unlike;
    for (const Range& range : ranges)
        if (isUnlikePower(range.least, range.most)) unlike.push_back(range.mount);
    return unlike;
}

std::vector<RunRow> runRows(const Document& document, const Question& question, const Design& design) {
    std::vector<RunRow> rows;
    for (const DesignUnit& unit : design.units) {
        const Slot* slot = document.find(unit.slot);
        const Mount* mount = document.find(unit.mount);
        if (!mount) continue;
        for (const Run* run : runsOf(document, mount->id))
            rows.push_back(rowOf(document, question, *slot, unit.cell, *mount, *run));
    }
    std::stable_sort(rows.begin(), rows.end(),
                     [](const RunRow& a, const RunRow& b) { return a.order < b.order; });
    return rows;
}

std::vector<RunRow> runRows(const Document& document, const Question& question) {
    return runRows(document, question, designOf(document, question));
}

Id<Load> comparedLoad(const Document& document, const std::vector<RunRow>& rows, const Question& question) {
    if (const Load* named = document.find(question.load)) return loadIdentity(*named);
    std::map<Id<Load>, std::set<Id<Mount>>> mounts;
    std::vector<Id<Load>> order;
    for (const RunRow& row : rows) {
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

double covariateOf(const RunRow& row, Covariate covariate) {
    const auto& value = covariate == Covariate::room ? row.ambientC : row.powerW;
    return value.value_or(std::numeric_limits<double>::quiet_NaN());
}

} // namespace

Named groupOf(const DesignCell& cell) { return {groupId(cell), cell.name}; }

std::vector<RunValue> comparedRuns(const std::vector<RunRow>& rows, Id<Load> load, const Design& design,
                                   const Question& question) {
    std::vector<RunValue> values;
    std::map<std::string, std::int64_t> blocks; // days, sessions and people are told apart by their words
    for (const RunRow& row : rows) {
        if (!enters(row) || row.loadId != load) continue; // different loads are no repeats
        const std::string& block = question.blocks == BlockBy::person ? row.person : row.block;
        const auto at = blocks.try_emplace(block, static_cast<std::int64_t>(blocks.size()) + 1).first;
        RunValue value;
        value.group = groupOf(design.cells[*row.cell]);
        value.mount = {row.mountId.value, row.mount};
        value.value = *row.response;
        value.censored = row.censored && question.normalisation != Normalisation::perWatt;
        value.block = {at->second, block};
        value.order = row.order;
        if (question.covariate) value.covariate = covariateOf(row, *question.covariate);
        values.push_back(std::move(value));
    }
    return values;
}

} // namespace ibuki
