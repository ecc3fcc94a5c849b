// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/field_grid.h"

#include "core/base/input_error.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double mostCells = 2e7;
constexpr double growth = 1.5;
constexpr double edgeParts = 4;

struct Edges {
    std::vector<double> at; ///< in order
    double end = 0; ///< half of the widest solid: nothing lies beyond, so that flux does not jump there
};

Edges edgesAlong(const HeatPath& path, double Extent::*size, double HeatSource::*centre) {
    Edges edges;
    std::vector<double> all;
    for (const PathSolid& solid : path.solids) {
        const double half = solid.size.*size / 2;
        all.insert(all.end(), {-half, half});
        edges.end = std::max(edges.end, half);
    }
    for (const HeatSource& source : path.sources) {
        const double half = source.size.*size / 2;
        all.insert(all.end(), {source.*centre - half, source.*centre + half});
    }
    std::sort(all.begin(), all.end());
    for (const double one : all)
        if (edges.at.empty() || one - edges.at.back() > 1e-6 * edges.end) edges.at.push_back(one);
    return edges;
}

/// Widths from an edge inwards that grow to the widest, none of them beyond half of the way.
std::vector<double> growingFrom(double narrow, double widest, double most) {
    std::vector<double> widths;
    double sum = 0;
    for (double width = narrow; width < widest && sum + width < most; width *= growth) {
        widths.push_back(width);
        sum += width;
    }
    return widths;
}

double sumOf(const std::vector<double>& widths) {
    double sum = 0;
    for (const double width : widths) sum += width;
    return sum;
}

struct CellWidths {
    double narrowest = 0; ///< beside an edge of the flux
    double widest = 0;
};

/// Adds the lines after `from`, up to and with `to`.
void cutSegment(std::vector<double>& lines, double from, double to, const CellWidths& cells, bool gradeFrom,
                bool gradeTo) {
    const double length = to - from, cell = cells.widest;
    const auto grown = [&](bool isGraded) {
        return isGraded ? growingFrom(cells.narrowest, cell, length / 2) : std::vector<double>{};
    };
    const auto near = grown(gradeFrom), far = grown(gradeTo);
    const double middle = length - sumOf(near) - sumOf(far);
    const int even =
        std::max(near.empty() && far.empty() ? 1 : 0, static_cast<int>(std::ceil(middle / cell - 1e-9)));
    std::vector<double> widths = near;
    for (int i = 0; i < even; ++i) widths.push_back(middle / even);
    widths.insert(widths.end(), far.rbegin(), far.rend());
    const double stretch = length / sumOf(widths);
    double at = from;
    for (std::size_t i = 0; i + 1 < widths.size(); ++i) lines.push_back(at += widths[i] * stretch);
    lines.push_back(to);
}

std::vector<double> linesAlong(const Edges& edges, const FieldGridOptions& options) {
    std::vector<double> lines{edges.at.front()};
    const auto jumps = [&](double at) { return options.gradeEdges && std::abs(at) < edges.end * (1 - 1e-6); };
    for (std::size_t i = 0; i + 1 < edges.at.size(); ++i)
        cutSegment(lines, edges.at[i], edges.at[i + 1], {options.cellMm / edgeParts, options.cellMm},
                   jumps(edges.at[i]), jumps(edges.at[i + 1]));
    return lines;
}

/// At least four in the powered solid, six in the last, five between; none higher than 1 mm or two cells.
int levelsOf(const HeatPath& path, std::size_t solid, double highest) {
    const int least = solid + 1 == path.solids.size() ? 6 : solid == 0 ? 4 : 5;
    return std::max(least, static_cast<int>(std::ceil(path.solids[solid].thicknessMm / highest - 1e-9)));
}

/// Heat comes in on a part of its face, at whose edges the flux jumps.
bool isHeatedInPart(const HeatPath& path, std::size_t solid) {
    if (solid == 0) return !path.sources.empty();
    return overlapOf(path.solids[solid - 1].size, path.solids[solid].size) != path.solids[solid].size;
}

/// Heights of a solid's levels from its hot face on.
std::vector<double> heightsOf(const HeatPath& path, std::size_t solid, const FieldGridOptions& options) {
    const double thickness = path.solids[solid].thicknessMm;
    if (!options.levels.empty()) {
        const int count = options.levels[solid];
        return std::vector<double>(static_cast<std::size_t>(count), thickness / count);
    }
    const int even = levelsOf(path, solid, std::min(1.0, 2 * options.cellMm));
    const double height = thickness / even;
    if (!options.gradeEdges || !isHeatedInPart(path, solid))
        return std::vector<double>(static_cast<std::size_t>(even), height);
    std::vector<double> heights;
    cutSegment(heights, 0, thickness, {std::min(options.cellMm / edgeParts, height), height}, true, false);
    for (std::size_t i = heights.size(); i-- > 1;) heights[i] -= heights[i - 1];
    return heights;
}

} // namespace

FieldGrid fieldGrid(const HeatPath& path, const FieldGridOptions& options) {
    double widest = 0, longest = 0;
    for (const PathSolid& solid : path.solids) {
        widest = std::max(widest, solid.size.widthMm);
        longest = std::max(longest, solid.size.lengthMm);
    }
    const auto tooMany = [&](double cells) {
        if (!(options.cellMm > 0) || cells > mostCells)
            throw InputError("heat-path.cells", {}, {{"value", options.cellMm}, {"most", mostCells / 1e6}});
    };
    FieldGrid grid;
    double levels = 0;
    for (std::size_t i = 0; i < path.solids.size(); ++i)
        levels += std::max(4.0, path.solids[i].thicknessMm / std::min(1.0, 2 * options.cellMm));
    tooMany(widest / options.cellMm * longest / options.cellMm * levels);
    for (std::size_t i = 0; i < path.solids.size(); ++i) {
        grid.firstLevel.push_back(grid.levels());
        const auto heights = heightsOf(path, i, options);
        grid.heights.insert(grid.heights.end(), heights.begin(), heights.end());
    }
    grid.firstLevel.push_back(grid.levels());
    grid.x = linesAlong(edgesAlong(path, &Extent::widthMm, &HeatSource::xMm), options);
    grid.y = linesAlong(edgesAlong(path, &Extent::lengthMm, &HeatSource::yMm), options);
    tooMany(static_cast<double>(grid.columns()) * grid.rows() * grid.levels());
    return grid;
}

} // namespace ibuki
