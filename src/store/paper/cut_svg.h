// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A cutting layout on paper at exactly 1:1, with a 50 mm ruler to check the printer by. The same page goes to
// SVG and PDF.

#include "core/shelf/cut.h"

#include <string>

namespace ibuki {

struct PaperSize {
    double widthMm = 210;
    double heightMm = 297;
};

/// A4, A4 lying, A3 or A3 lying, the first that takes the sheet with its border; else a page made to measure.
PaperSize paperFor(const CutSheet& sheet);

/// The upper part of its page, as far down as it is drawn on: title, ruler and sheet.
CutRect drawnPart(const CutSheet& sheet);

/// One page for one layout; width, height and coordinates are millimetres.
std::string cutSvg(const CutJob& job, const CutLayout& layout, const std::string& title);

} // namespace ibuki
