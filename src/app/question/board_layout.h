// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Where the board's things lie: lanes one below the other, evenings to scale across, nights narrow between
// them. Pure arithmetic.

#include "app/question/board_lines.h"

#include <QRectF>
#include <vector>

namespace ibuki {

struct BoardSizes {
    double lanesWidth = 150; ///< names of the lanes, at the left
    double headHeight = 44;  ///< evenings and hours, above
    double laneHeight = 26;
    double barHeight = 18;    ///< in the middle of its lane
    double pixelsAMinute = 1; ///< inside evenings
    double nightWidth = 34;
    double pastWidth = 11; ///< a mount that was made
};

struct BoardLayout {
    std::vector<QRectF> past;
    std::vector<std::vector<QRectF>> steps; ///< of each bar
    std::vector<QRectF> bars;
    std::vector<QRectF> evenings; ///< as high as the board
    double width = 0;

    /// Which place among the bars the bar at `from` would take when it is let go at x.
    std::size_t placeAt(double x, std::size_t from) const;
    /// Where the line between the places is drawn when the bar at `from` would go to `to`.
    double gapAt(std::size_t from, std::size_t to) const;
};

/// Time to x: evenings to scale, what lies between them and behind the last narrowed evenly.
class BoardScale {
public:
    BoardScale(const BoardLines& lines, const BoardSizes& sizes);
    double x(Instant at) const;
    double right() const;

private:
    struct Knot {
        Instant at;
        double x = 0;
    };
    std::vector<Knot> knots_;
};

BoardLayout layoutBoard(const BoardLines& lines, const BoardSizes& sizes);

/// Pixels a minute at which all evenings fit into the width, between the legible and the plain.
double fittingScale(const BoardLines& lines, const BoardSizes& sizes, double width);

} // namespace ibuki
