// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/conduction_field.h"

#include "core/base/thread_team.h"
#include "core/physics/column_system.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

std::vector<double> widthsOf(const std::vector<double>& lines) {
    std::vector<double> widths;
    for (std::size_t i = 0; i + 1 < lines.size(); ++i) widths.push_back(lines[i + 1] - lines[i]);
    return widths;
}

/// The cells of a raster that a centred rectangle covers, which has lines on its edges.
struct Window {
    int fromX = 0, toX = 0, fromY = 0, toY = 0;

    Window(const FieldGrid& grid, double left, double right, double bottom, double top) {
        const auto cellAt = [](const std::vector<double>& lines, double at) {
            const auto near = std::lower_bound(lines.begin(), lines.end(), at - 1e-5 * lines.back());
            return static_cast<int>(near - lines.begin());
        };
        fromX = cellAt(grid.x, left);
        toX = cellAt(grid.x, right);
        fromY = cellAt(grid.y, bottom);
        toY = cellAt(grid.y, top);
    }
    Window(const FieldGrid& grid, const Extent& size)
        : Window(grid, -size.widthMm / 2, size.widthMm / 2, -size.lengthMm / 2, size.lengthMm / 2) {}

    template <class Body> void each(const Body& body) const {
        for (int y = fromY; y < toY; ++y)
            for (int x = fromX; x < toX; ++x) body(x, y);
    }
};

class Assembly {
public:
    Assembly(const HeatPath& path, const FieldGrid& grid, const std::vector<double>& conductivities)
        : path_(path), grid_(grid), system(widthsOf(grid.x), widthsOf(grid.y), grid.levels()) {
        for (const double k : conductivities) kPerMm_.push_back(k / 1000);
        for (std::size_t i = 0; i < path.solids.size(); ++i) addSolid(i);
        for (std::size_t i = 0; i < path.interfaces.size(); ++i) addInterface(i);
        addCooler();
        addPower();
    }

    double area(int x, int y) const {
        return system.widthX[static_cast<std::size_t>(x)] * system.widthY[static_cast<std::size_t>(y)];
    }
    /// Half of a level's height as a resistance, mm²·K/W.
    double halfLevel(std::size_t solid, int level) const {
        return grid_.heights[static_cast<std::size_t>(level)] / (2 * kPerMm_[solid]);
    }
    int lastLevel(std::size_t solid) const { return grid_.firstLevel[solid + 1] - 1; }
    Window overlap(std::size_t interface) const {
        return {grid_, overlapOf(path_.solids[interface].size, path_.solids[interface + 1].size)};
    }
    /// Share that is covered in a cell of an interface.
    double covered(std::size_t interface, int x, int y) const {
        const PathInterface& of = path_.interfaces[interface];
        if (!of.mask) return of.covered;
        const Extent face = overlapOf(path_.solids[interface].size, path_.solids[interface + 1].size);
        const auto shareX = [&](int line) {
            return grid_.x[static_cast<std::size_t>(line)] / face.widthMm + 0.5;
        };
        const auto shareY = [&](int line) {
            return grid_.y[static_cast<std::size_t>(line)] / face.lengthMm + 0.5;
        };
        return of.mask->mean(shareX(x), shareX(x + 1), shareY(y), shareY(y + 1));
    }
    double surfaceW(int x, int y) const { return surface_[raster(x, y)]; }
    /// Of a face cell towards the room by the board, W/K.
    double boardWPerK(int x, int y) const {
        return path_.boardKPerW ? area(x, y) / (path_.solids.front().size.areaMm2() * *path_.boardKPerW) : 0;
    }
    /// The powered face over a cell: heat comes in there, some of it leaves by the board.
    double faceRise(int x, int y, double cellRise) const {
        const double inward = area(x, y) / halfLevel(0, 0);
        return (inward * cellRise + surfaceW(x, y)) / (inward + boardWPerK(x, y));
    }

private:
    const HeatPath& path_;
    const FieldGrid& grid_;
    std::vector<double> kPerMm_;
    std::vector<double> surface_; ///< W onto each cell of the powered face

    std::size_t raster(int x, int y) const {
        return static_cast<std::size_t>(y) * system.widthX.size() + static_cast<std::size_t>(x);
    }

    void addSolid(std::size_t solid) {
        const Window window(grid_, path_.solids[solid].size);
        const auto between = [&](const std::vector<double>& widths, int i) {
            const auto at = static_cast<std::size_t>(i);
            return 2 * kPerMm_[solid] / (widths[at] + widths[at + 1]);
        };
        for (int z = grid_.firstLevel[solid]; z < grid_.firstLevel[solid + 1]; ++z)
            window.each([&](int x, int y) {
                const double height = grid_.heights[static_cast<std::size_t>(z)];
                const std::size_t i = system.at(x, y, z);
                if (x + 1 < window.toX)
                    system.gx[i] =
                        between(system.widthX, x) * system.widthY[static_cast<std::size_t>(y)] * height;
                if (y + 1 < window.toY)
                    system.gy[i] =
                        between(system.widthY, y) * system.widthX[static_cast<std::size_t>(x)] * height;
                if (z < lastLevel(solid))
                    system.gz[i] = area(x, y) / (halfLevel(solid, z) + halfLevel(solid, z + 1));
            });
    }
    void addInterface(std::size_t at) {
        const int level = lastLevel(at);
        overlap(at).each([&](int x, int y) {
            const double between = path_.interfaces[at].effectiveMm2KPerW(covered(at, x, y));
            system.gz[system.at(x, y, level)] =
                area(x, y) / (halfLevel(at, level) + between + halfLevel(at + 1, level + 1));
        });
    }
    void addCooler() {
        const std::size_t last = path_.solids.size() - 1;
        const Extent& size = path_.solids[last].size;
        Window(grid_, size).each([&](int x, int y) {
            system.out[system.at(x, y, lastLevel(last))] +=
                area(x, y) / (halfLevel(last, lastLevel(last)) + path_.coolerKPerW * size.areaMm2());
        });
    }
    void addPower() {
        surface_.assign(system.widthX.size() * system.widthY.size(), 0);
        double even = path_.powerW;
        for (const HeatSource& source : path_.sources) even -= source.powerW;
        const auto spread = [&](const Window& window, const Extent& size, double watts) {
            window.each([&](int x, int y) { surface_[raster(x, y)] += watts * area(x, y) / size.areaMm2(); });
        };
        const Window face(grid_, path_.solids.front().size);
        spread(face, path_.solids.front().size, std::max(0.0, even));
        for (const HeatSource& source : path_.sources)
            spread(sourceWindow(source), source.size, source.powerW);
        face.each([&](int x, int y) {
            // The face's own unknown is eliminated: what comes in is parted between silicon and board.
            const double inward = area(x, y) / halfLevel(0, 0), board = boardWPerK(x, y);
            const std::size_t i = system.at(x, y, 0);
            system.heat[i] = surfaceW(x, y) * inward / (inward + board);
            system.out[i] += board > 0 ? inward * board / (inward + board) : 0;
        });
    }

public:
    Window sourceWindow(const HeatSource& source) const {
        return {grid_, source.xMm - source.size.widthMm / 2, source.xMm + source.size.widthMm / 2,
                source.yMm - source.size.lengthMm / 2, source.yMm + source.size.lengthMm / 2};
    }

    ColumnSystem system;
};

/// Temperatures of a window, given cell by cell.
template <class Celsius>
FieldFace faceOf(const FieldGrid& grid, const Window& window, const Celsius& celsius) {
    FieldFace face;
    face.x.assign(grid.x.begin() + window.fromX, grid.x.begin() + window.toX + 1);
    face.y.assign(grid.y.begin() + window.fromY, grid.y.begin() + window.toY + 1);
    double sum = 0, area = 0;
    window.each([&](int x, int y) {
        const auto xi = static_cast<std::size_t>(x), yi = static_cast<std::size_t>(y);
        const double value = celsius(x, y);
        const double cell = (grid.x[xi + 1] - grid.x[xi]) * (grid.y[yi + 1] - grid.y[yi]);
        if (face.celsius.empty() || value > face.maxC) {
            face.maxC = value;
            face.maxXMm = 0.5 * (grid.x[xi] + grid.x[xi + 1]);
            face.maxYMm = 0.5 * (grid.y[yi] + grid.y[yi + 1]);
        }
        face.celsius.push_back(value);
        sum += value * cell;
        area += cell;
    });
    face.meanC = sum / area;
    return face;
}

FieldInterface interfaceOf(const HeatPath& path, const FieldGrid& grid, const Assembly& assembly,
                           const std::vector<double>& rise, std::size_t at) {
    const int level = assembly.lastLevel(at);
    const ColumnSystem& system = assembly.system;
    FieldInterface interface;
    double change = 0; // Σ q² a dR″cell/dR″: what a small change of R″ does to power × mean rise
    const auto flow = [&](int x, int y) {
        const std::size_t above = system.at(x, y, level), below = system.at(x, y, level + 1);
        return system.gz[above] * (rise[above] - rise[below]);
    };
    interface.hot = faceOf(grid, assembly.overlap(at), [&](int x, int y) {
        const double watts = flow(x, y), area = assembly.area(x, y);
        const double share = assembly.covered(at, x, y);
        const double r = path.interfaces[at].rMm2KPerW;
        const double ratio = r > 0 ? path.interfaces[at].effectiveMm2KPerW(share) / r : 1;
        change += watts * watts / area * (r > 0 ? share * ratio * ratio : share >= 1 ? 1 : 0);
        interface.flowW += watts;
        return path.ambientC + rise[system.at(x, y, level)] - watts / area * assembly.halfLevel(at, level);
    });
    if (path.powerW > 0 && path.sources.empty() && change > 0)
        interface.effectiveAreaMm2 = path.powerW * path.powerW / change;
    return interface;
}

std::vector<double> chainConductivities(const HeatPath& path) {
    std::vector<double> all;
    for (const SolidStep& step : solveChain(path).solids) all.push_back(step.conductivity);
    return all;
}

} // namespace

ConductionField solveField(const HeatPath& path, const FieldOptions& options) {
    requireSound(path);
    const FieldGrid grid = fieldGrid(path, options.grid);
    const Assembly assembly(path, grid, chainConductivities(path));
    const ColumnSystem& system = assembly.system;
    ThreadTeam team(options.threads);
    ColumnSolveOptions solving;
    solving.tolerance = options.tolerance;
    solving.stop = options.stop;
    solving.progress = options.progress;
    const ColumnSolution solution = solveColumns(system, team, solving);
    ConductionField field;
    field.cancelled = solution.cancelled;
    if (field.cancelled) return field;
    field.iterations = solution.iterations;
    field.residual = solution.residual;
    for (std::size_t i = 0; i < path.solids.size(); ++i) {
        const Window window(grid, path.solids[i].size);
        field.cells += static_cast<long>(window.toX - window.fromX) * (window.toY - window.fromY)
                       * (grid.firstLevel[i + 1] - grid.firstLevel[i]);
    }
    const auto powered = [&](int x, int y) {
        return path.ambientC + assembly.faceRise(x, y, solution.rise[system.at(x, y, 0)]);
    };
    field.powered = faceOf(grid, Window(grid, path.solids.front().size), powered);
    for (const HeatSource& source : path.sources)
        field.sourcesC.push_back(faceOf(grid, assembly.sourceWindow(source), powered).meanC);
    for (std::size_t i = 0; i < path.interfaces.size(); ++i)
        field.interfaces.push_back(interfaceOf(path, grid, assembly, solution.rise, i));
    double out = 0, in = 0;
    for (std::size_t i = 0; i < system.cells(); ++i) {
        out += system.out[i] * solution.rise[i];
        in += system.heat[i];
    }
    field.energyError = in > 0 ? (out - in) / in : 0;
    return field;
}

} // namespace ibuki
