// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/look/face_choice.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace ibuki {
namespace {

bool within(const FaceCorners& inner, const FaceCorners& outer) {
    for (std::size_t i = 0; i < 4; ++i) {
        const PlanePoint &a = outer[i], &b = outer[(i + 1) % 4];
        const double length = std::hypot(b.x - a.x, b.y - a.y);
        for (const PlanePoint& p : inner)
            if (((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / length < -2) return false;
    }
    return true;
}

void fill(cv::Mat& mask, const FaceCorners& corners, int value) {
    std::vector<cv::Point> points;
    for (const PlanePoint& c : corners)
        points.emplace_back(static_cast<int>(std::lround(c.x)), static_cast<int>(std::lround(c.y)));
    cv::fillConvexPoly(mask, points, cv::Scalar(value));
}

/// Colours of a picture in coarse steps; brightness counts least, since light differs over a face.
class ColourSteps {
public:
    explicit ColourSteps(const cv::Mat& lab) : step_(lab.size(), CV_32S) {
        for (int row = 0; row < lab.rows; ++row)
            for (int column = 0; column < lab.cols; ++column) {
                const auto& c = lab.at<cv::Vec3f>(row, column);
                const int l = std::clamp(static_cast<int>(c[0] / 9), 0, lightSteps - 1);
                const int a = std::clamp(static_cast<int>((c[1] + 60) / 5), 0, colourSteps - 1);
                const int b = std::clamp(static_cast<int>((c[2] + 60) / 5), 0, colourSteps - 1);
                step_.at<int>(row, column) = (l * colourSteps + a) * colourSteps + b;
            }
    }

    /// How often each colour is found where the mask says so, as shares; each counts for its neighbours a
    /// little.
    std::vector<float> shares(const cv::Mat& where) const {
        std::vector<float> raw(static_cast<std::size_t>(lightSteps * colourSteps * colourSteps), 0.0F),
            soft = raw;
        double all = 0;
        for (int row = 0; row < step_.rows; ++row)
            for (int column = 0; column < step_.cols; ++column)
                if (where.at<std::uint8_t>(row, column)) {
                    raw[static_cast<std::size_t>(step_.at<int>(row, column))] += 1;
                    all += 1;
                }
        if (all < 30) return {};
        const std::array<std::ptrdiff_t, 7> beside{
            0, 1, -1, colourSteps, -colourSteps, colourSteps * colourSteps, -colourSteps * colourSteps};
        const auto size = static_cast<std::ptrdiff_t>(raw.size());
        for (std::ptrdiff_t i = 0; i < size; ++i) {
            const float count = raw[static_cast<std::size_t>(i)];
            if (count <= 0) continue;
            for (const std::ptrdiff_t d : beside)
                if (i + d >= 0 && i + d < size)
                    soft[static_cast<std::size_t>(i + d)] +=
                        static_cast<float>(count / all * (d == 0 ? 0.4 : 0.1));
        }
        return soft;
    }

private:
    static constexpr int lightSteps = 12, colourSteps = 24;
    cv::Mat step_;
};

double overlap(const std::vector<float>& a, const std::vector<float>& b) {
    if (a.empty() || b.empty()) return 1;
    double shared = 0;
    for (std::size_t i = 0; i < a.size(); ++i) shared += static_cast<double>(std::min(a[i], b[i]));
    return shared;
}

FaceCorners grown(const FaceCorners& corners, double by) {
    PlanePoint middle;
    for (const PlanePoint& c : corners) middle = {middle.x + c.x / 4, middle.y + c.y / 4};
    FaceCorners made = corners;
    for (PlanePoint& c : made) c = {middle.x + (c.x - middle.x) * by, middle.y + (c.y - middle.y) * by};
    return made;
}

cv::Mat between(cv::Size size, const FaceCorners& inner, const FaceCorners& outer) {
    cv::Mat where(size, CV_8U, cv::Scalar(0));
    fill(where, outer, 1);
    fill(where, inner, 0);
    return where;
}

/// How alike the colours just inside and just outside of a quadrilateral's sides are, 0 to 1.
double alikeAcross(const ColourSteps& colours, cv::Size size, const FaceCorners& corners) {
    double sum = 0;
    PlanePoint middle;
    for (const PlanePoint& c : corners) middle = {middle.x + c.x / 4, middle.y + c.y / 4};
    for (std::size_t i = 0; i < 4; ++i) {
        const auto strip = [&](double from, double to) {
            const auto towards = [&](const PlanePoint& p, double by) {
                return PlanePoint{middle.x + (p.x - middle.x) * by, middle.y + (p.y - middle.y) * by};
            };
            const PlanePoint &a = corners[i], &b = corners[(i + 1) % 4];
            cv::Mat where(size, CV_8U, cv::Scalar(0));
            fill(where, {towards(a, from), towards(b, from), towards(b, to), towards(a, to)}, 1);
            return where;
        };
        sum += overlap(colours.shares(strip(0.86, 0.975)), colours.shares(strip(1.025, 1.14)));
    }
    return sum / 4;
}

/// Whether what lies between two quadrilaterals is the bench around a face rather than the rim of one: its
/// colour then is none of those inside.
bool standsOnIt(const ColourSteps& colours, cv::Size size, const FaceCorners& inner,
                const FaceCorners& outer) {
    cv::Mat middle(size, CV_8U, cv::Scalar(0));
    fill(middle, grown(inner, 0.96), 1);
    const std::vector<float> inside = colours.shares(middle);
    const std::vector<float> ring = colours.shares(between(size, grown(inner, 1.03), grown(outer, 0.98)));
    if (inside.empty() || ring.empty()) return false;
    double shared = 0;
    for (std::size_t i = 0; i < ring.size(); ++i)
        if (inside[i] > 0.004F) shared += static_cast<double>(ring[i]);
    return shared < 0.4;
}

} // namespace

bool isAlike(const EdgeQuad& one, const EdgeQuad& chosen) {
    const double share = std::abs(areaOf(one.corners)) / std::abs(areaOf(chosen.corners));
    if (share < 0.75 || share > 1.33 || one.worth < 0.6 * chosen.worth) return false;
    std::size_t shared = 0; // corners in the same place
    const double near = 0.03 * std::sqrt(std::abs(areaOf(chosen.corners)));
    for (const PlanePoint& a : one.corners)
        shared += std::any_of(chosen.corners.begin(), chosen.corners.end(),
                              [&](const PlanePoint& b) { return std::hypot(a.x - b.x, a.y - b.y) < near; })
                      ? 1
                      : 0;
    return shared >= 2;
}

std::size_t faceAmong(const cv::Mat& lab, std::vector<EdgeQuad>& quads) {
    const ColourSteps colours(lab);
    for (EdgeQuad& one : quads) one.worth *= 1.05 - alikeAcross(colours, lab.size(), one.corners);
    std::sort(quads.begin(), quads.end(),
              [](const EdgeQuad& a, const EdgeQuad& b) { return a.worth > b.worth; });
    std::size_t chosen = 0;
    for (std::size_t other = 1; other < quads.size(); ++other) {
        const FaceCorners &inner = quads[other].corners, &outer = quads[chosen].corners;
        const double share = std::abs(areaOf(inner)) / std::abs(areaOf(outer));
        if (share < 0.08 || share > 0.94 || quads[other].support < 0.5 || !within(inner, outer)) continue;
        if (quads[other].worth > 0.5 * quads[chosen].worth && standsOnIt(colours, lab.size(), inner, outer))
            chosen = other;
    }
    return chosen;
}

} // namespace ibuki
