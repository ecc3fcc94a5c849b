// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// From the document to what a question can be judged by: the tidy table (one row a run), the values that
// enter the comparison, and the comparison itself. Window, command and report all call these.

#include "core/base/flag.h"
#include "core/design/design.h"
#include "core/domain/study.h"
#include "core/stats/compare.h"
#include "core/stats/two_factor.h"

namespace ibuki {

/// One row of the tidy table; docs/file-format.md lists the columns.
struct TidyRow {
    std::string study;
    std::string bench;
    std::string site;
    std::string material;
    std::string lot;
    std::string level;  ///< of the question's first factor
    std::string second; ///< level of its second factor; empty without one
    std::string mount;
    std::string block;
    int order = 0;
    std::string run;
    std::string load; ///< its name
    std::string purpose;
    std::optional<double> ageH;
    std::optional<int> cycles;
    std::map<Metric, double> metricsC; ///< temperatures over the steady window
    std::optional<double> deltaK;      ///< of the question's metric over room
    std::optional<double> rthKPerW;
    std::optional<double> powerW;
    bool limitBound = false;
    bool excluded = false;
    std::string reason;
    std::optional<double> response; ///< what the question compares
    Id<Mount> mountId;
    Id<Run> runId;
    Id<Load> loadId; ///< as loadIdentity; 0 where none is stated
    SlotKind kind = SlotKind::level;
    std::optional<std::size_t> cell; ///< of the question's design: what it is compared as
};

/// Every run of the study's mounts that is not withdrawn, in the order of the bench's record.
std::vector<TidyRow> tidyTable(const Document& document, const Question& question);

/// The load whose runs are compared (as loadIdentity): the one the question names, else the one under which
/// the most mounts were measured, the first of several. Runs under others are no repeats of it.
Id<Load> comparedLoad(const Document& document, const std::vector<TidyRow>& rows, const Question& question);

/// The study's loads and those of other studies that its runs were under, each once.
std::vector<Id<Load>> loadChoices(const Document& document, Id<Study> study);

/// Rows that enter the comparison: levels only, fresh runs under the compared load, neither excluded nor
/// without a response. Their groups are the design's cells, by index + 1.
std::vector<RunValue> comparedRuns(const std::vector<TidyRow>& rows, Id<Load> load, const Design& design);

/// As the question judges them: K/W is measured in full at the limit too.
std::vector<RunValue> comparedRuns(const std::vector<TidyRow>& rows, Id<Load> load, const Design& design,
                                   const Question& question);

struct Evidence {
    Design design;
    std::vector<TidyRow> rows;
    Id<Load> load; ///< the compared one
    std::optional<Comparison> comparison;
    std::optional<Comparison> mounts;  ///< when there is none: the groups with their mounts, if there are any
    std::optional<TwoFactors> factors; ///< with a second factor, where both can be told together
    std::optional<Message> whyNot;     ///< when there is none: what is missing and how to mend it
    bool inSequence = false; ///< levels are steps that build on each other; groups stand in their order
    int excludedMounts = 0;
    std::vector<Flag> runFlags; ///< warnings of compared runs, one of each code, with how many runs carry it
};

/// The level of the question's first factor that a group of the comparison stands for.
Id<Level> levelOfGroup(const Evidence& evidence, const GroupSummary& group);

/// Where no level was mounted twice, the scatter between mounts is taken from finished studies on the bench,
/// else from what is usual for the classes: every pair is then provisional.
Evidence gatherEvidence(const Document& document, const Question& question);

/// From what was mounted alone: none where no level was mounted twice.
Evidence measuredEvidence(const Document& document, const Question& question);

} // namespace ibuki
