// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/log_report.h"

#include "core/base/input_error.h"

#include <algorithm>
#include <fmt/format.h>

namespace ibuki {

void LogNotes::note(std::optional<long> line, std::string what) {
    if (line) line = lineOfFile(*line);
    if (problems_.size() < mostProblems)
        problems_.push_back({line, std::move(what)});
    else
        ++further_;
}

void LogNotes::refuse(const char* code, const std::string& what, const std::string& mend,
                      std::optional<long> line, std::optional<long> column) const {
    if (line) line = std::max(1L, lineOfFile(*line));
    throw InputError(code, {file_, line, column}, what, mend);
}

void LogNotes::handOver(LogReport& report) {
    std::stable_sort(problems_.begin(), problems_.end(),
                     [](const LogProblem& a, const LogProblem& b) { return a.line < b.line; });
    report.problems = std::move(problems_);
    report.furtherProblems = further_;
}

namespace {

const char* separatorWord(char separator) {
    switch (separator) {
    case ';':
        return "semicolons";
    case '\t':
        return "tabs";
    case '|':
        return "bars";
    case blanks:
        return "spaces";
    case wideBlanks:
        return "two or more spaces";
    default:
        return "commas";
    }
}

} // namespace

std::string readAsText(const LogReport& report) {
    if (report.jsonLines) return "JSON Lines, " + timeReadingText(report.time);
    return fmt::format("{}, decimal {}, header in line {}{}, {}", separatorWord(report.dialect.separator),
                       report.dialect.decimal == ',' ? "comma" : "point", report.dialect.headerLine,
                       report.dialect.units.empty() ? "" : " with units under it",
                       timeReadingText(report.time));
}

} // namespace ibuki
