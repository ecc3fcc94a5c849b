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
    const char*
        code; ///< of the sentences "code.not-an-object", ".wrong-kind", ".number-or-null" and ".unknown"
};

/// Takes named fields out of an object and remembers which were known.
class JsonFields {
public:
    JsonFields(const nlohmann::json& json, const std::string& fileName, const JsonFieldErrors& errors)
        : json_(json), file_(fileName), errors_(errors) {
        if (!json.is_object()) refuse("not-an-object");
    }

    template <class T> void take(const char* name, T& value) {
        known_.insert(name);
        if (!json_.contains(name) || json_[name].is_null()) return;
        try {
            if constexpr (std::is_integral_v<T> && !std::is_same_v<T, bool>) {
                const double number = json_[name].template get<double>();
                if (number != std::trunc(number) || std::abs(number) > 2e9) refuse("wrong-kind", name);
            }
            value = json_[name].get<T>();
        } catch (const nlohmann::json::exception&) {
            refuse("wrong-kind", name);
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
            refuse("number-or-null", name);
    }

    void finish() const {
        for (const auto& [name, value] : json_.items())
            if (!known_.contains(name)) refuse("unknown", name);
    }

    [[noreturn]] void refuse(const std::string& variant, const std::string& name = {}) const {
        throw InputError(std::string(errors_.code) + "." + variant, {file_, {}, {}}, {{"name", name}});
    }

private:
    const nlohmann::json& json_;
    const std::string& file_;
    JsonFieldErrors errors_;
    std::set<std::string> known_;
};

} // namespace ibuki
