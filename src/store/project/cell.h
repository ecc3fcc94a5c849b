// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A domain member as one cell of a table, and back. What cannot be read is an InputError (project-damaged).

#include "core/base/input_error.h"
#include "core/base/utf8.h"
#include "core/domain/words.h"
#include "store/json/json_limits.h"
#include "store/project/columns.h"

#include <cmath>
#include <limits>
#include <string>
#include <type_traits>

namespace ibuki {

[[noreturn]] inline void refuseCell(const char* kind) {
    throw InputError("project-damaged.cell", {}, {{"kind", kind}});
}

/// What most members share: they must be there, are no choice and refer to nothing.
template <CellForm cellForm> struct PlainCell {
    static constexpr CellForm form = cellForm;
    static constexpr bool optional = false;
    static std::span<const std::string_view> words() { return {}; }
    static std::optional<EntityKind> refersTo() { return std::nullopt; }
};

template <class T> struct CellType; ///< a PlainCell with to(value) and from(cell)

template <> struct CellType<std::string> : PlainCell<CellForm::text> {
    static Cell to(const std::string& value) { return value; }
    static std::string from(const Cell& cell) {
        if (const auto* text = std::get_if<std::string>(&cell); text && isUtf8(*text)) return *text;
        refuseCell("text");
    }
};
template <> struct CellType<double> : PlainCell<CellForm::number> {
    static Cell to(double value) { return value; }
    static double from(const Cell& cell) {
        if (const auto* number = std::get_if<double>(&cell); number && std::isfinite(*number)) return *number;
        if (const auto* whole = std::get_if<std::int64_t>(&cell)) return static_cast<double>(*whole);
        refuseCell("number");
    }
};
template <class T>
requires std::is_integral_v<T>
struct CellType<T> : PlainCell<CellForm::whole> {
    static Cell to(T value) { return static_cast<std::int64_t>(value); }
    static T from(const Cell& cell) {
        if (const auto* whole = std::get_if<std::int64_t>(&cell); whole && fits(*whole))
            return static_cast<T>(*whole);
        refuseCell("whole number");
    }

private:
    static bool fits(std::int64_t whole) {
        return whole >= static_cast<std::int64_t>(std::numeric_limits<T>::min())
               && whole <= static_cast<std::int64_t>(std::numeric_limits<T>::max());
    }
};
template <class T>
requires std::is_enum_v<T>
struct CellType<T> : PlainCell<CellForm::choice> {
    static std::span<const std::string_view> words() { return Words<T>::all; }
    static Cell to(T value) { return std::string(word(value)); }
    static T from(const Cell& cell) {
        if (const auto* text = std::get_if<std::string>(&cell))
            if (const auto value = fromWord<T>(*text)) return *value;
        refuseCell("known word");
    }
};
/// Numbers that belong together, as a JSON list.
template <std::size_t n> struct CellType<std::array<double, n>> : PlainCell<CellForm::json> {
    static Cell to(const std::array<double, n>& value) { return nlohmann::json(value).dump(); }
    static std::array<double, n> from(const Cell& cell) {
        const auto json = soundJson(CellType<std::string>::from(cell));
        if (!json || !json->is_array() || json->size() != n) refuseCell("list of numbers");
        std::array<double, n> value{};
        for (std::size_t i = 0; i < n; ++i) {
            if (!json->at(i).is_number()) refuseCell("list of numbers");
            value[i] = json->at(i).template get<double>();
        }
        return value;
    }
};
/// Ids as a JSON list: what they refer to may be gone.
template <class E> struct CellType<std::vector<Id<E>>> : PlainCell<CellForm::json> {
    static Cell to(const std::vector<Id<E>>& ids) {
        auto list = nlohmann::json::array();
        for (const Id<E> id : ids) list.push_back(id.value);
        return list.dump();
    }
    static std::vector<Id<E>> from(const Cell& cell) {
        const auto json = soundJson(CellType<std::string>::from(cell));
        if (!json || !json->is_array()) refuseCell("list of ids");
        std::vector<Id<E>> ids;
        for (const auto& one : *json) {
            if (!one.is_number_integer()) refuseCell("list of ids");
            ids.push_back({one.template get<std::int64_t>()});
        }
        return ids;
    }
};
template <class E> struct CellType<Id<E>> : PlainCell<CellForm::reference> {
    static std::optional<EntityKind> refersTo() { return kindOf<E>; }
    static Cell to(Id<E> id) { return id.value; }
    static Id<E> from(const Cell& cell) { return {CellType<std::int64_t>::from(cell)}; }
};
template <> struct CellType<Instant> : PlainCell<CellForm::date> {
    static Cell to(Instant instant) { return isoText(instant); }
    static Instant from(const Cell& cell) {
        if (const auto instant = parseInstant(CellType<std::string>::from(cell))) return *instant;
        refuseCell("date");
    }
};
template <> struct CellType<Celsius> : PlainCell<CellForm::number> {
    static Cell to(Celsius value) { return value.value; }
    static Celsius from(const Cell& cell) { return {CellType<double>::from(cell)}; }
};
template <> struct CellType<Kelvin> : PlainCell<CellForm::number> {
    static Cell to(Kelvin value) { return value.value; }
    static Kelvin from(const Cell& cell) { return {CellType<double>::from(cell)}; }
};
template <> struct CellType<Weekdays> : PlainCell<CellForm::text> {
    static Cell to(const Weekdays& days) { return days.text(); }
    static Weekdays from(const Cell& cell) { return parseWeekdays(CellType<std::string>::from(cell)); }
};
template <> struct CellType<Delay> : PlainCell<CellForm::text> {
    static Cell to(const Delay& delay) { return delay.text(); }
    static Delay from(const Cell& cell) {
        const auto read = parseDelays(CellType<std::string>::from(cell));
        if (read.size() != 1) refuseCell("time to come back after");
        return read.front();
    }
};
template <> struct CellType<std::vector<Delay>> : PlainCell<CellForm::text> {
    static Cell to(const std::vector<Delay>& delays) { return textOf(delays); }
    static std::vector<Delay> from(const Cell& cell) {
        return parseDelays(CellType<std::string>::from(cell));
    }
};
template <class Tag> struct CellType<Quantity<Tag>> : PlainCell<CellForm::number> {
    static Cell to(Quantity<Tag> value) { return value.value; }
    static Quantity<Tag> from(const Cell& cell) { return {CellType<double>::from(cell)}; }
};
template <class T> struct CellType<std::optional<T>> : CellType<T> {
    static constexpr bool optional = true;
    static Cell to(const std::optional<T>& value) { return value ? CellType<T>::to(*value) : Cell{}; }
    static std::optional<T> from(const Cell& cell) {
        if (std::holds_alternative<std::monostate>(cell)) return std::nullopt;
        return CellType<T>::from(cell);
    }
};

} // namespace ibuki
