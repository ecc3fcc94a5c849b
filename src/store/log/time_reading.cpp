// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/time_reading.h"

#include "core/trace/time_axis.h"
#include "store/log/text.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace ibuki {
namespace {

constexpr double serialOf1970 = 25'569; ///< days from 1899-12-30, a spreadsheet's day 0

using SampleRows = std::span<const std::vector<std::string>>;

std::string_view cellAt(const std::vector<std::string>& row, std::size_t column) {
    return column < row.size() ? trim(row[column]) : std::string_view{};
}

std::vector<double> numbersAt(SampleRows rows, std::size_t column, char decimal) {
    std::vector<double> numbers;
    for (const auto& row : rows)
        if (const auto number = parseNumber(cellAt(row, column), decimal)) numbers.push_back(*number);
    return numbers;
}

/// Median step between neighbours that differ; 0 without any.
double typicalStep(const std::vector<double>& numbers) {
    std::vector<double> steps;
    for (std::size_t i = 1; i < numbers.size(); ++i)
        if (numbers[i] > numbers[i - 1]) steps.push_back(numbers[i] - numbers[i - 1]);
    if (steps.empty()) return 0;
    std::nth_element(steps.begin(), steps.begin() + static_cast<std::ptrdiff_t>(steps.size() / 2),
                     steps.end());
    return steps[steps.size() / 2];
}

double secondsOf(Unit unit) {
    return unit == Unit::millisecond ? 1e-3 : unit == Unit::microsecond ? 1e-6 : 1.0;
}

/// Numbers since 1970 tell their unit by their size (2001 to 2286), elapsed ones by unit or by their steps.
TimeReading numericReading(const TimeColumn& column, const std::vector<double>& numbers) {
    TimeReading reading;
    reading.column = column.index;
    const double first = numbers.front();
    for (double perSecond : {1.0, 1e3, 1e6, 1e9})
        if (first >= 1e9 * perSecond && first < 1e10 * perSecond && column.unit != Unit::second) {
            reading.style = TimeStyle::epoch;
            reading.secondsPerUnit = 1 / perSecond;
            return reading;
        }
    if (first >= 1e9 && first < 1e10) {
        reading.style = TimeStyle::epoch;
        return reading;
    }
    const double step = typicalStep(numbers);
    const bool withoutUnit =
        column.unit != Unit::second && column.unit != Unit::millisecond && column.unit != Unit::microsecond;
    if (withoutUnit && first > 20'000 && first < 80'000 && step > 0 && step < 0.05) {
        reading.style = TimeStyle::serial;
        reading.secondsPerUnit = secondsPerDay;
        return reading;
    }
    reading.secondsPerUnit = secondsOf(column.unit);
    // Nobody logs every few minutes: large steps without a unit are milliseconds or microseconds.
    if (withoutUnit && step >= 200) reading.secondsPerUnit = step >= 200'000 ? 1e-6 : 1e-3;
    return reading;
}

/// Which order all dates of the rows allow; where nothing tells, the one in which they go on day by day.
DateOrder orderOf(SampleRows rows, std::size_t column) {
    std::optional<std::string_view> first;
    std::string_view last;
    for (const auto& row : rows) {
        const auto cell = cellAt(row, column);
        if (cell.empty()) continue;
        const DateOrder order = dateOrderOf(cell);
        if (order == DateOrder::yearMonthDay) return order;
        if (isCertain(cell)) return order;
        if (!first) first = cell;
        last = cell;
    }
    if (!first) return DateOrder::yearMonthDay;
    const DateOrder typical = dateOrderOf(*first);
    const auto days = [&](DateOrder order) -> std::optional<std::int64_t> {
        const auto a = parseStamp(*first, order);
        const auto b = parseStamp(last, order);
        if (!a || !b || !a->day || !b->day) return std::nullopt;
        return *b->day - *a->day;
    };
    const DateOrder other =
        typical == DateOrder::dayMonthYear ? DateOrder::monthDayYear : DateOrder::dayMonthYear;
    const auto typically = days(typical);
    const auto otherwise = days(other);
    // A log over midnight: a day goes on, a month does not.
    const bool jumps = !typically || *typically < 0 || *typically > 27;
    return jumps && otherwise && *otherwise >= 0 && *otherwise <= 27 ? other : typical;
}

enum class Reported { nothing, number, date, clock, both };

Reported reportedBy(std::string_view cell, char decimal) {
    if (parseNumber(cell, decimal)) return Reported::number;
    const auto stamp = parseStamp(cell, dateOrderOf(cell));
    if (!stamp) return Reported::nothing;
    return stamp->day ? (stamp->hasClock ? Reported::both : Reported::date) : Reported::clock;
}

/// What most cells of the column tell.
Reported reportedBy(SampleRows rows, std::size_t column, char decimal) {
    std::array<int, 5> votes{};
    for (const auto& row : rows) ++votes[static_cast<std::size_t>(reportedBy(cellAt(row, column), decimal))];
    votes[0] = 0; // a few words do not make a column of times something else
    const auto most = std::max_element(votes.begin(), votes.end());
    return *most == 0 ? Reported::nothing : static_cast<Reported>(most - votes.begin());
}

std::optional<TimeReading> readingOf(const TimeColumn& column, std::span<const TimeColumn> all,
                                     SampleRows rows, char decimal) {
    TimeReading reading;
    reading.column = column.index;
    switch (reportedBy(rows, column.index, decimal)) {
    case Reported::number:
        return numericReading(column, numbersAt(rows, column.index, decimal));
    case Reported::both:
        reading.style = TimeStyle::stamp;
        reading.order = orderOf(rows, column.index);
        return reading;
    case Reported::date:
        for (const TimeColumn& other : all)
            if (reportedBy(rows, other.index, decimal) == Reported::clock) {
                reading.style = TimeStyle::dateAndClock;
                reading.order = orderOf(rows, column.index);
                reading.clockColumn = other.index;
                return reading;
            }
        return std::nullopt; // a day is no time of a sample
    case Reported::clock:
        for (const TimeColumn& other : all)
            if (reportedBy(rows, other.index, decimal) == Reported::date)
                return readingOf(other, all, rows, decimal);
        reading.style = TimeStyle::stamp;
        reading.clockOnly = true;
        return reading;
    case Reported::nothing:
        break;
    }
    return std::nullopt;
}

void applyWish(TimeReading& reading, const TimeWish& wish) {
    if (wish.style) {
        reading.style = *wish.style;
        if (*wish.style == TimeStyle::serial) reading.secondsPerUnit = secondsPerDay;
        if (*wish.style != TimeStyle::stamp) reading.clockOnly = false;
    }
    if (wish.order) reading.order = *wish.order;
    if (wish.secondsPerUnit) reading.secondsPerUnit = *wish.secondsPerUnit;
}

} // namespace

std::optional<TimeReading> detectTime(std::span<const TimeColumn> candidates, SampleRows rows, char decimal,
                                      const TimeWish& wish) {
    std::vector<TimeColumn> columns(candidates.begin(), candidates.end());
    if (wish.column) columns.insert(columns.begin(), TimeColumn{*wish.column, Unit::none});
    if (columns.empty()) columns.push_back({}); // loggers put the time first when they do not name it
    for (const TimeColumn& column : columns)
        if (auto reading = readingOf(column, columns, rows, decimal)) {
            applyWish(*reading, wish);
            return reading;
        }
    return std::nullopt;
}

Message timeReadAs(const TimeReading& reading) {
    const Message::Field style{"style", Term{timeStyleWords.at(static_cast<std::size_t>(reading.style))}};
    if (reading.style == TimeStyle::elapsed || reading.style == TimeStyle::epoch)
        return {"time-read-as.number",
                {style,
                 {"unit", reading.secondsPerUnit == 1      ? "s"
                          : reading.secondsPerUnit == 1e-3 ? "ms"
                          : reading.secondsPerUnit == 1e-6 ? "µs"
                                                           : "ns"}}};
    if (reading.style == TimeStyle::serial) return {"time-read-as", {style}};
    if (reading.clockOnly) return {"time-read-as.clock", {}};
    static constexpr std::array<std::string_view, 3> orders{"year-month-day", "day.month.year",
                                                            "month/day/year"};
    return {"time-read-as.date",
            {style, {"order", Term{orders.at(static_cast<std::size_t>(reading.order))}}}};
}

std::optional<double> StampReader::fromNumber(std::string_view field) {
    const auto number = parseNumber(field, decimal_);
    if (!number) return std::nullopt;
    if (reading_.style == TimeStyle::elapsed) return *number * reading_.secondsPerUnit;
    const double sinceEpoch = reading_.style == TimeStyle::serial ? (*number - serialOf1970) * secondsPerDay
                                                                  : *number * reading_.secondsPerUnit;
    if (!(std::abs(sinceEpoch) < 1e12)) return std::nullopt;
    if (!firstEpoch_) {
        firstEpoch_ = std::floor(sinceEpoch / secondsPerDay) * secondsPerDay;
        start_ = Instant{static_cast<std::int64_t>(std::llround(sinceEpoch * 1000))};
    }
    // A day's fraction has about half a microsecond left of a double, which is no step of a logger's.
    return std::round((sinceEpoch - *firstEpoch_) * 1e5) / 1e5;
}

std::optional<double> StampReader::read(std::string_view field, std::string_view clockField) {
    if (reading_.style <= TimeStyle::serial) return fromNumber(field);
    const auto stamp = parseStamp(field, reading_.order);
    if (!stamp) return std::nullopt;
    double second = stamp->secondOfDay;
    std::optional<int> zone = stamp->zoneMinutes;
    if (reading_.style == TimeStyle::dateAndClock) {
        const auto clock = parseStamp(clockField, reading_.order);
        if (!clock || !stamp->day) return std::nullopt;
        second = clock->secondOfDay;
        zone = clock->zoneMinutes;
    } else if (!stamp->day != reading_.clockOnly) {
        return std::nullopt;
    }
    if (stamp->day && !firstDay_) {
        firstDay_ = *stamp->day;
        start_ = Instant{*stamp->day * 86'400'000 + static_cast<std::int64_t>(std::llround(second * 1000))};
    }
    if (zone) {
        if (!firstZone_) firstZone_ = zone;
        second -= 60.0 * (*zone - *firstZone_); // the log's own clock went on through the change
    }
    return static_cast<double>(stamp->day.value_or(0) - firstDay_.value_or(0)) * secondsPerDay + second;
}

} // namespace ibuki
