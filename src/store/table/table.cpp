// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/table/table.h"

#include "core/base/input_error.h"
#include "store/log/mapped_file.h"
#include "store/log/text.h"

#include <algorithm>
#include <fmt/format.h>
#include <unordered_set>

namespace ibuki {

std::optional<std::size_t> Table::find(std::string_view column) const {
    const auto found = std::find(columns_.begin(), columns_.end(), column);
    if (found == columns_.end()) return std::nullopt;
    return static_cast<std::size_t>(found - columns_.begin());
}

std::size_t Table::need(std::string_view column) const {
    if (const auto found = find(column)) return *found;
    throw InputError("table-no-column", {file_, 1, {}}, {{"column", column}, {"columns", columns_}});
}

double Table::number(std::size_t row, std::size_t column) const {
    const std::string& field = cells_[row][column];
    for (char decimal : {'.', ','})
        if (const auto value = parseNumber(field, decimal)) return *value;
    throw InputError("table-not-a-number", {file_, lines_[row], static_cast<long>(column + 1)},
                     {{"field", field}, {"column", columns_[column]}});
}

bool Table::truth(std::size_t row, std::size_t column) const {
    std::string word = cells_[row][column];
    for (char& c : word) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    if (word == "true" || word == "yes" || word == "1") return true;
    if (word.empty() || word == "false" || word == "no" || word == "0") return false;
    throw InputError("table-not-a-truth", {file_, lines_[row], static_cast<long>(column + 1)},
                     {{"word", word}, {"column", columns_[column]}});
}

void Table::add(std::vector<std::string> cells, long line) {
    if (cells.size() < columns_.size())
        throw InputError("table-short-row", {file_, line, {}},
                         {{"fields", cells.size()}, {"header", columns_.size()}});
    cells_.push_back(std::move(cells));
    lines_.push_back(line);
}

namespace {

/// A line, and the next ones as long as a quoted field goes on over its end (RFC 4180).
std::string_view takeRow(std::string_view& rest, long& line) {
    const std::string_view whole = rest;
    std::string_view row = takeLine(rest);
    bool open = std::count(row.begin(), row.end(), '"') % 2 == 1;
    while (open && !rest.empty()) {
        const std::string_view more = takeLine(rest);
        ++line;
        if (std::count(more.begin(), more.end(), '"') % 2 == 1) open = false;
        row = whole.substr(0, static_cast<std::size_t>(more.end() - whole.begin()));
    }
    return row;
}

} // namespace

Table readTable(std::string_view bytes, const std::string& fileName) {
    const DecodedText decoded = decodeText(bytes, fileName);
    std::string_view rest = decoded.view();
    long line = 0;
    std::string_view header;
    while (!rest.empty() && trim(header).empty()) {
        header = takeLine(rest);
        ++line;
    }
    if (trim(header).empty()) throw InputError("table-empty", {fileName, {}, {}});
    char separator = ',';
    for (char candidate : {'\t', ';', ','})
        if (splitFields(header, candidate).size() > splitFields(header, separator).size())
            separator = candidate;
    auto columns = splitFields(header, separator);
    if (columns.size() >= mostFields) throw InputError("table-columns", {fileName, line, {}});
    for (std::string& column : columns) column = std::string(trim(column));
    std::unordered_set<std::string_view> names;
    for (std::size_t i = 0; i < columns.size(); ++i)
        if (!columns[i].empty() && !names.insert(columns[i]).second)
            throw InputError("table-doubled-column", {fileName, line, static_cast<long>(i + 1)},
                             {{"column", columns[i]}});
    Table table(fileName, std::move(columns));
    while (!rest.empty()) {
        const long first = ++line;
        const std::string_view text = takeRow(rest, line);
        if (trim(text).empty()) continue;
        auto cells = splitFields(text, separator);
        for (std::string& cell : cells) cell = plainField(trim(cell));
        table.add(std::move(cells), first);
    }
    return table;
}

Table readTableFile(const std::filesystem::path& path) {
    const MappedFile file(path);
    Table table = readTable(file.bytes(), path.string());
    file.requireWhole();
    return table;
}

namespace {

bool looksLikeFormula(std::string_view text) {
    text.remove_prefix(std::min(text.find_first_not_of('\''), text.size())); // one more goes before these
    return !text.empty() && std::string_view("=+-@\t\r").find(text.front()) != std::string_view::npos
           && !parseNumber(text, '.');
}

} // namespace

std::string plainField(std::string_view field) {
    if (field.starts_with('\'') && looksLikeFormula(field.substr(1))) field.remove_prefix(1);
    return std::string(field);
}

std::string csvField(std::string_view plain) {
    std::string text(looksLikeFormula(plain) ? "'" : "");
    text += plain;
    if (text.find_first_of(",\"\n;\t\r") == std::string::npos) return text;
    std::string quoted = "\"";
    for (char c : text) {
        if (c == '"') quoted += '"';
        quoted += c;
    }
    return quoted + '"';
}

} // namespace ibuki
