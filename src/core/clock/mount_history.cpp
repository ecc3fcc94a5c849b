// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/clock/mount_history.h"

#include "core/base/kept.h"
#include "core/domain/ageing.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/study.h"
#include "core/quantity/span.h"
#include "core/reduce/thermal_course.h"

#include <algorithm>
#include <map>
#include <memory>

namespace ibuki {
namespace {

constexpr double reversalK = 2; ///< smaller ones are noise

double hoursBetween(Instant from, Instant to) { return static_cast<double>(to.ms - from.ms) / msPerHour; }

/// One recording of a mount with the reduction that has its course.
struct Recorded {
    Instant start;
    const Reduction* reduction = nullptr;
};

std::vector<Recorded> recordingsOf(const Document& document, Id<Mount> mount) {
    std::map<std::int64_t, Recorded> found;
    for (const Run* run : runsOf(document, mount)) {
        const Recording* recording = document.find(run->recording);
        const Reduction* reduction = reductionOf(document, run->id);
        if (!reduction || !recording->start) continue;
        found.try_emplace(recording->id.value, Recorded{*recording->start, reduction});
    }
    std::vector<Recorded> recordings;
    for (const auto& [id, one] : found) recordings.push_back(one);
    std::sort(recordings.begin(), recordings.end(),
              [](const Recorded& a, const Recorded& b) { return a.start < b.start; });
    return recordings;
}

/// Hours of the reduction's loads until `seconds` of its recording.
double loadHoursUntil(const Reduction& reduction, double seconds) {
    double sum = 0;
    for (const LoadReduction& load : reduction.loads)
        if (const auto phase = loadPhase(load); phase && phase->startS < seconds)
            sum += (std::min(phase->endS, seconds) - phase->startS) / 3'600;
    return sum;
}

} // namespace

std::optional<double> MountClock::of(AgeingClock clock) const {
    switch (clock) {
    case AgeingClock::hours:
        return hours;
    case AgeingClock::loadHours:
        return loadHours;
    case AgeingClock::cycles:
        return cycles;
    case AgeingClock::meltCycles:
        return meltCycles;
    }
    return std::nullopt;
}

MountHistory::MountHistory(const Document& document, Id<Mount> id, std::optional<double> jointKPerW) {
    const Mount* mount = document.find(id);
    if (!mount) return;
    applied_ = appliedAt(document, id);
    if (!applied_) applied_ = mount->at;
    opened_ = openedAt(document, *mount);
    if (const Material* material = materialOf(document, id)) melts_ = material->melts;
    if (melts_ && jointKPerW) {
        jointKPerW_ = *jointKPerW;
        jointAssumed_ = false;
    }
    readRecordings(document, id);
    readUses(document, id);
}

/// All recordings one after the other.
struct MountHistory::Timeline {
    struct Point {
        Instant at;
        double chipC = 0;
        double jointC = 0;
        double loadHours = 0;
        bool begins = false; ///< its recording
    };
    std::vector<Point> points;
};

void MountHistory::readRecordings(const Document& document, Id<Mount> mount) {
    Timeline timeline;
    double before = 0;
    for (const Recorded& one : recordingsOf(document, mount)) {
        const ThermalCourse& course = one.reduction->course;
        for (std::size_t i = 0; i < course.atS.size(); ++i) {
            const double power = course.powerW.empty() ? 0 : course.powerW[i];
            timeline.points.push_back({laterBy(one.start, course.atS[i]), course.chipC[i],
                                       course.chipC[i] - jointKPerW_ * power,
                                       before + loadHoursUntil(*one.reduction, course.atS[i]), i == 0});
        }
        before += loadHoursUntil(*one.reduction, one.reduction->durationS);
    }
    for (const auto& point : timeline.points) {
        hottestJointC_ = std::max(hottestJointC_.value_or(point.jointC), point.jointC);
        coldestC_ = std::min(coldestC_.value_or(point.chipC), point.chipC);
    }
    countCycles(timeline);
    countHeat(timeline);
}

void MountHistory::countCycles(const Timeline& timeline) {
    std::vector<double> chip;
    for (const auto& point : timeline.points) chip.push_back(point.chipC);
    double closed = 0;
    std::size_t seen = 0;
    for (const std::size_t at : turningIndexes(chip, reversalK)) {
        counter_.add(chip[at]);
        for (; seen < counter_.closed().size(); ++seen)
            if (const CountedCycle& one = counter_.closed()[seen]; one.range >= leastCycleK)
                closed += one.count;
        cycleMarks_.push_back({timeline.points[at].at, closed + cyclesOf(counter_.open(), leastCycleK)});
    }
}

void MountHistory::countHeat(const Timeline& timeline) {
    Mark sum;
    bool isThrough = false; // the melt, in this load
    const auto& points = timeline.points;
    for (std::size_t i = 0; i < points.size(); ++i) {
        sum.at = points[i].at;
        sum.loadHours = points[i].loadHours;
        if (melts_) {
            const double over = points[i].jointC - melts_->value;
            if (over > overMeltK && !isThrough) ++sum.meltCycles;
            isThrough = over > overMeltK || (isThrough && over > 0);
            if (!points[i].begins) {
                const double earlier = points[i - 1].jointC - melts_->value;
                const double share = over > 0 && earlier > 0 ? 1
                                     : over <= 0 && earlier <= 0
                                         ? 0
                                         : std::max(over, earlier) / std::abs(over - earlier);
                sum.aboveMeltHours += share * hoursBetween(points[i - 1].at, points[i].at);
            }
        }
        marks_.push_back(sum);
    }
}

void MountHistory::readUses(const Document& document, Id<Mount> mount) {
    for (const MountUse* use : document.where(&MountUse::mount, mount)) {
        const auto from = use->from ? use->from : applied_;
        if (!from) continue;
        uses_.push_back({*from, use->until ? use->until : opened_, use->hoursPerDay, use->cyclesPerDay,
                         melts_ && use->hottest && use->hottest->value > melts_->value + overMeltK});
        if (use->coldest) coldestC_ = std::min(coldestC_.value_or(use->coldest->value), use->coldest->value);
    }
}

MountClock MountHistory::at(Instant moment) const {
    MountClock clock;
    if (applied_ && *applied_ <= moment) clock.hours = hoursBetween(*applied_, moment);
    const auto later = std::upper_bound(marks_.begin(), marks_.end(), moment,
                                        [](Instant at, const Mark& mark) { return at < mark.at; });
    if (later != marks_.begin()) {
        const Mark& before = *(later - 1);
        double share = 0;
        if (later != marks_.end() && later->at > before.at)
            share = hoursBetween(before.at, moment) / hoursBetween(before.at, later->at);
        const auto grown = [&](double Mark::*member) {
            return before.*member + (later == marks_.end() ? 0 : share * (*later.*member - before.*member));
        };
        clock.loadHours = grown(&Mark::loadHours);
        clock.aboveMeltHours = grown(&Mark::aboveMeltHours);
        clock.meltCycles = before.meltCycles;
    }
    const auto cycle = std::upper_bound(cycleMarks_.begin(), cycleMarks_.end(), moment,
                                        [](Instant at, const CycleMark& mark) { return at < mark.at; });
    if (cycle != cycleMarks_.begin()) clock.cycles = (cycle - 1)->cycles;
    for (const Use& use : uses_) {
        const Instant until = use.until ? std::min(*use.until, moment) : moment;
        const double days = std::max(0.0, hoursBetween(use.from, until) / 24);
        clock.statedHours += days * use.hoursPerDay;
        clock.statedCycles += days * use.cyclesPerDay;
        if (use.melts) {
            clock.aboveMeltHours += days * use.hoursPerDay;
            clock.meltCycles += days * use.cyclesPerDay;
        }
    }
    clock.loadHours += clock.statedHours;
    clock.cycles += clock.statedCycles;
    return clock;
}

std::vector<CountedCycle> MountHistory::cycles() const {
    auto all = counter_.closed();
    for (const CountedCycle& half : counter_.open()) all.push_back(half);
    return all;
}

const MountHistory& historyOf(const Document& document, Id<Mount> mount) {
    using Histories = Kept<Id<Mount>, MountHistory>;
    const auto& histories =
        document.once<std::unique_ptr<Histories>>([] { return std::make_unique<Histories>(); });
    return (*histories)(mount, [&] { return MountHistory(document, mount); });
}

namespace {

/// The load that a run stands for, by its reduction's own metric; nullptr where it has none.
const LoadReduction* loadOfRun(const Document& document, const Run& run) {
    const Reduction* reduction = reductionOf(document, run.id);
    return reduction ? judgedBy(*reduction, reduction->metric).load(run.loadIndex) : nullptr;
}

std::optional<Instant> startOf(const Document& document, const Run& run) {
    const Recording* recording = document.find(run.recording);
    return recording ? recording->start : std::nullopt;
}

} // namespace

std::optional<Instant> loadBegan(const Document& document, const Run& run) {
    const auto start = startOf(document, run);
    const LoadReduction* load = loadOfRun(document, run);
    const auto phase = load ? loadPhase(*load) : std::nullopt;
    return start && phase ? laterBy(*start, phase->startS) : start;
}

std::optional<Instant> measuredAt(const Document& document, const Run& run) {
    const auto start = startOf(document, run);
    const LoadReduction* load = loadOfRun(document, run);
    return start && load && load->window ? laterBy(*start, (load->window->startS + load->window->endS) / 2)
                                         : start;
}

RunAge ageOf(const Document& document, const Run& run) {
    RunAge age{run.statedAgeH, run.statedCycles};
    const auto began = loadBegan(document, run);
    if (!began || (age.hours && age.cycles)) return age;
    const MountClock clock = historyOf(document, run.mount).at(*began);
    if (!age.hours) age.hours = clock.hours;
    if (!age.cycles) age.cycles = clock.cycles;
    return age;
}

} // namespace ibuki
