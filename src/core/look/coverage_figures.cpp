// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/look/coverage_figures.h"

#include "core/base/input_error.h"
#include "core/look/bare_circle.h"
#include "core/look/mats.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace ibuki {
namespace {

std::vector<BareRegion> bareRegions(const GreyPicture& mask, const Extent& face) {
    cv::Mat labels, stats, middles;
    const cv::Mat bare = viewOf(mask) < maskFromHere;
    const int labelled = cv::connectedComponentsWithStats(bare, labels, stats, middles, 4, CV_32S);
    const double width = face.widthMm / mask.width, height = face.lengthMm / mask.height;
    std::vector<BareRegion> regions;
    for (int label = 1; label < labelled; ++label) {
        const int left = stats.at<int>(label, cv::CC_STAT_LEFT), top = stats.at<int>(label, cv::CC_STAT_TOP);
        const int right = left + stats.at<int>(label, cv::CC_STAT_WIDTH);
        const int bottom = top + stats.at<int>(label, cv::CC_STAT_HEIGHT);
        BareRegion region;
        region.areaMm2 = stats.at<int>(label, cv::CC_STAT_AREA) * width * height;
        if (!(region.areaMm2 > voidsAboveMm2)) continue;
        region.xMm = (middles.at<double>(label, 0) + 0.5) * width - face.widthMm / 2;
        region.yMm = face.lengthMm / 2 - (middles.at<double>(label, 1) + 0.5) * height;
        region.touchesEdge = left == 0 || top == 0 || right == mask.width || bottom == mask.height;
        regions.push_back(region);
    }
    std::stable_sort(regions.begin(), regions.end(),
                     [](const BareRegion& a, const BareRegion& b) { return a.areaMm2 > b.areaMm2; });
    return regions;
}

} // namespace

std::array<double, 4> cornerShares(const CoverageMask& mask) {
    return {mask.mean(0, 0.25, 0.75, 1), mask.mean(0.75, 1, 0.75, 1), mask.mean(0.75, 1, 0, 0.25),
            mask.mean(0, 0.25, 0, 0.25)};
}

CoverageFigures coverageFigures(const GreyPicture& mask, const Extent& face) {
    if (!(face.widthMm > 0) || !(face.lengthMm > 0) || !std::isfinite(face.widthMm * face.lengthMm))
        throw InputError("look-face", {});
    if (mask.width <= 0 || mask.height <= 0) throw InputError("look-mask", {});
    const CoverageMask covered = coverageMaskOf(mask);
    CoverageFigures figures;
    figures.covered = covered.mean();
    const double from = 0.5 - 0.5 * std::sqrt(0.5), to = 1 - from;
    figures.centre = covered.mean(from, to, from, to);
    figures.edge = 2 * figures.covered - figures.centre; // both are half of the area
    figures.edge = std::clamp(figures.edge, 0.0, 1.0);
    figures.corners = cornerShares(covered);
    figures.voids = bareRegions(mask, face);
    figures.largestBareCircleMm = largestBareCircleMm(mask, face);
    figures.trappedVoids = static_cast<int>(std::count_if(
        figures.voids.begin(), figures.voids.end(), [](const BareRegion& r) { return !r.touchesEdge; }));
    return figures;
}

} // namespace ibuki
