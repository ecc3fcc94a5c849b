// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What each material of a question is worth and for which use: its ΔT from the comparison, the price of an
// application, how the hands rated it, how long it lasts, how safe it is (docs/methods.md, "Value").

#include "core/comparison/value_front.h"
#include "core/evidence/evidence.h"
#include "core/shelf/class_defaults.h"

namespace ibuki {

struct MaterialValue {
    std::vector<ValueRow> rows;       ///< a material each; only criteria that all of them have
    std::vector<std::size_t> groups;  ///< beside the rows: index into the comparison's groups
    std::vector<Criterion> missing;   ///< left out, since not every material has it
    std::vector<std::string> leftOut; ///< materials without a price or a mean
    std::string currency;
    std::optional<ValueFront> front;
    std::optional<Message> reason; ///< when there is none
};

/// now: for what is left of a lot. Ease is the mean rating of spreading, clean-up that of cleaning; lifetime
/// in years is stated or usual for the class; safety: 3, less 1 for what conducts electricity and less 1 for
/// gallium. Without scores.
MaterialValue materialValue(const Document& document, const Question& question, const Evidence& evidence,
                            Instant now);

/// The scores by these weights; none where no criterion that is known is weighed.
void rescore(MaterialValue& value, const std::optional<Weights>& weights);

/// What a material may be for. Each weighs the criteria in its own way (weightsOf).
enum class Use { coldest, quickSwaps, leftForYears, firstBuild, tightBudget, manyMachines, bareDie };
inline constexpr std::array<Use, 7> allUses{Use::coldest,    Use::quickSwaps,  Use::leftForYears,
                                            Use::firstBuild, Use::tightBudget, Use::manyMachines,
                                            Use::bareDie};
std::string_view useName(Use use);
Weights weightsOf(Use use);

struct Advice {
    Use use = Use::coldest;
    std::vector<std::size_t> rows;   ///< the best, and those that no settled difference parts from it
    std::vector<Criterion> reasons;  ///< weighty ones by which the best leads
    bool nothingMatters = false;     ///< no difference that this use weighs is settled
    std::vector<Criterion> notKnown; ///< weighty ones that not every material has
};

/// One for each use, in their order; empty without a front. Differences of temperature count only where the
/// comparison settled them.
std::vector<Advice> adviceFor(const MaterialValue& value, const Evidence& evidence);

std::string_view criterionName(Criterion criterion);

} // namespace ibuki
