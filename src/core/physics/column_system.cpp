// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/column_system.h"

#include "core/base/thread_team.h"
#include "core/physics/column_multigrid.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

/// The system in double precision, row by row of the raster.
class ColumnOperator {
public:
    ColumnOperator(const ColumnSystem& system, ThreadTeam& team)
        : s_(system),
          team_(team),
          row_(static_cast<std::size_t>(system.nx)),
          plane_(row_ * static_cast<std::size_t>(system.ny)),
          sums_(static_cast<std::size_t>(system.ny) * static_cast<std::size_t>(system.nz)) {}

    /// q = A p; gives p·q.
    double multiply(const std::vector<double>& p, std::vector<double>& q) {
        return summed([&](std::size_t start, int y, int z) { return multiplyRow(p, q, start, y, z); });
    }
    double dot(const std::vector<double>& a, const std::vector<double>& b) {
        return summed([&](std::size_t start, int, int) {
            double sum = 0;
            for (std::size_t i = start; i < start + row_; ++i) sum += a[i] * b[i];
            return sum;
        });
    }
    /// Sums of rows, then of the sums in their order: the same for any number of threads.
    template <class RowSum> double summed(const RowSum& ofRow) {
        const int count = static_cast<int>(sums_.size());
        team_.run(count, [&](int, int from, int to) {
            for (int i = from; i < to; ++i)
                sums_[static_cast<std::size_t>(i)] =
                    ofRow(static_cast<std::size_t>(i) * row_, i % s_.ny, i / s_.ny);
        });
        double sum = 0;
        for (const double one : sums_) sum += one;
        return sum;
    }

private:
    double multiplyRow(const std::vector<double>& p, std::vector<double>& q, std::size_t start, int y,
                       int z) const {
        const double* at = p.data() + start;
        double* to = q.data() + start;
        const double* out = s_.out.data() + start;
        for (std::size_t x = 0; x < row_; ++x) to[x] = out[x] * at[x];
        const auto exchange = [&](const double* g, std::ptrdiff_t step) {
            for (std::size_t x = 0; x < row_; ++x)
                to[x] += g[x] * (at[x] - at[static_cast<std::ptrdiff_t>(x) + step]);
        };
        const double* gx = s_.gx.data() + start;
        for (std::size_t x = 0; x + 1 < row_; ++x) to[x] += gx[x] * (at[x] - at[x + 1]);
        for (std::size_t x = 1; x < row_; ++x) to[x] += gx[x - 1] * (at[x] - at[x - 1]);
        const auto row = static_cast<std::ptrdiff_t>(row_), plane = static_cast<std::ptrdiff_t>(plane_);
        if (y + 1 < s_.ny) exchange(s_.gy.data() + start, row);
        if (y > 0) exchange(s_.gy.data() + start - row, -row);
        if (z + 1 < s_.nz) exchange(s_.gz.data() + start, plane);
        if (z > 0) exchange(s_.gz.data() + start - plane, -plane);
        double sum = 0;
        for (std::size_t x = 0; x < row_; ++x) sum += at[x] * to[x];
        return sum;
    }

    const ColumnSystem& s_;
    ThreadTeam& team_;
    std::size_t row_, plane_;
    std::vector<double> sums_;
};

} // namespace

ColumnSystem::ColumnSystem(std::vector<double> widthsX, std::vector<double> widthsY, int levels)
    : nx(static_cast<int>(widthsX.size())),
      ny(static_cast<int>(widthsY.size())),
      nz(levels),
      widthX(std::move(widthsX)),
      widthY(std::move(widthsY)) {
    const std::size_t n = widthX.size() * widthY.size() * static_cast<std::size_t>(nz);
    for (auto* all : {&gx, &gy, &gz, &out, &heat}) all->assign(n, 0);
}

ColumnSolution solveColumns(const ColumnSystem& system, ThreadTeam& team, const ColumnSolveOptions& options) {
    const std::size_t n = system.cells();
    ColumnSolution solution{std::vector<double>(n, 0)};
    ColumnOperator a(system, team);
    const double whole = std::sqrt(a.dot(system.heat, system.heat));
    if (!(whole > 0)) return solution;
    ColumnMultigrid before(system, team);
    std::vector<double> r = system.heat, z(n), p(n, 0), q(n);
    double curvature = 0; // p·Ap
    solution.residual = 1;
    while (solution.iterations < options.mostIterations && solution.residual > options.tolerance) {
        if (options.stop.stop_requested()) {
            solution.cancelled = true;
            return solution;
        }
        before.apply(r, z);
        // The preconditioner is rounded, so that directions are made orthogonal to the last step by what
        // changed (Golub & Ye 1999) and not by r·z alone: q still holds A p, and r changed by −αq.
        const double turn = solution.iterations == 0 ? 0 : -a.dot(z, q) / curvature;
        a.summed([&](std::size_t start, int, int) {
            for (std::size_t i = start; i < start + static_cast<std::size_t>(system.nx); ++i)
                p[i] = z[i] + turn * p[i];
            return 0.0;
        });
        curvature = a.multiply(p, q);
        const double step = a.dot(p, r) / curvature;
        const double squares = a.summed([&](std::size_t start, int, int) {
            double sum = 0;
            for (std::size_t i = start; i < start + static_cast<std::size_t>(system.nx); ++i) {
                solution.rise[i] += step * p[i];
                r[i] -= step * q[i];
                sum += r[i] * r[i];
            }
            return sum;
        });
        ++solution.iterations;
        solution.residual = std::sqrt(squares) / whole;
        if (options.progress)
            options.progress(std::min(1.0, std::log(solution.residual) / std::log(options.tolerance)));
    }
    return solution;
}

} // namespace ibuki
