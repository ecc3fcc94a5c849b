// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// From a photograph to a mask, in one step: where the face lies, the face from above, what is covered.

#include "core/look/face_corners.h"
#include "core/look/film_mask.h"

namespace ibuki {

struct MeasureFaceOptions {
    std::optional<FaceCorners> corners; ///< given; else they are looked for
    FindCornersOptions find;
    FilmOptions film;
    RectifyOptions rectify;
};

struct MeasuredFace {
    std::optional<FaceCorners> corners; ///< nothing: not found, and nothing below is told
    bool found = false;                 ///< else given
    double pxPerMm = 0;                 ///< of the photograph, at the face's middle
    FacePicture face;
    FilmPicture film;
    GreyPicture mask;
    CoveredRange covered;
    std::vector<LookFlag> flags; ///< what the film's are, and what the corners say
};

/// Throws InputError as FaceView does.
MeasuredFace measureFace(const RgbPicture& photograph, const Extent& face,
                         const MeasureFaceOptions& options = {});

} // namespace ibuki
