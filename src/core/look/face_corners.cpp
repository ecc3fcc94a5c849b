// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/look/face_corners.h"

#include "core/base/input_error.h"
#include "core/look/edge_field.h"
#include "core/look/face_choice.h"
#include "core/look/mats.h"
#include "core/look/side_settling.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace ibuki {
namespace {

constexpr int searchedAcross = 640; // px of the picture in which quadrilaterals are looked for
constexpr int refinedAcross = 1200; // and in which their sides are laid exactly
constexpr std::size_t mostLines = 44;
constexpr std::size_t mostSettled = 4;

FaceCorners scaled(FaceCorners corners, double x, double y) {
    for (PlanePoint& c : corners) c = {c.x * x, c.y * y};
    return corners;
}

cv::Mat shrunk(const cv::Mat& whole, int across) {
    const double scale = std::min(1.0, static_cast<double>(across) / std::max(whole.cols, whole.rows));
    cv::Mat small = whole;
    if (scale < 1) cv::resize(whole, small, {}, scale, scale, cv::INTER_AREA);
    return small;
}

/// Of those much like the chosen one, the one that can be laid best: a side of one may be a side of the film
/// in another.
FaceCorners bestLaid(const EdgeField& field, const Extent& face, const std::vector<EdgeQuad>& quads,
                     const EdgeQuad& chosen, double x, double y, const ViewTrust& trust) {
    SettledSides best{{}, -1e9};
    std::size_t tried = 0;
    for (const EdgeQuad& one : quads) {
        if (&one != &chosen && (tried >= mostSettled || !isAlike(one, chosen))) continue;
        ++tried;
        const SettledSides settled = settledSides(field, face, scaled(one.corners, x, y), trust);
        if (settled.worth > best.worth) best = settled;
    }
    return best.corners;
}

} // namespace

std::optional<FoundCorners> findCorners(const RgbPicture& photograph, const Extent& face,
                                        const FindCornersOptions& options) {
    if (!(face.widthMm > 0) || !(face.lengthMm > 0)) throw InputError("look-face", {});
    if (photograph.width < 16 || photograph.height < 16) return std::nullopt;
    const cv::Mat fine = shrunk(viewOf(photograph), refinedAcross);
    const EdgeField fineField(labOf(fine));
    const double fineX = static_cast<double>(fine.cols) / photograph.width;
    const double fineY = static_cast<double>(fine.rows) / photograph.height;
    if (options.guess) {
        const double reach = 0.024 * std::hypot(fine.cols, fine.rows);
        const FaceCorners near = laidSides(fineField, scaled(*options.guess, fine.cols, fine.rows), reach);
        const double share = seenShare(fineField, near);
        if (share > 0.75) return FoundCorners{scaled(near, 1 / fineX, 1 / fineY), share};
    }
    const ViewTrust trust = options.sizeAssumed ? assumedSize : ViewTrust{};
    const cv::Mat coarse = labOf(shrunk(fine, searchedAcross));
    const EdgeField field(coarse);
    std::vector<EdgeQuad> quads = edgeQuads(field, face, straightLines(coarse, mostLines), trust);
    if (quads.empty()) return std::nullopt;
    const std::size_t at = faceAmong(coarse, quads); // puts them in order
    const EdgeQuad& chosen = quads[at];
    if (chosen.support < options.leastSupport) return std::nullopt;
    const FaceCorners best =
        bestLaid(fineField, face, quads, chosen, static_cast<double>(fine.cols) / coarse.cols,
                 static_cast<double>(fine.rows) / coarse.rows, trust);
    return FoundCorners{scaled(laidSides(fineField, best, 3), 1 / fineX, 1 / fineY), chosen.support};
}

} // namespace ibuki
