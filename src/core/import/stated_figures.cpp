// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/stated_figures.h"

#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"

#include <algorithm>

namespace ibuki {
namespace {

MetricTable metricsOf(const StatedRow& row, Metric metric) {
    MetricTable metrics;
    for (const auto& [which, temperature] : row.figures.metricsC) {
        metrics[which].temperatureC = temperature;
        if (row.roomC) metrics[which].deltaK = temperature - *row.roomC;
    }
    if (!row.figures.deltaK) return metrics;
    MetricValue& judged = metrics[metric];
    if (!row.figures.metricsC.contains(metric))
        judged.temperatureC = row.roomC ? std::optional(*row.roomC + *row.figures.deltaK) : std::nullopt;
    judged.deltaK = row.figures.deltaK; // as it was noted, whatever the two temperatures give
    return metrics;
}

} // namespace

ImportedLog logOfFigures(const StatedRow& row, Metric metric) {
    const StatedFigures& figures = row.figures;
    LoadReduction load;
    load.metrics = metricsOf(row, metric);
    load.metric =
        load.metrics.contains(metric) || load.metrics.empty() ? metric : load.metrics.begin()->first;
    load.powerW = figures.powerW;
    load.clockMHz = figures.clockMHz;
    load.fan = figures.fanRpm;
    load.limit.censored = figures.atLimit;
    load.limit.sustainedPowerW = figures.powerW;
    if (row.roomC) load.ambient = {AmbientSource::entered, row.roomC, row.roomC, row.roomC, {}, {}};
    load.rthKPerW = countedRthKPerW(load, load.metric);
    load.flags.push_back(makeFlag(Severity::info, "no-log"));
    if (!countedDeltaK(load, load.metric))
        load.flags.push_back(makeFlag(Severity::reject, "ambient-missing"));

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
        judged.rthKPerW = countedRthKPerW(judged, other);
        reduction.others[other] = {{judged}, 0, judged.flags};
    }
    reduction.loads = {std::move(load)};
    reduction.longest = 0;
    reduction.hottestC = hottestOf(reduction.loads);
    return log;
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
