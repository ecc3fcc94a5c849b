// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/look/mask_editing.h"

#include "core/look/mats.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace ibuki {
namespace {

constexpr int shift = 4; // fixed point of OpenCV's drawing: sixteenths of a pixel

cv::Point fixedPoint(const PlanePoint& p) {
    return {static_cast<int>(std::lround((p.x - 0.5) * (1 << shift))),
            static_cast<int>(std::lround((p.y - 0.5) * (1 << shift)))};
}

MaskPart within(const GreyPicture& mask, double left, double top, double right, double bottom) {
    const int x = std::clamp(static_cast<int>(std::floor(left)), 0, mask.width);
    const int y = std::clamp(static_cast<int>(std::floor(top)), 0, mask.height);
    const int toX = std::clamp(static_cast<int>(std::ceil(right)), x, mask.width);
    const int toY = std::clamp(static_cast<int>(std::ceil(bottom)), y, mask.height);
    return {x, y, toX - x, toY - y};
}

} // namespace

MaskPart brush(GreyPicture& mask, const PlanePoint& from, const PlanePoint& to, double radius,
               std::uint8_t level) {
    const MaskPart part =
        within(mask, std::min(from.x, to.x) - radius - 1, std::min(from.y, to.y) - radius - 1,
               std::max(from.x, to.x) + radius + 1, std::max(from.y, to.y) + radius + 1);
    const double dx = to.x - from.x, dy = to.y - from.y, length = dx * dx + dy * dy;
    for (int row = part.top; row < part.top + part.height; ++row)
        for (int column = part.left; column < part.left + part.width; ++column) {
            const double x = column + 0.5 - from.x, y = row + 0.5 - from.y;
            const double t = length > 0 ? std::clamp((x * dx + y * dy) / length, 0.0, 1.0) : 0.0;
            if (std::hypot(x - t * dx, y - t * dy) > radius) continue;
            mask.grey[static_cast<std::size_t>(row) * static_cast<std::size_t>(mask.width)
                      + static_cast<std::size_t>(column)] = level;
        }
    return part;
}

MaskPart fillPolygon(GreyPicture& mask, const std::vector<PlanePoint>& corners, std::uint8_t level) {
    if (corners.size() < 3) return {};
    std::vector<cv::Point> points;
    double left = 1e9, top = 1e9, right = -1e9, bottom = -1e9;
    for (const PlanePoint& p : corners) {
        points.push_back(fixedPoint(p));
        left = std::min(left, p.x);
        right = std::max(right, p.x);
        top = std::min(top, p.y);
        bottom = std::max(bottom, p.y);
    }
    cv::Mat view = viewOf(mask);
    cv::fillPoly(view, std::vector<std::vector<cv::Point>>{points}, cv::Scalar(level), cv::LINE_8, shift);
    return within(mask, left - 1, top - 1, right + 1, bottom + 1);
}

MaskPart fillRegion(GreyPicture& mask, const PlanePoint& at, std::uint8_t level) {
    const cv::Point seed(static_cast<int>(std::floor(at.x)), static_cast<int>(std::floor(at.y)));
    cv::Mat view = viewOf(mask);
    if (!cv::Rect({}, view.size()).contains(seed)) return {};
    cv::Rect touched;
    cv::floodFill(view, seed, cv::Scalar(level), &touched, cv::Scalar(0), cv::Scalar(0), 4);
    return {touched.x, touched.y, touched.width, touched.height};
}

GreyPicture refinedMask(const RgbPicture& face, const GreyPicture& mask, const GreyPicture& seeds) {
    cv::Mat bgr, labels(mask.height, mask.width, CV_8U);
    cv::cvtColor(viewOf(face), bgr, cv::COLOR_RGB2BGR);
    bool hasBoth[2] = {false, false};
    for (int row = 0; row < labels.rows; ++row)
        for (int column = 0; column < labels.cols; ++column) {
            const auto i = static_cast<std::size_t>(row) * static_cast<std::size_t>(mask.width)
                           + static_cast<std::size_t>(column);
            const bool covered = mask.grey[i] >= maskFromHere;
            const std::uint8_t seed = seeds.grey[i];
            const bool isCovered = seed == seedNone ? covered : seed >= maskFromHere;
            labels.at<std::uint8_t>(row, column) =
                static_cast<std::uint8_t>(seed == seedNone ? (covered ? cv::GC_PR_FGD : cv::GC_PR_BGD)
                                                           : (isCovered ? cv::GC_FGD : cv::GC_BGD));
            hasBoth[isCovered ? 1 : 0] = true;
        }
    if (!hasBoth[0] || !hasBoth[1]) return mask; // nothing to cut apart
    cv::theRNG().state = 7;                      // the same seeds give the same mask
    cv::Mat background, foreground;
    cv::grabCut(bgr, labels, {}, background, foreground, 3, cv::GC_INIT_WITH_MASK);
    GreyPicture made{mask.width, mask.height, {}};
    for (int row = 0; row < labels.rows; ++row)
        for (int column = 0; column < labels.cols; ++column)
            made.grey.push_back((labels.at<std::uint8_t>(row, column) & 1) != 0 ? maskCovered : maskBare);
    return made;
}

} // namespace ibuki
