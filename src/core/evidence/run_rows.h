// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The runs of a study, one row each, by ids, enumerations and numbers; the values of them that enter a
// comparison. What is exported with names is made from them at the border (store/table/tidy_row.h).

#include "core/comparison/compare.h"
#include "core/design/design.h"
#include "core/domain/document.h"
#include "core/domain/study.h"

#include <map>

namespace ibuki {

struct RunRow {
    Id<Mount> mountId;
    std::string mount; ///< its name, to be shown
    Id<Run> runId;
    int repeat = 1;
    Id<Load> loadId;              ///< as loadIdentity; 0 where none is stated
    std::optional<Id<Load>> load; ///< as the run has it
    SlotKind kind = SlotKind::level;
    Purpose purpose = Purpose::fresh; ///< the run's own; exportedPurpose is what tables say
    std::optional<Id<Level>> level;   ///< of the question's first factor
    std::optional<Id<Material>> material;
    std::optional<Id<Lot>> lot;
    std::optional<std::size_t> cell; ///< of the question's design: what it is compared as
    int order = 0;
    std::string block;                 ///< day or session, as it is written
    std::string person;                ///< who mounted it; empty: not stated
    std::optional<double> ambientC;    ///< over the steady window
    std::map<Metric, double> metricsC; ///< temperatures over the steady window
    std::optional<double> deltaK;      ///< of the question's metric over room
    std::optional<double> rthKPerW;
    std::optional<double> powerW;
    std::optional<double> clockMHz;
    std::optional<double> fan;      ///< in its channel's unit
    std::optional<double> response; ///< what the question compares
    bool censored = false;
    bool excluded = false; ///< the mount or the run was rejected
};

/// "node-1/2": its mount and its number.
std::string runName(const RunRow& row);

/// Runs on check mounts are checks, whatever they were made as.
Purpose exportedPurpose(const RunRow& row);

/// Every run of the study's mounts that is not withdrawn, in the order of the bench's record.
std::vector<RunRow> runRows(const Document& document, const Question& question);
std::vector<RunRow> runRows(const Document& document, const Question& question, const Design& design);

/// Whether it can be compared under its load: of a level, fresh, not excluded, with a response.
bool enters(const RunRow& row);

/// Which rows a mean over a mount's runs is of. A row without the value never counts.
struct MountRule {
    bool levels = true;       ///< mounts of levels
    bool checkMounts = false; ///< mounts of the known material
    bool rejected = false;    ///< rejected mounts and runs too
    bool atLimit = true;      ///< runs at the temperature limit too
    bool onlyFresh = true;    ///< no later looks, no conditioning
    std::optional<double> RunRow::*value = &RunRow::response;
};

/// A mount by the mean of its runs that count.
struct MountFigure {
    Id<Mount> mount;
    SlotKind kind = SlotKind::level;
    std::optional<Id<Level>> level;
    std::optional<Id<Material>> material;
    std::optional<std::size_t> cell;
    int order = 0;
    int runs = 0;
    double value = 0;
    std::optional<double> powerW; ///< means of the runs that have it
    std::optional<double> ambientC;
    std::optional<double> clockMHz;
    bool censored = false; ///< a run of them reached the limit
    bool excluded = false; ///< a run of them was rejected
};

/// In order of first appearance; under one load (as loadIdentity), or all loads together.
std::vector<MountFigure> mountFigures(const std::vector<RunRow>& rows, std::optional<Id<Load>> load,
                                      const MountRule& rule);

/// Powers of one mount and load that are farther apart are of different loads: the greater is more than this
/// above the smaller.
constexpr double unlikePowerShare = 0.05;
bool isUnlikePower(double a, double b);

/// Under its load; nothing where it was not logged or has no figures.
std::optional<double> runPowerW(const Document& document, const Run& run);

/// A run of the same mount, load and purpose has an unlike power: they are averaged all the same.
bool hasUnlikeTwin(const Document& document, const Run& run);

/// Mounts of which runs that enter under the load (as loadIdentity) have unlike powers: their mean is that of
/// several loads. Names, in the order of the rows.
std::vector<std::string> mountsOfUnlikePower(const std::vector<RunRow>& rows, Id<Load> load);

/// The load whose runs are compared (as loadIdentity): the one the question names, else the one under which
/// the most mounts were measured, the first of several. Runs under others are no repeats of it.
Id<Load> comparedLoad(const Document& document, const std::vector<RunRow>& rows, const Question& question);

/// The study's loads and those of other studies that its runs were under, each once.
std::vector<Id<Load>> loadChoices(const Document& document, Id<Study> study);

/// The load of that identity as the study calls it; of another study where it has none; may be nullptr.
const Load* studysLoad(const Document& document, Id<Study> study, Id<Load> identity);

/// What a comparison calls the mounts of a cell.
Named groupOf(const DesignCell& cell);

/// Rows that enter the comparison: levels only, fresh runs under the compared load, neither excluded nor
/// without a response. Their groups are the design's cells; blocks and covariate are those the
/// question takes out (NaN: not known). K/W is measured in full at the limit too.
std::vector<RunValue> comparedRuns(const std::vector<RunRow>& rows, Id<Load> load, const Design& design,
                                   const Question& question);

} // namespace ibuki
