// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The equations of a conduction grid: every cell exchanges heat with its six neighbours and with the room.
// Cells lie in columns (z) over a raster (x, y); x runs fastest, z slowest. A cell that does not exist has no
// conductance and a diagonal of 1. Solved by conjugate gradients with a multigrid cycle in single precision
// before it (docs/methods.md H.6).

#include <cstddef>
#include <functional>
#include <stop_token>
#include <vector>

namespace ibuki {

class ThreadTeam;

struct ColumnSystem {
    int nx = 0, ny = 0, nz = 0;
    std::vector<double> widthX, widthY; ///< of the raster's cells, mm
    std::vector<double> gx, gy, gz;     ///< W/K from a cell to its neighbour at x + 1, y + 1, z + 1
    std::vector<double> out;            ///< W/K to the room
    std::vector<double> heat;           ///< W into the cell

    ColumnSystem(std::vector<double> widthsX, std::vector<double> widthsY, int levels);

    std::size_t cells() const { return gx.size(); }
    std::size_t at(int x, int y, int z) const {
        return (static_cast<std::size_t>(z) * static_cast<std::size_t>(ny) + static_cast<std::size_t>(y))
                   * static_cast<std::size_t>(nx)
               + static_cast<std::size_t>(x);
    }
};

struct ColumnSolveOptions {
    double tolerance = 1e-10; ///< of ‖r‖/‖b‖
    int mostIterations = 500;
    std::stop_token stop{};
    /// How far it is, 0 to 1, by the logarithm of the residual.
    std::function<void(double)> progress{};
};

struct ColumnSolution {
    std::vector<double> rise; ///< of each cell above the room, K
    int iterations = 0;
    double residual = 0; ///< ‖r‖/‖b‖ reached
    bool cancelled = false;
};

ColumnSolution solveColumns(const ColumnSystem& system, ThreadTeam& team,
                            const ColumnSolveOptions& options = {});

} // namespace ibuki
