// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A photograph of a face with a film on it, as a telephone held over the bench would take it: perspective,
// uneven light, glare, blur and noise, with the bench's clutter around. The simulated bench's camera. The
// same scene gives the same bytes.

#include "core/look/film_mask.h"
#include "core/simulate/film_thickness.h"

namespace ibuki {

enum class FilmColour { white, grey, dark, blue, pink };

struct PhotographScene {
    FilmThickness film;
    FilmColour colour = FilmColour::white;
    FaceSurface surface = FaceSurface::lid; ///< not stated: as a lid
    bool copper = false;                    ///< a plate's metal; else nickel
    double tiltDeg = 12;                    ///< of the camera from straight above
    double azimuthDeg = 40;                 ///< towards which it leans
    double rollDeg = 4;
    double fill = 0.55;        ///< of the picture's shorter side that the face's longer side takes
    double lightSlope = 0.25;  ///< how much darker than the mean its darkest edge is lit
    double lightAngleDeg = 30; ///<
    double vignette = 0.1;
    double glare = 0;      ///< radius of the highlight as a share of the face's longer side
    PlanePoint glareAt;    ///< shares of the face from its middle
    double blurPx = 0.8;   ///< of a picture a thousand pixels wide
    double noise = 2.5;    ///< standard deviation in grey levels
    double brushed = 0.03; ///< how much the metal's grain varies
    int clutter = 10;
    bool carrier = true; ///< the face stands on a larger board of its own
    int width = 1000;
    int height = 750;
    std::uint64_t seed = 1;
};

struct Photograph {
    RgbPicture picture;
    FaceCorners corners;
};

Photograph photographOf(const PhotographScene& scene);

} // namespace ibuki
