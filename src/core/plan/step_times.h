// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Which steps a mount goes through and how long each takes: hands by material and bench (usual values,
// learned from what was done, or stated by the user), then the study's protocol, load by load.

#include "core/base/message.h"
#include "core/domain/edit.h"
#include "core/plan/schedule.h"

namespace ibuki {

/// Protocols to begin with.
enum class ProtocolPreset { air, liquid, laptop, phaseChange };
std::string_view presetName(ProtocolPreset preset);

/// Steps of a preset, one soak and one measuring step for every load where `loads` tells several apart.
std::vector<ProtocolStep> presetSteps(ProtocolPreset preset, Id<Study> study);

/// The study's steps in order; those of the air preset when it has none.
std::vector<ProtocolStep> protocolOf(const Document& document, Id<Study> study);

/// Puts a preset in the place of the study's steps. Loads keep a step of their own only where one was stated.
void usePreset(Edit& edit, Id<Study> study, ProtocolPreset preset);

/// One line of the difference between two protocols.
struct ProtocolDifference {
    Message step;                ///< "soak, 180 W"
    std::optional<Message> here; ///< "20 min, until the rest is below 0.2 K"; nothing when there is none
    std::optional<Message> there;
};
std::vector<ProtocolDifference> protocolDifference(const Document& document, Id<Study> here, Id<Study> there);
Message stepMessage(const ProtocolStep& step);

/// Time from the end of one recording to the start of the next on one evening of the bench, median.
struct LearnedTurnaround {
    double minutes = 0;
    int count = 0; ///< of gaps it is learned from
};
std::optional<LearnedTurnaround> learnedTurnaround(const Document& document, Id<Bench> bench);

/// Minutes of hands for remove, clean, apply with this class: stated for the bench, else the usual share of
/// what was learned there, else usual.
StepOccurrence handStep(const Document& document, Id<Bench> bench, StepKind kind, MaterialClass material);

/// Time constant of the slowest part of the study's bench, minutes; 0 when it is not stated.
double slowestMinutes(const Document& document, Id<Study> study);

/// All steps of one mount of the study; material may be nullptr (as found).
std::vector<StepOccurrence> mountSteps(const Document& document, Id<Study> study, const Material* material);

} // namespace ibuki
