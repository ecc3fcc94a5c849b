// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/look/rectify.h"

#include "core/base/input_error.h"
#include "core/look/mats.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace ibuki {
namespace {

bool clockwise(const FaceCorners& corners) {
    for (std::size_t i = 0; i < 4; ++i) {
        const PlanePoint &a = corners[i], &b = corners[(i + 1) % 4], &c = corners[(i + 2) % 4];
        const double turn = (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x);
        if (!(turn > 1e-9)) return false;
    }
    return true;
}

PlanePoint mapped(const std::array<double, 9>& h, double x, double y) {
    const double w = h[6] * x + h[7] * y + h[8];
    return {(h[0] * x + h[1] * y + h[2]) / w, (h[3] * x + h[4] * y + h[5]) / w};
}

std::array<double, 9> arrayOf(const cv::Mat& mat) {
    std::array<double, 9> values{};
    std::copy_n(mat.ptr<double>(), 9, values.begin());
    return values;
}

cv::Point2f point(double x, double y) { return {static_cast<float>(x), static_cast<float>(y)}; }

/// Errors of the two constraints on a flat face for one focal length in pixels: squared cosine between its
/// axes, and the square of the logarithm of the ratio of their lengths.
double viewError(const std::array<double, 9>& h, double cx, double cy, double focal) {
    std::array<double, 3> u{}, v{};
    for (std::size_t axis = 0; axis < 2; ++axis) {
        std::array<double, 3>& to = axis == 0 ? u : v;
        to = {(h[axis] - cx * h[6 + axis]) / focal, (h[3 + axis] - cy * h[6 + axis]) / focal, h[6 + axis]};
    }
    const auto dot = [](const std::array<double, 3>& a, const std::array<double, 3>& b) {
        return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
    };
    const double uu = dot(u, u), vv = dot(v, v), uv = dot(u, v);
    const double ratio = std::log(uu / vv) / 2;
    return std::max(uv * uv / (uu * vv), ratio * ratio);
}

} // namespace

FaceView::FaceView(const FaceCorners& corners, const Extent& face) : face_(face) {
    if (!(face.widthMm > 0) || !(face.lengthMm > 0) || !std::isfinite(face.widthMm * face.lengthMm))
        throw InputError("look-face", {});
    const bool finite = std::all_of(corners.begin(), corners.end(), [](const PlanePoint& p) {
        return std::abs(p.x) < 1e6 && std::abs(p.y) < 1e6;
    });
    if (!finite || !clockwise(corners)) throw InputError("look-corners", {});
    const std::array<cv::Point2f, 4> from{point(0, 0), point(face.widthMm, 0),
                                          point(face.widthMm, face.lengthMm), point(0, face.lengthMm)};
    std::array<cv::Point2f, 4> to;
    for (std::size_t i = 0; i < 4; ++i) to[i] = point(corners[i].x, corners[i].y);
    const cv::Mat forward = cv::getPerspectiveTransform(from.data(), to.data());
    forward_ = arrayOf(forward);
    back_ = arrayOf(forward.inv());
}

PlanePoint FaceView::toPicture(double xMm, double yMm) const { return mapped(forward_, xMm, yMm); }

PlanePoint FaceView::toFace(const PlanePoint& pixel) const { return mapped(back_, pixel.x, pixel.y); }

double FaceView::pxPerMm() const {
    const double x = face_.widthMm / 2, y = face_.lengthMm / 2;
    const std::array<double, 9>& h = forward_;
    const double w = h[6] * x + h[7] * y + h[8];
    const PlanePoint at = mapped(h, x, y);
    const double xx = (h[0] - at.x * h[6]) / w, xy = (h[1] - at.x * h[7]) / w;
    const double yx = (h[3] - at.y * h[6]) / w, yy = (h[4] - at.y * h[7]) / w;
    return std::sqrt(std::abs(xx * yy - xy * yx));
}

double FaceView::strangeness(int pictureWidth, int pictureHeight) const {
    constexpr std::array<double, 6> focals{0.7, 0.85, 1.05,
                                           1.3, 1.7,  2.4}; // of the longer side; telephones ~0.75
    double least = 1e9;
    for (const double focal : focals)
        least = std::min(least, viewError(forward_, pictureWidth / 2.0, pictureHeight / 2.0,
                                          focal * std::max(pictureWidth, pictureHeight)));
    return least;
}

FacePicture rectified(const RgbPicture& photograph, const FaceView& view, const RectifyOptions& options) {
    const Extent& face = view.face();
    const double longer = std::max(face.widthMm, face.lengthMm);
    const double px = std::min(options.longerSidePx / longer, std::max(view.pxPerMm(), 16 / longer));
    FacePicture made;
    const int width = std::max(1, static_cast<int>(std::lround(face.widthMm * px)));
    const int height = std::max(1, static_cast<int>(std::lround(face.lengthMm * px)));
    made.pxPerMm = px;
    made.margin = static_cast<int>(std::lround(options.marginShare * longer * px));
    // Warping samples points: what is finer than the result is averaged away before.
    const cv::Mat whole = viewOf(photograph);
    const double shrink = std::min(1.0, 1.5 * px / view.pxPerMm());
    cv::Mat from = whole;
    if (shrink < 0.75) cv::resize(whole, from, {}, shrink, shrink, cv::INTER_AREA);
    const double sx = static_cast<double>(from.cols) / whole.cols,
                 sy = static_cast<double>(from.rows) / whole.rows;
    // From pixel middles of the result to pixel middles of the photograph.
    const cv::Matx33d toMm(face.widthMm / width, 0, (0.5 - made.margin) * face.widthMm / width, 0,
                           face.lengthMm / height, (0.5 - made.margin) * face.lengthMm / height, 0, 0, 1);
    const cv::Matx33d toPixel(sx, 0, -0.5, 0, sy, -0.5, 0, 0, 1);
    const cv::Matx33d map = toPixel * cv::Matx33d(view.homography().data()) * toMm;
    const cv::Size size(width + 2 * made.margin, height + 2 * made.margin);
    cv::Mat warped, reached;
    cv::warpPerspective(from, warped, map, size, cv::INTER_LINEAR | cv::WARP_INVERSE_MAP,
                        cv::BORDER_REPLICATE);
    cv::warpPerspective(cv::Mat(from.size(), CV_8UC1, cv::Scalar(255)), reached, map, size,
                        cv::INTER_NEAREST | cv::WARP_INVERSE_MAP, cv::BORDER_CONSTANT, cv::Scalar(0));
    made.picture = rgbOf(warped);
    made.seen = greyOf(reached);
    return made;
}

bool outOfFrame(const FaceCorners& corners, int pictureWidth, int pictureHeight) {
    return std::any_of(corners.begin(), corners.end(), [&](const PlanePoint& p) {
        return p.x < 1 || p.y < 1 || p.x > pictureWidth - 1 || p.y > pictureHeight - 1;
    });
}

} // namespace ibuki
