// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/spread.h"

#include "core/base/input_error.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <numeric>

namespace ibuki {
namespace {

using std::numbers::pi;

constexpr double largestFaceMm = 10'000;
constexpr double mostSpreadCells = 50e6; ///< of the grid with its border: half a gigabyte

double distance(const PlanePoint& p, const Stroke& stroke) {
    const double dx = stroke.to.x - stroke.from.x;
    const double dy = stroke.to.y - stroke.from.y;
    const double squared = dx * dx + dy * dy;
    double along = 0;
    if (squared > 0)
        along = std::clamp(((p.x - stroke.from.x) * dx + (p.y - stroke.from.y) * dy) / squared, 0.0, 1.0);
    return std::hypot(p.x - stroke.from.x - along * dx, p.y - stroke.from.y - along * dy);
}

double distance(const PlanePoint& p, const std::vector<Stroke>& strokes) {
    double nearest = 1e300;
    for (const Stroke& stroke : strokes) nearest = std::min(nearest, distance(p, stroke));
    return nearest;
}

/// A grid of distances over the face and as far around it as paste can come.
struct Field {
    int columns = 0;
    int rows = 0;
    int borderColumns = 0; ///< cells on each side that are not the face
    int borderRows = 0;
    double cellWidth = 0;
    double cellLength = 0;
    std::vector<double> distances;

    double cellArea() const { return cellWidth * cellLength; }
    int faceColumns() const { return columns - 2 * borderColumns; }
    int faceRows() const { return rows - 2 * borderRows; }
    /// Of a cell counted from the face's corner.
    std::size_t faceIndex(int column, int row) const {
        return static_cast<std::size_t>(row + borderRows) * static_cast<std::size_t>(columns)
               + static_cast<std::size_t>(column + borderColumns);
    }
};

Field field(const SpreadInput& input, double reachMm) {
    Field made;
    double farthest = std::hypot(input.widthMm, input.lengthMm) / 2;
    for (const Stroke& stroke : input.strokes)
        for (const PlanePoint& end : {stroke.from, stroke.to})
            farthest = std::max(farthest, std::hypot(end.x, end.y));
    const double cellsAlong = 2 * (farthest + reachMm) / input.cellMm;
    if (!(cellsAlong * cellsAlong <= mostSpreadCells)) throw InputError("dose-cells", {});
    const int across = std::max(1, static_cast<int>(std::ceil(input.widthMm / input.cellMm - 1e-9)));
    const int along = std::max(1, static_cast<int>(std::ceil(input.lengthMm / input.cellMm - 1e-9)));
    made.cellWidth = input.widthMm / across;
    made.cellLength = input.lengthMm / along;
    double beyondX = 0;
    double beyondY = 0;
    for (const Stroke& stroke : input.strokes)
        for (const PlanePoint& end : {stroke.from, stroke.to}) {
            beyondX = std::max(beyondX, std::abs(end.x) + reachMm - input.widthMm / 2);
            beyondY = std::max(beyondY, std::abs(end.y) + reachMm - input.lengthMm / 2);
        }
    made.borderColumns = static_cast<int>(std::ceil(beyondX / made.cellWidth)) + 1;
    made.borderRows = static_cast<int>(std::ceil(beyondY / made.cellLength)) + 1;
    made.columns = across + 2 * made.borderColumns;
    made.rows = along + 2 * made.borderRows;
    made.distances.reserve(static_cast<std::size_t>(made.columns) * static_cast<std::size_t>(made.rows));
    for (int row = 0; row < made.rows; ++row)
        for (int column = 0; column < made.columns; ++column)
            made.distances.push_back(distance({(column + 0.5 - 0.5 * made.columns) * made.cellWidth,
                                               (row + 0.5 - 0.5 * made.rows) * made.cellLength},
                                              input.strokes));
    return made;
}

struct NearestCells {
    std::vector<unsigned char> wet; ///< as many as asked for
    double farthest = 0;            ///< distance of the last of them
};

/// Of cells at the same distance the earlier ones are taken, so that the volume is kept to one cell.
NearestCells nearestCells(const Field& on, std::size_t count) {
    std::vector<std::uint32_t> order(on.distances.size());
    std::iota(order.begin(), order.end(), 0U);
    const auto last = order.begin() + static_cast<std::ptrdiff_t>(count) - 1;
    std::nth_element(order.begin(), last, order.end(), [&](std::uint32_t a, std::uint32_t b) {
        return on.distances[a] != on.distances[b] ? on.distances[a] < on.distances[b] : a < b;
    });
    NearestCells nearest{std::vector<unsigned char>(order.size(), 0), on.distances[*last]};
    for (auto cell = order.begin(); cell <= last; ++cell) nearest.wet[*cell] = 1;
    return nearest;
}

/// Dry regions that do not reach the border: 4-connected flood from the outside, then what is left.
void countPockets(const Field& on, const std::vector<unsigned char>& wet, Spread& result) {
    const auto columns = static_cast<std::size_t>(on.columns);
    std::vector<unsigned char> visited(on.distances.size(), 0);
    std::vector<std::size_t> stack;
    const auto flood = [&](std::size_t start) {
        std::size_t cells = 0;
        stack.push_back(start);
        visited[start] = 1;
        while (!stack.empty()) {
            const std::size_t cell = stack.back();
            stack.pop_back();
            ++cells;
            const std::size_t column = cell % columns;
            const auto visit = [&](std::size_t next) {
                if (visited[next] || wet[next]) return;
                visited[next] = 1;
                stack.push_back(next);
            };
            if (column > 0) visit(cell - 1);
            if (column + 1 < columns) visit(cell + 1);
            if (cell >= columns) visit(cell - columns);
            if (cell + columns < on.distances.size()) visit(cell + columns);
        }
        return cells;
    };
    flood(0); // the first cell lies outside of anything the paste reaches
    for (std::size_t cell = 0; cell < on.distances.size(); ++cell) {
        if (visited[cell] || wet[cell]) continue;
        ++result.trappedPockets;
        result.trappedMm2 += static_cast<double>(flood(cell)) * on.cellArea();
    }
}

void check(const SpreadInput& input) {
    if (!(input.widthMm > 0) || !(input.lengthMm > 0) || !(input.bondLineMm > 0) || !(input.cellMm > 0))
        throw InputError("dose-face", {});
    if (!(input.volumeMm3 > 0)) throw InputError("dose-volume", {});
    if (!(std::max(input.widthMm, input.lengthMm) <= largestFaceMm)) throw InputError("dose-face.large", {});
}

Spread filmSpread(const SpreadInput& input) {
    Spread result;
    const double face = input.widthMm * input.lengthMm;
    const double area = input.volumeMm3 / input.bondLineMm;
    result.coverage = std::min(1.0, area / face);
    result.outside = std::max(0.0, 1 - face / area);
    return result;
}

} // namespace

std::vector<Stroke> patternStrokes(Pattern pattern, double widthMm, double lengthMm, double reachMm) {
    const double r = reachMm;
    switch (pattern) {
    case Pattern::dot:
        return {{{0, 0}, {0, 0}}};
    case Pattern::line:
        if (widthMm >= lengthMm) return {{{-r, 0}, {r, 0}}};
        return {{{0, -r}, {0, r}}};
    case Pattern::cross: {
        const double diagonal = std::hypot(widthMm, lengthMm);
        const double x = r * widthMm / diagonal;
        const double y = r * lengthMm / diagonal;
        return {{{-x, -y}, {x, y}}, {{-x, y}, {x, -y}}};
    }
    case Pattern::fiveDots: {
        // The outer dots keep the face's proportions; reach is along the shorter side.
        const double shorter = std::min(widthMm, lengthMm);
        const double x = r * widthMm / shorter;
        const double y = r * lengthMm / shorter;
        return {
            {{0, 0}, {0, 0}}, {{x, y}, {x, y}}, {{-x, y}, {-x, y}}, {{x, -y}, {x, -y}}, {{-x, -y}, {-x, -y}}};
    }
    case Pattern::film:
        break;
    }
    return {};
}

double strokeDistanceMm(const PlanePoint& from, const std::vector<Stroke>& strokes) {
    return distance(from, strokes);
}

double typicalReachMm(Pattern pattern, double widthMm, double lengthMm) {
    switch (pattern) {
    case Pattern::line:
        return std::max(widthMm, lengthMm) / 3;
    case Pattern::cross:
        return std::hypot(widthMm, lengthMm) * 0.236;
    case Pattern::fiveDots:
        return std::min(widthMm, lengthMm) * 0.267;
    case Pattern::dot:
    case Pattern::film:
        break;
    }
    return 0;
}

Spread spread(const SpreadInput& input) {
    check(input);
    if (input.strokes.empty()) return filmSpread(input);
    const double area = input.volumeMm3 / input.bondLineMm;
    // A point grows into the widest circle; every other shape of the same area reaches less far.
    const Field on = field(input, std::sqrt(area / pi));
    const auto wanted = static_cast<std::size_t>(std::llround(area / on.cellArea()));
    const NearestCells nearest = nearestCells(on, std::clamp<std::size_t>(wanted, 1, on.distances.size()));
    Spread result;
    result.offsetMm = nearest.farthest;
    result.columns = on.faceColumns();
    result.rows = on.faceRows();
    result.cellWidthMm = on.cellWidth;
    result.cellLengthMm = on.cellLength;
    std::size_t inside = 0;
    for (int row = 0; row < result.rows; ++row)
        for (int column = 0; column < result.columns; ++column) {
            result.wet.push_back(nearest.wet[on.faceIndex(column, row)]);
            inside += result.wet.back();
        }
    result.coverage = static_cast<double>(inside) / static_cast<double>(result.wet.size());
    const double wetted = static_cast<double>(inside) * on.cellArea();
    result.outside = std::max(0.0, 1 - wetted / area);
    countPockets(on, nearest.wet, result);
    return result;
}

double fillingVolumeMm3(const SpreadInput& input) {
    SpreadInput any = input;
    any.volumeMm3 = 1;
    check(any);
    if (input.strokes.empty()) return input.widthMm * input.lengthMm * input.bondLineMm;
    // The farthest point of a face is on its edge; cell corners, not middles, so that a corner counts whole.
    double farthest = 0;
    const int steps = static_cast<int>(std::ceil(std::max(input.widthMm, input.lengthMm) / input.cellMm));
    for (int i = 0; i <= steps; ++i) {
        const double x = input.widthMm * (static_cast<double>(i) / steps - 0.5);
        const double y = input.lengthMm * (static_cast<double>(i) / steps - 0.5);
        for (double side : {-0.5, 0.5}) {
            farthest = std::max(farthest, distance({x, side * input.lengthMm}, input.strokes));
            farthest = std::max(farthest, distance({side * input.widthMm, y}, input.strokes));
        }
    }
    const Field all = field(input, farthest);
    const auto reached = std::count_if(all.distances.begin(), all.distances.end(),
                                       [farthest](double d) { return d <= farthest; });
    return static_cast<double>(reached) * all.cellArea() * input.bondLineMm;
}

CoverageMask maskOf(const Spread& spread) {
    CoverageMask mask{spread.columns, spread.rows, {}};
    for (int row = spread.rows - 1; row >= 0; --row) // a mask begins with its top edge
        for (int column = 0; column < spread.columns; ++column)
            mask.covered.push_back(
                spread.wet[static_cast<std::size_t>(row) * static_cast<std::size_t>(spread.columns)
                           + static_cast<std::size_t>(column)]
                    ? 1.0F
                    : 0.0F);
    return mask;
}

} // namespace ibuki
