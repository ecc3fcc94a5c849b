// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A tidy table as text: one header line, one row a run. Strict: a short row, a missing or doubled column or a
// word where a number is due is an InputError that names file, line and column.

#include <filesystem>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace ibuki {

class Table {
public:
    Table(std::string fileName, std::vector<std::string> columns)
        : file_(std::move(fileName)), columns_(std::move(columns)) {}

    const std::vector<std::string>& columns() const { return columns_; }
    std::size_t rows() const { return cells_.size(); }

    /// Index of a column; nothing when there is none of that name.
    std::optional<std::size_t> find(std::string_view column) const;
    /// Index of a column that has to be there; throws table-no-column.
    std::size_t need(std::string_view column) const;

    const std::string& text(std::size_t row, std::size_t column) const { return cells_[row][column]; }
    long line(std::size_t row) const { return lines_[row]; } ///< of the file, 1-based
    /// Throws table-not-a-number.
    double number(std::size_t row, std::size_t column) const;
    /// true, yes, 1 and false, no, 0, empty; throws table-not-a-truth.
    bool truth(std::size_t row, std::size_t column) const;

    void add(std::vector<std::string> cells, long line);

private:
    std::string file_;
    std::vector<std::string> columns_;
    std::vector<std::vector<std::string>> cells_;
    std::vector<long> lines_;
};

/// Throws InputError (table-empty, table-short-row, table-doubled-column, not-text).
Table readTable(std::string_view bytes, const std::string& fileName);
Table readTableFile(const std::filesystem::path& path);

/// A field of a CSV file, in quotes where it needs them. A spreadsheet takes text that begins with = + - @ or
/// a tab for a formula: it gets an apostrophe before it (OWASP, "CSV Injection"), which plainField takes off
/// again. Numbers are not text: they are written as they are.
std::string csvField(std::string_view text);
std::string plainField(std::string_view field);

} // namespace ibuki
