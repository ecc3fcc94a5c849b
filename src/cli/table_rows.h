// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Rows of a tidy table as verbs select them: --where, and what is excluded left out.

#include "store/table/table.h"

#include <optional>
#include <string>
#include <vector>

namespace ibuki {

/// Rows that hold every "COLUMN=VALUE" and are not excluded. Throws UsageError for what is no such condition.
std::vector<std::size_t> selectedRows(const Table& table, const std::vector<std::string>& where);

/// Throws compare-mixed where one of the columns varies inside a mount: different loads, ages, blocks or
/// orders are no repeats of one another. Columns that are not there do not vary.
void refuseMixedMounts(const Table& table, const std::string& file, const std::vector<std::size_t>& rows,
                       const std::vector<std::string>& columns, std::size_t group, std::size_t mount);

/// A column that may be left out: none without a name; throws table-no-column.
class OptionalColumn {
public:
    OptionalColumn(const Table& table, const std::string& name)
        : table_(table), given_(!name.empty()), column_(given_ ? table.need(name) : 0) {}
    /// The column of that name if there is one.
    static OptionalColumn found(const Table& table, const std::string& name) {
        return {table, table.find(name) ? name : std::string()};
    }

    bool isGiven() const { return given_; }
    std::size_t place() const { return column_; }
    std::string text(std::size_t row) const { return given_ ? table_.text(row, column_) : std::string(); }
    double number(std::size_t row) const { return given_ ? table_.number(row, column_) : 0; }
    bool truth(std::size_t row) const { return given_ && table_.truth(row, column_); }

private:
    const Table& table_;
    bool given_ = false;
    std::size_t column_ = 0;
};

/// The unit of a column of values: K for one that ends in _K, K/W, else its name.
std::string unitOfColumn(const std::string& column);
inline bool isTemperatureColumn(const std::string& column) { return column.ends_with("_K"); }

} // namespace ibuki
