// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the name of a log, or a row of a table, says of one log or of one figure without a log. What is empty
// is not stated; what it means for a study is settled by proposeImport.

#include "core/domain/mount.h"
#include "core/domain/side_response.h"
#include "core/quantity/instant.h"
#include "core/trace/metric_kind.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace ibuki {

enum class StatedPurpose { fresh, check, conditioning, excluded };

/// Readings that no log gives, °C, K, W, MHz and rpm.
struct StatedFigures {
    std::map<Metric, double> metricsC; ///< means over the steady part
    std::optional<double> deltaK;      ///< over the room, of the question's metric
    std::optional<double> idleC;       ///< of the question's metric
    std::optional<double> powerW;
    std::optional<double> clockMHz;
    std::optional<double> fanRpm;
    std::map<SideResponse, double> readings;
    bool atLimit = false;
    bool operator==(const StatedFigures&) const = default;
};

struct StatedRow {
    std::string level; ///< as written; empty: not stated
    std::string mount; ///< number or name inside the level
    std::string load;
    std::optional<double> nominalW; ///< a load that is stated by its power
    std::optional<int> run;
    std::optional<StatedPurpose> purpose;
    std::optional<Instant> when;
    std::optional<double> ageH; ///< since the mount was made
    std::optional<double> cycles;
    std::optional<double> roomC;
    double roomUK = 0.5; ///< standard uncertainty of roomC
    StatedFigures figures;
    std::string rejected; ///< why the mount does not count
    std::string remark;
    std::string table;        ///< file that the row stands in; empty: the log's own name says all this
    std::optional<long> line; ///< of it, 1-based

    bool isTable() const { return !table.empty(); }
    bool operator==(const StatedRow&) const = default;
};

} // namespace ibuki
