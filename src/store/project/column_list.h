// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Makes columns from pointers to members; for the files that list them only (tables_*.cpp).

#include "store/project/cell.h"
#include "store/project/columns.h"
#include "store/project/member_count.h"

namespace ibuki {

template <class T> struct MemberPointer;
template <class E, class T> struct MemberPointer<T E::*> {
    using Of = E;
    using Type = T;
};

template <auto member> ColumnInfo column(const char* name, CellRange range = {}) {
    using E = typename MemberPointer<decltype(member)>::Of;
    using T = typename MemberPointer<decltype(member)>::Type;
    using Type = CellType<T>;
    return {name,
            Type::form,
            Type::optional,
            Type::words(),
            Type::refersTo(),
            [](const void* entity) -> Cell { return Type::to(static_cast<const E*>(entity)->*member); },
            [](void* entity, const Cell& cell) { static_cast<E*>(entity)->*member = Type::from(cell); },
            [](const void* a, const void* b) {
                return static_cast<const E*>(a)->*member == static_cast<const E*>(b)->*member;
            },
            range};
}

/// A column of a choice that is one of some words only.
template <auto member> ColumnInfo column(const char* name, std::span<const std::string_view> words) {
    ColumnInfo made = column<member>(name);
    made.words = words;
    return made;
}

// Wide enough for whatever anybody measures, far below what fills the memory.
inline constexpr CellRange few{0, 1'000};
inline constexpr CellRange counted{0, 1'000'000};
inline constexpr CellRange share{0, 1};
inline constexpr CellRange minutesOfAStep{0, 1'000'000}; ///< two years
inline constexpr CellRange seconds{-3.2e9, 3.2e9};       ///< a hundred years
inline constexpr CellRange positive{0, 1e12};

/// Does not compile when a member of E has no column: the id and the listed ones are all it has.
template <class E, std::size_t n> TableInfo table(const char* name, const ColumnInfo (&columns)[n]) {
    hasMembers<n + 1>(E{});
    return {kindOf<E>, name, {columns, columns + n}, [](std::int64_t id) -> std::shared_ptr<void> {
                auto entity = std::make_shared<E>();
                entity->id = Id<E>{id};
                return entity;
            }};
}

std::vector<TableInfo> benchTables();
std::vector<TableInfo> shelfTables();
std::vector<TableInfo> recordTables();
std::vector<TableInfo> studyTables();
std::vector<TableInfo> planTables();

} // namespace ibuki
