// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/look/picture.h"

namespace ibuki {

CoverageMask coverageMaskOf(const GreyPicture& mask) {
    CoverageMask covered{mask.width, mask.height, {}};
    covered.covered.reserve(mask.grey.size());
    for (const std::uint8_t level : mask.grey) covered.covered.push_back(level >= maskFromHere ? 1.0F : 0.0F);
    return covered;
}

} // namespace ibuki
