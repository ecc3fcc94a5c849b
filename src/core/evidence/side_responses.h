// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What else the mounts of a question are compared by: power, K/W, clock and fan over the steady window, and
// what was read beside it (score, frame rate, noise …). The same mounts, groups, blocks and family of pairs
// as the question's own comparison, each response with a margin of its own.

#include "core/evidence/evidence.h"

namespace ibuki {

struct SideComparison : Judged {
    SideResponse response = SideResponse::score;
    std::string name; ///< of another response; else empty
    std::string unit;
    Better better = Better::neither; ///< where lower or higher is no merit, groups are compared all the same
    double margin = 1;               ///< in the unit
    bool marginStated = false;       ///< else the usual one
};

/// Those that at least two groups of the comparison have, in the order of SideResponse. Nothing is censored.
std::vector<SideComparison> sideComparisons(const Document& document, const Question& question,
                                            const Evidence& evidence);

/// The difference that usually matters, to two digits: 1 % of a score, frame rate, render time or clock, 2 %
/// of a power or a fan's speed, 2 points of its share, 1 dB(A) of noise, the question's margin over the power
/// for K/W.
double typicalMargin(SideResponse response, double mean, const Question& question, double meanPowerW);

/// a − b of the groups with these ids as the comparison judged it, its sign turned where it holds b − a.
std::optional<PairComparison> pairBetween(const Comparison& comparison, std::int64_t a, std::int64_t b);

} // namespace ibuki
