// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the figures of a look say.

#include "core/inspect/void_penalty.h"

#include <QString>
#include <QStringList>

namespace ibuki {

struct FigureRow {
    QString name;
    QString value;
};

/// picture: with its range, what was squeezed out and its flags; figures: of its mask.
std::vector<FigureRow> figureRows(const JointPicture& picture, const CoverageFigures& figures);
/// One sentence a flag.
QStringList flagLines(const JointPicture& picture);
/// "The dose should have covered 93 %: …"; empty where nothing is expected.
QString expectedLine(const std::optional<ExpectedSpread>& expected, double covered);
/// "The dry corner should cost 2.1 K; this mount is 2.4 K above its fellows: that explains it."
QString costLine(const VoidPenalty& cost, const std::optional<FellowResidual>& residual);
/// "A tenth of the face more is −0.9 K (−1.5 to −0.3), materials apart."; empty where it cannot be told.
QString slopeLine(const std::vector<CoveragePoint>& points);
/// What all looks of a bench say together.
QString allLooksLine(const std::vector<MountCoverage>& looks);

} // namespace ibuki
