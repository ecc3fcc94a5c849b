// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// From the stamps as logged to seconds since the first sample: midnight, clock jumps, duplicates and gaps.
// Rules: a step backwards, or forwards by a whole multiple of 30 minutes (± 2 s) while the temperature goes
// on, is a clock jump and is taken out; another forward step longer than five median intervals and ten
// seconds is a gap and stays; rows that repeat the previous stamp are dropped, and so are rows whose stamp
// lies further from the others than a recording can last.

#include "core/trace/trace.h"

#include <span>

namespace ibuki {

inline constexpr double secondsPerDay = 86'400;
inline constexpr double longestRecordingS = 3.2e9; ///< a hundred years
/// What a recording may hold: 1 Hz for three years. A file that claims more is damaged or made to harm.
inline constexpr std::size_t mostSamples = 100'000'000;

/// One thing that was found, with the row (as given) behind it.
struct TimeAxisEvent {
    enum class Kind { clockJump, gap, duplicate, impossible };
    Kind kind = Kind::gap;
    std::size_t row = 0;
    double stepS = 0; ///< of the stamps
    bool operator==(const TimeAxisEvent&) const = default;
};

struct TimeAxis {
    std::vector<double> timeS;     ///< of the rows kept
    std::vector<std::size_t> keep; ///< indexes of the rows kept
    TimeAxisReport report;
    std::vector<TimeAxisEvent> events; ///< in order, the first few hundred
};

/// stampsS: seconds on the logger's clock, one a row; NaN for a row without a stamp (dropped).
/// clockOnly: stamps are seconds of a day without a date, so 24 h → 0 h is a new day.
/// witness: a temperature a row, or empty; tells a real pause from a clock that was set.
TimeAxis repairTimeAxis(std::span<const double> stampsS, bool clockOnly, std::span<const double> witness);

} // namespace ibuki
