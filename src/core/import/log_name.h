// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the base name of a log says of it: "tern-11_m2_slow-march_run1.csv". The rules are in docs/cli.md.

#include "core/import/stated_row.h"

#include <string_view>

namespace ibuki {

/// Words of a name as they are written, parted at spaces, _ - . and commas.
std::vector<std::string> writtenTokens(std::string_view name);
/// Words of a name in lower case, parted at spaces, _ - . and commas: what names are compared by.
std::vector<std::string> nameTokens(std::string_view name);

/// Names that a file may refer to.
struct KnownNames {
    std::vector<std::string> levels; ///< of the study, and materials of the shelf
    std::vector<std::string> loads;  ///< of the study
};

/// `fileName`: with its ending. hasTime: the log has a time of its own, so a date in its name is not one.
StatedRow statedByName(std::string_view fileName, const KnownNames& known, bool hasTime);

} // namespace ibuki
