// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/log_report.h"

#include "core/base/input_error.h"

#include <algorithm>
#include <fmt/format.h>

namespace ibuki {

void LogNotes::note(std::optional<long> line, Message what) {
    if (line) line = lineOfFile(*line);
    if (problems_.size() < mostProblems)
        problems_.push_back({line, std::move(what)});
    else
        ++further_;
}

void LogNotes::refuse(const char* code, Fields fields, std::optional<long> line,
                      std::optional<long> column) const {
    if (line) line = std::max(1L, lineOfFile(*line));
    throw InputError(code, {file_, line, column}, std::move(fields));
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

Message readAs(const LogReport& report) {
    const Message::Field time{"time", timeReadAs(report.time)};
    if (report.jsonLines) return {"read-as.json-lines", {time}};
    return {report.dialect.units.empty() ? "read-as" : "read-as.with-units",
            {{"separator", Term{separatorWord(report.dialect.separator)}},
             {"decimal", Term{report.dialect.decimal == ',' ? "comma" : "point"}},
             {"line", report.dialect.headerLine},
             time}};
}

} // namespace ibuki
