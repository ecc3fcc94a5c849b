// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// One multigrid cycle over a ColumnSystem, as a symmetric preconditioner. Thin layers couple a column's cells
// far more strongly than neighbouring columns, so whole columns are solved at once (Thomas), red and black in
// turn, and only x and y are coarsened, down to one column. Conductances between coarse cells are summed and
// lengthened to the coarse distance (Wesseling, An Introduction to Multigrid Methods, 1992, ch. 5 and 7).

#include "core/physics/column_system.h"

#include <memory>

namespace ibuki {

class ColumnMultigrid {
public:
    ColumnMultigrid(const ColumnSystem& system, ThreadTeam& team);
    ~ColumnMultigrid();
    ColumnMultigrid(const ColumnMultigrid&) = delete;
    ColumnMultigrid& operator=(const ColumnMultigrid&) = delete;

    /// z ≈ A⁻¹ r. Both as long as the system has cells.
    void apply(const std::vector<double>& r, std::vector<double>& z);

private:
    struct Level;
    void cycle(std::size_t level);

    ThreadTeam& team_;
    std::vector<std::unique_ptr<Level>> levels_;
};

} // namespace ibuki
