// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What of a face is covered, from its rectified photograph (docs/methods.md, "Looks"): two kinds of place
// under uneven light, how far each place is from the one to the other (0 bare, 1 covered; a thin film lets
// the face through), and a threshold. Never a silent guess: what is unsure is flagged.

#include "core/look/rectify.h"

#include <optional>

namespace ibuki {

enum class FaceSurface { notStated, bareDie, lid, plate };

enum class LookFlag { cornersNotFound, lowContrast, glare, blurred, outOfFrame };

/// As the command and the project write it, such as "low-contrast".
const char* codeOf(LookFlag flag);

/// Colour of a covered place in CIELAB, light taken out, as the mean of earlier looks at this material.
struct FilmAppearance {
    double lightness = 0;
    double a = 0;
    double b = 0;
    int looks = 0;
    bool operator==(const FilmAppearance&) const = default;
};

struct FilmOptions {
    FaceSurface surface = FaceSurface::notStated;
    std::optional<FilmAppearance> typical;
};

/// How thick the film looks at each place of the face, before a threshold.
struct FilmPicture {
    GreyPicture film;       ///< of the face: 0 bare to 200 covered; more: brighter or darker still
    double threshold = 0.5; ///< share of the way from bare to covered at which a place counts as covered
    double thinFrom = 0.2;  ///< and from which it is a thin smear
    double outsideMm2 = 0;  ///< covered beyond the face's edges
    FilmAppearance covered; ///< as it looks here
    FilmAppearance bare;
    std::vector<LookFlag> flags;
};

inline constexpr double filmLevels = 200; ///< of FilmPicture::film at 1

FilmPicture filmPicture(const FacePicture& face, const FilmOptions& options = {});

/// bare, thin and covered places of a film by its thresholds.
GreyPicture maskAt(const GreyPicture& film, double thinFrom, double threshold);

struct CoveredRange {
    double covered = 0;
    double low = 0; ///< with the threshold so much farther up, and down: `thresholdSway`
    double high = 0;
};
inline constexpr double thresholdSway = 0.15;

CoveredRange coveredRange(const FilmPicture& film);

} // namespace ibuki
