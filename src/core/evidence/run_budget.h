// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a document knows for the uncertainty budget of one run: its sensors, its room, the scatter between
// mounts of its study.

#include "core/base/message.h"
#include "core/domain/document.h"
#include "core/domain/study.h"
#include "core/reduce/budget.h"

namespace ibuki {

/// For the metric of the question, of the run's own load. Figures that nobody stated are left out; `missing`
/// of the result tells which of them would count.
struct RunBudget {
    Budget budget;
    std::vector<Message> missing; ///< "accuracy of the chip's sensor", …
};
RunBudget budgetOf(const Document& document, const Run& run, const Question& question);

std::string_view cancelsWord(Cancels cancels); ///< "no", "partly", "averages out", "yes"

} // namespace ibuki
