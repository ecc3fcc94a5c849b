// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The mark of each material class: a letter and a shape, the same in every view and in reports. State is
// never told by colour alone; neither is class.

#include "core/domain/material.h"

#include <string_view>
#include <vector>

namespace ibuki {

struct ClassMark {
    std::string_view letter;
    /// Corner points in the unit square −1…1, in drawing order; empty for a round mark.
    std::vector<std::pair<double, double>> corners;
};

ClassMark classMark(MaterialClass kind);

} // namespace ibuki
