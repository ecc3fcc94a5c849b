// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Looks at joints as the document has them: which pictures a mount has, how large its faces are and what they
// are made of, what the material usually looks like, where the last picture of the bench had its corners.

#include "core/domain/document.h"
#include "core/domain/joint_inspection.h"
#include "core/domain/study.h"
#include "core/look/measured_face.h"
#include "core/physics/spread.h"

namespace ibuki {

/// The newest look at a site of a mount; nullptr: none.
const JointInspection* lookAt(const Document& document, Id<Mount> mount, Id<Site> site);
/// Pictures of a look in the order in which they were taken in.
std::vector<const JointPicture*> picturesOf(const Document& document, Id<JointInspection> look);

/// Which site a mount is looked at: the question's, where the mount's rig has it.
std::optional<Id<Site>> lookedSite(const Document& document, const Question& question, const Mount& mount);

/// Where the faces of a site lie on each other, mm: as stated, else of the layers beside it, else as is
/// usual.
struct SiteFace {
    Extent size;
    bool isAssumed = false;
};
SiteFace faceOf(const Document& document, const Site& site);
FaceSurface surfaceOf(const Site& site, LookSide side);

/// What earlier looks at the material had for a colour; nothing before the first.
std::optional<FilmAppearance> typicalAppearance(const Document& document,
                                                std::optional<Id<Material>> material);
/// How a pattern is drawn; nothing where none is (a sheet, not stated, another).
std::optional<Pattern> drawnPattern(ApplicationPattern pattern);

/// Corners of the last picture of this side on the bench, in shares of its width and height.
std::optional<FaceCorners> lastCorners(const Document& document, Id<Bench> bench, LookSide side);

/// What the photograph of a look is measured with.
MeasureFaceOptions measureOptions(const Document& document, const JointInspection& look, LookSide side);

/// A picture's corners as the core has them; nothing where they are not placed.
std::optional<FaceCorners> cornersOf(const JointPicture& picture);
std::array<double, 8> storedCorners(const FaceCorners& corners);

/// Puts what was measured into a picture; its mask's digest is the caller's.
void putMeasured(JointPicture& picture, const MeasuredFace& measured, const Extent& face);

} // namespace ibuki
