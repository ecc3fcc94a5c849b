// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/dealing.h"

#include <boost/math/special_functions/binomial.hpp>

namespace ibuki {

double waysToDeal(std::size_t n, std::size_t k) {
    using namespace boost::math::policies;
    return boost::math::binomial_coefficient<double>(static_cast<unsigned>(n), static_cast<unsigned>(k),
                                                     policy<overflow_error<ignore_error>>{});
}

bool nextDeal(std::vector<std::size_t>& chosen, std::size_t n) {
    const std::size_t k = chosen.size();
    for (std::size_t i = k; i-- > 0;)
        if (chosen[i] < n - k + i) {
            ++chosen[i];
            for (std::size_t j = i + 1; j < k; ++j) chosen[j] = chosen[j - 1] + 1;
            return true;
        }
    return false;
}

} // namespace ibuki
