// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The order of a study's mounts from its design: where levels may stand, for how many mounts they last, and
// what is still to come.

#include "core/design/design.h"
#include "core/plan/order.h"

namespace ibuki {

/// The placement in force: as stated, else by the level's material.
Placement placementOf(const Document& document, const Level& level);

/// Mounts of the level for which its lots suffice at the question's site, when the lots say how much is left;
/// counts what is still to be mounted by other planned slots of the study as free.
std::optional<int> mountsThatLast(const Document& document, const Question& question, const Level& level,
                                  Instant now);

/// The order's input, levels being the design's cells. plan gives mounts, checks and seed. Throws InputError
/// (plan-site, plan-levels, plan-margin, plan-mounts) for a question that cannot be planned.
OrderInput orderInput(const Document& document, const Question& question, const Plan& plan, Instant now);

/// The order without the mounts that are made already.
std::vector<OrderedMount> withoutMade(std::vector<OrderedMount> order, const Design& design,
                                      const Document& document);

/// The design's order with what was mounted already taken out.
std::vector<OrderedMount> remainingOrder(const Document& document, const Question& question, const Plan& plan,
                                         Instant now);

/// Throws what orderInput throws for the question itself.
void checkPlannable(const Document& document, const Question& question);

} // namespace ibuki
