// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A comparison as it is looked at with some of its groups put aside. What was found stays: every interval is
// still that of the whole family.

#include "core/comparison/compare.h"

#include <set>

namespace ibuki {

struct ShownGroups {
    Comparison comparison;
    std::vector<std::optional<std::size_t>> pairs; ///< of the whole comparison: where they stand in this one
};

ShownGroups without(const Comparison& comparison, const std::set<std::int64_t>& hidden);

} // namespace ibuki
