// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Two kinds of place on a face, bare and covered, under uneven light. The model: the logarithm of each colour
// is that of its kind, plus one smooth field of light common to all three colours (a polynomial of second
// order), plus normal noise of the kind; fitted by expectation maximisation (Wells et al., Adaptive
// segmentation of MRI data, 1996; Dempster et al. 1977), from several beginnings, the likeliest is
// kept.

#include <array>
#include <opencv2/core.hpp>

namespace ibuki {

/// A smooth field of light over the face, as a logarithm.
struct LightField {
    std::array<double, 5> terms{};
    /// x, y from −1 at the left and top to 1; beyond the face as at its edge.
    double at(double x, double y) const;
};

struct FilmKind {
    cv::Vec3d logRgb; ///< without the light
    cv::Matx33d spread;
    double share = 0;
};

struct FilmClasses {
    std::array<FilmKind, 2> kinds;
    LightField light;
    double logLikelihood = 0;
    cv::Mat second; ///< CV_32F: how likely each place of the raster is of the second kind
};

/// logRgb: CV_32FC3. counted: CV_8U, 0 where a place says nothing (glare, beyond the photograph).
FilmClasses filmClasses(const cv::Mat& logRgb, const cv::Mat& counted);

} // namespace ibuki
