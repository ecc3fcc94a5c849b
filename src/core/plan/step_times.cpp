// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/step_times.h"

#include "core/distributions/summary.h"
#include "core/domain/lookup.h"
#include "core/shelf/class_defaults.h"

#include <algorithm>

namespace ibuki {
namespace {

/// Usual minutes of hands: remove, clean, apply. Made-up averages of a practised pair of hands.
struct ManualWork {
    double remove = 0;
    double clean = 0;
    double apply = 0;
};

ManualWork typicalManualWork(MaterialClass kind) {
    switch (kind) {
    case MaterialClass::putty:
        return {8, 15, 10};
    case MaterialClass::gapPad:
        return {8, 6, 15};
    case MaterialClass::sheet:
        return {6, 5, 8};
    case MaterialClass::phaseChange:
        return {8, 12, 8};
    case MaterialClass::liquidMetal:
        return {8, 25, 20};
    case MaterialClass::solder:
        return {20, 30, 30};
    default:
        return {8, 10, 8};
    }
}

double minutesOf(const ManualWork& manualWork, StepKind kind) {
    return kind == StepKind::remove  ? manualWork.remove
           : kind == StepKind::clean ? manualWork.clean
                                     : manualWork.apply;
}

const StepTime* statedTime(const Document& document, Id<Bench> bench, StepKind kind, MaterialClass material) {
    const StepTime* general = nullptr;
    for (const StepTime* time : document.where(&StepTime::bench, bench)) {
        if (time->kind != kind) continue;
        if (time->material == material) return time;
        if (!time->material) general = time;
    }
    return general;
}

StepOccurrence alone(StepKind kind, double minutes, TimeSource source) {
    StepOccurrence step;
    step.kind = kind;
    step.minutes = minutes;
    step.source = source;
    return step;
}

/// Cycles and rest that the material asks for before it is measured.
void addConditioning(std::vector<StepOccurrence>& steps, const Material& material, const ProtocolStep* cycle,
                     const ProtocolStep* rest) {
    const bool film = material.kind == MaterialClass::phaseChange;
    if (!film && !material.conditioningCycles && !material.conditioningRest) return;
    const int cycles = film || material.conditioningCycles ? factsOf(material).cycles.value : 0;
    for (int i = 0; i < cycles; ++i)
        steps.push_back(alone(StepKind::condition, cycle ? cycle->minutes : 30,
                              cycle ? TimeSource::protocol : TimeSource::typical));
    const double hours = material.conditioningRest ? material.conditioningRest->value : film ? 8 : 0;
    if (hours > 0)
        steps.push_back(alone(StepKind::rest, rest ? rest->minutes : 60 * hours,
                              material.conditioningRest ? TimeSource::stated : TimeSource::typical));
}

} // namespace

std::optional<LearnedTurnaround> learnedTurnaround(const Document& document, Id<Bench> bench) {
    struct Span {
        std::int64_t start;
        std::int64_t end;
    };
    std::vector<Span> spans;
    for (const Recording* recording : document.where(&Recording::bench, bench))
        if (recording->start && !recording->withdrawn)
            spans.push_back({recording->start->ms,
                             recording->start->ms + static_cast<std::int64_t>(1000 * recording->durationS)});
    std::sort(spans.begin(), spans.end(), [](const Span& a, const Span& b) { return a.start < b.start; });
    std::vector<double> gaps;
    for (std::size_t i = 1; i < spans.size(); ++i) {
        const double minutes = static_cast<double>(spans[i].start - spans[i - 1].end) / 60'000;
        if (minutes >= 5 && minutes <= 180) gaps.push_back(minutes); // longer is another evening, or a meal
    }
    if (gaps.size() < 3) return std::nullopt;
    return LearnedTurnaround{median(gaps), static_cast<int>(gaps.size())};
}

StepOccurrence handStep(const Document& document, Id<Bench> bench, StepKind kind, MaterialClass material) {
    StepOccurrence step = alone(kind, minutesOf(typicalManualWork(material), kind), TimeSource::typical);
    step.unattended = false;
    if (const StepTime* stated = statedTime(document, bench, kind, material)) {
        step.minutes = stated->minutes;
        step.source = TimeSource::stated;
    } else if (const auto learned = learnedTurnaround(document, bench)) {
        // The turnaround is shared out as the usual hands of a paste are.
        const ManualWork typical = typicalManualWork(MaterialClass::paste);
        step.minutes *= learned->minutes / (typical.remove + typical.clean + typical.apply);
        step.source = TimeSource::learned;
    }
    return step;
}

double slowestMinutes(const Document& document, Id<Study> study) {
    const Study* of = document.find(study);
    const Configuration* rig = of ? currentConfiguration(document, of->bench) : nullptr;
    return rig ? rig->slowestMinutes.value_or(0) : 0;
}

namespace {

const ProtocolStep* findStep(const std::vector<ProtocolStep>& protocol, StepKind wanted) {
    const auto found = std::find_if(protocol.begin(), protocol.end(),
                                    [&](const ProtocolStep& step) { return step.kind == wanted; });
    return found == protocol.end() ? nullptr : &*found;
}

/// The mount stays on the bench until it was come back to for the last time.
void addFollowUps(std::vector<StepOccurrence>& steps, const std::vector<StepOccurrence>& run,
                  const Plan* plan) {
    if (!plan || plan->followUps.empty()) return;
    auto delays = plan->followUps;
    std::stable_sort(delays.begin(), delays.end(),
                     [](const Delay& a, const Delay& b) { return a.minutes() < b.minutes(); });
    for (const Delay& delay : delays) {
        double sinceApplied = 0;
        for (const StepOccurrence& step : steps)
            if (step.unattended) sinceApplied += step.minutes;
        if (delay.minutes() > sinceApplied)
            steps.push_back(alone(StepKind::rest, delay.minutes() - sinceApplied, TimeSource::protocol));
        steps.insert(steps.end(), run.begin(), run.end());
    }
}

} // namespace

std::vector<StepOccurrence> mountSteps(const Document& document, Id<Study> id, const Material* material) {
    const Study* study = document.find(id);
    if (!study) return {};
    const MaterialClass kind = material ? material->kind : MaterialClass::paste;
    std::vector<StepOccurrence> steps;
    for (StepKind hand : {StepKind::remove, StepKind::clean, StepKind::apply})
        steps.push_back(handStep(document, study->bench, hand, kind));
    const auto protocol = protocolOf(document, id);
    if (material)
        addConditioning(steps, *material, findStep(protocol, StepKind::condition),
                        findStep(protocol, StepKind::rest));
    const auto run = occurrencesOf(protocol, loadsOf(document, id), slowestMinutes(document, id));
    steps.insert(steps.end(), run.begin(), run.end());
    addFollowUps(steps, run, planOf(document, id));
    return steps;
}

} // namespace ibuki
