// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Cutting pads and sheets with scissors or a blade: every cut goes from edge to edge of what is in the hand
// (guillotine cuts). Fewest full sheets first, then least waste; off-cuts can be used up first.

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace ibuki {

struct CutPiece {
    std::string name;
    double widthMm = 0;
    double lengthMm = 0;
    double thicknessMm = 0; ///< only sheets of the same thickness serve
    int count = 1;
    bool mayTurn = true; ///< false: grain or a printed face
};

struct CutSheet {
    std::string name;
    double widthMm = 0;
    double lengthMm = 0;
    double thicknessMm = 0;
    std::optional<int> count; ///< nothing: as many as needed
    bool offcut = false;
};

struct CutJob {
    std::vector<CutPiece> pieces;
    std::vector<CutSheet> sheets;
    double kerfMm = 0;   ///< lost in each cut
    double marginMm = 0; ///< unusable along each edge of a full sheet
    bool offcutsFirst = true;
};

struct CutRect {
    double x = 0; ///< from the sheet's left edge, mm
    double y = 0; ///< from its top edge, mm
    double width = 0;
    double length = 0;
};

struct CutPlacement {
    std::size_t piece = 0; ///< index into the job's pieces
    CutRect at;
    bool turned = false;
};

/// One cut, from edge to edge of `through`, in the order in which they are made.
struct CutLine {
    CutRect through;
    bool downwards = false; ///< along the sheet's length at x = at; else across at y = at
    double at = 0;          ///< where the kerf begins
};

struct CutLayout {
    std::size_t sheet = 0; ///< index into the job's sheets
    std::vector<CutPlacement> placements;
    std::vector<CutLine> cuts;
    std::vector<CutRect> offcuts; ///< what is left, largest first
};

struct CutPlan {
    std::vector<CutLayout> layouts;
    std::vector<std::pair<std::size_t, int>> missing; ///< piece, how many found no place
    int fullSheets = 0;
    int offcutSheets = 0;
    double usedMm2 = 0;  ///< of the pieces
    double sheetMm2 = 0; ///< of the sheets taken
    double waste() const { return sheetMm2 > 0 ? 1 - usedMm2 / sheetMm2 : 0; }
};

/// The same job gives the same plan on every machine. Throws InputError (cut-value, cut-piece-too-large,
/// cut-no-sheet) for sizes that cannot be, a piece larger than every sheet of its thickness, and a thickness
/// of which there is no sheet.
CutPlan planCuts(const CutJob& job);

} // namespace ibuki
