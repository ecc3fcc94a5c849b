// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What may be said of a group of mounts that were left alone: does it need a break-in, does it wear out and
// when must it be made anew, does that go with cycles or with hours (docs/methods.md, "Drift").

#include "core/ageing/ageing_series.h"
#include "core/series/ageing_threshold.h"

namespace ibuki {

/// Mounts from their first reading to the last that all of them have.
struct BreakIn {
    enum class Says {
        same,        ///< 90 % interval inside ± the margin
        settles,     ///< it changes, and ends somewhere within what was measured
        changes,     ///< 95 % interval leaves no change out
        notResolved, ///< neither
        unknown      ///< too little was read
    };
    Says says = Says::unknown;
    int mounts = 0;
    double untilHours = 0;
    double changeK = 0;
    std::optional<Interval> interval90;
    std::optional<Interval> interval95;
    std::optional<AgeingTime> settled; ///< hours until what is left is below the rule's
    std::optional<int> neededMounts; ///< in all, to show that it is the same (chance 0.9), from their scatter
    bool measurable = false;         ///< same, but told apart from none all the same
};

/// A phase-change film's way to its end, by cycles above its melt.
struct Conditioning {
    bool neverMelted = false; ///< no reading was above the melt
    std::optional<double> hottestJointC;
    std::optional<double> cycles; ///< until within the rule's of the end
    std::optional<Interval> interval;
};

/// A group by one clock.
struct ClockedCourse {
    AgeingClock clock = AgeingClock::hours;
    std::shared_ptr<const AgeingSample> sample;
    AgeingCourse course;
    AgeingTime threshold;
};

struct GroupAgeing {
    SeriesGroup group;
    std::vector<ClockedCourse> clocks; ///< those that vary; hours first
    std::optional<Message> reason;     ///< when no clock could be followed
    BreakIn breakIn;
    std::optional<Conditioning> conditioning; ///< of a film that melts
    std::optional<AgeingClock> goesWith;      ///< the clock that tells it best by more than 2 in AICc
    bool wearsOut = false;                    ///< it rises: 95 % interval above 0, larger than the margin
    bool ambientTakenOut = false;
    bool fanTakenOut = false;
    std::vector<Message> reported; ///< its sentences, the answer first

    const ClockedCourse* by(AgeingClock clock) const;
    const ClockedCourse* lead() const; ///< by what it goes with, else by hours; may be nullptr
};

struct AgeingJudgement {
    AgeingSeries series;
    AgeingRules rules;
    std::vector<GroupAgeing> groups; ///< followed ones first
    std::vector<Message> bench;      ///< what the bench did by itself, what was left out
    /// Groups at the same age: the last hours that all followed groups have; nothing with fewer than two.
    std::optional<double> equalHours;
    struct AtAge {
        std::size_t group = 0;
        double meanK = 0; ///< of its mounts, at equalHours by their courses
    };
    std::vector<AtAge> atEqualAge;
};

GroupAgeing judgeGroup(SeriesGroup group, const AgeingRules& rules);

/// Adds what drawing its mounts anew says of the threshold, where there are five or more (about a second of
/// work).
void drawMountsAnew(GroupAgeing& ageing, const AgeingRules& rules);

/// The same of every bench, mounts gathered by their material; each bench under its own load. Rules are the
/// defaults.
AgeingJudgement judgeFleet(const Document& document);

AgeingJudgement judgeAgeing(const Document& document, const Question& question);
/// The same of the question's series, for whoever has it.
AgeingJudgement judgeAgeing(const Document& document, const Question& question, AgeingSeries series);

} // namespace ibuki
