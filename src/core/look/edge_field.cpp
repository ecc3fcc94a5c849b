// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/look/edge_field.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace ibuki {
namespace {

constexpr double besideLinePx = 2.5; // an end of a segment that belongs to a line lies no farther from it
constexpr double alikeSine = 0.07;   // 4°

struct Segment {
    PlanePoint from;
    PlanePoint to;
    double length = 0;
};

std::vector<Segment> segmentsOf(const cv::Mat& lab) {
    std::vector<Segment> segments;
    std::vector<cv::Mat> channels;
    cv::split(lab, channels);
    const cv::Ptr<cv::LineSegmentDetector> detector = cv::createLineSegmentDetector(cv::LSD_REFINE_STD);
    for (const cv::Mat& channel : channels) {
        cv::Mat grey;
        channel.convertTo(grey, CV_8U, 2.2,
                          &channel == &channels.front() ? 8 : 128); // colours are weaker: widened
        std::vector<cv::Vec4f> found;
        detector->detect(grey, found);
        for (const cv::Vec4f& s : found) {
            const double length = std::hypot(s[2] - s[0], s[3] - s[1]);
            if (length >= 8) segments.push_back({{s[0] + 0.5, s[1] + 0.5}, {s[2] + 0.5, s[3] + 0.5}, length});
        }
    }
    std::sort(segments.begin(), segments.end(),
              [](const Segment& a, const Segment& b) { return a.length > b.length; });
    return segments;
}

/// Total least squares through the ends of segments, each weighted by its length.
EdgeLine lineThrough(const std::vector<Segment>& segments) {
    double weight = 0, x = 0, y = 0, xx = 0, xy = 0, yy = 0, length = 0;
    for (const Segment& s : segments) {
        length += s.length;
        for (const PlanePoint& p : {s.from, s.to}) {
            weight += s.length;
            x += s.length * p.x;
            y += s.length * p.y;
            xx += s.length * p.x * p.x;
            xy += s.length * p.x * p.y;
            yy += s.length * p.y * p.y;
        }
    }
    x /= weight;
    y /= weight;
    const double angle =
        0.5 * std::atan2(2 * (xy / weight - x * y), xx / weight - x * x - (yy / weight - y * y));
    const double nx = -std::sin(angle), ny = std::cos(angle);
    return {nx, ny, nx * x + ny * y, length};
}

bool liesOn(const Segment& segment, const EdgeLine& line) {
    const double dx = (segment.to.x - segment.from.x) / segment.length;
    const double dy = (segment.to.y - segment.from.y) / segment.length;
    if (std::abs(dx * line.nx + dy * line.ny) > alikeSine) return false;
    return std::abs(line.nx * segment.from.x + line.ny * segment.from.y - line.offset) < besideLinePx
           && std::abs(line.nx * segment.to.x + line.ny * segment.to.y - line.offset) < besideLinePx;
}

} // namespace

cv::Mat labOf(const cv::Mat& rgb) {
    cv::Mat scaled, lab;
    rgb.convertTo(scaled, CV_32F, 1.0 / 255);
    cv::cvtColor(scaled, lab, cv::COLOR_RGB2Lab);
    return lab;
}

EdgeField::EdgeField(const cv::Mat& lab) {
    cv::Mat smooth;
    cv::GaussianBlur(lab, smooth, {}, 1.2);
    cv::Mat dx, dy;
    cv::Sobel(smooth, dx, CV_32F, 1, 0, 3, 0.125);
    cv::Sobel(smooth, dy, CV_32F, 0, 1, 3, 0.125);
    const auto summed = [](const cv::Mat& a, const cv::Mat& b) {
        cv::Mat product = a.mul(b), sum;
        cv::transform(product, sum, cv::Matx13f(1, 1, 1));
        return sum;
    };
    xx_ = summed(dx, dx);
    xy_ = summed(dx, dy);
    yy_ = summed(dy, dy);
    cv::Mat strength = xx_ + yy_;
    strength = strength.clone().reshape(1, 1);
    std::vector<float> values(strength.begin<float>(), strength.end<float>());
    const auto at = values.begin() + static_cast<std::ptrdiff_t>(values.size() * 3 / 4);
    std::nth_element(values.begin(), at, values.end());
    typical_ = std::sqrt(*at);
}

double EdgeField::across(double x, double y, double nx, double ny) const {
    const int column = static_cast<int>(std::floor(x)), row = static_cast<int>(std::floor(y));
    if (column < 0 || row < 0 || column >= width() || row >= height()) return 0;
    const double squared = nx * nx * xx_.at<float>(row, column) + 2 * nx * ny * xy_.at<float>(row, column)
                           + ny * ny * yy_.at<float>(row, column);
    return std::sqrt(std::max(0.0, squared));
}

std::vector<EdgeLine> straightLines(const cv::Mat& lab, std::size_t most) {
    std::vector<Segment> segments = segmentsOf(lab);
    std::vector<EdgeLine> lines;
    std::vector<bool> taken(segments.size(), false);
    for (std::size_t first = 0; first < segments.size() && lines.size() < 6 * most; ++first) {
        if (taken[first]) continue;
        std::vector<Segment> along{segments[first]};
        EdgeLine line = lineThrough(along);
        for (std::size_t other = first + 1; other < segments.size(); ++other) {
            if (taken[other] || !liesOn(segments[other], line)) continue;
            taken[other] = true;
            along.push_back(segments[other]);
            line = lineThrough(along);
        }
        lines.push_back(line);
    }
    std::sort(lines.begin(), lines.end(),
              [](const EdgeLine& a, const EdgeLine& b) { return a.length > b.length; });
    if (lines.size() > most) lines.resize(most);
    return lines;
}

bool meet(const EdgeLine& a, const EdgeLine& b, PlanePoint& at) {
    const double det = a.nx * b.ny - a.ny * b.nx;
    if (std::abs(det) < 1e-6) return false;
    at = {(a.offset * b.ny - b.offset * a.ny) / det, (a.nx * b.offset - b.nx * a.offset) / det};
    return true;
}

} // namespace ibuki
