// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What an import brought in, run by run, as the command tells it (docs/cli.md, import).

#include "store/project/evening_import.h"

#include <nlohmann/json.hpp>

namespace ibuki {

struct ImportReport {
    struct Row {
        std::optional<std::string> file; ///< nothing: a figure without a log
        std::string level;
        bool levelNew = false;
        std::string mount; ///< its number or name inside the level
        std::string load;
        bool loadNew = false;
        int run = 0; ///< 0: of no mount
        std::string purpose;
        std::optional<Instant> when;
        std::optional<double> ageH;
        std::optional<double> temperatureC;
        std::optional<double> roomC;
        std::optional<double> deltaK;
        std::optional<double> powerW;
        std::vector<Flag> flags;
    };

    std::string project;
    std::string bench;
    std::string study;
    std::vector<Flag> flags; ///< of the whole
    std::vector<Row> rows;
    bool written = false;
};

/// before: the record that the evening was brought into.
ImportReport importReport(const Document& before, const BroughtEvening& evening);

nlohmann::ordered_json toJson(const ImportReport& report);

} // namespace ibuki
