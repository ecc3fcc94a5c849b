// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The shelf as a file: CSV with one row a lot, or JSON with the lots inside their materials. Column names are
// those of the project's tables (docs/file-format.md, "Shelf").

#include "core/domain/edit.h"

#include <string>
#include <string_view>

namespace ibuki {

std::string shelfCsv(const Document& document);
std::string shelfJson(const Document& document);

struct ShelfImport {
    int newMaterials = 0;
    int newLots = 0;
    int changed = 0; ///< materials and lots that were there under the same name and differ
};

/// Adds what is new and updates what has the same name; a column or field that is missing leaves its value.
/// Throws InputError (shelf-column, shelf-cell, shelf-name, price-currency, shelf-value and those of tables
/// and JSON) with line and column; the edit is then to be thrown away.
ShelfImport importShelf(Edit& edit, std::string_view bytes, const std::string& fileName);

} // namespace ibuki
