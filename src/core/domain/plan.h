// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How a study is to be carried out: its plan (how many mounts, in which evenings), its protocol (steps and
// gates), how long hands take at a bench, what comes back later, and who looked at the verdict when.

#include "core/domain/plan_values.h"
#include "core/domain/study.h"
#include "core/reduce/settings.h"

namespace ibuki {

/// One of each study.
struct Plan {
    Id<Plan> id;
    Id<Study> study;
    int mountsPerLevel = 3;
    double chance = 0.9;                   ///< wanted of seeing the margin
    std::optional<Kelvin> statedScatter;   ///< between mounts; nothing: from finished studies or the class
    int seed = 1;                          ///< of the order; the same seed gives the same order everywhere
    std::optional<Id<Material>> checkWith; ///< known material of the check mounts
    int checkMounts = 0;                   ///< in all: at the start, in between and at the end
    bool baseline = false;                 ///< measure the machine as it stands first
    ApplicationPattern pattern = ApplicationPattern::notStated; ///< held constant unless it is the factor
    std::optional<Gram> amount;
    std::optional<NewtonMetre> torque;
    std::optional<Instant> start;       ///< first day
    double fromHour = 18;               ///< an evening begins, wall clock
    double hours = 4;                   ///< and lasts
    Weekdays weekdays = mondayToFriday; ///< on which there is time
    std::string zone = "UTC";           ///< of the wall clock, an IANA name
    std::vector<Delay> followUps;       ///< after each mount
    int plannedLooks = 1;               ///< at the verdict, the last one included
    bool operator==(const Plan&) const = default;
};

enum class StepKind { remove, clean, apply, condition, rest, settle, idle, soak, measure, cool };

/// What must hold before the step counts as done; minutes alone when none.
enum class GateKind {
    none,
    chipSlopeBelow,
    ambientSlopeBelow,
    remainingBelow,
    aboveIdleBelow,
    chipAbove,
    chipBelow
};

/// One step of a study's protocol after the hands are done; soak and measure may differ by load.
struct ProtocolStep {
    Id<ProtocolStep> id;
    Id<Study> study;
    std::optional<Id<Load>> load; ///< nothing: of every load
    int position = 0;
    StepKind kind = StepKind::soak;
    double minutes = 0;
    GateKind gate = GateKind::none;
    double gateValue = 0; ///< K/min for slopes, °C for chipAbove and chipBelow, K for the others
    bool unattended = false;
    int cycles = 0;              ///< of conditioning, before its long load; 0: none
    std::optional<Celsius> hot;  ///< a cycle heats the chip to it; nothing: for the step's minutes
    std::optional<Celsius> cold; ///< and lets it cool to it
    bool operator==(const ProtocolStep&) const = default;
};

/// A bench to practise on.
enum class Scenario { threePastes, mutedLoop, filmAndSheet };

/// A project that is for practice: its bench is simulated, what its materials are worth is sealed until the
/// learner commits to a sentence.
struct Practice {
    Id<Practice> id;
    Id<Study> study;
    Scenario scenario = Scenario::threePastes;
    int seed = 1; ///< of the sealed truth
    double speed = 60;
    std::vector<Id<Material>> materials;    ///< in the order of the scenario's
    std::optional<Id<Level>> committedBest; ///< nothing with a time: "not told apart"
    std::string conclusion;                 ///< in the learner's words
    std::optional<Instant> committedAt;
    bool operator==(const Practice&) const = default;
};

/// How long a step takes at a bench, as the user stated it.
struct StepTime {
    Id<StepTime> id;
    Id<Bench> bench;
    StepKind kind = StepKind::apply;
    std::optional<MaterialClass> material; ///< nothing: whatever the material
    double minutes = 0;
    bool operator==(const StepTime&) const = default;
};

/// A later run on a mount that stays untouched.
struct FollowUp {
    Id<FollowUp> id;
    Id<Slot> slot;
    Delay after;
    bool done = false;
    std::string skippedBecause;
    bool operator==(const FollowUp&) const = default;
};

/// What a study reduces its logs by; one of each study, none means the defaults of ReduceSettings.
struct ReductionRules {
    Id<ReductionRules> id;
    Id<Study> study;
    double windowMinS = ReduceSettings{}.windowMinS;
    double windowMaxS = ReduceSettings{}.windowMaxS;
    double guardS = ReduceSettings{}.guardS;
    double slopeLimitKPerH = ReduceSettings{}.slopeLimitKPerH;
    double remainingLimitK = ReduceSettings{}.remainingLimitK;
    double minPowerStepW = PhaseSettings{}.minPowerStepW;
    double holdS = PhaseSettings{}.holdS;
    double limitShare = ReduceSettings{}.limitShare;
    bool operator==(const ReductionRules&) const = default;
};

/// Somebody saw the verdict while mounts were still to come.
struct InterimLook {
    Id<InterimLook> id;
    Id<Study> study; ///< what was seen stays a fact even when the study is undone
    Instant at;
    int mounts = 0;        ///< measured by then
    bool extended = false; ///< mounts were added after it
    bool declared = false; ///< it was among the looks planned beforehand
    bool operator==(const InterimLook&) const = default;
};

} // namespace ibuki
