// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Reading an object field by field: a field of the wrong kind or an unknown one is an InputError that names
// it.

#include "core/base/input_error.h"

#include <cmath>
#include <nlohmann/json.hpp>
#include <optional>
#include <set>
#include <string>
#include <type_traits>

namespace ibuki {

/// How a document's troubles are told.
struct JsonFieldErrors {
    const char* described; ///< where its fields are: docs/cli.md, "cut"
};

/// Takes named fields out of an object and remembers which were known.
class JsonFields {
public:
    JsonFields(const nlohmann::json& json, const std::string& fileName, const JsonFieldErrors& errors)
        : json_(json), file_(fileName), errors_(errors) {
        if (!json.is_object()) refuse("json-field.not-an-object");
    }

    template <class T> void take(const char* name, T& value) {
        known_.insert(name);
        if (!json_.contains(name) || json_[name].is_null()) return;
        try {
            if constexpr (std::is_integral_v<T> && !std::is_same_v<T, bool>) {
                const double number = json_[name].template get<double>();
                if (number != std::trunc(number) || std::abs(number) > 2e9)
                    refuse("json-field.wrong-kind", name);
            }
            value = json_[name].get<T>();
        } catch (const nlohmann::json::exception&) {
            refuse("json-field.wrong-kind", name);
        }
    }

    void take(const char* name, std::optional<double>& value) {
        known_.insert(name);
        if (!json_.contains(name)) return;
        if (json_[name].is_null())
            value.reset();
        else if (json_[name].is_number())
            value = json_[name].get<double>();
        else
            refuse("json-field.number-or-null", name);
    }

    void finish() const {
        for (const auto& [name, value] : json_.items())
            if (!known_.contains(name)) refuse("json-field.unknown", name);
    }

    /// code: of a sentence about one field that any document may have.
    [[noreturn]] void refuse(const char* code, const std::string& name = {}) const {
        throw InputError(code, {file_, {}, {}},
                         {{"name", name}, {"described", std::string(errors_.described)}});
    }

private:
    const nlohmann::json& json_;
    const std::string& file_;
    JsonFieldErrors errors_;
    std::set<std::string> known_;
};

} // namespace ibuki
