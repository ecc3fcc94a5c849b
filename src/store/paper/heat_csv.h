// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the pages of the heat path show, as tables for others: one row a layer, a material, a cell, a
// practice. Units stand in the head.

#include "core/heat/bursts.h"
#include "core/heat/calibration.h"
#include "core/heat/disagreement.h"
#include "core/heat/transient_study.h"
#include "core/physics/conduction_field.h"
#include "core/plan/rehearsal.h"

#include <string>

namespace ibuki {

std::string layersCsv(const HeatPath& path, const HeatPathSteps& steps);
std::string jointsCsv(const Calibration& calibration);
std::string faceCsv(const FieldFace& face);
std::string stepsCsv(const TransientStudy& study);
/// One line; withHead: its head before it.
std::string accountCsv(const std::string& first, const std::string& second, const std::string& source,
                       const Disagreement& found, bool withHead);
std::string burstsCsv(const BurstCurves& curves);
std::string rehearsalCsv(const RehearsalScenario& scenario, const Rehearsal& rehearsal);

} // namespace ibuki
