// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The heat-path strip as plain values: which blocks, where, and what may be written beside them. A block's
// width is its share of the temperature difference; where shares are not known all blocks are equal and
// hatched and only measured boundaries carry a temperature.

#include "core/domain/document.h"

#include <QRectF>
#include <QString>
#include <vector>

namespace ibuki {

struct StripBlock {
    std::optional<Id<Layer>> layer; ///< nothing: the block that asks for a bench
    LayerKind kind = LayerKind::chip;
    QString name;
    QString detail;              ///< for the tool tip
    std::optional<double> share; ///< of the whole difference, 0 to 1
    bool underStudy = false;
};

struct StripBoundary {
    double x = 0;
    QString text; ///< "69.3 °C"
};

struct StripModel {
    std::vector<StripBlock> blocks;
    std::optional<double> chipC; ///< measured, of the selected mount
    std::optional<double> roomC;
    QString caption; ///< what the strip is about
    bool sharesKnown() const;
};

struct StripLayout {
    std::vector<QRectF> rects; ///< one a block
    std::vector<StripBoundary> boundaries;
    int blockAt(double x, double y) const; ///< −1: none
};

/// The path through the current configuration of a bench, the question's site outlined, temperatures of the
/// mount's steady window when one is selected.
StripModel stripModel(const Document& document, std::optional<Id<Bench>> bench, const Question* question,
                      const Mount* mount);

/// Blocks fill `area` from left to right; one narrower than minimum is widened at the others' cost.
StripLayout layoutStrip(const StripModel& model, const QRectF& area, double minimum = 40);

} // namespace ibuki
