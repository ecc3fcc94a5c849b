// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// From what is not resolved to mounts and checks on the tape.

#include "core/ageing/ageing_judgement.h"
#include "core/domain/edit.h"

namespace ibuki {

/// Delays at about those hours, at most eight, each once: "4 h", "2 d", "3 w".
std::vector<Delay> delaysAt(const std::vector<double>& hours);

/// Adds the mounts that its break-in still needs beside those planned (one at least where nothing tells how
/// many), each to be seen again when the group's others were, or as the study's plan says. Returns how many.
int planMountsToFollow(Edit& edit, const Question& question, const GroupAgeing& ageing);

} // namespace ibuki
