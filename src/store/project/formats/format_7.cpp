// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/formats/format_steps.h"

#include "store/json/json_limits.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <fmt/format.h>
#include <functional>
#include <nlohmann/json.hpp>

namespace ibuki {

// Format 7: what is said is kept as a code and fields. What an older file says stays as it was said: the code
// "said" with the sentence as its field.
const char* const format7 = "";

namespace {

using Json = nlohmann::ordered_json;

Json saidJson(const std::string& text) { return {{"code", "said"}, {"fields", {{"text", text}}}}; }

/// Every text of a column, changed.
void change(SQLite::Database& database, const char* table, const char* key, const char* column,
            const std::function<std::string(const std::string&)>& changed) {
    SQLite::Statement rows(database, fmt::format("SELECT {}, \"{}\" FROM \"{}\"", key, column, table));
    SQLite::Statement row(database,
                          fmt::format("UPDATE \"{}\" SET \"{}\" = ? WHERE {} = ?", table, column, key));
    while (rows.executeStep()) {
        row.bind(1, changed(rows.getColumn(1).getString()));
        row.bind(2, rows.getColumn(0).getInt64());
        row.exec();
        row.reset();
    }
}

std::string saidOf(const std::string& text) { return text.empty() ? text : saidJson(text).dump(); }

/// The messages of all flags in a stored reduction, wherever they stand.
void changeFlags(Json& json) {
    if (!json.is_object() && !json.is_array()) return;
    for (auto& [name, value] : json.items()) {
        if (json.is_object() && name == "flags" && value.is_array())
            for (Json& flag : value)
                if (flag.is_object() && flag.contains("message") && flag["message"].is_string())
                    flag["message"] = saidJson(flag["message"].get<std::string>());
        changeFlags(value);
    }
}

std::string withCodedFlags(const std::string& text) {
    auto sound = soundJson(text);
    if (!sound) return text; // told as damaged when it is read
    Json json = std::move(*sound);
    changeFlags(json);
    return json.dump();
}

} // namespace

void beforeFormat7(SQLite::Database& database) {
    change(database, "run_reduction", "id", "reduction", withCodedFlags);
    change(database, "recording", "id", "read_as", saidOf);
    change(database, "history", "number", "title", saidOf);
}

} // namespace ibuki
