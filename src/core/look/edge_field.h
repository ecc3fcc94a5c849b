// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Where a picture changes, across which direction: the structure tensor over the three channels of CIELAB
// (Di Zenzo, A note on the gradient of a multi-image, 1986), and straight lines along it (von Gioi et al.,
// LSD: a line segment detector, 2012).

#include "core/look/picture.h"

#include <opencv2/core.hpp>

namespace ibuki {

/// Unit normal and offset: n·p = offset.
struct EdgeLine {
    double nx = 0;
    double ny = 0;
    double offset = 0;
    double length = 0; ///< of the segments that lie on it, px
};

class EdgeField {
public:
    /// lab: CV_32FC3, lightness and both colours to the same scale.
    explicit EdgeField(const cv::Mat& lab);

    /// How strongly the picture changes across direction (nx, ny) there; 0 outside.
    double across(double x, double y, double nx, double ny) const;
    /// What noise and texture alone make: three quarters of the picture changes less.
    double typical() const { return typical_; }
    int width() const { return xx_.cols; }
    int height() const { return xx_.rows; }

private:
    cv::Mat xx_, xy_, yy_;
    double typical_ = 0;
};

/// CIELAB as CV_32FC3 of an RGB view.
cv::Mat labOf(const cv::Mat& rgb);

/// Straight lines of a picture, those with most of their length seen first; at most `most`.
std::vector<EdgeLine> straightLines(const cv::Mat& lab, std::size_t most);

/// Where two lines meet; nothing for parallel ones.
bool meet(const EdgeLine& a, const EdgeLine& b, PlanePoint& at);

} // namespace ibuki
