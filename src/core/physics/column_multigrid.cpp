// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/column_multigrid.h"

#include "core/base/thread_team.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace ibuki {
namespace {

/// Which fine cells of one direction a coarse one is made of.
struct Merging {
    std::vector<int> into;       ///< of each fine cell
    std::vector<double> widths;  ///< of the coarse ones
    std::vector<double> stretch; ///< of the conductance between a coarse cell and the next: what is left of
                                 ///< the fine ones between them at the longer distance

    Merging(const std::vector<double>& fine, double widest) {
        std::vector<std::size_t> last; // fine cell of each coarse one
        for (std::size_t i = 0; i < fine.size(); ++i) {
            if (i == 0 || widths.back() + fine[i] > widest * (1 + 1e-9)) {
                widths.push_back(0);
                last.push_back(i);
            }
            widths.back() += fine[i];
            last.back() = i;
            into.push_back(static_cast<int>(widths.size()) - 1);
        }
        for (std::size_t i = 0; i + 1 < widths.size(); ++i)
            stretch.push_back((fine[last[i]] + fine[last[i] + 1]) / (widths[i] + widths[i + 1]));
    }
    bool endsAt(int cell) const {
        return into[static_cast<std::size_t>(cell)] != into[static_cast<std::size_t>(cell) + 1];
    }
};

/// Narrow cells are merged until they are as wide as the widest, since a strong coupling leaves errors that
/// only a coarser raster along it takes away; then all are merged two and two.
std::pair<Merging, Merging> mergings(const ColumnSystem& fine) {
    const auto [leastX, mostX] = std::minmax_element(fine.widthX.begin(), fine.widthX.end());
    const auto [leastY, mostY] = std::minmax_element(fine.widthY.begin(), fine.widthY.end());
    const double widest = std::max(*mostX, *mostY);
    if (2 * std::min(*leastX, *leastY) <= widest) {
        std::pair evened{Merging(fine.widthX, widest), Merging(fine.widthY, widest)};
        const std::size_t before = fine.widthX.size() * fine.widthY.size();
        if (evened.first.widths.size() * evened.second.widths.size() < before) return evened;
    }
    return {Merging(fine.widthX, 2 * widest), Merging(fine.widthY, 2 * widest)};
}

ColumnSystem coarsened(const ColumnSystem& fine, const Merging& alongX, const Merging& alongY) {
    ColumnSystem coarse(alongX.widths, alongY.widths, fine.nz);
    for (int z = 0; z < fine.nz; ++z)
        for (int y = 0; y < fine.ny; ++y)
            for (int x = 0; x < fine.nx; ++x) {
                const int cx = alongX.into[static_cast<std::size_t>(x)],
                          cy = alongY.into[static_cast<std::size_t>(y)];
                const std::size_t from = fine.at(x, y, z), to = coarse.at(cx, cy, z);
                coarse.gz[to] += fine.gz[from];
                coarse.out[to] += fine.out[from];
                if (x + 1 < fine.nx && alongX.endsAt(x))
                    coarse.gx[to] += fine.gx[from] * alongX.stretch[static_cast<std::size_t>(cx)];
                if (y + 1 < fine.ny && alongY.endsAt(y))
                    coarse.gy[to] += fine.gy[from] * alongY.stretch[static_cast<std::size_t>(cy)];
            }
    return coarse;
}

} // namespace

struct ColumnMultigrid::Level {
    int nx, ny, nz;
    std::size_t row, plane;
    std::vector<float> gx, gy, gz, diagonal, inverse, b, u;
    std::vector<int> intoX, intoY;           ///< the coarse cell of each; empty on the last level
    std::vector<std::vector<float>> scratch; ///< one a part of the raster

    explicit Level(const ColumnSystem& s);
    void smoothRow(int y, int colour, std::vector<float>& work);
    void residualRow(int y, std::vector<float>& sums, Level& coarse) const;
    void correctRow(int y, const Level& coarse);
    /// Σ of what flows in from the four neighbours of each cell of a row.
    void inflow(int y, int z, float* into) const;
};

ColumnMultigrid::Level::Level(const ColumnSystem& s)
    : nx(s.nx),
      ny(s.ny),
      nz(s.nz),
      row(static_cast<std::size_t>(s.nx)),
      plane(static_cast<std::size_t>(s.nx) * static_cast<std::size_t>(s.ny)),
      gx(s.gx.begin(), s.gx.end()),
      gy(s.gy.begin(), s.gy.end()),
      gz(s.gz.begin(), s.gz.end()),
      diagonal(s.cells()),
      inverse(s.cells()),
      b(s.cells(), 0),
      u(s.cells(), 0) {
    for (int z = 0; z < nz; ++z)
        for (int y = 0; y < ny; ++y)
            for (int x = 0; x < nx; ++x) {
                const std::size_t i = s.at(x, y, z);
                double sum = s.out[i] + s.gx[i] + s.gy[i] + s.gz[i];
                if (x > 0) sum += s.gx[i - 1];
                if (y > 0) sum += s.gy[i - row];
                if (z > 0) sum += s.gz[i - plane];
                if (!(sum > 0)) sum = 1;
                diagonal[i] = static_cast<float>(sum);
                double pivot = sum;
                if (z > 0)
                    pivot -= s.gz[i - plane] * s.gz[i - plane] * static_cast<double>(inverse[i - plane]);
                inverse[i] = static_cast<float>(1 / pivot);
            }
}

void ColumnMultigrid::Level::inflow(int y, int z, float* into) const {
    const std::size_t start = static_cast<std::size_t>(z) * plane + static_cast<std::size_t>(y) * row;
    const float* at = u.data() + start;
    const float* right = gx.data() + start;
    const float* up = gy.data() + start;
    for (std::size_t x = 0; x < row; ++x) into[x] = 0;
    for (std::size_t x = 0; x + 1 < row; ++x) into[x] += right[x] * at[x + 1];
    for (std::size_t x = 1; x < row; ++x) into[x] += right[x - 1] * at[x - 1];
    if (y + 1 < ny)
        for (std::size_t x = 0; x < row; ++x) into[x] += up[x] * at[x + row];
    if (y > 0) {
        const float* down = up - row;
        const float* before = at - row;
        for (std::size_t x = 0; x < row; ++x) into[x] += down[x] * before[x];
    }
}

/// Solves the columns of one colour in a row for what their neighbours are now.
void ColumnMultigrid::Level::smoothRow(int y, int colour, std::vector<float>& work) {
    const std::size_t base = static_cast<std::size_t>(y) * row;
    for (int z = 0; z < nz; ++z) {
        float* at = work.data() + static_cast<std::size_t>(z) * row;
        inflow(y, z, at);
        const std::size_t start = static_cast<std::size_t>(z) * plane + base;
        const float* load = b.data() + start;
        for (std::size_t x = 0; x < row; ++x) at[x] += load[x];
        if (z == 0) continue;
        const float* g = gz.data() + start - plane;
        const float* inv = inverse.data() + start - plane;
        const float* before = at - row;
        for (std::size_t x = 0; x < row; ++x) at[x] += g[x] * inv[x] * before[x];
    }
    const std::size_t first = static_cast<std::size_t>((y + colour) & 1);
    for (int z = nz; z-- > 0;) {
        float* at = work.data() + static_cast<std::size_t>(z) * row;
        const std::size_t start = static_cast<std::size_t>(z) * plane + base;
        const float* inv = inverse.data() + start;
        if (z + 1 < nz) {
            const float* g = gz.data() + start;
            const float* after = at + row;
            for (std::size_t x = 0; x < row; ++x) at[x] = inv[x] * (at[x] + g[x] * after[x]);
        } else {
            for (std::size_t x = 0; x < row; ++x) at[x] *= inv[x];
        }
        float* to = u.data() + start;
        for (std::size_t x = first; x < row; x += 2) to[x] = at[x];
    }
}

/// The residual of the rows that make a coarse one, summed into it.
void ColumnMultigrid::Level::residualRow(int coarseY, std::vector<float>& work, Level& coarse) const {
    const auto [first, last] = std::equal_range(intoY.begin(), intoY.end(), coarseY);
    float* flow = work.data();
    for (int z = 0; z < nz; ++z) {
        float* to = coarse.b.data() + static_cast<std::size_t>(z) * coarse.plane
                    + static_cast<std::size_t>(coarseY) * coarse.row;
        std::fill(to, to + coarse.row, 0.0F);
        for (auto y = static_cast<int>(first - intoY.begin()); y < static_cast<int>(last - intoY.begin());
             ++y) {
            inflow(y, z, flow);
            const std::size_t start = static_cast<std::size_t>(z) * plane + static_cast<std::size_t>(y) * row;
            const float* at = u.data() + start;
            for (std::size_t x = 0; x < row; ++x) flow[x] += b[start + x] - diagonal[start + x] * at[x];
            if (z > 0)
                for (std::size_t x = 0; x < row; ++x) flow[x] += gz[start + x - plane] * u[start + x - plane];
            if (z + 1 < nz)
                for (std::size_t x = 0; x < row; ++x) flow[x] += gz[start + x] * u[start + x + plane];
            for (std::size_t x = 0; x < row; ++x) to[intoX[x]] += flow[x];
        }
    }
}

void ColumnMultigrid::Level::correctRow(int y, const Level& coarse) {
    for (int z = 0; z < nz; ++z) {
        float* to = u.data() + static_cast<std::size_t>(z) * plane + static_cast<std::size_t>(y) * row;
        const float* from = coarse.u.data() + static_cast<std::size_t>(z) * coarse.plane
                            + static_cast<std::size_t>(intoY[static_cast<std::size_t>(y)]) * coarse.row;
        for (std::size_t x = 0; x < row; ++x) to[x] += from[intoX[x]];
    }
}

ColumnMultigrid::ColumnMultigrid(const ColumnSystem& system, ThreadTeam& team) : team_(team) {
    levels_.push_back(std::make_unique<Level>(system));
    std::optional<ColumnSystem> above;
    for (const ColumnSystem* now = &system; now->nx > 1 || now->ny > 1; now = &*above) {
        const auto [x, y] = mergings(*now);
        levels_.back()->intoX = x.into;
        levels_.back()->intoY = y.into;
        above = coarsened(*now, x, y);
        levels_.push_back(std::make_unique<Level>(*above));
    }
    for (const auto& level : levels_)
        level->scratch.assign(static_cast<std::size_t>(team_.size()),
                              std::vector<float>(level->row * static_cast<std::size_t>(level->nz)));
}

ColumnMultigrid::~ColumnMultigrid() = default;

void ColumnMultigrid::cycle(std::size_t at) {
    Level& level = *levels_[at];
    std::fill(level.u.begin(), level.u.end(), 0.0F);
    if (at + 1 == levels_.size()) return level.smoothRow(0, 0, level.scratch.front()); // one column: exact
    Level& coarse = *levels_[at + 1];
    const bool isSmall = level.u.size() < 20'000; // a loop this short is over before another thread woke
    const auto rows = [&](int count, const auto& body) {
        const auto part = [&](int index, int from, int to) {
            auto& work = level.scratch[static_cast<std::size_t>(index)];
            for (int y = from; y < to; ++y) body(y, work);
        };
        isSmall ? part(0, 0, count) : team_.run(count, part);
    };
    const auto smooth = [&](int colour) {
        rows(level.ny, [&](int y, std::vector<float>& work) { level.smoothRow(y, colour, work); });
    };
    smooth(0);
    smooth(1);
    rows(coarse.ny, [&](int y, std::vector<float>& work) { level.residualRow(y, work, coarse); });
    cycle(at + 1);
    rows(level.ny, [&](int y, std::vector<float>&) { level.correctRow(y, coarse); });
    smooth(1);
    smooth(0);
}

void ColumnMultigrid::apply(const std::vector<double>& r, std::vector<double>& z) {
    Level& finest = *levels_.front();
    // In the units of the residual, so that single precision serves it however small it is.
    const double most = std::abs(
        *std::max_element(r.begin(), r.end(), [](double a, double b) { return std::abs(a) < std::abs(b); }));
    const double scale = most > 0 ? 1 / most : 1;
    std::transform(r.begin(), r.end(), finest.b.begin(),
                   [&](double v) { return static_cast<float>(v * scale); });
    cycle(0);
    std::transform(finest.u.begin(), finest.u.end(), z.begin(),
                   [&](float v) { return static_cast<double>(v) / scale; });
}

} // namespace ibuki
