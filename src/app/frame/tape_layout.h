// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The bench's record as plain values: tiles in order, days as notches, and where each stands. Order, not
// time, sets the width.

#include "core/domain/document.h"
#include "core/domain/plan.h"

#include <QRectF>
#include <QString>
#include <vector>

namespace ibuki {

enum class TileState { done, rejected, planned, next, skipped, draft };

struct TapeTile {
    std::optional<Id<Mount>> mount;
    std::optional<Id<Slot>> slot;
    std::optional<Id<FollowUp>> followUp; ///< a later run on that mount or slot
    QString title;
    QString value;  ///< "Δ 45.2 K", "plan"
    QString day;    ///< "Tue 2031-03-04"; tiles of one day stand together
    QString detail; ///< for the tool tip
    TileState state = TileState::done;
    bool isCheck = false;
    bool isHeld = false; ///< a caution holds it
    bool censored = false;
    bool isLate = false; ///< of a later run: overdue, or lost
    bool otherStudy = false;
    bool described = true; ///< false: a mount of which only the day is told yet
    std::optional<MaterialClass> kind;
    bool looked = false;           ///< its joint was looked at
    std::optional<double> covered; ///< share, where a picture was measured
};

/// Mounts of the bench in the order of its record, then the study's planned and skipped slots, then what to
/// come back to, by date. The first planned slot is what to do next. A study with nothing on the tape shows
/// what its plan would put there, as drafts.
std::vector<TapeTile> tapeTiles(const Document& document, std::optional<Id<Bench>> bench,
                                std::optional<Id<Study>> study, Instant now = {});
/// The same without what only a tile that is seen has to say: mounts have their day alone.
std::vector<TapeTile> tapeOutline(const Document& document, std::optional<Id<Bench>> bench,
                                  std::optional<Id<Study>> study, Instant now = {});
/// Makes good for a tile of tapeOutline what was left out.
void describe(TapeTile& tile, const Document& document, std::optional<Id<Study>> study);

/// The last part of a mount's tile: its peeling.
QRectF peelPart(const QRectF& tile);

struct TapeNotch {
    double x = 0;
    QString text;
};

struct TapeLayout {
    std::vector<QRectF> rects; ///< one a tile
    std::vector<TapeNotch> notches;
    double width = 0;
    int tileAt(double x, double y) const; ///< −1: none
    int firstRightOf(double x) const; ///< the first tile that reaches beyond x; their count when none does
};

TapeLayout layoutTape(const std::vector<TapeTile>& tiles, double tileWidth, double height, double dayHeight);

} // namespace ibuki
