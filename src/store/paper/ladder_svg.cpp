// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/ladder_svg.h"

#include "store/paper/class_mark.h"
#include "store/paper/svg.h"

#include <fmt/format.h>
#include <iterator>

namespace ibuki {
namespace {

using namespace paper_ink;

void drawClassMark(Svg& svg, MaterialClass kind, double x, double y, double r) {
    const ClassMark mark = classMark(kind);
    if (mark.corners.empty()) {
        svg.put("<circle cx=\"{:.1f}\" cy=\"{:.1f}\" r=\"{:.1f}\" fill=\"{}\"/>\n", x, y, r, quiet);
    } else {
        svg.put("<polygon fill=\"{}\" points=\"", quiet);
        for (const auto& [cx, cy] : mark.corners) svg.put("{:.1f},{:.1f} ", x + r * cx, y + r * cy);
        svg.put("\"/>\n");
    }
    svg.label(x + 10, y + 4, quiet, "start", mark.letter, 11);
}

void drawRung(Svg& svg, const LadderLayout& layout, const LadderRung& rung,
              std::optional<MaterialClass> kind) {
    svg.line(layout.scaleLeft, rung.y, layout.scaleRight, rung.y, "#ddd5c6", 1);
    svg.label(8, rung.y + 1, ink, "start", rung.name, 13);
    if (kind) drawClassMark(svg, *kind, 14, rung.y + 14, 4.5);
    for (std::size_t i = 0; i < rung.marksX.size(); ++i) {
        const double x = rung.marksX[i];
        if (rung.beyondScale[i])
            svg.put("<path d=\"M{0:.1f} {1:.1f} v-4 l8 4 l-8 4 z\" fill=\"none\" stroke=\"{2}\" "
                    "stroke-width=\"1.3\"/>\n",
                    x, rung.y, ink);
        else
            svg.put("<circle cx=\"{:.1f}\" cy=\"{:.1f}\" r=\"4.5\" fill=\"none\" stroke=\"{}\" "
                    "stroke-width=\"1.3\"/>\n",
                    x, rung.y, ink);
    }
    const double y = rung.y + 13;
    if (rung.isCensored) {
        svg.put("<path d=\"M{0:.1f} {1:.1f} v-4 l8 4 l-8 4 z\" fill=\"{2}\"/>\n", rung.meanX, y, hot);
    } else {
        if (rung.isProvisional)
            svg.put("<line x1=\"{:.1f}\" y1=\"{:.1f}\" x2=\"{:.1f}\" y2=\"{:.1f}\" stroke=\"{}\" "
                    "stroke-width=\"2\" stroke-dasharray=\"5 4\"/>\n",
                    rung.lowX, y, rung.highX, y, hot);
        else
            svg.line(rung.lowX, y, rung.highX, y, hot, 3);
        svg.line(rung.meanX, y - 5, rung.meanX, y + 5, hot, 2);
    }
    const double behind = std::max(rung.highX, rung.meanX) + 12;
    svg.label(behind, y + 4, ink, "start", rung.figure);
    if (!rung.chance.empty()) svg.label(behind, y + 18, quiet, "start", rung.chance, 11);
}

} // namespace

std::string xmlText(std::string_view text) {
    std::string out;
    for (char c : text) {
        switch (c) {
        case '&':
            out += "&amp;";
            break;
        case '<':
            out += "&lt;";
            break;
        case '>':
            out += "&gt;";
            break;
        case '"':
            out += "&quot;";
            break;
        case '\t':
        case '\n':
        case '\r':
            out += c;
            break;
        default: // XML 1.0 has no other control characters
            if (static_cast<unsigned char>(c) >= 0x20 && c != 0x7F) out += c;
        }
    }
    return out;
}

std::string ladderSvg(const Comparison& comparison, const GroupClasses& classes, const std::string& unit,
                      const LadderSize& size) {
    const LadderLayout layout = layoutLadder(comparison, size, unit);
    Svg svg(size.width, size.height);
    if (layout.hasMargin)
        svg.put("<rect x=\"{:.1f}\" y=\"{:.1f}\" width=\"{:.1f}\" height=\"{:.1f}\" fill=\"#f3e3d6\"/>\n",
                layout.marginLeftX, size.top - 12, layout.marginRightX - layout.marginLeftX,
                layout.axisY - size.top + 12);
    for (const LadderRung& rung : layout.rungs) {
        const auto kind = classes.find(comparison.groups[rung.group].id);
        drawRung(svg, layout, rung, kind == classes.end() ? std::nullopt : std::optional(kind->second));
    }
    for (const LadderBracket& bracket : layout.brackets) {
        svg.line(bracket.x, bracket.ys.front(), bracket.x, bracket.ys.back(), cold, 2);
        for (double y : bracket.ys) svg.line(bracket.x, y, bracket.x + 6, y, cold, 2);
    }
    for (const LadderSame& same : layout.same) {
        svg.line(same.x, same.y1, same.x, same.y2, ink, 1);
        for (double y : {same.y1, same.y2})
            svg.put("<circle cx=\"{:.1f}\" cy=\"{:.1f}\" r=\"3\" fill=\"{}\"/>\n", same.x, y, ink);
    }
    for (const LadderTick& tick : layout.ticks)
        svg.label(tick.x, layout.axisY + 20, quiet, "middle", tick.text, 11);
    return svg.finish();
}

} // namespace ibuki
