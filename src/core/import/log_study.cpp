// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/log_study.h"

#include "core/domain/lookup.h"
#include "core/setup/bench_template.h"
#include "core/setup/question_setup.h"
#include "core/setup/study_setup.h"

#include <algorithm>
#include <set>

namespace ibuki {
namespace {

bool readsMetric(const ImportedLog& log, Metric metric) {
    const auto has = [&](const LoadReduction& load) { return load.metrics.contains(metric); };
    const auto& loads = log.reduction.loads;
    if (!loads.empty()) return std::any_of(loads.begin(), loads.end(), has);
    const Role role = metric == Metric::package   ? Role::package
                      : metric == Metric::gpu     ? Role::gpu
                      : metric == Metric::hotspot ? Role::hotspot
                                                  : Role::core;
    return firstChannel(log.trace, role) != nullptr;
}

BenchTemplate templateFor(const std::vector<ImportedLog>& logs) {
    const auto readsOneOf = [&](std::initializer_list<Metric> metrics) {
        return std::any_of(logs.begin(), logs.end(), [&](const ImportedLog& log) {
            return std::any_of(metrics.begin(), metrics.end(),
                               [&](Metric metric) { return readsMetric(log, metric); });
        });
    };
    return !readsOneOf({Metric::hottest, Metric::package}) && readsOneOf({Metric::gpu, Metric::hotspot})
               ? BenchTemplate::graphicsCard
               : BenchTemplate::liddedChip;
}

Metric metricFor(const std::vector<const ImportedLog*>& logs) {
    const auto reads = [](Metric metric) {
        return [metric](const ImportedLog* log) { return readsMetric(*log, metric); };
    };
    if (std::any_of(logs.begin(), logs.end(), reads(Metric::hottest))) return Metric::hottest;
    for (Metric metric : {Metric::package, Metric::gpu, Metric::hotspot})
        if (std::all_of(logs.begin(), logs.end(), reads(metric))) return metric;
    return Metric::hottest;
}

const Material* materialCalled(const Document& document, const std::string& name) {
    const auto tokens = nameTokens(name);
    for (const auto& [id, material] : document.all<Material>())
        if (!tokens.empty() && nameTokens(material.name) == tokens) return &material;
    return nullptr;
}

std::vector<Level> levelsFor(const Document& document, const std::vector<std::string>& names) {
    std::vector<Level> levels;
    std::set<std::vector<std::string>> known;
    for (const std::string& name : names) {
        if (!known.insert(nameTokens(name)).second) continue;
        const Material* material = materialCalled(document, name);
        Level level;
        level.name = material ? material->name : name;
        if (material) level.material = material->id;
        levels.push_back(level);
    }
    return levels;
}

} // namespace

LogStudy addStudyOfLogs(Edit& edit, const LogStudyWish& wish, const std::vector<ImportedLog>& logs,
                        const std::vector<StatedRow>& stated) {
    std::vector<std::string> names;
    std::vector<const ImportedLog*> ofChips;
    const auto probes = probesAmong(logs);
    for (std::size_t i = 0; i < logs.size(); ++i) {
        if (probes[i]) continue;
        ofChips.push_back(&logs[i]);
        if (!stated[i].level.empty())
            names.push_back(stated[i].level);
        else if (!stated[i].isTable())
            names.push_back(logs[i].fileName.substr(0, logs[i].fileName.rfind('.')));
    }
    const Id<Bench> bench =
        wish.bench ? *wish.bench : addBench(edit, templateFor(logs), wish.benchName, wish.wording);
    const Id<Study> study =
        addStudy(edit, {StudyTemplate::own, bench, wish.studyName, {}, wish.wording}, wish.now);
    std::vector<Id<Load>> loads;
    for (const Load* load : edit.document().where(&Load::study, study)) loads.push_back(load->id);
    for (Id<Load> load : loads) edit.remove(load);
    std::vector<Level> levels = levelsFor(edit.document(), names);
    Question question = *firstQuestion(edit.document(), study);
    const bool areMaterials = !levels.empty()
                              && std::all_of(levels.begin(), levels.end(),
                                             [](const Level& level) { return level.material.has_value(); });
    question.factor = areMaterials ? Factor::material : Factor::beforeAfter; // whose levels are names
    question.metric = metricFor(ofChips);
    edit.put(question);
    for (Level& level : levels) {
        level.question = question.id;
        addLevel(edit, level);
    }
    return {bench, study};
}

} // namespace ibuki
