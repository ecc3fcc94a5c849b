// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/dialect.h"

#include "store/log/text.h"

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
    if (parseNumber(field, decimal)) return true;
    // Stamps: digits with the marks of dates and clocks.
    field = trim(field);
    if (field.empty() || !std::isdigit(static_cast<unsigned char>(field.front()))) return false;
    return std::all_of(field.begin(), field.end(), [](char c) {
        return std::isdigit(static_cast<unsigned char>(c))
               || std::string_view(":-/. TZ+,APMapm").find(c) != std::string_view::npos;
    });
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

/// '.' or ',' — which of the two stands inside the numbers of these fields.
char decimalOf(const std::vector<std::vector<std::string>>& rows, char separator) {
    if (separator == ',') {
        return '.';
    }
    std::size_t points = 0;
    std::size_t commas = 0;
    for (const auto& row : rows)
        for (const std::string& field : row) {
            if (parseNumber(field, '.') && field.find('.') != std::string::npos) ++points;
            if (parseNumber(field, ',') && field.find(',') != std::string::npos) ++commas;
        }
    return commas > points ? ',' : '.';
}

struct Candidate {
    Dialect dialect;
    double score = 0;
};

std::optional<Candidate> tryCandidate(const std::vector<SampleLine>& lines, char separator) {
    std::vector<std::vector<std::string>> rows;
    std::map<std::size_t, int> counts;
    int nonEmpty = 0;
    for (const SampleLine& line : lines) {
        rows.push_back(splitFields(line.text, separator));
        if (trim(line.text).empty()) continue;
        ++counts[rows.back().size()];
        ++nonEmpty;
    }
    if (counts.empty()) return std::nullopt;
    const auto modal = std::max_element(counts.begin(), counts.end(),
                                        [](const auto& a, const auto& b) { return a.second < b.second; });
    if (modal->first < 2) return std::nullopt;
    const char decimal = decimalOf(rows, separator);
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const auto& names = rows[i];
        const bool shaped = names.size() == modal->first || names.size() + 1 == modal->first;
        if (!shaped || numericShare(names, decimal) > 0.3) continue;
        if (i + 1 < rows.size()
            && (rows[i + 1].size() != modal->first || numericShare(rows[i + 1], decimal) < 0.3))
            continue;
        Candidate candidate;
        candidate.dialect = {separator,           decimal, static_cast<long>(i + 1),
                             lines[i].nextOffset, names,   modal->first};
        double numeric = 0;
        std::size_t body = 0;
        for (std::size_t k = i + 1; k < rows.size(); ++k) {
            if (rows[k].size() != modal->first) continue;
            numeric += numericShare(rows[k], decimal);
            ++body;
        }
        const double share = body == 0 ? 0.5 : numeric / static_cast<double>(body);
        candidate.score = share * static_cast<double>(modal->second) / nonEmpty;
        return candidate;
    }
    return std::nullopt;
}

} // namespace

std::optional<Dialect> detectDialect(std::string_view text) {
    const auto lines = firstLines(text, 60);
    std::optional<Candidate> best;
    for (char separator : {';', '\t', ','}) {
        auto candidate = tryCandidate(lines, separator);
        if (candidate && (!best || candidate->score > best->score + 1e-9)) best = std::move(candidate);
    }
    if (!best || best->score < 0.3) return std::nullopt;
    Dialect dialect = std::move(best->dialect);
    // A trailing separator gives an empty last column.
    while (!dialect.columns.empty() && trim(dialect.columns.back()).empty()) dialect.columns.pop_back();
    for (std::string& column : dialect.columns) column = std::string(trim(column));
    return dialect;
}

} // namespace ibuki
