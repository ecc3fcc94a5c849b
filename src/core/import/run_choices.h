// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Under which load each run of an import is, and whether it is fresh or a later look (docs/cli.md, import).

#include "core/import/import_rows.h"

namespace ibuki {

constexpr double laterLookH = 12; ///< a run that begins so long after one of its load is a later look

/// Fills `runs` of each row that is of a mount, in the order of the loads found in its log, once their levels
/// and mounts are settled, again where these were changed; flags at the row what was taken to be so
/// (taken-as-check, loads-unlike).
void chooseRuns(const Document& document, Id<Study> study, const std::vector<ImportedLog>& logs,
                const std::vector<StatedRow>& stated, std::vector<ImportRow>& rows);

} // namespace ibuki
