// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/forms/page_export.h"
#include "core/heat/calibration.h"
#include "core/heat/what_if.h"

namespace ibuki {

/// What the pages of the heat path show: the bench's path as it was measured, and what is turned over in the
/// head.
struct HeatMatter {
    const Document& document;
    const Calibration& calibration;
    BenchPath bench; ///< with cooler, power, room and the studied joint of what is selected
    bool anchorAssumed = false;
    const Material* material = nullptr; ///< at the studied site, where one is meant
    std::optional<double> gapMm{};      ///< stated of that site
};

class HeatPage : public ExportedPage {
    Q_OBJECT

public:
    using ExportedPage::ExportedPage;

    virtual void fill(const HeatMatter& matter) = 0;
};

} // namespace ibuki
