// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The tidy table (one row a run) and the values of it that enter a comparison.

#include "core/design/design.h"
#include "core/domain/document.h"
#include "core/domain/study.h"
#include "core/stats/compare.h"

#include <map>

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
    std::string load;            ///< its name
    std::string person;          ///< who mounted it; empty: not stated
    std::optional<double> roomC; ///< over the steady window
    std::string purpose;
    std::optional<double> ageH;
    std::optional<int> cycles;
    std::map<Metric, double> metricsC; ///< temperatures over the steady window
    std::optional<double> deltaK;      ///< of the question's metric over room
    std::optional<double> rthKPerW;
    std::optional<double> powerW;
    std::optional<double> clockMHz;
    std::optional<double> fan; ///< in its channel's unit
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
std::vector<TidyRow> tidyTable(const Document& document, const Question& question, const Design& design);

/// Whether it can be compared under its load: of a level, fresh, not excluded, with a response.
bool enters(const TidyRow& row);

/// The load whose runs are compared (as loadIdentity): the one the question names, else the one under which
/// the most mounts were measured, the first of several. Runs under others are no repeats of it.
Id<Load> comparedLoad(const Document& document, const std::vector<TidyRow>& rows, const Question& question);

/// The study's loads and those of other studies that its runs were under, each once.
std::vector<Id<Load>> loadChoices(const Document& document, Id<Study> study);

/// The load of that identity as the study calls it; of another study where it has none; may be nullptr.
const Load* studysLoad(const Document& document, Id<Study> study, Id<Load> identity);

/// Rows that enter the comparison: levels only, fresh runs under the compared load, neither excluded nor
/// without a response. Their groups are the design's cells, by index + 1; blocks and covariate are those the
/// question takes out (NaN: not known). K/W is measured in full at the limit too.
std::vector<RunValue> comparedRuns(const std::vector<TidyRow>& rows, Id<Load> load, const Design& design,
                                   const Question& question);

} // namespace ibuki
