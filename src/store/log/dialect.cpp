// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/dialect.h"

#include "core/trace/role.h"
#include "store/log/number_cell.h"
#include "store/log/time_stamp.h"

#include <algorithm>
#include <cctype>
#include <map>

namespace ibuki {
namespace {

struct SampleLine {
    std::string_view text;
    std::size_t nextOffset;
};

std::vector<SampleLine> firstLines(std::string_view text, std::size_t most) {
    std::vector<SampleLine> lines;
    std::string_view rest = text;
    while (!rest.empty() && lines.size() < most) {
        const std::string_view line = takeLine(rest);
        lines.push_back({line, text.size() - rest.size()});
    }
    return lines;
}

bool looksNumeric(std::string_view field, char decimal) {
    if (parseNumber(field, decimal) || looseNumber(field, decimal)) return true;
    return parseStamp(field, dateOrderOf(field)).has_value();
}

double numericShare(const std::vector<std::string>& fields, char decimal) {
    std::size_t filled = 0;
    std::size_t numeric = 0;
    for (const std::string& field : fields) {
        if (trim(field).empty()) continue;
        ++filled;
        numeric += looksNumeric(field, decimal) ? 1 : 0;
    }
    return filled == 0 ? 0 : static_cast<double>(numeric) / static_cast<double>(filled);
}

/// '.' or ',': which of the two stands inside the numbers of these fields. Between commas a number can only
/// have one when it stood in quotes.
char decimalOf(const std::vector<std::vector<std::string>>& rows) {
    std::size_t points = 0;
    std::size_t commas = 0;
    for (const auto& row : rows)
        for (const std::string& field : row) {
            // A unit may stand behind it: "61,2 °C".
            if (field.find('.') != std::string::npos && looseNumber(field, '.')) ++points;
            if (field.find(',') != std::string::npos && looseNumber(field, ',')) ++commas;
        }
    return commas > points ? ',' : '.';
}

/// At least half of the filled fields are units and none is a number.
bool isUnitRow(const std::vector<std::string>& fields, char decimal) {
    std::size_t filled = 0;
    std::size_t units = 0;
    for (const std::string& field : fields) {
        const auto text = trim(field);
        if (text.empty() || text == "-") continue;
        if (parseNumber(text, decimal)) return false;
        ++filled;
        units += unitFromText(text) ? 1 : 0;
    }
    return filled > 0 && 2 * units >= filled;
}

/// The number of fields that most rows of numbers have; 0 without any.
std::size_t typicalFields(const std::vector<std::vector<std::string>>& rows, char decimal) {
    std::map<std::size_t, int> counts;
    for (const auto& row : rows)
        if (row.size() >= 2 && numericShare(row, decimal) >= 0.3) ++counts[row.size()];
    if (counts.empty()) return 0;
    return std::max_element(counts.begin(), counts.end(),
                            [](const auto& a, const auto& b) { return a.second < b.second; })
        ->first;
}

struct Candidate {
    Dialect dialect;
    double score = 0;
};

/// The lines of the sample cut by one separator.
class Table {
public:
    Table(const std::vector<SampleLine>& lines, char separator, const DialectWish& wish)
        : lines_(lines), separator_(separator), wish_(wish) {
        for (const SampleLine& line : lines) rows_.push_back(splitFields(line.text, separator));
        decimal_ = wish.decimal ? *wish.decimal : decimalOf(rows_);
        typical_ = typicalFields(rows_, decimal_);
        if (typical_ == 0) typical_ = wish.headerLine ? headerFields() : loneHeader();
    }

    std::optional<Candidate> candidate() const {
        if (typical_ < 2) return std::nullopt;
        for (std::size_t i = 0; i < rows_.size(); ++i)
            if (isHeader(i)) return made(i);
        return std::nullopt;
    }

private:
    std::size_t headerFields() const {
        const auto index = static_cast<std::size_t>(std::max(1L, *wish_.headerLine) - 1);
        return index < rows_.size() ? rows_[index].size() : 0;
    }

    /// A log that ended before its first sample is a header and nothing else.
    std::size_t loneHeader() const {
        std::size_t fields = 0;
        for (std::size_t i = 0; i < rows_.size(); ++i) {
            if (trim(lines_[i].text).empty()) continue;
            if (fields > 0) return 0;
            fields = rows_[i].size();
        }
        return fields;
    }

    /// Between blanks, names of several words stand further apart than the words, and one name may stand over
    /// a date and its clock.
    std::vector<std::string> namesIn(std::size_t i) const {
        if (separator_ != blanks || rows_[i].size() == typical_) return rows_[i];
        auto names = splitFields(lines_[i].text, wideBlanks);
        if (names.size() + 1 != typical_ && rows_[i].size() + 1 == typical_) names = rows_[i];
        if (names.size() + 1 == typical_ && dateAndClockFollow(i)) names.insert(names.begin(), "Date");
        return names;
    }

    bool dateAndClockFollow(std::size_t header) const {
        for (std::size_t k = header + 1; k < rows_.size(); ++k) {
            if (rows_[k].size() != typical_ || typical_ < 3) continue;
            const auto date = parseStamp(rows_[k][0], dateOrderOf(rows_[k][0]));
            const auto clock = parseStamp(rows_[k][1], DateOrder::yearMonthDay);
            return date && date->day && !date->hasClock && clock && !clock->day;
        }
        return false;
    }

    /// Under a name that stands over a date and its clock there is one unit for both.
    std::vector<std::string> unitsIn(std::size_t i, std::size_t columns) const {
        auto units = rows_[i];
        if (separator_ == blanks && units.size() + 1 == columns && dateAndClockFollow(i))
            units.insert(units.begin(), "");
        return units;
    }

    bool isHeader(std::size_t i) const {
        if (wish_.headerLine) return static_cast<long>(i + 1) == *wish_.headerLine;
        const auto names = namesIn(i);
        const bool shaped = names.size() == typical_
                            || (!isBlankSeparator(separator_) && names.size() + 1 == typical_)
                            || (names.size() == typical_ + 1 && trim(names.back()).empty());
        if (!shaped || numericShare(names, decimal_) > 0.3 || isUnitRow(names, decimal_)) return false;
        if (std::all_of(names.begin(), names.end(), [](const auto& name) { return trim(name).empty(); }))
            return false;
        const std::size_t next = i + 1 < rows_.size() && isUnitRow(rows_[i + 1], decimal_) ? i + 2 : i + 1;
        return next >= rows_.size() || numericShare(rows_[next], decimal_) >= 0.3
               || trim(lines_[next].text).empty();
    }

    Candidate made(std::size_t header) const {
        Candidate candidate;
        Dialect& dialect = candidate.dialect;
        std::size_t body = header + 1;
        dialect.separator = separator_;
        dialect.decimal = decimal_;
        dialect.headerLine = static_cast<long>(header + 1);
        dialect.columns = namesIn(header);
        if (body < rows_.size() && isUnitRow(rows_[body], decimal_))
            dialect.units = unitsIn(body++, dialect.columns.size());
        dialect.bodyLine = static_cast<long>(body + 1);
        dialect.bodyOffset = lines_[body - 1].nextOffset;
        dialect.fieldsPerRow = typical_;
        double numeric = 0;
        std::size_t rows = 0;
        std::size_t filled = 0;
        for (std::size_t k = body; k < rows_.size(); ++k) {
            if (trim(lines_[k].text).empty()) continue;
            ++filled;
            if (rows_[k].size() != typical_) continue;
            numeric += numericShare(rows_[k], decimal_);
            ++rows;
        }
        candidate.score = rows == 0 ? 0.5 : numeric / static_cast<double>(filled);
        return candidate;
    }

    const std::vector<SampleLine>& lines_;
    char separator_;
    const DialectWish& wish_;
    std::vector<std::vector<std::string>> rows_;
    char decimal_ = '.';
    std::size_t typical_ = 0;
};

} // namespace

std::optional<Dialect> detectDialect(std::string_view text, const DialectWish& wish) {
    const auto lines =
        firstLines(text, wish.headerLine ? static_cast<std::size_t>(*wish.headerLine) + 100 : 160);
    constexpr double enough = 0.3;
    std::optional<Candidate> best;
    for (char separator : separators) {
        if (wish.separator && separator != *wish.separator) continue;
        const bool marked = best && best->score >= enough && !isBlankSeparator(best->dialect.separator);
        if (marked && isBlankSeparator(separator)) break;
        auto candidate = Table(lines, separator, wish).candidate();
        if (candidate && (!best || candidate->score > best->score + 1e-9)) best = std::move(candidate);
    }
    if (!best || (best->score < enough && !wish.headerLine)) return std::nullopt;
    Dialect dialect = std::move(best->dialect);
    // A trailing separator gives an empty last column.
    while (!dialect.columns.empty() && trim(dialect.columns.back()).empty()) dialect.columns.pop_back();
    for (std::string& column : dialect.columns) column = std::string(trim(column));
    if (dialect.columns.empty()) return std::nullopt;
    return dialect;
}

} // namespace ibuki
