// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Both faces of a joint as one mask, all looks of a bench together, and what a bare corner says when it comes
// again and again (docs/methods.md, "Looks").

#include "core/distributions/interval.h"
#include "core/inspect/looks.h"
#include "core/look/coverage_figures.h"

#include <functional>

namespace ibuki {

/// The mask of a digest; nothing when it cannot be read.
using MaskSource = std::function<std::optional<GreyPicture>(const std::string& sha256)>;

/// The plate's face mirrored onto the chip's: what is seen to the left there lies to the right here.
GreyPicture mirrored(const GreyPicture& mask);
/// Both as the chip side has it: wet on either side counts, or on both. Of the finer one's size.
GreyPicture joined(const GreyPicture& chip, const GreyPicture& plate, LookJoin join);

struct JointCoverage {
    GreyPicture mask; ///< as the chip side is seen
    Extent face;
};
/// Nothing where no picture of the look was measured.
std::optional<JointCoverage> jointCoverage(const Document& document, const JointInspection& look,
                                           const MaskSource& masks);

struct MountCoverage {
    Id<Mount> mount;
    Id<JointInspection> look;
    JointCoverage joint;
    double covered = 0;
    std::array<double, 4> corners{};
};
/// Of every mount of the bench that was looked at there, in the order of its record.
std::vector<MountCoverage> coverageOfBench(const Document& document, Id<Bench> bench, SiteKind site,
                                           const MaskSource& masks);

struct CoverageMap {
    int columns = 0;
    int rows = 0;
    std::vector<float> covered; ///< share of the looks in which a place was covered; rows from the top
    int looks = 0;
};
CoverageMap coverageMap(const std::vector<const GreyPicture*>& masks, int longerSide = 120);

/// A corner that is covered less than the others of its own look, over many looks: t interval over the looks
/// of corner less mean of the other three, at 1 − 0.05/4 (four corners are asked). Told where the interval
/// lies below 0 and the mean by a tenth or more: among looks that scatter alike one is told falsely in at
/// most 5 %.
struct BareCorner {
    std::size_t corner = 0; ///< clockwise from the upper left
    int looks = 0;
    double less = 0; ///< share of the corner
    double upTo = 0; ///< the interval's end nearer to 0
};
std::optional<BareCorner> bareCorner(const std::vector<std::array<double, 4>>& corners);

/// A mount's coverage and ΔT, of the material that it was of.
struct CoveragePoint {
    std::int64_t material = 0;
    double covered = 0;
    double deltaK = 0;
};
/// How ΔT follows what is covered, materials apart: one slope within all of them, each with its own height
/// (y = a_material + b·x + e, e normal of one variance); its t interval.
struct CoverageSlope {
    double kPerTenth = 0; ///< K for a tenth of the face more
    Interval ci;
    int mounts = 0;
};
/// Nothing for fewer than four mounts more than materials, or where coverage does not vary within them.
std::optional<CoverageSlope> coverageSlope(const std::vector<CoveragePoint>& points,
                                           double confidence = 0.95);

/// What the dose and the pattern should have covered (constant offset model).
struct ExpectedSpread {
    double covered = 0;
    int trapped = 0;
    GreyPicture mask;
};
/// Nothing where amount, pattern or material are not stated, or it is no paste.
std::optional<ExpectedSpread> expectedSpread(const Document& document, Id<Mount> mount, const Site& site);

} // namespace ibuki
