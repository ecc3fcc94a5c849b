// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a material is worth: Pareto front of temperature and price, weighted scores on the materials given,
// and how often each stands first over all weightings (Lahdelma, Hokkanen & Salminen 1998; docs/methods.md,
// "Value").

#include <array>
#include <optional>
#include <string>
#include <vector>

namespace ibuki {

enum class Criterion { delta, price, ease, cleanUp, lifetime, safety };
constexpr std::size_t criteria = 6;
constexpr bool lowerIsBetter(Criterion criterion) {
    return criterion == Criterion::delta || criterion == Criterion::price;
}

/// Its column in a table, and its key in a file of weights.
std::string_view criterionColumn(Criterion criterion);

struct ValueRow {
    std::string material;
    std::array<std::optional<double>, criteria> values; ///< delta K and price an application are given
    double deltaSe = 0;                                 ///< K
    std::optional<double> of(Criterion criterion) const {
        return values[static_cast<std::size_t>(criterion)];
    }
};

using Weights = std::array<double, criteria>; ///< not negative; scaled to sum 1 where they are used

struct ValuedRow {
    std::optional<std::size_t> dominatedBy; ///< a row that is neither dearer nor hotter, and one of them less
    bool clearly = false;                   ///< by more than 1.96·√(se² + se²) in temperature
    std::optional<double> score;            ///< 0 to 1; nothing without weights
    double firstShare = 0; ///< of all weightings drawn evenly, in which it stands first; ties shared
};

/// Where the winner changes as the weight on temperature grows from 0 to 1, temperature and price alone.
struct Breakpoint {
    double weightOnDelta = 0;
    std::size_t from = 0;
    std::size_t to = 0;
};

struct ValueFront {
    std::vector<ValuedRow> rows;    ///< beside those given
    std::vector<std::size_t> front; ///< coolest first
    std::vector<Breakpoint> breakpoints;
    std::vector<Criterion> used; ///< that all rows have and that differ between them
};

/// Scores are min–max on the rows given. Shares are exact for two criteria, else from `draws` seeded draws.
/// Throws InputError: no row, a material twice, a criterion that only some rows have, a price or standard
/// error below 0, a weight below 0 or all 0, or on a criterion that no row has.
ValueFront judgeValue(const std::vector<ValueRow>& rows, const std::optional<Weights>& weights = {},
                      int draws = 200'000);

/// The weighted scores alone, beside the rows: what follows a slider.
std::vector<double> scoresOf(const std::vector<ValueRow>& rows, const Weights& weights);

} // namespace ibuki
