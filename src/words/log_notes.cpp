// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/catalogue.h"

namespace ibuki::words {

// How a log was read, and what was mended or left out in it.
std::span<const Entry> logNotes() {
    static constexpr Entry entries[] = {
        one("log-line.clock-set", "The clock was set by {seconds:.0f} s: taken out"),
        one("log-line.cut-off", "The last line is cut off and was left out"),
        one("log-line.duplicate", "It repeats the time of the line before and was left out"),
        one("log-line.gap", "Nothing was logged for {seconds:.0f} s"),
        one("log-line.header-again", "The header stands here again: the logger was started anew"),
        one("log-line.header-changed", "The header stands here again with its columns in another order"),
        many("log-line.impossible",
             "{count} reading of \"{column}\" cannot be, such as {first:g}, and count as missing",
             "{count} readings of \"{column}\" cannot be, such as {first:g}, and count as missing"),
        one("log-line.no-time", "\"{cell}\" is no time: the line was left out"),
        one("log-line.time-impossible",
            "Its time lies a lifetime away from the others: the line was left out"),
        one("log-line.short", "It has fewer fields than the header and was left out"),
        one("figures-stated", "figures as stated, without a log"),
        one("recorded", "recorded here from {sources}"),
        one("read-as", "{separator}, decimal {decimal}, header in line {line}, {time}"),
        one("read-as.json-lines", "JSON Lines, {time}"),
        one("read-as.with-units",
            "{separator}, decimal {decimal}, header in line {line} with units under it, {time}"),
        one("said", "{text}"),
        one("time-read-as", "{style}"),
        one("time-read-as.clock", "clock without a date"),
        one("time-read-as.date", "{style}, {order}"),
        one("time-read-as.number", "{style}, {unit}"),
    };
    return entries;
}

} // namespace ibuki::words
