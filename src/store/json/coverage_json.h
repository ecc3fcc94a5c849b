// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What is told of a look (docs/cli.md, "coverage").

#include "core/look/coverage_figures.h"
#include "core/look/measured_face.h"

#include <nlohmann/json.hpp>

namespace ibuki {

/// Of a photograph; figures: nothing where no corners were found.
nlohmann::ordered_json toJson(const MeasuredFace& measured, const Extent& face,
                              const std::optional<CoverageFigures>& figures);

/// Of a finished mask: what only a photograph has is null.
nlohmann::ordered_json maskJson(const GreyPicture& mask, const Extent& face, const CoverageFigures& figures);

} // namespace ibuki
