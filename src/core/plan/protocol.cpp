// SPDX-License-Identifier: GPL-3.0-or-later
// Protocols: presets to begin with, the study's own steps, and what two of them do differently.

#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/plan/step_times.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>

namespace ibuki {
namespace {

struct PresetStep {
    StepKind kind;
    double minutes;
    GateKind gate;
    double gateValue;
};

std::vector<PresetStep> stepsOf(ProtocolPreset preset) {
    using enum StepKind;
    using enum GateKind;
    switch (preset) {
    case ProtocolPreset::air:
        return {{settle, 10, chipSlopeBelow, 0.1},
                {idle, 5, ambientSlopeBelow, 0.02},
                {soak, 20, remainingBelow, 0.2},
                {measure, 5, GateKind::none, 0},
                {cool, 15, aboveIdleBelow, 1}};
    case ProtocolPreset::liquid:
        return {{settle, 15, chipSlopeBelow, 0.1},
                {idle, 10, ambientSlopeBelow, 0.02},
                {soak, 75, remainingBelow, 0.2},
                {measure, 10, GateKind::none, 0},
                {cool, 45, aboveIdleBelow, 1}};
    case ProtocolPreset::laptop:
        return {{settle, 15, chipSlopeBelow, 0.1},
                {idle, 5, ambientSlopeBelow, 0.02},
                {soak, 25, remainingBelow, 0.3},
                {measure, 5, GateKind::none, 0},
                {cool, 20, aboveIdleBelow, 2}};
    case ProtocolPreset::phaseChange:
        return {{condition, 30, GateKind::none, 0}, {rest, 480, GateKind::none, 0},
                {settle, 10, chipSlopeBelow, 0.1},  {idle, 5, ambientSlopeBelow, 0.02},
                {soak, 20, remainingBelow, 0.2},    {measure, 5, GateKind::none, 0},
                {cool, 15, aboveIdleBelow, 1}};
    }
    return {};
}

std::string keyOf(const Document& document, const ProtocolStep& step) {
    const Load* load = document.find(step.load);
    return std::string(word(step.kind)) + (load ? ", " + load->name : "");
}

Message stepName(const Document& document, const ProtocolStep& step) {
    const Load* load = document.find(step.load);
    Fields fields{{"step", Term{word(step.kind)}}};
    if (load) fields.push_back({"load", load->name});
    return {load ? "step-name.load" : "step-name", std::move(fields)};
}

} // namespace

std::string_view presetName(ProtocolPreset preset) {
    static constexpr std::array<std::string_view, 4> names{"air cooler", "liquid loop", "laptop",
                                                           "phase-change film"};
    return names.at(static_cast<std::size_t>(preset));
}

std::vector<ProtocolStep> presetSteps(ProtocolPreset preset, Id<Study> study) {
    std::vector<ProtocolStep> steps;
    for (const PresetStep& step : stepsOf(preset)) {
        ProtocolStep made;
        made.study = study;
        made.position = static_cast<int>(steps.size());
        made.kind = step.kind;
        made.minutes = step.minutes;
        made.gate = step.gate;
        made.gateValue = step.gateValue;
        made.unattended = true;
        steps.push_back(made);
    }
    return steps;
}

std::vector<ProtocolStep> protocolOf(const Document& document, Id<Study> study) {
    std::vector<ProtocolStep> steps;
    for (const ProtocolStep* step : document.where(&ProtocolStep::study, study)) steps.push_back(*step);
    if (steps.empty()) return presetSteps(ProtocolPreset::air, study);
    std::stable_sort(steps.begin(), steps.end(),
                     [](const ProtocolStep& a, const ProtocolStep& b) { return a.position < b.position; });
    return steps;
}

void usePreset(Edit& edit, Id<Study> study, ProtocolPreset preset) {
    std::vector<Id<ProtocolStep>> old;
    for (const ProtocolStep* step : edit.document().where(&ProtocolStep::study, study))
        old.push_back(step->id);
    for (Id<ProtocolStep> id : old) edit.remove(id);
    for (const ProtocolStep& step : presetSteps(preset, study)) edit.add(step);
}

Message stepMessage(const ProtocolStep& step) {
    const Message message = lastsMessage(step.minutes, step.gate, step.gateValue);
    return step.unattended ? message : Message{"step-by-hand", {{"step", message}}};
}

std::vector<ProtocolDifference> protocolDifference(const Document& document, Id<Study> here,
                                                   Id<Study> there) {
    std::vector<std::string> order;
    std::map<std::string, ProtocolDifference> lines;
    const auto gather = [&](Id<Study> study, std::optional<Message> ProtocolDifference::*side) {
        for (const ProtocolStep& step : protocolOf(document, study)) {
            const std::string key = keyOf(document, step);
            auto [line, fresh] = lines.try_emplace(key, ProtocolDifference{stepName(document, step), {}, {}});
            if (fresh) order.push_back(key);
            line->second.*side = stepMessage(step);
        }
    };
    gather(here, &ProtocolDifference::here);
    gather(there, &ProtocolDifference::there);
    std::vector<ProtocolDifference> differences;
    for (const std::string& key : order)
        if (lines.at(key).here != lines.at(key).there) differences.push_back(lines.at(key));
    return differences;
}

} // namespace ibuki
