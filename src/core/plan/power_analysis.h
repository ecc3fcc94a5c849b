// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a number of mounts would tell and cost, before the first is made: the chance to settle each pair at
// the margin, the half width, hours, evenings, grams, money; and, when the bench cannot resolve the margin,
// what would help and by how much. One pure call behind the live figures of Question.

#include "core/base/message.h"
#include "core/evidence/scatter.h"
#include "core/plan/design_order.h"
#include "core/plan/sample_size.h"
#include "core/plan/schedule.h"
#include "core/shelf/shelf.h"

namespace ibuki {

/// Chances for one pair of levels.
struct PairChance {
    std::size_t a = 0; ///< index into the analysis's levels
    std::size_t b = 0;
    double different = 0;  ///< that a true difference of the margin is declared different
    double equivalent = 0; ///< that two equal levels are shown equal within the margin
};

struct MaterialNeed {
    Id<Material> material;
    double amount = 0; ///< in unit
    ContentUnit unit = ContentUnit::gram;
    bool known = false;         ///< dose and lot are known
    std::optional<double> left; ///< on the shelf, in unit
    std::optional<Money> cost;
};

/// One thing that would make a difference easier to see.
struct Improvement {
    Message what;                      ///< "Load it with 230 W instead of 180 W"
    std::optional<int> mountsPerLevel; ///< then needed for the chance wanted; nothing: still not reached
    Message assumption;
};

struct PowerAnalysis {
    std::vector<std::string> levels; ///< names of the design's cells
    std::vector<int> mounts;         ///< of each
    Scatter scatter;
    double df = 0;
    std::vector<PairChance> pairs;
    bool isChange =
        false; ///< one level seen again later: chances are of a change of the margin inside mounts
    std::optional<double> chance; ///< the lowest `different` or `equivalent` (by the goal) of all pairs
    std::optional<double>
        cautiousChance;              ///< the same at the cautious end of the scatter, when it was measured
    std::optional<double> anyChance; ///< that the F test notices one pair a margin apart, the others between
    std::optional<double> halfWidth; ///< of the widest pair's simultaneous interval
    std::optional<int> neededMounts; ///< of each level for the chance wanted; nothing: not within mostMounts
    int totalMounts = 0;             ///< with checks and baseline
    int mountsToCome = 0;            ///< of them; hours, evenings, grams and money are of these
    std::vector<MaterialNeed> needs;
    std::vector<Money> cost; ///< one sum a currency; currencies are not added
    bool resolvable = true;  ///< within `sensibleMounts` of each level
    Design design;
    std::vector<OrderedMount> toCome;      ///< order of the mounts that are left
    Schedule schedule;                     ///< of toCome
    std::vector<Improvement> improvements; ///< only when it is not
    std::vector<Message> notes;            ///< "Quickfin: only 2 of 4 mounts, its lots hold no more"
};

/// More mounts of each level than anybody makes.
inline constexpr int sensibleMounts = 12;

/// For the order that the plan's seed gives. Throws what orderInput, parseWeekdays and schedule throw.
PowerAnalysis powerAnalysisOf(const Document& document, const Question& question, const Plan& plan,
                              Instant now, const WallClock& clock = {});

/// Mounts in order with the steps of each, for the schedule.
std::vector<std::vector<StepOccurrence>> stepsOf(const Document& document, const Question& question,
                                                 const Plan& plan, const Design& design,
                                                 const std::vector<OrderedMount>& order);
Evenings eveningsOf(const Plan& plan, Instant now);

} // namespace ibuki
