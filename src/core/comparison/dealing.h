// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Ways in which units could have been dealt to two groups, for permutation tests.

#include <cstddef>
#include <vector>

namespace ibuki {

/// k of n, without order; infinite where a double does not hold it.
double waysToDeal(std::size_t n, std::size_t k);

/// The next choice of chosen.size() of n after `chosen`, which is ascending, in lexicographic order; false
/// after the last.
bool nextDeal(std::vector<std::size_t>& chosen, std::size_t n);

} // namespace ibuki
