// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/step_times.h"

#include "core/domain/lookup.h"
#include "core/shelf/class_defaults.h"
#include "core/stats/summary.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace ibuki {
namespace {

/// Usual minutes of hands: remove, clean, apply. Made-up averages of a practised pair of hands.
struct Hands {
    double remove = 0;
    double clean = 0;
    double apply = 0;
};

Hands usualHands(MaterialClass kind) {
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

double minutesOf(const Hands& hands, StepKind kind) {
    return kind == StepKind::remove ? hands.remove : kind == StepKind::clean ? hands.clean : hands.apply;
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

/// Cycles and rest that the material asks for before it is measured.
void addConditioning(std::vector<TimedStep>& steps, const Material& material, const ProtocolStep* cycle,
                     const ProtocolStep* rest) {
    const bool film = material.kind == MaterialClass::phaseChange;
    if (!film && !material.conditioningCycles && !material.conditioningRest) return;
    const int cycles = film || material.conditioningCycles ? factsOf(material).cycles.value : 0;
    for (int i = 0; i < cycles; ++i)
        steps.push_back({StepKind::condition,
                         cycle ? cycle->minutes : 30,
                         true,
                         cycle ? TimeSource::protocol : TimeSource::usual,
                         {},
                         GateKind::none,
                         0});
    const double hours = material.conditioningRest ? material.conditioningRest->value : film ? 8 : 0;
    if (hours > 0)
        steps.push_back({StepKind::rest,
                         rest ? rest->minutes : 60 * hours,
                         true,
                         material.conditioningRest ? TimeSource::stated : TimeSource::usual,
                         {},
                         GateKind::none,
                         0});
}

TimedStep timed(const ProtocolStep& step, const std::string& load) {
    return {step.kind, step.minutes, step.unattended, TimeSource::protocol, load, step.gate, step.gateValue};
}

} // namespace

double soakMinutes(double slowestMinutes, double riseK, double withinK) {
    return slowestMinutes * std::log(riseK / withinK);
}

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

TimedStep handStep(const Document& document, Id<Bench> bench, StepKind kind, MaterialClass material) {
    TimedStep step{kind, minutesOf(usualHands(material), kind), false, TimeSource::usual, {}, GateKind::none,
                   0};
    if (const StepTime* stated = statedTime(document, bench, kind, material)) {
        step.minutes = stated->minutes;
        step.source = TimeSource::stated;
    } else if (const auto learned = learnedTurnaround(document, bench)) {
        // The turnaround is shared out as the usual hands of a paste are.
        const Hands usual = usualHands(MaterialClass::paste);
        step.minutes *= learned->minutes / (usual.remove + usual.clean + usual.apply);
        step.source = TimeSource::learned;
    }
    return step;
}

namespace {

bool isPerLoad(const ProtocolStep& step) {
    return step.kind == StepKind::soak || step.kind == StepKind::measure;
}

} // namespace

std::vector<RunStep> runOrder(const std::vector<ProtocolStep>& protocol,
                              const std::vector<const Load*>& loads, StepKind from) {
    /// A step of one load stands in the place of the general one.
    const auto countsFor = [&](const ProtocolStep& step, const Load* load) {
        if (!load) return true;
        if (step.load) return step.load == load->id;
        return std::none_of(protocol.begin(), protocol.end(), [&](const ProtocolStep& other) {
            return other.kind == step.kind && other.load == load->id;
        });
    };
    const std::vector<const Load*> eachOrNone = loads.empty() ? std::vector<const Load*>{nullptr} : loads;
    std::vector<RunStep> order;
    bool loadsDone = false;
    for (std::size_t row = 0; row < protocol.size(); ++row) {
        if (protocol[row].kind < from) continue;
        if (!isPerLoad(protocol[row])) {
            order.push_back({row, nullptr});
        } else if (!std::exchange(loadsDone, true)) {
            for (const Load* load : eachOrNone)
                for (std::size_t each = 0; each < protocol.size(); ++each)
                    if (isPerLoad(protocol[each]) && countsFor(protocol[each], load))
                        order.push_back({each, load});
        }
    }
    return order;
}

double leastSoakMinutes(const Document& document, Id<Study> study) {
    const Study* of = document.find(study);
    const Configuration* rig = of ? currentConfiguration(document, of->bench) : nullptr;
    return rig && rig->slowestMinutes ? soakMinutes(*rig->slowestMinutes) : 0;
}

namespace {

/// Adds the protocol's steps after the hands, soak and measure for each load.
class RunSteps {
public:
    RunSteps(const Document& document, Id<Study> study, std::vector<TimedStep>& steps)
        : protocol_(protocolOf(document, study)),
          order_(runOrder(protocol_, loadsOf(document, study))),
          leastSoak_(leastSoakMinutes(document, study)),
          steps_(steps) {}

    const ProtocolStep* find(StepKind wanted) const {
        const auto found = std::find_if(protocol_.begin(), protocol_.end(),
                                        [&](const ProtocolStep& step) { return step.kind == wanted; });
        return found == protocol_.end() ? nullptr : &*found;
    }

    void addAll() {
        for (const auto& [row, load] : order_) {
            const ProtocolStep& step = protocol_[row];
            steps_.push_back(timed(step, load ? load->name : std::string()));
            if (step.kind == StepKind::soak) steps_.back().minutes = std::max(step.minutes, leastSoak_);
        }
    }

private:
    std::vector<ProtocolStep> protocol_;
    std::vector<RunStep> order_;
    double leastSoak_;
    std::vector<TimedStep>& steps_;
};

/// The mount stays on the bench until it was come back to for the last time.
void addFollowUps(std::vector<TimedStep>& steps, RunSteps& run, const Plan* plan) {
    if (!plan || plan->followUps.empty()) return;
    auto delays = plan->followUps;
    std::stable_sort(delays.begin(), delays.end(),
                     [](const Delay& a, const Delay& b) { return a.minutes() < b.minutes(); });
    for (const Delay& delay : delays) {
        double sinceApplied = 0;
        for (const TimedStep& step : steps)
            if (step.unattended) sinceApplied += step.minutes;
        if (delay.minutes() > sinceApplied)
            steps.push_back({StepKind::rest,
                             delay.minutes() - sinceApplied,
                             true,
                             TimeSource::protocol,
                             {},
                             GateKind::none,
                             0});
        run.addAll();
    }
}

} // namespace

std::vector<TimedStep> mountSteps(const Document& document, Id<Study> id, const Material* material) {
    const Study* study = document.find(id);
    if (!study) return {};
    const MaterialClass kind = material ? material->kind : MaterialClass::paste;
    std::vector<TimedStep> steps;
    for (StepKind hand : {StepKind::remove, StepKind::clean, StepKind::apply})
        steps.push_back(handStep(document, study->bench, hand, kind));
    RunSteps run(document, id, steps);
    if (material) addConditioning(steps, *material, run.find(StepKind::condition), run.find(StepKind::rest));
    run.addAll();
    addFollowUps(steps, run, planOf(document, id));
    return steps;
}

} // namespace ibuki
