// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/json_lines.h"

#include "core/base/input_error.h"
#include "store/log/text.h"

#include <algorithm>
#include <nlohmann/json.hpp>
#include <unordered_map>
#include <vector>

namespace ibuki {
namespace {

using Json = nlohmann::ordered_json;
constexpr std::size_t mostColumns = 4'000;

/// Values of one object under their joined keys.
using Cells = std::vector<std::pair<std::string, std::string>>;

std::string inQuotes(const std::string& text) {
    std::string out = "\"";
    for (char c : text) {
        if (c == '"') out += '"';
        out += c == '\n' || c == '\r' ? ' ' : c;
    }
    return out + '"';
}

std::string cellOf(const Json& value) {
    if (value.is_null()) return {};
    if (value.is_boolean()) return value.get<bool>() ? "1" : "0";
    if (value.is_string()) return inQuotes(value.get<std::string>());
    return value.dump();
}

std::string joined(const std::string& outer, const std::string& inner) {
    std::string key = outer;
    if (!key.empty()) key += ' ';
    return key += inner;
}

void flatten(const Json& value, const std::string& key, Cells& cells, int depth) {
    if (depth > 6) return; // no logger nests deeper
    if (value.is_object()) {
        for (const auto& [name, inner] : value.items()) flatten(inner, joined(key, name), cells, depth + 1);
    } else if (value.is_array()) {
        for (std::size_t i = 0; i < value.size(); ++i)
            flatten(value[i], joined(key, std::to_string(i)), cells, depth + 1);
    } else {
        cells.emplace_back(key, cellOf(value));
    }
}

Cells cellsOf(std::string_view line) {
    Cells cells;
    const Json json = Json::parse(line, nullptr, false);
    if (json.is_object()) flatten(json, {}, cells, 0);
    return cells;
}

} // namespace

bool looksLikeJsonLines(std::string_view text) {
    int seen = 0;
    while (!text.empty() && seen < 3) {
        const std::string_view line = trim(takeLine(text));
        if (line.empty()) continue;
        if (line.front() != '{') return false;
        if (!line.ends_with('}')) return seen > 0; // the last one may be cut off
        ++seen;
    }
    return seen > 0;
}

std::string separatedFromJsonLines(std::string_view text, const std::string& fileName) {
    std::vector<std::string> columns;
    std::unordered_map<std::string, std::size_t> place;
    std::vector<std::pair<std::string, std::size_t>> lines; // text, how many columns it has
    std::vector<std::string> row;
    for (std::string_view rest = text; !rest.empty();) {
        row.assign(columns.size(), {});
        for (auto& [key, value] : cellsOf(takeLine(rest))) {
            const auto [found, fresh] = place.try_emplace(key, columns.size());
            if (fresh) {
                columns.push_back(key);
                row.emplace_back();
            }
            row[found->second] = std::move(value);
        }
        std::string line;
        for (std::size_t i = 0; i < row.size(); ++i) {
            if (i > 0) line += '\t';
            line += row[i];
        }
        lines.emplace_back(std::move(line), row.size());
        // Keys that differ from line to line would make a table far larger than the log.
        if (columns.size() > mostColumns || columns.size() * lines.size() > 50'000'000 + 8 * text.size())
            throw InputError("log-not-a-log", {fileName, static_cast<long>(lines.size()), {}});
    }
    if (columns.empty()) throw InputError("log-not-a-log.objects", {fileName, 1, {}});
    std::string table;
    for (const std::string& column : columns) {
        if (!table.empty()) table += '\t';
        table += inQuotes(column);
    }
    table += '\n';
    for (auto& [line, count] : lines) {
        table += line;
        table.append(columns.size() - std::max<std::size_t>(count, 1), '\t');
        table += '\n';
        line = {};
    }
    return table;
}

} // namespace ibuki
