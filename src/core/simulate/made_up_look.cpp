// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/made_up_look.h"

#include "core/base/random.h"
#include "core/domain/lookup.h"
#include "core/shelf/class_defaults.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double typicalFill = 1.15; ///< of face × bond line, where no amount is stated

FilmColour colourOf(const Material& material) {
    switch (material.kind) {
    case MaterialClass::gapPad:
        return FilmColour::blue;
    case MaterialClass::sheet:
        return FilmColour::dark;
    case MaterialClass::phaseChange:
        return FilmColour::pink;
    default: // pastes are of any colour, each of its own
        return static_cast<FilmColour>(material.id.value % 3 == 0 ? 3 : material.id.value % 3 == 1 ? 1 : 0);
    }
}

} // namespace

std::optional<PhotographScene> madeUpScene(const Document& document, Id<Mount> mount, const Site& site,
                                           const MadeUpLook& look) {
    const Material* material = materialAt(document, mount, site.id);
    if (!material || material->kind == MaterialClass::liquidMetal || material->kind == MaterialClass::solder)
        return std::nullopt;
    const Application* application = applicationAt(document, mount, site.id);
    const MaterialFacts facts = factsOf(*material);
    const Extent face = faceOf(document, site).size;
    Random random(look.seed);
    const Pattern pattern = isCut(material->kind) ? Pattern::film
                            : application         ? drawnPattern(application->pattern).value_or(Pattern::dot)
                                                  : Pattern::dot;
    FilmScene film;
    film.spread.widthMm = face.widthMm;
    film.spread.lengthMm = face.lengthMm;
    film.spread.bondLineMm = isCut(material->kind) ? 0.05 : facts.bondLineUm.value / 1000;
    film.spread.cellMm = std::max(face.widthMm, face.lengthMm) / 120;
    film.spread.strokes = patternStrokes(pattern, face.widthMm, face.lengthMm,
                                         typicalReachMm(pattern, face.widthMm, face.lengthMm));
    const double full = face.widthMm * face.lengthMm * film.spread.bondLineMm;
    const bool isWeighed = application && application->amount && !isCut(material->kind);
    const double meant =
        isWeighed ? application->amount->value / facts.densityGPerMl.value * 1000 : typicalFill * full;
    film.spread.volumeMm3 = std::clamp(meant * look.coveredShare, 0.05 * full, 2.5 * full);
    film.ragged = 0.03 + 0.05 * random.uniform();
    film.smear = 0.4 * random.uniform();
    film.bubbles = static_cast<int>(4 * random.uniform());
    film.shift = {0.04 * face.widthMm * random.normal(), 0.04 * face.lengthMm * random.normal()};
    film.tilt = look.lean;
    film.tiltAngle = look.leanAngle;
    film.overEdge = 0.15;
    film.seed = look.seed;
    PhotographScene scene;
    scene.film = filmThickness(film);
    if (look.side == LookSide::plate) { // the same film, seen from the other side
        FilmThickness& seen = scene.film;
        for (int row = 0; row < seen.high(); ++row) {
            const auto begin = seen.bondLines.begin() + static_cast<std::ptrdiff_t>(row) * seen.wide();
            std::reverse(begin, begin + seen.wide());
        }
    }
    scene.surface = surfaceOf(site, look.side);
    scene.copper = scene.surface == FaceSurface::plate;
    scene.colour = colourOf(*material);
    scene.tiltDeg = 4 + 12 * random.uniform();
    scene.azimuthDeg = 360 * random.uniform();
    scene.rollDeg = 5 * random.normal();
    scene.lightSlope = 0.1 + 0.15 * random.uniform();
    scene.lightAngleDeg = 30 + 20 * random.normal();
    scene.width = look.width;
    scene.height = look.height;
    scene.seed = look.seed;
    return scene;
}

} // namespace ibuki
