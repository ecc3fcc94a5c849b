// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// In which order many logs are looked through before they are brought in, without widgets: day by day, the
// doubtful first, those that a word names.

#include "core/quantity/instant.h"

#include <QString>
#include <optional>
#include <vector>

namespace ibuki {

/// What the table says of a log, as far as it is sorted and sought by.
struct ImportLine {
    QString file;
    QString level;
    QString look; ///< doubts; empty: nothing to look at
    int doubts = 0;
    std::optional<Instant> at;
    bool take = true;
};

enum class ImportSort { asGiven, byDay, byDoubt, byFile };

struct ImportFilter {
    QString words; ///< all of them have to stand in file, level or doubts; case does not matter
    bool onlyToLookAt = false;
};

/// One line of the table: a log, or the heading of a day.
struct ImportPlace {
    std::optional<std::size_t> log;
    QString heading;
};

std::vector<ImportPlace> importPlaces(const std::vector<ImportLine>& lines, ImportSort sort,
                                      const ImportFilter& filter);

/// "60 logs, 57 to bring in, 4 to look at"
QString importSummary(const std::vector<ImportLine>& lines);

/// Many logs of several days are easier looked through day by day.
ImportSort typicalSort(const std::vector<ImportLine>& lines);

} // namespace ibuki
