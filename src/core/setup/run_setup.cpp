// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/setup/run_setup.h"

#include "core/distributions/summary.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/plan/mount_brief.h"
#include "core/plan/step_times.h"

#include <algorithm>

namespace ibuki {
namespace {

constexpr std::size_t mostEarlier = 24;

/// Of core i, where the bench's sheet states it of all of them.
std::vector<double> coreOffsets(const Document& document, Id<Configuration> rig) {
    std::vector<const Sensor*> cores;
    for (const Sensor* sensor : document.where(&Sensor::configuration, rig))
        if (sensor->role == Role::core && sensor->offset) cores.push_back(sensor);
    std::sort(cores.begin(), cores.end(),
              [](const Sensor* a, const Sensor* b) { return a->index < b->index; });
    std::vector<double> offsets;
    for (const Sensor* core : cores) {
        if (core->index != static_cast<int>(offsets.size())) return {};
        offsets.push_back(core->offset->value);
    }
    return offsets;
}

} // namespace

std::vector<StepOccurrence> runSteps(const Document& document, Id<Study> id) {
    const Study* study = document.find(id);
    if (!study) return {};
    return conductedSteps(protocolOf(document, id), loadsOf(document, id), slowestMinutes(document, id));
}

std::vector<StepOccurrence> handSteps(const Document& document, const Slot& slot) {
    std::vector<StepOccurrence> steps;
    if (slot.kind == SlotKind::baseline) return steps;
    const Study* study = document.find(slot.study);
    const MountBrief brief = briefOf(document, slot, {});
    if (!study || brief.staysMounted) return steps;
    const MaterialClass material = brief.material ? brief.material->kind : MaterialClass::paste;
    for (StepKind hand : {StepKind::remove, StepKind::clean, StepKind::apply}) {
        StepOccurrence step = handStep(document, study->bench, hand, material);
        step.byHand = true;
        steps.push_back(step);
    }
    return steps;
}

MonitorRules monitorRules(const Document& document, Id<Study> id) {
    MonitorRules rules;
    const Study* study = document.find(id);
    const Configuration* configuration = study ? currentConfiguration(document, study->bench) : nullptr;
    if (!configuration) return rules;
    if (configuration->stopAbove) rules.stopAboveC = configuration->stopAbove->value;
    if (configuration->temperatureLimit) rules.limitC = configuration->temperatureLimit->value;
    rules.fanIsFixed = configuration->fan == FanSetting::fixed;
    rules.coreOffsetsK = coreOffsets(document, configuration->id);
    std::vector<double> rooms;
    for (const EarlierRun& earlier : earlierRuns(document, id, {}))
        for (const LoadReduction& load : reductionOf(document, earlier.run)->loads)
            if (load.ambient.meanC) rooms.push_back(*load.ambient.meanC);
    if (rooms.size() >= 3) rules.typicalAmbientC = median(rooms);
    return rules;
}

std::vector<EarlierRun> earlierRuns(const Document& document, Id<Study> study, std::optional<Id<Slot>> of) {
    const Slot* now = document.find(of);
    std::vector<EarlierRun> found;
    auto slots = slotsOf(document, study);
    std::reverse(slots.begin(), slots.end());
    for (const Slot* slot : slots) {
        if (!slot->mount || slot == now) continue;
        for (const Run* run : runsOf(document, *slot->mount)) {
            if (!reductionOf(document, run->id) || found.size() >= mostEarlier) continue;
            if (document.find(run->recording)->state == RecordingState::figures) continue; // no curve
            found.push_back({run->id, now && slot->level == now->level && slot->second == now->second});
        }
    }
    return found;
}

} // namespace ibuki
