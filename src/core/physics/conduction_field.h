// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Where it is how hot: conduction in the solids of a heat path by finite volumes (Patankar 1980), interfaces
// as resistances that their masks change from cell to cell, the cooler as an even film (docs/methods.md H.5).

#include "core/physics/field_grid.h"
#include "core/physics/heat_path.h"

#include <functional>
#include <stop_token>

namespace ibuki {

struct FieldOptions {
    FieldGridOptions grid{};
    double tolerance = 1e-11; ///< of ‖r‖/‖b‖
    int threads = 0;          ///< 0: as many as there are cores
    std::stop_token stop{};
    std::function<void(double)> progress{}; ///< 0 to 1
};

/// A face in the stack as a raster between lines that need not be even.
struct FieldFace {
    std::vector<double> x, y;    ///< lines, mm from the axis
    std::vector<double> celsius; ///< one a cell, x fastest, y upwards
    double meanC = 0;            ///< area mean
    double maxC = 0;
    double maxXMm = 0, maxYMm = 0; ///< of the hottest cell's centre
};

struct FieldInterface {
    FieldFace hot;                          ///< the face towards the chip
    std::optional<double> effectiveAreaMm2; ///< dR″/d(total), exactly, from the flux through each cell
    double flowW = 0;
};

struct ConductionField {
    FieldFace powered;
    std::vector<FieldInterface> interfaces;
    std::vector<double> sourcesC; ///< area means in the order given
    long cells = 0;
    int iterations = 0;
    double residual = 0;
    double energyError = 0; ///< (heat out − heat in) / heat in
    bool cancelled = false; ///< nothing else is filled then
};

/// Leakage and parts beside the chip are not in it; silicon conducts as at the chain's temperatures. Throws
/// what requireSound and fieldGrid throw.
ConductionField solveField(const HeatPath& path, const FieldOptions& options = {});

} // namespace ibuki
