// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Everything that the hands need for one planned mount: level, tube, dose, pattern, torque, loads, steps and
// cautions of exactly this mount. Tile, bench and card show the same.

#include "core/base/message.h"
#include "core/caution/blocking_caution.h"
#include "core/plan/schedule.h"

namespace ibuki {

struct MountBrief {
    Id<Slot> slot;
    SlotKind kind = SlotKind::level;
    Message title; ///< "Tern 11", "Tern 11, tall cooler", "Check mount of Tern 11", "Baseline"
    std::string study;
    std::string bench;
    std::string site;
    const Material* material = nullptr; ///< nullptr: as found
    const Lot* lot = nullptr;           ///< the tube or sheet to take
    std::optional<double> grams;        ///< stated by level or plan, else the usual dose
    bool gramsAreUsual = false;
    std::optional<double> areaMm2; ///< to cut, all alike pieces together
    ApplicationPattern pattern = ApplicationPattern::notStated;
    std::optional<double> torqueNm;
    std::string rig;                      ///< "tall cooler", where the level is mounted in a rig of its own
    bool staysMounted = false;            ///< changed without re-mounting: the mount before goes on
    std::vector<std::string> otherLevels; ///< "memory: pad B", of the study's further questions
    std::vector<std::string> loads;
    std::vector<StepOccurrence> steps;
    std::vector<Caution> cautions; ///< gravest first
    std::vector<BlockingCaution> blocking;
    std::string heldConstant;
    int block = 0;
    std::optional<Instant> plannedFor;
};

/// Pointers live as long as the document does not change. Throws nothing; what is not known is empty.
MountBrief briefOf(const Document& document, const Slot& slot, Instant now);

/// The lot from which the next mount of a material takes: one that is open and not empty before others, the
/// fullest of those; nullptr when there is none.
const Lot* lotToTake(const Document& document, Id<Material> material, Instant now);

} // namespace ibuki
