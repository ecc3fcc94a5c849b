// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A table from whichever kind of file: text, or a sheet of a workbook.

#include "store/table/table.h"

namespace ibuki {

/// By the file's ending: .xlsx and .ods are workbooks, of which `sheet` is read (empty: the first), anything
/// else is text. Throws what readTableFile throws.
Table readAnyTable(const std::string& path, const std::string& sheet);

} // namespace ibuki
