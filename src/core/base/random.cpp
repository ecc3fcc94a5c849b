// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"

#include <boost/math/special_functions/erf.hpp>
#include <cmath>

namespace ibuki {
namespace {

/// In double throughout: long double costs three times as much and shows nowhere.
using Plain = boost::math::policies::policy<boost::math::policies::promote_double<false>>;

} // namespace

double Random::uniform() { return (static_cast<double>(engine_() >> 11) + 0.5) * 0x1.0p-53; }

double Random::normal() { return std::sqrt(2.0) * boost::math::erf_inv(2 * uniform() - 1, Plain{}); }

} // namespace ibuki
