// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Photographs whose truth is known: perspective, uneven light, glare, blur, noise, five colours, smears,
// rims, and the bench's clutter around.

#include "core/base/random.h"
#include "core/simulate/photograph.h"

namespace ibuki::story {

/// hard: tilted to 35°, light that falls off by a third, glare, more blur and noise.
inline PhotographScene anyScene(int number, bool hard) {
    Random random(static_cast<std::uint64_t>(number) * 77 + 5);
    const auto from = [&](double least, double most) { return least + (most - least) * random.uniform(); };
    PhotographScene scene;
    FilmScene film;
    const int kind = static_cast<int>(from(0, 3));
    scene.surface = kind == 0 ? FaceSurface::bareDie : kind == 1 ? FaceSurface::lid : FaceSurface::plate;
    const double least = kind == 0 ? 9 : 26, most = kind == 0 ? 24 : 44;
    film.spread.widthMm = from(least, most);
    film.spread.lengthMm = from(least, most);
    scene.copper = from(0, 1) < 0.6;
    scene.colour = static_cast<FilmColour>(static_cast<int>(from(0, 5)));
    const auto pattern = static_cast<Pattern>(static_cast<int>(from(0, 5)));
    const double width = film.spread.widthMm, length = film.spread.lengthMm;
    film.spread.bondLineMm = 0.04;
    film.spread.cellMm = std::max(width, length) / 120;
    film.spread.strokes = patternStrokes(pattern, width, length, typicalReachMm(pattern, width, length));
    film.spread.volumeMm3 = width * length * 0.04 * from(0.5, 1.4);
    film.ragged = from(0.03, 0.15);
    film.smear = hard ? from(0, 0.9) : from(0, 0.4);
    film.bubbles = static_cast<int>(from(0, 6));
    film.tilt = from(0, 1) < 0.5 ? from(0, 0.5) : 0;
    film.tiltAngle = from(0, 6.28);
    film.shift = {from(-0.08, 0.08) * width, from(-0.08, 0.08) * length};
    film.overEdge = from(0, 0.3);
    film.seed = static_cast<std::uint64_t>(number) + 1000;
    scene.film = filmThickness(film);
    scene.tiltDeg = hard ? from(10, 35) : from(0, 22);
    scene.azimuthDeg = from(0, 360);
    scene.rollDeg = from(-18, 18);
    scene.fill = from(0.4, 0.75);
    scene.lightSlope = hard ? from(0.1, 0.4) : from(0, 0.25);
    scene.lightAngleDeg = from(0, 360);
    scene.vignette = from(0, 0.2);
    scene.glare = hard && from(0, 1) < 0.4 ? from(0.04, 0.12) : 0;
    scene.glareAt = {from(-0.4, 0.4), from(-0.4, 0.4)};
    scene.blurPx = hard ? from(0.5, 2.5) : from(0.3, 1.2);
    scene.noise = hard ? from(2, 8) : from(1, 4);
    scene.brushed = from(0, 0.04);
    scene.clutter = static_cast<int>(from(4, 20));
    scene.carrier = from(0, 1) < 0.6;
    scene.seed = static_cast<std::uint64_t>(number) + 5000;
    return scene;
}

} // namespace ibuki::story
