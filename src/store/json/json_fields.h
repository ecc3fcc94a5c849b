// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Reading an object field by field. Whatever cannot be used is an InputError that names the file, the path of
// the field ("layers[2].kind"), the value that was found and what is allowed there: one rule for all
// documents.

#include "core/base/input_error.h"

#include <cmath>
#include <limits>
#include <nlohmann/json.hpp>
#include <optional>
#include <set>
#include <string>
#include <type_traits>
#include <vector>

namespace ibuki {

/// How a document's troubles are told.
struct JsonFieldErrors {
    const char* described; ///< where its fields are: docs/cli.md, "cut"
};

/// What a number may be.
struct NumberRange {
    double least = -std::numeric_limits<double>::infinity();
    double most = std::numeric_limits<double>::infinity();
    bool above = false; ///< above the least, not the least itself
    bool holds(double value) const {
        return std::isfinite(value) && (above ? value > least : value >= least) && value <= most;
    }
};
inline constexpr NumberRange notNegative{0, std::numeric_limits<double>::infinity(), false};
inline constexpr NumberRange aboveZero{0, std::numeric_limits<double>::infinity(), true};

/// Takes named fields out of an object and remembers which were known. Refers to the JSON and the name.
class JsonFields {
public:
    /// path: of the object in the document, empty for the whole.
    JsonFields(const nlohmann::json& json, const std::string& fileName, const JsonFieldErrors& errors,
               std::string path = {})
        : json_(json), file_(fileName), errors_(errors), path_(std::move(path)) {
        if (!json.is_object()) refuse("json-field.not-an-object");
    }

    const std::string& file() const { return file_; }
    bool has(const char* name) const { return json_.contains(name) && !json_[name].is_null(); }

    /// Null and what is not there leave the value as it is.
    template <class T> void take(const char* name, T& value, NumberRange range = {}) {
        known_.insert(name);
        if (!has(name)) return;
        const nlohmann::json& found = json_[name];
        if constexpr (std::is_same_v<T, nlohmann::json>) {
            value = found;
        } else if constexpr (std::is_same_v<T, bool>) {
            if (!found.is_boolean()) refuse("json-field.yes-no", name);
            value = found.get<bool>();
        } else if constexpr (std::is_same_v<T, std::string>) {
            if (!found.is_string()) refuse("json-field.text", name);
            value = found.get<std::string>();
        } else {
            if (!found.is_number())
                refuse(std::is_integral_v<T> ? "json-field.whole" : "json-field.number", name);
            const double number = found.get<double>();
            if (std::is_integral_v<T> && (number != std::trunc(number) || std::abs(number) > 2e9))
                refuse("json-field.whole", name);
            require(name, number, range);
            value = found.get<T>();
        }
    }

    void take(const char* name, std::optional<double>& value, NumberRange range = {}) {
        known_.insert(name);
        if (!json_.contains(name)) return;
        if (json_[name].is_null()) return value.reset();
        if (!json_[name].is_number()) refuse("json-field.number-or-null", name);
        value = json_[name].get<double>();
        require(name, *value, range);
    }

    double needNumber(const char* name, NumberRange range = {}) {
        std::optional<double> value;
        take(name, value, range);
        if (!value) refuse("json-field.missing", name);
        return *value;
    }
    std::string needText(const char* name) {
        std::string value;
        take(name, value);
        if (!has(name)) refuse("json-field.missing", name);
        return value;
    }

    /// One of these words; nothing where there is none.
    template <class Choice>
    std::optional<Choice> takeWord(const char* name,
                                   const std::vector<std::pair<std::string, Choice>>& words) {
        std::string word;
        take(name, word);
        if (!has(name)) return std::nullopt;
        std::vector<std::string> allowed;
        for (const auto& [one, choice] : words) {
            if (one == word) return choice;
            allowed.push_back(one);
        }
        refuse("json-field.word", name, {{"allowed", allowed}});
    }

    /// Every element of a list with its own path; none where the list is not there.
    template <class Take> void each(const char* name, std::size_t most, Take&& read) {
        known_.insert(name);
        if (!has(name)) return;
        const nlohmann::json& list = json_[name];
        if (!list.is_array() || list.size() > most)
            refuse("json-field.list", name, {{"most", static_cast<long>(most)}});
        for (std::size_t i = 0; i < list.size(); ++i)
            read(list[i], pathOf(name) + "[" + std::to_string(i) + "]");
    }

    /// An object inside; nothing where it is not there.
    std::optional<JsonFields> object(const char* name) {
        known_.insert(name);
        if (!has(name)) return std::nullopt;
        return JsonFields(json_[name], file_, errors_, pathOf(name));
    }

    void finish() const {
        for (const auto& [name, value] : json_.items())
            if (!known_.contains(name))
                refuse("json-field.unknown", name,
                       {{"allowed", std::vector<std::string>(known_.begin(), known_.end())}});
    }

    /// code: of a sentence with {name}, the path of the field, {found}, its value, and {described}.
    [[noreturn]] void refuse(const char* code, const std::string& name = {}, Fields more = {}) const {
        more.push_back({"name", name.empty() ? (path_.empty() ? "{}" : path_) : pathOf(name)});
        more.push_back({"found", found(name)});
        more.push_back({"described", std::string(errors_.described)});
        throw InputError(code, {file_, {}, {}}, std::move(more));
    }

private:
    std::string pathOf(const std::string& name) const { return path_.empty() ? name : path_ + "." + name; }
    /// As it stands there, cut short.
    std::string found(const std::string& name) const {
        constexpr std::size_t longest = 60;
        const bool inside = !name.empty() && json_.is_object() && json_.contains(name);
        if (!name.empty() && !inside) return {};
        std::string text =
            (inside ? json_[name] : json_).dump(-1, ' ', false, nlohmann::json::error_handler_t::replace);
        if (text.size() <= longest) return text;
        std::size_t end = longest;
        while (end > 0 && (static_cast<unsigned char>(text[end]) & 0xC0U) == 0x80U) --end;
        return text.substr(0, end) + "…";
    }
    void require(const char* name, double value, const NumberRange& range) const {
        if (range.holds(value)) return;
        const bool toMost = std::isfinite(range.most);
        const bool fromLeast = std::isfinite(range.least);
        refuse(toMost && fromLeast ? (range.above ? "json-field.above-to" : "json-field.between")
               : toMost            ? "json-field.at-most"
               : range.above       ? "json-field.above"
               : fromLeast         ? "json-field.at-least"
                                   : "json-field.number",
               name, {{"least", range.least}, {"most", range.most}});
    }

    const nlohmann::json& json_;
    const std::string& file_;
    JsonFieldErrors errors_;
    std::string path_;
    std::set<std::string> known_;
};

} // namespace ibuki
