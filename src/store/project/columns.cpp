// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/columns.h"

#include "store/project/column_list.h"

#include <algorithm>

namespace ibuki {

std::string_view ColumnInfo::sqlType() const {
    switch (form) {
    case CellForm::number:
        return "REAL";
    case CellForm::whole:
    case CellForm::reference:
        return "INTEGER";
    default:
        return "TEXT";
    }
}

namespace {

/// Of a column of numbers; references are none.
std::optional<double> numberIn(const ColumnInfo& column, const Cell& cell) {
    if (column.form != CellForm::number && column.form != CellForm::whole) return std::nullopt;
    if (const auto* whole = std::get_if<std::int64_t>(&cell)) return static_cast<double>(*whole);
    if (const auto* number = std::get_if<double>(&cell)) return *number;
    return std::nullopt;
}

} // namespace

bool ColumnInfo::isTooLarge(const Cell& cell) const {
    const auto number = numberIn(*this, cell);
    return number && *number > range.most;
}

void ColumnInfo::setChecked(void* entity, const Cell& cell) const {
    const auto number = numberIn(*this, cell);
    if (number && !(*number >= range.least && *number <= range.most))
        throw InputError("project-damaged.range", {},
                         {{"value", *number}, {"least", range.least}, {"most", range.most}});
    if (const auto* text = std::get_if<std::string>(&cell);
        text && form == CellForm::choice && std::find(words.begin(), words.end(), *text) == words.end())
        refuseCell("known word");
    set(entity, cell);
}

const std::vector<TableInfo>& tables() {
    static const std::vector<TableInfo> all = [] {
        std::vector<TableInfo> listed;
        for (const auto& some : {benchTables(), shelfTables(), recordTables(), studyTables(), planTables()})
            listed.insert(listed.end(), some.begin(), some.end());
        std::sort(listed.begin(), listed.end(),
                  [](const TableInfo& a, const TableInfo& b) { return a.kind < b.kind; });
        return listed;
    }();
    return all;
}

const TableInfo& tableOf(EntityKind kind) { return tables()[indexOf(kind)]; }

} // namespace ibuki
