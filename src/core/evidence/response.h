// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The one number a question takes from a run: metric × reference temperature × normalisation.

#include "core/base/message.h"
#include "core/domain/document.h"
#include "core/domain/study.h"
#include "core/reduce/settings.h"

namespace ibuki {

struct LoadReduction;
struct Reduction;

/// The load of a reduction that a run stands for, as the metric judges it; nullptr when there is none.
const LoadReduction* loadOf(const Reduction& reduction, const Run& run, Metric metric);

/// ΔT, ΔT at nominal power or K/W of the question's metric; nothing when the run does not have it. With the
/// coolant as reference, the coolant's ΔT is taken off the metric's (both over the same window).
std::optional<double> responseOf(const LoadReduction& load, const Question& question);

/// Whether another response is judged by than the one that was fixed before the first mount.
bool isResponseChanged(const Question& question);
/// The question as it was fixed.
Question asFixed(const Question& question);

/// "K" or "K/W".
std::string_view responseUnit(const Question& question);
/// Digits behind the point of a response in that unit.
struct ResponseDigits {
    int glanced = 1;  ///< where it is seen in passing: a card, a line of a list
    int reported = 1; ///< in a sentence
    int scatter = 2;  ///< of what is smaller: a scatter, a difference with its interval
};
constexpr ResponseDigits responseDigits(std::string_view unit) {
    return unit == "K" ? ResponseDigits{1, 1, 2} : ResponseDigits{3, 4, 5};
}
/// "hottest core over room"
Message responseTitle(const Question& question);

/// Settings for a log on this configuration (may be nullptr): its limit. What a question takes from a run is
/// no business of its reduction.
ReduceSettings settingsFor(const Configuration* configuration);

/// Puts the study's own rules of reduction, where it has some, in place of the defaults.
void applyRules(ReduceSettings& settings, const Document& document, Id<Study> study);

/// The same for a run that is there already: with the study's rules, the room entered by hand, the borders
/// set by hand, the probe's lag.
ReduceSettings settingsFor(const Document& document, const Run& run, const Question* question);

} // namespace ibuki
