// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/stated_figures.h"

#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"

#include <algorithm>

namespace ibuki {
namespace {

/// Differences of the temperatures that are known; one that was stated alone stays.
void takeRoom(LoadReduction& load, std::optional<double> roomC) {
    for (auto& [metric, value] : load.metrics) {
        if (!value.temperatureC) continue;
        value.deltaK.reset();
        if (roomC) value.deltaK = *value.temperatureC - *roomC;
    }
    load.ambient = {};
    if (roomC) load.ambient = {AmbientSource::entered, roomC, roomC, roomC, {}, {}};
}

/// What follows from the differences.
void judge(LoadReduction& load) {
    load.rthKPerW = countedRthKPerW(load, load.metric);
    std::erase_if(load.flags, [](const Flag& flag) { return flag.code == "ambient-missing"; });
    if (!countedDeltaK(load, load.metric))
        load.flags.push_back(makeFlag(Severity::reject, "ambient-missing"));
}

} // namespace

ImportedLog logOfFigures(const StatedRow& row, Metric metric) {
    const StatedFigures& figures = row.figures;
    LoadReduction load;
    for (const auto& [which, temperature] : figures.metricsC) load.metrics[which].temperatureC = temperature;
    takeRoom(load, row.roomC);
    if (figures.deltaK)
        load.metrics[metric].deltaK = figures.deltaK; // as noted, whatever two temperatures give
    load.metric =
        load.metrics.contains(metric) || load.metrics.empty() ? metric : load.metrics.begin()->first;
    load.powerW = figures.powerW;
    load.clockMHz = figures.clockMHz;
    load.fan = figures.fanRpm;
    load.limit.censored = figures.atLimit;
    load.limit.sustainedPowerW = figures.powerW;
    load.flags.push_back(makeFlag(Severity::info, "no-log"));
    judge(load);

    ImportedLog log;
    log.figures = figures;
    log.readAs = Message{"figures-stated", {}};
    log.settings.metric = load.metric;
    if (row.roomC) log.settings.ambient = EnteredAmbient{*row.roomC, row.roomUK};
    Reduction& reduction = log.reduction;
    reduction.metric = load.metric;
    reduction.flags = load.flags;
    if (figures.idleC)
        reduction.idle = MetricTable{
            {load.metric,
             {*figures.idleC, row.roomC ? std::optional(*figures.idleC - *row.roomC) : std::nullopt, {}}}};
    for (const auto& [other, value] : load.metrics) {
        if (other == load.metric) continue;
        LoadReduction judged = load;
        judged.metric = other;
        judge(judged);
        reduction.others[other] = {{judged}, 0, judged.flags};
    }
    reduction.loads = {std::move(load)};
    reduction.longest = 0;
    reduction.hottestC = hottestOf(reduction.loads);
    return log;
}

void putRoomOfFigures(Reduction& reduction, std::optional<double> roomC) {
    const auto put = [&](std::vector<LoadReduction>& loads, std::vector<Flag>& flags) {
        for (LoadReduction& load : loads) {
            takeRoom(load, roomC);
            judge(load);
            flags = load.flags;
        }
    };
    put(reduction.loads, reduction.flags);
    for (auto& [metric, other] : reduction.others) put(other.loads, other.flags);
    if (reduction.idle)
        for (auto& [metric, value] : *reduction.idle)
            value.deltaK =
                roomC && value.temperatureC ? std::optional(*value.temperatureC - *roomC) : std::nullopt;
}

void addStatedReadings(Edit& edit, Id<Recording> recording, const ImportedLog& log) {
    if (!log.figures) return;
    const auto runs = edit.document().where(&Run::recording, recording);
    if (runs.empty()) return;
    const Id<Run> run = runs.front()->id;
    for (const auto& [kind, value] : log.figures->readings) {
        EnteredReading reading;
        reading.run = run;
        reading.kind = kind;
        reading.unit = typicalOf(kind).unit;
        reading.better = typicalOf(kind).better;
        reading.value = value;
        edit.add(reading);
    }
}

std::optional<Id<Run>> runOfFigures(const Document& document, Id<Mount> mount, Id<Load> load,
                                    const ImportedLog& log, const ImportRow& row) {
    for (const Run* run : runsOf(document, mount)) {
        const Recording* recording = document.find(run->recording);
        const Reduction* reduction = reductionOf(document, run->id);
        if (run->load != load || recording->state != RecordingState::figures || !reduction) continue;
        if (run->purpose != row.runs.front().purpose || recording->start != row.at) continue;
        if ((row.run && run->repeat != *row.run) || run->statedAgeH != row.ageH
            || run->statedCycles != row.cycles)
            continue;
        std::map<SideResponse, double> readings;
        for (const EnteredReading* reading : document.where(&EnteredReading::run, run->id))
            readings[reading->kind] = reading->value;
        if (readings == log.figures->readings && *reduction == log.reduction) return run->id;
    }
    return std::nullopt;
}

} // namespace ibuki
