// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/table/run_table.h"

#include "core/base/input_error.h"
#include "core/quantity/temperature.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace ibuki {
namespace {

struct TemperatureColumn {
    const char* name;
    Metric metric;
};
constexpr TemperatureColumn temperatureColumns[] = {
    {"hottest", Metric::hottest}, {"core_average", Metric::coreAverage},
    {"peak", Metric::peak},       {"package", Metric::package},
    {"gpu", Metric::gpu},         {"hotspot", Metric::hotspot},
    {"memory", Metric::memory},   {"vrm", Metric::vrm},
    {"coolant", Metric::coolant}};

struct ReadingColumn {
    const char* name;
    SideResponse kind;
};
constexpr ReadingColumn readingColumns[] = {{"score", SideResponse::score},
                                            {"noise_dba", SideResponse::noise},
                                            {"frame_rate", SideResponse::frameRate},
                                            {"frame_rate_1pct", SideResponse::lowFrameRate}};

/// Case does not matter; spaces and underscores are alike.
std::string plainName(const std::string& column) {
    std::string name;
    for (const char c : column) {
        const char plain = c == ' ' ? '_' : c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c;
        if (plain != '_' || (!name.empty() && name.back() != '_')) name += plain;
    }
    while (!name.empty() && name.back() == '_') name.pop_back();
    return name == "material" ? "level" : name;
}

constexpr double coldestC = -273.15;
constexpr double hottestC = 1'000;             ///< no reading of a computer is beyond
constexpr Instant earliest{0};                 ///< 1970: no chip was measured before
constexpr Instant latest{7'258'118'400'000LL}; ///< 2200
constexpr double coldestF = -459.67;
constexpr double hottestF = 1'832;

/// The wall clock of a moment with a zone is what it says: no bench is in two of them.
std::string withoutZone(std::string text) {
    const std::size_t time = text.find_first_of("Tt ");
    if (time == std::string::npos) return text;
    text[time] = text[time] == 't' ? 'T' : text[time];
    const std::size_t zone = text.find_first_of("Zz+-", time);
    return zone == std::string::npos ? text : text.substr(0, zone);
}

class Reader {
public:
    Reader(const Table& table, const std::string& file) : table_(table), file_(file) {
        for (const std::string& column : table.columns()) names_.push_back(plainName(column));
        used_.assign(names_.size(), false);
        for (std::size_t i = 0; i < names_.size(); ++i)
            for (std::size_t k = 0; k < i; ++k)
                if (!names_[i].empty() && names_[k] == names_[i])
                    throw InputError("import-table-twice", {file_, 1, static_cast<long>(i + 1)},
                                     {{"column", table.columns()[i]}, {"other", table.columns()[k]}});
    }

    RunTable read() {
        RunTable runs;
        for (std::size_t row = 0; row < table_.rows(); ++row) {
            row_ = row;
            RunTableRow read = readRow(); // a blank one tells which columns are known too
            if (!isBlank()) runs.rows.push_back(std::move(read));
        }
        if (runs.rows.empty()) throw InputError("import-table-empty", {file_, {}, {}});
        for (std::size_t i = 0; i < names_.size(); ++i)
            if (!used_[i] && !names_[i].empty())
                addFlag(runs.flags,
                        makeFlag(Severity::info, "column-ignored", {{"column", table_.columns()[i]}}));
        return runs;
    }

private:
    bool isBlank() const {
        for (std::size_t i = 0; i < names_.size(); ++i)
            if (!table_.text(row_, i).empty()) return false;
        return true;
    }

    std::optional<std::size_t> column(const std::string& name) {
        const auto found = std::find(names_.begin(), names_.end(), name);
        if (found == names_.end()) return std::nullopt;
        const auto at = static_cast<std::size_t>(found - names_.begin());
        used_[at] = true;
        return at;
    }

    std::string text(const std::string& name) {
        const auto at = column(name);
        return at ? table_.text(row_, *at) : std::string();
    }

    [[noreturn]] void refuse(std::size_t at, const char* allowed) const {
        throw InputError(
            "import-table-cell", {file_, table_.line(row_), static_cast<long>(at + 1)},
            {{"field", table_.text(row_, at)}, {"column", table_.columns()[at]}, {"allowed", Term{allowed}}});
    }

    std::optional<double> number(const std::string& name, double least, double most) {
        const auto at = column(name);
        if (!at || table_.text(row_, *at).empty()) return std::nullopt;
        const double value = table_.number(row_, *at);
        if (!(value >= least && value <= most))
            throw InputError("import-table-range", {file_, table_.line(row_), static_cast<long>(*at + 1)},
                             {{"field", table_.text(row_, *at)},
                              {"column", table_.columns()[*at]},
                              {"least", least},
                              {"most", most}});
        return value;
    }

    /// In the column's unit, °C or °F.
    std::optional<double> temperature(const std::string& name) {
        const auto celsius = number(name + "_c", coldestC, hottestC);
        const auto fahrenheit = number(name + "_f", coldestF, hottestF); // both columns are known
        if (celsius || !fahrenheit) return celsius;
        return celsiusFromFahrenheit(*fahrenheit).value;
    }

    std::optional<int> wholeNumber(const std::string& name) {
        const auto at = column(name);
        const auto value = number(name, 1, 1e6);
        if (value && *value != std::floor(*value)) refuse(*at, "a whole number from 1");
        return value ? std::optional(static_cast<int>(*value)) : std::nullopt;
    }

    std::optional<StatedPurpose> purpose() {
        constexpr std::array<const char*, 4> words{"fresh", "check", "conditioning", "excluded"};
        const auto at = column("purpose");
        const std::string said = at ? plainName(table_.text(row_, *at)) : std::string();
        if (said.empty()) return std::nullopt;
        for (std::size_t i = 0; i < words.size(); ++i)
            if (said == words[i]) return static_cast<StatedPurpose>(i);
        refuse(*at, "fresh, check, conditioning or excluded");
    }

    std::optional<Instant> moment() {
        const auto at = column("when");
        if (!at || table_.text(row_, *at).empty()) return std::nullopt;
        const auto moment = parseInstant(withoutZone(table_.text(row_, *at)));
        if (!moment || *moment < earliest || *moment > latest)
            refuse(*at, "a date and a time like 2031-03-04 18:30");
        return moment;
    }

    bool truth(const std::string& name) {
        const auto at = column(name);
        return at && table_.truth(row_, *at);
    }

    StatedFigures figures() {
        StatedFigures figures;
        for (const auto& [name, metric] : temperatureColumns)
            if (const auto celsius = temperature(name)) figures.metricsC[metric] = *celsius;
        figures.deltaK = number("delta_k", -hottestC, hottestC);
        figures.idleC = temperature("idle");
        figures.powerW = number("power_w", 0, 1e5);
        figures.clockMHz = number("clock_mhz", 0, 1e6);
        figures.fanRpm = number("fan_rpm", 0, 1e6);
        for (const auto& [name, kind] : readingColumns)
            if (const auto value = number(name, -1e12, 1e12)) figures.readings[kind] = *value;
        figures.atLimit = truth("limit");
        return figures;
    }

    RunTableRow readRow() {
        RunTableRow row;
        StatedRow& said = row.said;
        row.file = text("file");
        said.table = file_;
        said.line = table_.line(row_);
        said.level = text("level");
        said.mount = text("mount");
        said.load = text("load");
        said.run = wholeNumber("run");
        said.purpose = purpose();
        said.when = moment();
        said.ageH = number("age_h", 0, 1e7);
        said.cycles = number("cycles", 0, 1e9);
        said.roomC = temperature("room");
        if (const auto u = number("room_u_k", 0, hottestC)) said.roomUK = *u;
        said.figures = figures();
        said.rejected = text("rejected");
        said.remark = text("remark");
        const bool hasFigure = !said.figures.metricsC.empty() || said.figures.deltaK;
        if (row.file.empty() && !hasFigure && !isBlank())
            throw InputError("import-table-no-figure", {file_, said.line, {}});
        return row;
    }

    const Table& table_;
    const std::string& file_;
    std::vector<std::string> names_;
    std::vector<bool> used_;
    std::size_t row_ = 0;
};

} // namespace

RunTable runTable(const Table& table, const std::string& fileName) { return Reader(table, fileName).read(); }

} // namespace ibuki
