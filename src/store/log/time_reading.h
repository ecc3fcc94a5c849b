// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Which columns of a log tell the time, and how: seconds since its start or since 1970, days of a
// spreadsheet, dates and clocks. Told from the column names and from rows of its beginning and end.

#include "core/base/message.h"
#include "core/trace/role.h"
#include "store/log/time_stamp.h"

#include <array>
#include <span>
#include <string>
#include <vector>

namespace ibuki {

enum class TimeStyle { elapsed, epoch, serial, stamp, dateAndClock };
inline constexpr std::array<std::string_view, 5> timeStyleWords{
    "since the start", "since 1970", "spreadsheet days", "date and time", "date and clock apart"};

struct TimeReading {
    TimeStyle style = TimeStyle::elapsed;
    std::size_t column = 0;
    std::size_t clockColumn = 0; ///< only of dateAndClock
    double secondsPerUnit = 1;   ///< of a number
    DateOrder order = DateOrder::yearMonthDay;
    bool clockOnly = false; ///< a clock without a date
};

/// What the user states of it.
struct TimeWish {
    std::optional<TimeStyle> style;
    std::optional<DateOrder> order;
    std::optional<double> secondsPerUnit;
    std::optional<std::size_t> column;
    bool operator==(const TimeWish&) const = default;
};

struct TimeColumn {
    std::size_t index = 0;
    Unit unit = Unit::none;
};

/// rows: fields of sample rows, in order, from the beginning and the end of the log. candidates: columns with
/// the role of time, in order; the first column of all when there is none. Nothing when none is a time.
std::optional<TimeReading> detectTime(std::span<const TimeColumn> candidates,
                                      std::span<const std::vector<std::string>> rows, char decimal,
                                      const TimeWish& wish = {});

/// "day.month.year", "since 1970, ms", …: how the time was read, for people.
Message timeReadAs(const TimeReading& reading);

/// Stamps of one log, one row after the other.
class StampReader {
public:
    StampReader(const TimeReading& reading, char decimal) : reading_(reading), decimal_(decimal) {}

    /// Seconds on the log's own clock, from its first day; nothing when the cells are no time. clockField is
    /// only looked at when date and clock stand apart.
    std::optional<double> read(std::string_view field, std::string_view clockField);
    /// Of the first stamp read, when it has a date.
    std::optional<Instant> start() const { return start_; }

private:
    std::optional<double> fromNumber(std::string_view field);

    TimeReading reading_;
    char decimal_;
    std::optional<std::int64_t> firstDay_;
    std::optional<double> firstEpoch_;
    std::optional<int> firstZone_;
    std::optional<Instant> start_;
};

} // namespace ibuki
