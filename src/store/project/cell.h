// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A domain member as one cell of a table, and back. What cannot be read is an InputError (project-damaged).

#include "core/domain/bytes.h"
#include "core/domain/input_error.h"
#include "core/domain/words.h"
#include "store/json/reduction_json.h"

#include <cstdint>
#include <string>
#include <type_traits>
#include <variant>

namespace ibuki {

using Cell = std::variant<std::monostate, std::int64_t, double, std::string, Bytes>;

[[noreturn]] inline void refuseCell(const char* kind) {
    throw InputError("project-damaged", {}, std::string("a cell of the project is no ") + kind,
                     "Open a copy made earlier");
}

template <class T> struct CellType; ///< sql, toCell, fromCell

template <> struct CellType<std::string> {
    static constexpr const char* sql = "TEXT NOT NULL";
    static Cell to(const std::string& value) { return value; }
    static std::string from(const Cell& cell) {
        if (const auto* text = std::get_if<std::string>(&cell)) return *text;
        refuseCell("text");
    }
};
template <> struct CellType<Bytes> {
    static constexpr const char* sql = "BLOB NOT NULL";
    static Cell to(const Bytes& value) { return value; }
    static Bytes from(const Cell& cell) {
        if (const auto* bytes = std::get_if<Bytes>(&cell)) return *bytes;
        refuseCell("file");
    }
};
template <> struct CellType<double> {
    static constexpr const char* sql = "REAL NOT NULL";
    static Cell to(double value) { return value; }
    static double from(const Cell& cell) {
        if (const auto* number = std::get_if<double>(&cell)) return *number;
        if (const auto* whole = std::get_if<std::int64_t>(&cell)) return static_cast<double>(*whole);
        refuseCell("number");
    }
};
template <class T>
requires std::is_integral_v<T>
struct CellType<T> {
    static constexpr const char* sql = "INTEGER NOT NULL";
    static Cell to(T value) { return static_cast<std::int64_t>(value); }
    static T from(const Cell& cell) {
        if (const auto* whole = std::get_if<std::int64_t>(&cell)) return static_cast<T>(*whole);
        refuseCell("whole number");
    }
};
template <class T>
requires std::is_enum_v<T>
struct CellType<T> {
    static constexpr const char* sql = "TEXT NOT NULL";
    static Cell to(T value) { return std::string(word(value)); }
    static T from(const Cell& cell) {
        if (const auto* text = std::get_if<std::string>(&cell))
            if (const auto value = fromWord<T>(*text)) return *value;
        refuseCell("known word");
    }
};
template <class E> struct CellType<Id<E>> {
    static constexpr const char* sql = "INTEGER NOT NULL";
    static Cell to(Id<E> id) { return id.value; }
    static Id<E> from(const Cell& cell) { return {CellType<std::int64_t>::from(cell)}; }
};
template <> struct CellType<Instant> {
    static constexpr const char* sql = "TEXT NOT NULL";
    static Cell to(Instant instant) { return isoText(instant); }
    static Instant from(const Cell& cell) {
        if (const auto instant = parseInstant(CellType<std::string>::from(cell))) return *instant;
        refuseCell("date");
    }
};
template <> struct CellType<Celsius> {
    static constexpr const char* sql = "REAL NOT NULL";
    static Cell to(Celsius value) { return value.value; }
    static Celsius from(const Cell& cell) { return {CellType<double>::from(cell)}; }
};
template <> struct CellType<Kelvin> {
    static constexpr const char* sql = "REAL NOT NULL";
    static Cell to(Kelvin value) { return value.value; }
    static Kelvin from(const Cell& cell) { return {CellType<double>::from(cell)}; }
};
template <class Tag> struct CellType<Quantity<Tag>> {
    static constexpr const char* sql = "REAL NOT NULL";
    static Cell to(Quantity<Tag> value) { return value.value; }
    static Quantity<Tag> from(const Cell& cell) { return {CellType<double>::from(cell)}; }
};
template <> struct CellType<Reduction> {
    static constexpr const char* sql = "TEXT NOT NULL";
    static Cell to(const Reduction& value) { return toJson(value).dump(); }
    static Reduction from(const Cell& cell) {
        const auto json = nlohmann::ordered_json::parse(CellType<std::string>::from(cell), nullptr, false);
        if (json.is_discarded()) refuseCell("stored reduction");
        return reductionFromJson(json);
    }
};
template <> struct CellType<ReduceSettings> {
    static constexpr const char* sql = "TEXT NOT NULL";
    static Cell to(const ReduceSettings& value) { return toJson(value).dump(); }
    static ReduceSettings from(const Cell& cell) {
        const std::string text = CellType<std::string>::from(cell);
        if (text.empty()) return {}; // reduced before settings were stored
        const auto json = nlohmann::ordered_json::parse(text, nullptr, false);
        if (json.is_discarded()) refuseCell("stored setting");
        return settingsFromJson(json);
    }
};
template <class T> struct CellType<std::optional<T>> {
    static constexpr std::string_view full = CellType<T>::sql;
    static constexpr const char* sql = full.starts_with("TEXT")   ? "TEXT"
                                       : full.starts_with("REAL") ? "REAL"
                                                                  : "INTEGER";
    static Cell to(const std::optional<T>& value) { return value ? CellType<T>::to(*value) : Cell{}; }
    static std::optional<T> from(const Cell& cell) {
        if (std::holds_alternative<std::monostate>(cell)) return std::nullopt;
        return CellType<T>::from(cell);
    }
};

/// The table a member refers to, or nullptr.
template <class T> struct Refers { using To = void; };
template <class E> struct Refers<Id<E>> { using To = E; };
template <class E> struct Refers<std::optional<Id<E>>> { using To = E; };

} // namespace ibuki
