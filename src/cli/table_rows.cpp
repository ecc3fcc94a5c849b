// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/table_rows.h"

#include "cli/verb.h"
#include "core/base/input_error.h"
#include "words/words.h"

#include <map>

namespace ibuki {
namespace {

struct WhereCondition {
    std::size_t column;
    std::string value;
};

std::vector<WhereCondition> conditions(const Table& table, const std::vector<std::string>& where) {
    std::vector<WhereCondition> all;
    for (const std::string& text : where) {
        const auto mark = text.find('=');
        const auto column = mark == std::string::npos ? std::nullopt : table.find(text.substr(0, mark));
        if (!column)
            throw UsageError(words::say("--where: \"{text}\" is not COLUMN=VALUE with a column of the table",
                                        {{"text", text}}));
        all.push_back({*column, text.substr(mark + 1)});
    }
    return all;
}

} // namespace

std::vector<std::size_t> selectedRows(const Table& table, const std::vector<std::string>& where) {
    const auto all = conditions(table, where);
    const auto excluded = OptionalColumn::found(table, "excluded");
    std::vector<std::size_t> rows;
    for (std::size_t row = 0; row < table.rows(); ++row) {
        bool holds = true;
        for (const WhereCondition& condition : all)
            holds = holds && table.text(row, condition.column) == condition.value;
        if (holds && !excluded.truth(row)) rows.push_back(row);
    }
    return rows;
}

void refuseMixedMounts(const Table& table, const std::string& file, const std::vector<std::size_t>& rows,
                       const std::vector<std::string>& columns, std::size_t group, std::size_t mount) {
    for (const std::string& name : columns) {
        const auto column = table.find(name);
        if (!column) continue;
        std::map<std::pair<std::string, std::string>, std::string> first;
        for (std::size_t row : rows) {
            const std::string& value = table.text(row, *column);
            const auto key = std::pair{table.text(row, group), table.text(row, mount)};
            const auto [entry, isNew] = first.emplace(key, value);
            if (!isNew && entry->second != value)
                throw InputError(
                    "compare-mixed", {file, {}, {}},
                    {{"name", name}, {"mount", key.second}, {"group", key.first}, {"value", value}});
        }
    }
}

std::string unitOfColumn(const std::string& column) {
    if (isTemperatureColumn(column)) return "K";
    return column == "rth_K_per_W" ? "K/W" : column;
}

} // namespace ibuki
