// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the bare part of a joint costs, by the conduction field of its bench, held against how much hotter the
// mount was than its fellows (docs/methods.md, "Looks").

#include "core/heat/seen_path.h"
#include "core/inspect/joint_coverage.h"
#include "core/physics/conduction_field.h"

namespace ibuki {

/// A mount against the others of its level under the compared load.
struct FellowResidual {
    double aboveK = 0; ///< its ΔT less the mean of theirs
    int fellows = 0;
    std::optional<double> sdK; ///< of one mount against such a mean, by the scatter within all levels
};
std::optional<FellowResidual> fellowResidual(const Document& document, const Question& question,
                                             Id<Mount> mount);

/// Both paths of a mount: as its fellows have it, wholly covered; and with the look's mask. Nothing where the
/// bench has no calibrated path.
struct CostPaths {
    HeatPath whole;
    HeatPath seen;
};
std::optional<CostPaths> costPaths(const Document& document, const Question& question, const Mount& mount,
                                   const GreyPicture& mask);

struct VoidPenalty {
    double meanK = 0; ///< of the chip's mean
    double maxK = 0;  ///< of its hottest place
    bool cancelled = false;
};
VoidPenalty voidPenalty(const CostPaths& paths, const FieldOptions& options = {});

enum class CostReading {
    unknown,   ///< nothing to hold it against
    explains,  ///< what is bare and how much hotter it was agree to within scatter, and both are more than
               ///< scatter
    tooLittle, ///< it was hotter than what is bare explains
    notSeen,   ///< it should have been hotter by what is bare, and was not
    nothingToExplain
};
/// Within twice the scatter of one mount against its fellows.
CostReading readCost(const VoidPenalty& cost, const std::optional<FellowResidual>& residual);

} // namespace ibuki
