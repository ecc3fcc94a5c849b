// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/transient_study.h"

#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/evidence/asked_options.h"
#include "core/evidence/response.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace ibuki {
namespace {

constexpr int perDecade = 12;
constexpr double lastS = 120; ///< later on cooler and room are compared
constexpr double typicalS = 5;
constexpr double typicalIntervals = 5;

bool isRead(const TransientRun& run) { return !run.response.reason && !run.response.curve.timeS.empty(); }

/// Where every step that was read has a value: from its second sample to its first change of power.
std::vector<double> commonTimes(const std::vector<TransientRun>& runs) {
    double from = 0, to = lastS;
    bool any = false;
    for (const TransientRun& run : runs) {
        if (!isRead(run) || run.response.curve.timeS.size() < 2) continue;
        any = true;
        from = std::max(from, run.response.curve.timeS[1]);
        to = std::min({to, run.response.steadyS, run.response.curve.timeS.back()});
    }
    std::vector<double> times;
    const double step = std::numbers::ln10 / perDecade;
    if (any && from > 0)
        for (double z = std::log(from); z <= std::log(to); z += step) times.push_back(std::exp(z));
    return times;
}

/// The rows with another response; a run that was held at its limit later has stepped all the same.
std::vector<RunValue> valuesAt(const std::vector<TransientRun>& runs, double atS, const Question& question,
                               const Evidence& evidence) {
    std::vector<RunRow> rows = evidence.rows;
    for (RunRow& row : rows) {
        row.response.reset();
        row.censored = false;
        for (const TransientRun& run : runs)
            if (run.run == row.runId) row.response = impedanceAt(run.response, atS);
    }
    return comparedRuns(rows, evidence.load, evidence.design, question);
}

/// Steady K/W of each group, by its id.
std::map<std::int64_t, double> steadyMeans(const Question& question, const Evidence& evidence) {
    std::vector<RunRow> rows = evidence.rows;
    for (RunRow& row : rows) {
        row.response = row.rthKPerW;
        row.censored = false; // K/W is measured in full at the limit too
    }
    std::map<std::int64_t, double> means;
    for (const GroupSummary& group :
         onlyGroups(comparedRuns(rows, evidence.load, evidence.design, question)).groups)
        if (group.mean) means[group.id] = *group.mean;
    return means;
}

void compareRead(TransientStudy& study, const Document& document, const Question& question,
                 const Evidence& evidence, const std::vector<RunValue>& values) {
    CompareOptions options = askedOptions(document, question, values).options;
    if (study.stepW > 0) options.margin = question.margin.value / study.stepW;
    options.mostFurtherMounts = 0;
    // What drives a level to its limit is often no scatter of mounting: it has one of its own then.
    const bool anyCensored = std::any_of(evidence.rows.begin(), evidence.rows.end(),
                                         [](const RunRow& row) { return enters(row) && row.censored; });
    if (anyCensored && !options.takesOut()) options.spread = SpreadModel::welch;
    static_cast<Judged&>(study) = judge(values, options);
}

void addSteps(TransientStudy& study, const Document& document, const std::vector<TransientRun>& runs) {
    std::map<Id<Mount>, int> counts;
    for (const TransientRun& run : runs) {
        if (!isRead(run)) continue;
        auto at = std::find_if(study.steps.begin(), study.steps.end(),
                               [&](const MountStep& step) { return step.mount == run.mount; });
        if (at == study.steps.end()) {
            const Mount* mount = document.find(run.mount);
            study.steps.push_back({run.mount,
                                   mount ? mount->name : std::string(),
                                   {},
                                   std::vector<double>(study.timesS.size(), 0.0)});
            at = study.steps.end() - 1;
        }
        const double n = ++counts[run.mount];
        for (std::size_t i = 0; i < study.timesS.size(); ++i)
            at->kPerW[i] += (impedanceAt(run.response, study.timesS[i]).value_or(0) - at->kPerW[i]) / n;
    }
    if (const Comparison* shown = study.shown())
        for (std::size_t g = 0; g < shown->groups.size(); ++g)
            for (const Named& mount : shown->groups[g].mountsInOrder)
                for (MountStep& step : study.steps)
                    if (step.mount.value == mount.id) step.group = g;
}

std::vector<std::vector<double>> curvesOf(const TransientStudy& study, std::size_t group) {
    std::vector<std::vector<double>> curves;
    for (const MountStep& step : study.steps)
        if (step.group == group) curves.push_back(step.kPerW);
    return curves;
}

void addPairs(TransientStudy& study, const std::map<std::int64_t, double>& steady) {
    if (!study.comparison) return;
    for (const PairComparison& pair : study.comparison->pairs) {
        TransientPair found{pair, {}, {}, {}};
        const auto a = steady.find(study.comparison->groups[pair.a].id);
        const auto b = steady.find(study.comparison->groups[pair.b].id);
        if (a != steady.end() && b != steady.end()) found.steadyKPerW = a->second - b->second;
        if (!study.timesS.empty())
            found.curves = compareCurves(curvesOf(study, pair.a), curvesOf(study, pair.b),
                                         study.comparison->options.confidence);
        if (found.curves.firstApart) found.apartFromS = study.timesS[*found.curves.firstApart];
        study.pairs.push_back(std::move(found));
    }
}

/// How the steps were seen, by the coarsest of them.
void addSight(TransientStudy& study, const std::vector<TransientRun>& runs) {
    int read = 0;
    for (const TransientRun& run : runs) {
        const StepResponse& response = run.response;
        if (response.reason) {
            ++study.leftOut[response.reason->code];
            continue;
        }
        if (!impedanceAt(response, study.atS)) ++study.leftOut["transient-moved"];
        const TransientSight sight = sightOf(response);
        study.sight = read == 0 ? sight : std::min(study.sight, sight);
        study.intervalS = std::max(study.intervalS, response.intervalS);
        study.sensorStepK = std::max(study.sensorStepK, response.sensorStepK);
        study.isAmbientKnown = study.isAmbientKnown && response.isAmbientKnown;
        study.stepW += (response.stepW - study.stepW) / ++read;
        const double start = std::abs(slopeAt(response, study.atS).value_or(0)) * startUncertaintyS(response);
        study.startKPerW = std::max(study.startKPerW, start);
    }
}

} // namespace

std::vector<TransientTask> transientTasks(const Document& document, const Question& question,
                                          const Evidence& evidence) {
    std::vector<TransientTask> tasks;
    for (const RunRow& row : evidence.rows) {
        const Run* run = document.find(row.runId);
        const Reduction* reduction = run ? reductionOf(document, run->id) : nullptr;
        const LoadReduction* load = reduction ? loadOf(*reduction, *run, question.metric) : nullptr;
        if (!enters(row) || row.loadId != evidence.load || !load) continue;
        const auto phase = loadPhase(*load);
        if (!phase) continue;
        const Recording* recording = document.find(run->recording);
        tasks.push_back({row.mountId, run->id, run->recording,
                         recording ? recording->probeShiftS : std::nullopt,
                         settingsFor(document, *run, &question), *phase});
        tasks.back().settings.metric = question.metric;
    }
    return tasks;
}

double typicalReadS(const std::vector<TransientRun>& runs) {
    double at = typicalS;
    for (const TransientRun& run : runs)
        if (isRead(run)) at = std::max(at, typicalIntervals * run.response.intervalS);
    return at;
}

TransientStudy transientStudy(const Document& document, const Question& question, const Evidence& evidence,
                              const std::vector<TransientRun>& runs, double atS) {
    TransientStudy study;
    study.atS = atS;
    addSight(study, runs);
    study.timesS = commonTimes(runs);
    compareRead(study, document, question, evidence, valuesAt(runs, atS, question, evidence));
    addSteps(study, document, runs);
    addPairs(study, steadyMeans(question, evidence));
    return study;
}

} // namespace ibuki
