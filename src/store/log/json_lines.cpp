// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/json_lines.h"

#include "core/base/input_error.h"
#include "store/log/text.h"

#include <algorithm>
#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <unordered_map>
#include <vector>

namespace ibuki {
namespace {

constexpr std::size_t mostColumns = 4'000;
constexpr std::size_t mostLineBytes = std::size_t{4} << 20U;

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

/// The values of one line's object under their joined keys, as the parser comes to them: no tree is made.
class CellSink : public nlohmann::json_sax<nlohmann::json> {
public:
    bool null() override { return put({}); }
    bool boolean(bool value) override { return put(value ? "1" : "0"); }
    bool number_integer(std::int64_t value) override { return put(std::to_string(value)); }
    bool number_unsigned(std::uint64_t value) override { return put(std::to_string(value)); }
    bool number_float(double value, const std::string&) override { return put(fmt::format("{}", value)); }
    bool string(std::string& value) override { return put(inQuotes(value)); }
    bool binary(binary_t&) override { return false; }
    bool start_object(std::size_t) override { return enter(-1); }
    bool end_object() override { return leave(); }
    bool start_array(std::size_t) override { return !open_.empty() && enter(0); }
    bool end_array() override { return leave(); }
    bool key(std::string& name) override {
        open_.back().key = name;
        return true;
    }
    bool parse_error(std::size_t, const std::string&, const nlohmann::detail::exception&) override {
        return false;
    }

    Cells take() { return std::move(cells_); }

private:
    static constexpr std::size_t deepest = 7; ///< no logger nests deeper

    struct Open {
        std::string path; ///< of the object or list itself
        std::string key;  ///< of what comes next in an object
        long index = -1;  ///< in a list; −1: an object
    };

    std::string nextPath() {
        if (open_.empty()) return {};
        Open& at = open_.back();
        const std::string name = at.index < 0 ? at.key : std::to_string(at.index++);
        return at.path.empty() ? name : at.path + ' ' + name;
    }
    bool put(std::string cell) {
        if (open_.empty()) return false; // a line that is no object
        std::string path = nextPath();
        if (open_.size() <= deepest) cells_.emplace_back(std::move(path), std::move(cell));
        return true;
    }
    bool enter(long index) {
        if (open_.size() > mostOpen) return false;
        open_.push_back({nextPath(), {}, index});
        return true;
    }
    bool leave() {
        open_.pop_back();
        return true;
    }

    static constexpr std::size_t mostOpen = 200;
    std::vector<Open> open_;
    Cells cells_;
};

/// Nothing of a line that is cut off, no object, or longer than any logger writes.
Cells cellsOf(std::string_view line) {
    CellSink sink;
    if (line.size() > mostLineBytes || !nlohmann::json::sax_parse(line, &sink)) return {};
    return sink.take();
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
