// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a joint looked like when its cooler came off: pictures of both faces with what of them was covered,
// what was seen, how it came off. A look can explain a mount's figure, or reject the mount.

#include "core/domain/mount.h"

#include <array>

namespace ibuki {

/// Which face a picture shows; a detail is not measured.
enum class LookSide { chip, plate, detail };

enum class CameOff { notStated, fell, lifted, twisted, warmedAndTwisted, pulledChipOut };

/// What counts as covered where both faces were measured: wet on either, or on both of them.
enum class LookJoin { either, both };

struct JointInspection {
    Id<JointInspection> id;
    Id<Mount> mount;
    Id<Site> site;
    std::optional<Instant> at;
    bool spread = false; ///< it spread as it should
    bool dry = false;
    bool cracked = false;
    bool torn = false;
    bool slipped = false;
    bool overhung = false;
    bool pumpedOut = false;
    bool residue = false;
    bool stained = false; ///< stains on the metal
    bool bowed = false;
    bool imprintUneven = false;
    CameOff cameOff = CameOff::notStated;
    std::optional<int> effort;          ///< 1 to 5
    std::optional<double> cleanMinutes; ///< until both faces were clean
    std::optional<int> wipes;
    std::string damage;
    LookJoin join = LookJoin::either;
    bool rejects = false;     ///< the mount was rejected by what was seen (its reason stands with the mount)
    bool figureKnown = false; ///< its figure was known already when it was
    std::string note;
    bool operator==(const JointInspection&) const = default;
};

/// A picture of a look. Its pixels stay in the project file under their digest, written anew without what a
/// camera wrote beside them; so does its mask.
struct JointPicture {
    Id<JointPicture> id;
    Id<JointInspection> look;
    LookSide side = LookSide::chip;
    std::string fileName;
    std::string sha256;
    std::int64_t bytes = 0;
    int width = 0; ///< px, as kept
    int height = 0;
    std::optional<std::array<double, 8>> corners; ///< px: x, y of each, clockwise from the face's upper left
    std::optional<Millimetre> faceWidth;          ///< of the face as measured
    std::optional<Millimetre> faceLength;
    std::optional<double> threshold; ///< share of the way from bare to covered
    std::string maskSha256;          ///< empty: not measured
    std::optional<double> covered;   ///< of the mask, with how far the threshold moves it
    std::optional<double> coveredLow;
    std::optional<double> coveredHigh;
    std::optional<double> outsideMm2;    ///< squeezed out
    std::optional<double> filmLightness; ///< CIELAB of what is covered, light taken out
    std::optional<double> filmA;
    std::optional<double> filmB;
    std::string flags; ///< codes, a space between them
    bool operator==(const JointPicture&) const = default;
};

} // namespace ibuki
