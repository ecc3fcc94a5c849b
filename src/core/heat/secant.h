// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cmath>

namespace ibuki {

/// What value gives the total, by secants from two trials; for totals that grow with it and hardly bend.
template <class TotalAt> double solved(const TotalAt& totalAt, double first, double second, double wanted) {
    double a = first, b = second;
    double atA = totalAt(a) - wanted, atB = totalAt(b) - wanted;
    for (int i = 0; i < 40 && std::abs(atB) > 1e-13 && atB != atA; ++i) {
        const double next = b - atB * (b - a) / (atB - atA);
        a = b;
        atA = atB;
        b = next;
        atB = totalAt(b) - wanted;
    }
    return b;
}

} // namespace ibuki
