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
