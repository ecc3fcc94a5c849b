// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Where everything on the ladder stands: one rung a material, a mark a mount, the mean with its interval,
// brackets for what was not told apart, the margin from the best. Pure geometry; the window and the SVG of
// the report draw from it.

#include "core/comparison/compare.h"

#include <string>
#include <vector>

namespace ibuki {

struct LadderSize {
    double width = 760;
    double height = 500;
    double nameWidth = 150;   ///< room for the names at the left
    double bracketWidth = 46; ///< room for brackets between names and scale
    double right = 96;        ///< room for the figure behind the last interval
    double top = 34;
    double bottom = 34;
    double mostRung = 74; ///< a rung is not taller than this
};

struct LadderRung {
    std::size_t group = 0; ///< index into Comparison::groups
    std::string name;
    std::string figure;            ///< "47.9 ± 0.5" or "≥ 71.2"
    double y = 0;                  ///< of the marks
    std::vector<double> marksX;    ///< one a mount
    std::vector<bool> beyondScale; ///< beside marksX: the true value lies beyond the scale's end
    double meanX = 0;
    double lowX = 0; ///< interval; equal to meanX when there is none
    double highX = 0;
    bool isCensored = false;    ///< only a lower bound is known
    bool isProvisional = false; ///< its interval is by an assumed scatter
    std::string chance;         ///< "best 86 %"; empty: not told
};

struct LadderBracket {
    double x = 0;
    std::vector<double> ys; ///< rungs it ties, best first; rungs between them that are missing are skipped
};

struct LadderTick {
    double x = 0;
    std::string text;
};

/// A pair shown to be the same within the margin; drawn as a small tie of its own between its rungs.
struct LadderSame {
    double x = 0;
    double y1 = 0;
    double y2 = 0;
};

struct LadderLayout {
    std::vector<LadderRung> rungs; ///< best first, bounds last
    std::vector<LadderBracket> brackets;
    std::vector<LadderSame> same;
    std::vector<LadderTick> ticks;
    double scaleLeft = 0;
    double scaleRight = 0;
    double marginLeftX = 0;  ///< from the best mean …
    double marginRightX = 0; ///< … to best + margin, cut off at the scale's end
    double axisY = 0;
    double rungHeight = 0;
    bool hasMargin = false;
};

/// Indexes of the groups, best first, bounds last.
std::vector<std::size_t> bestFirst(const Comparison& comparison);

LadderLayout layoutLadder(const Comparison& comparison, const LadderSize& size, const std::string& unit);

} // namespace ibuki
