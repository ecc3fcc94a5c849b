// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A bench to practise on: a made-up study whose bench is simulated and whose materials' worth is sealed. What
// is sealed follows from the scenario and its seed; nothing of it stands in the project.

#include "core/base/message.h"
#include "core/clock/mount_history.h"
#include "core/domain/edit.h"
#include "core/domain/plan.h"
#include "core/simulate/made_up_look.h"
#include "core/simulate/simulated_bench.h"

#include <string>
#include <vector>

namespace ibuki {

/// Spec of the source that such a bench has.
inline constexpr const char* practiceSource = "practise";

Message purposeOf(Scenario scenario); ///< in a line, what it teaches

struct NewPractice {
    Scenario scenario = Scenario::threePastes;
    int seed = 1;
    double speed = 300; ///< of the bench's time
    Wording wording = plainly;
};

/// Bench, materials with a lot each, a study of them, the simulated source. Returns the study.
Id<Study> addPractice(Edit& edit, const NewPractice& wanted, Instant now);

/// The practice of a study; nullptr: it is none.
const Practice* practiceOf(const Document& document, Id<Study> study);

/// What a level is in truth.
struct SealedLevel {
    Id<Level> level;
    std::string name;
    double interfaceKPerW = 0; ///< with the dose it needs, fastened as it should be, fully wetted
    double mountSdK = 0;       ///< between careful mounts, at the load
    double deltaK = 0;         ///< of the hottest core over the room at the load
};
/// In the order of the levels.
std::vector<SealedLevel> sealedTruth(const Document& document, const Practice& practice);

/// What happened to a mount that nobody had asked for.
enum class Mishap { none, fanMoved, warmAmbient, slippedSheet };

/// What a camera over the practice bench sees of a mount that was made; nothing where it shows no film.
std::optional<PhotographScene> practicePhotograph(const Document& document, const Practice& practice,
                                                  Id<Mount> mount, const Site& site, LookSide side);

struct PracticeMount {
    SimulatedBench bench;
    Mishap mishap = Mishap::none;
    double coveredShare = 1; ///< of the dose that the face needs
};

/// The bench with the mount of a slot on it, as the plan and its level say it was applied; what they do not
/// say was done by feel. worn: what the mount has been through: film wets above its
/// melt, pastes are pumped out by cycles and dry out by hours, each by its own sealed pace.
PracticeMount practiceMount(const Document& document, const Practice& practice, const Slot& slot,
                            const MountClock& worn = {});

} // namespace ibuki
