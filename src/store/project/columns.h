// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How each domain value stands in the project file: one table a kind, one column a member. Reading, writing,
// the history and the shelf's files all follow from these lists (docs/file-format.md); the tables themselves
// are made and brought up to date by fixed SQL (migrations.h), and a test holds the two together.

#include "core/domain/entities.h"

#include <cstdint>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

namespace ibuki {

using Cell = std::variant<std::monostate, std::int64_t, double, std::string>;

enum class CellForm { text, number, whole, date, choice, reference, json };

/// What a number can be; a file that says otherwise is damaged, or made to harm.
struct CellRange {
    double least = -1e15;
    double most = 1e15;
};

/// One member of a kind. get, set and equal take values of that kind.
struct ColumnInfo {
    const char* name;
    CellForm form;
    bool optional;                           ///< may be NULL
    std::span<const std::string_view> words; ///< of a choice
    std::optional<EntityKind> refersTo;      ///< of a reference
    Cell (*get)(const void* entity);
    void (*set)(void* entity, const Cell& cell); ///< throws InputError (project-damaged)
    bool (*equal)(const void* a, const void* b);
    CellRange range = {};

    /// Above what the member can be; false of a cell that is no number.
    bool isTooLarge(const Cell& cell) const;
    /// set() with range and words looked at. Throws InputError (project-damaged).
    void setChecked(void* entity, const Cell& cell) const;

    std::string_view sqlType() const; ///< TEXT, REAL, INTEGER
};

struct TableInfo {
    EntityKind kind;
    const char* name;
    std::vector<ColumnInfo> columns;
    std::shared_ptr<void> (*fresh)(std::int64_t id); ///< a value with its defaults
};

/// In the order of Entities.
const std::vector<TableInfo>& tables();
const TableInfo& tableOf(EntityKind kind);

} // namespace ibuki
