// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/inspect/joint_coverage.h"

#include "core/distributions/distributions.h"
#include "core/distributions/summary.h"
#include "core/domain/lookup.h"
#include "core/physics/spread.h"
#include "core/series/straight_line.h"
#include "core/shelf/class_defaults.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace ibuki {
namespace {

std::size_t place(const GreyPicture& mask, int column, int row) {
    return static_cast<std::size_t>(row) * static_cast<std::size_t>(mask.width)
           + static_cast<std::size_t>(column);
}

std::uint8_t at(const GreyPicture& mask, double x, double y) { // shares of width and height
    const int column = std::clamp(static_cast<int>(x * mask.width), 0, mask.width - 1);
    const int row = std::clamp(static_cast<int>(y * mask.height), 0, mask.height - 1);
    return mask.grey[place(mask, column, row)];
}

} // namespace

GreyPicture mirrored(const GreyPicture& mask) {
    GreyPicture made = mask;
    for (int row = 0; row < mask.height; ++row) {
        const auto begin = made.grey.begin() + static_cast<std::ptrdiff_t>(place(mask, 0, row));
        std::reverse(begin, begin + mask.width);
    }
    return made;
}

GreyPicture joined(const GreyPicture& chip, const GreyPicture& plate, LookJoin join) {
    const GreyPicture other = mirrored(plate);
    const bool byChip = chip.grey.size() >= other.grey.size();
    GreyPicture made{byChip ? chip.width : other.width, byChip ? chip.height : other.height, {}};
    for (int row = 0; row < made.height; ++row)
        for (int column = 0; column < made.width; ++column) {
            const double x = (column + 0.5) / made.width, y = (row + 0.5) / made.height;
            const std::uint8_t a = at(chip, x, y), b = at(other, x, y);
            made.grey.push_back(join == LookJoin::either ? std::max(a, b) : std::min(a, b));
        }
    return made;
}

std::optional<JointCoverage> jointCoverage(const Document& document, const JointInspection& look,
                                           const MaskSource& masks) {
    std::optional<GreyPicture> chip, plate;
    Extent face;
    for (const JointPicture* picture : picturesOf(document, look.id)) {
        if (picture->maskSha256.empty() || picture->side == LookSide::detail) continue;
        auto mask = masks(picture->maskSha256);
        if (!mask || mask->grey.empty()) continue;
        (picture->side == LookSide::chip ? chip : plate) = std::move(mask); // the latest of a side counts
        if (picture->faceWidth && picture->faceLength)
            face = {picture->faceWidth->value, picture->faceLength->value};
    }
    if (!chip && !plate) return std::nullopt;
    JointCoverage joint{{}, face};
    joint.mask = chip && plate ? joined(*chip, *plate, look.join) : chip ? *chip : mirrored(*plate);
    return joint;
}

std::vector<MountCoverage> coverageOfBench(const Document& document, Id<Bench> bench, SiteKind site,
                                           const MaskSource& masks) {
    std::vector<MountCoverage> all;
    for (const Mount* mount : mountsOf(document, bench)) {
        const JointInspection* look = nullptr;
        for (const JointInspection* one : document.where(&JointInspection::mount, mount->id)) {
            const Site* at = document.find(one->site);
            if (at && at->kind == site && (!look || look->id < one->id)) look = one;
        }
        if (!look) continue;
        auto joint = jointCoverage(document, *look, masks);
        if (!joint) continue;
        MountCoverage one{mount->id, look->id, std::move(*joint), 0, {}};
        const CoverageMask covered = coverageMaskOf(one.joint.mask);
        one.covered = covered.mean();
        one.corners = cornerShares(covered);
        all.push_back(std::move(one));
    }
    return all;
}

CoverageMap coverageMap(const std::vector<const GreyPicture*>& masks, int longerSide) {
    CoverageMap map;
    if (masks.empty()) return map;
    const double scale = static_cast<double>(longerSide) / std::max(masks[0]->width, masks[0]->height);
    map.columns = std::max(1, static_cast<int>(std::lround(masks[0]->width * scale)));
    map.rows = std::max(1, static_cast<int>(std::lround(masks[0]->height * scale)));
    map.covered.assign(static_cast<std::size_t>(map.columns) * static_cast<std::size_t>(map.rows), 0.0F);
    map.looks = static_cast<int>(masks.size());
    const float share = 1.0F / static_cast<float>(masks.size());
    for (const GreyPicture* mask : masks)
        for (int row = 0; row < map.rows; ++row)
            for (int column = 0; column < map.columns; ++column)
                if (at(*mask, (column + 0.5) / map.columns, (row + 0.5) / map.rows) >= maskFromHere)
                    map.covered[static_cast<std::size_t>(row) * static_cast<std::size_t>(map.columns)
                                + static_cast<std::size_t>(column)] += share;
    return map;
}

std::optional<BareCorner> bareCorner(const std::vector<std::array<double, 4>>& corners) {
    constexpr double least = 0.1, chance = 0.05 / 4;
    if (corners.size() < 3) return std::nullopt;
    const auto n = static_cast<double>(corners.size());
    std::optional<BareCorner> barest;
    for (std::size_t corner = 0; corner < 4; ++corner) {
        std::vector<double> less;
        for (const auto& look : corners) {
            double others = 0;
            for (std::size_t i = 0; i < 4; ++i) others += i == corner ? 0 : look[i] / 3;
            less.push_back(others - look[corner]);
        }
        const double by = mean(less);
        const double end =
            by - studentQuantile(1 - chance / 2, n - 1) * sampleSd(less).value_or(0) / std::sqrt(n);
        if (end > 0 && by >= least && (!barest || by > barest->less))
            barest = BareCorner{corner, static_cast<int>(corners.size()), by, end};
    }
    return barest;
}

std::optional<CoverageSlope> coverageSlope(const std::vector<CoveragePoint>& points, double confidence) {
    constexpr double leastVaried = 1e-4; // sum of squares of shares: a hundredth of the face
    struct Points {
        std::vector<double> covered, deltaK;
    };
    std::map<std::int64_t, Points> materials;
    for (const CoveragePoint& point : points) {
        materials[point.material].covered.push_back(point.covered);
        materials[point.material].deltaK.push_back(point.deltaK);
    }
    StraightLine line;
    for (const auto& [material, own] : materials) line.add(own.covered, own.deltaK);
    if (line.df() < 3 || !(line.spread() > leastVaried)) return std::nullopt;
    const Interval around = line.slopeInterval(confidence);
    return CoverageSlope{
        line.slope() / 10, {around.lo / 10, around.hi / 10}, static_cast<int>(points.size())};
}

std::optional<ExpectedSpread> expectedSpread(const Document& document, Id<Mount> mount, const Site& site) {
    const Application* application = applicationAt(document, mount, site.id);
    const Material* material = materialAt(document, mount, site.id);
    if (!application || !application->amount || !material) return std::nullopt;
    const auto pattern = drawnPattern(application->pattern);
    if (!pattern || (material->kind != MaterialClass::paste && material->kind != MaterialClass::putty))
        return std::nullopt;
    const MaterialFacts facts = factsOf(*material);
    const Extent face = faceOf(document, site).size;
    SpreadInput input;
    input.widthMm = face.widthMm;
    input.lengthMm = face.lengthMm;
    input.bondLineMm = facts.bondLineUm.value / 1000;
    input.cellMm = std::max(face.widthMm, face.lengthMm) / 200;
    input.strokes = patternStrokes(*pattern, face.widthMm, face.lengthMm,
                                   typicalReachMm(*pattern, face.widthMm, face.lengthMm));
    input.volumeMm3 = application->amount->value / facts.densityGPerMl.value * 1000;
    const Spread made = spread(input);
    ExpectedSpread expected{made.coverage, made.trappedPockets, {}};
    if (!made.wet.empty()) {
        const CoverageMask mask = maskOf(made);
        expected.mask = {mask.columns, mask.rows, {}};
        for (const float covered : mask.covered)
            expected.mask.grey.push_back(covered > 0.5F ? maskCovered : maskBare);
    }
    return expected;
}

} // namespace ibuki
