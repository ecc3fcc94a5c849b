// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/look/bare_circle.h"

#include "core/look/mats.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace ibuki {
namespace {

constexpr int mostAcross = 1200;      // of the raster on which circles are looked for
constexpr std::size_t mostTried = 40; // of its places, widened exactly
constexpr double slack = 3;           // in its pixels: how far a raster can be wrong

struct Place {
    double x = 0; ///< mm from the face's upper left
    double y = 0;
    double radius = 0;
};

/// Distances in a raster of square pixels; what is covered and what lies beyond the face is its border.
struct DistanceRaster {
    double pitchMm = 0;
    cv::Mat distance; ///< CV_32F, in pixels
};

DistanceRaster distances(const cv::Mat& bare, const Extent& face) {
    const double finest = std::min(face.widthMm / bare.cols, face.lengthMm / bare.rows);
    const double pitch = std::max(finest, std::max(face.widthMm, face.lengthMm) / mostAcross);
    cv::Mat square, framed;
    cv::resize(bare, square,
               {std::max(1, static_cast<int>(std::lround(face.widthMm / pitch))),
                std::max(1, static_cast<int>(std::lround(face.lengthMm / pitch)))},
               0, 0, cv::INTER_NEAREST);
    cv::copyMakeBorder(square, framed, 1, 1, 1, 1, cv::BORDER_CONSTANT, cv::Scalar(0));
    DistanceRaster raster{pitch, {}};
    cv::distanceTransform(framed, raster.distance, cv::DIST_L2, cv::DIST_MASK_PRECISE, CV_32F);
    return raster;
}

/// Places of the raster near its widest, apart from each other by a pixel or more.
std::vector<Place> candidates(const DistanceRaster& raster) {
    double most = 0;
    cv::minMaxLoc(raster.distance, nullptr, &most);
    std::vector<Place> places;
    for (int row = 0; row < raster.distance.rows; ++row) {
        const float* at = raster.distance.ptr<float>(row);
        for (int column = 0; column < raster.distance.cols; ++column)
            if (at[column] > 0 && at[column] >= most - slack / 2)
                places.push_back({(column - 0.5) * raster.pitchMm, (row - 0.5) * raster.pitchMm,
                                  at[column] * raster.pitchMm});
    }
    std::sort(places.begin(), places.end(),
              [](const Place& a, const Place& b) { return a.radius > b.radius; });
    if (places.size() <= mostTried) return places;
    std::vector<Place> spread; // the widest, and the others evenly
    for (std::size_t i = 0; i < mostTried; ++i) {
        const double share = static_cast<double>(i) / static_cast<double>(mostTried - 1);
        spread.push_back(
            places[static_cast<std::size_t>(share * share * static_cast<double>(places.size() - 1))]);
    }
    return spread;
}

/// Widens a circle by moving its middle; `near` are the pixels that can bound it.
class Widening {
public:
    Widening(const cv::Mat& bare, const Extent& face, const Place& from, double reachMm)
        : face_(face),
          begin_(from),
          mostMoved_((reachMm - from.radius) / 2),
          width_(face.widthMm / bare.cols),
          height_(face.lengthMm / bare.rows) {
        const int firstColumn = std::max(0, static_cast<int>((from.x - reachMm) / width_) - 1);
        const int lastColumn = std::min(bare.cols - 1, static_cast<int>((from.x + reachMm) / width_) + 1);
        const int firstRow = std::max(0, static_cast<int>((from.y - reachMm) / height_) - 1);
        const int lastRow = std::min(bare.rows - 1, static_cast<int>((from.y + reachMm) / height_) + 1);
        for (int row = firstRow; row <= lastRow; ++row)
            for (int column = firstColumn; column <= lastColumn; ++column)
                if (!bare.at<std::uint8_t>(row, column)) {
                    const double d = toPixel(from.x, from.y, column, row);
                    if (d < reachMm) near_.push_back({column, row});
                }
    }

    Place widest(Place from) const {
        from.radius = room(from.x, from.y);
        for (double step = std::max(width_, height_); step > std::min(width_, height_) / 32768;) {
            Place best = from;
            for (int k = 0; k < 8; ++k) {
                const double angle = k * 0.78539816339744831;
                Place moved{from.x + step * std::cos(angle), from.y + step * std::sin(angle), 0};
                moved.radius = room(moved.x, moved.y);
                if (moved.radius > best.radius) best = moved;
            }
            if (best.radius > from.radius)
                from = best;
            else
                step /= 2;
        }
        return from;
    }

private:
    double toPixel(double x, double y, int column, int row) const {
        const double dx = std::max({0.0, column * width_ - x, x - (column + 1) * width_});
        const double dy = std::max({0.0, row * height_ - y, y - (row + 1) * height_});
        return std::hypot(dx, dy);
    }
    double room(double x, double y) const {
        if (std::hypot(x - begin_.x, y - begin_.y) > mostMoved_)
            return 0; // what bounds it there was not gathered
        double least = std::min({x, face_.widthMm - x, y, face_.lengthMm - y});
        for (const cv::Point& pixel : near_) least = std::min(least, toPixel(x, y, pixel.x, pixel.y));
        return least;
    }

    Extent face_;
    Place begin_;
    double mostMoved_;
    double width_;
    double height_;
    std::vector<cv::Point> near_;
};

} // namespace

double largestBareCircleMm(const GreyPicture& mask, const Extent& face) {
    const cv::Mat bare = viewOf(mask) < maskFromHere;
    if (cv::countNonZero(bare) == 0) return 0;
    const DistanceRaster raster = distances(bare, face);
    const double wrong =
        slack * std::max({raster.pitchMm, face.widthMm / mask.width, face.lengthMm / mask.height});
    double radius = 0;
    for (const Place& place : candidates(raster))
        radius = std::max(radius, Widening(bare, face, place, place.radius + 2 * wrong).widest(place).radius);
    return 2 * radius;
}

} // namespace ibuki
