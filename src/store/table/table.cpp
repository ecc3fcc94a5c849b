// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/table/table.h"

#include "core/base/input_error.h"
#include "store/log/mapped_file.h"
#include "store/log/text.h"

#include <algorithm>
#include <fmt/format.h>

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
    while (std::count(row.begin(), row.end(), '"') % 2 == 1 && !rest.empty()) {
        const std::string_view more = takeLine(rest);
        ++line;
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
    for (std::string& column : columns) column = std::string(trim(column));
    for (std::size_t i = 0; i < columns.size(); ++i)
        if (!columns[i].empty()
            && std::find(columns.begin(), columns.begin() + static_cast<long>(i), columns[i])
                   != columns.begin() + static_cast<long>(i))
            throw InputError("table-doubled-column", {fileName, line, static_cast<long>(i + 1)},
                             {{"column", columns[i]}});
    Table table(fileName, std::move(columns));
    while (!rest.empty()) {
        const long first = ++line;
        const std::string_view text = takeRow(rest, line);
        if (trim(text).empty()) continue;
        auto cells = splitFields(text, separator);
        for (std::string& cell : cells) cell = std::string(trim(cell));
        table.add(std::move(cells), first);
    }
    return table;
}

Table readTableFile(const std::filesystem::path& path) {
    const MappedFile file(path);
    return readTable(file.bytes(), path.string());
}

std::string csvField(std::string_view text) {
    if (text.find_first_of(",\"\n;\t") == std::string_view::npos) return std::string(text);
    std::string quoted = "\"";
    for (char c : text) {
        if (c == '"') quoted += '"';
        quoted += c;
    }
    return quoted + '"';
}

} // namespace ibuki
