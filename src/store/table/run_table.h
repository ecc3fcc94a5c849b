// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A table of runs, one row a log or a figure without a log: the columns of docs/cli.md (import).

#include "core/base/flag.h"
#include "core/import/stated_row.h"
#include "store/table/table.h"

namespace ibuki {

struct RunTableRow {
    std::string file; ///< of the log, as it is written; empty: a figure without a log
    StatedRow said;
};

struct RunTable {
    std::vector<RunTableRow> rows; ///< blank ones left out
    std::vector<Flag> flags;       ///< column-ignored
};

/// Throws InputError naming row and column: import-table-empty, import-table-twice (two columns of one
/// meaning), import-table-no-figure (a row without a log has neither temperature nor difference), and for
/// cells that cannot be: table-not-a-number, table-not-a-truth, import-table-cell.
RunTable runTable(const Table& table, const std::string& fileName);

} // namespace ibuki
