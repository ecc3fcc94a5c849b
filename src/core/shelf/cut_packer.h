// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// One attempt at a cutting plan: blocks are laid in the given order into free rectangles of the sheets, each
// splitting its rectangle by one or two guillotine cuts. planCuts tries many orders and keeps the best.

#include "core/shelf/cut.h"

#include <memory>

namespace ibuki::cutting {

constexpr double tiny = 1e-9; ///< mm: sizes closer than this are equal

/// A piece, or two blocks beside each other with one cut between: laid and cut out as one, then cut apart.
struct Block {
    double width = 0;
    double length = 0;
    std::size_t piece = 0; ///< of a single piece
    bool mayTurn = true;
    bool turned = false;                        ///< of a single piece: laid across
    bool downwards = false;                     ///< of two: the cut between them
    std::shared_ptr<const Block> first, second; ///< of two
};
using BlockPtr = std::shared_ptr<const Block>;

BlockPtr single(std::size_t piece, double width, double length, bool mayTurn);
/// Quarter turn, the parts with it.
BlockPtr turned(const BlockPtr& block);
/// Side by side (downwards cut) or one below the other; the smaller leaves waste where they do not match.
BlockPtr joined(const BlockPtr& a, const BlockPtr& b, bool downwards, double kerf);

enum class Fit { leastArea, shortSide, longSide };
enum class Split { shorterLeft, longerLeft, keepWide, keepLong };

struct Strategy {
    Fit fit = Fit::leastArea;
    Split split = Split::shorterLeft;
    bool largestSheet = false; ///< which full sheet is taken when another is needed
};

/// The sheets of one thickness that are at hand.
struct Supply {
    const CutJob* job = nullptr;
    std::vector<std::size_t> offcuts; ///< indices into the job's sheets
    std::vector<std::size_t> full;
};

struct Attempt {
    std::vector<CutLayout> layouts;
    std::vector<std::size_t> missing; ///< a piece index each
    int sheets = 0;                   ///< that count as opened
    double sheetMm2 = 0;
    double fromOffcutsMm2 = 0; ///< pieces that came out of off-cuts, where those are to be used first
    double largestOffcutMm2 = 0;

    bool betterThan(const Attempt& other) const;
};

Attempt pack(const Supply& supply, const std::vector<BlockPtr>& blocks, const Strategy& strategy);

/// The part of a sheet that pieces may come from.
CutRect usable(const CutSheet& sheet, const CutJob& job);

} // namespace ibuki::cutting
