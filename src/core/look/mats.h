// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Pictures as OpenCV sees them: views without a copy, and back.

#include "core/look/picture.h"

#include <opencv2/core.hpp>

namespace ibuki {

/// Not to be written to.
inline cv::Mat viewOf(const RgbPicture& picture) {
    return {picture.height, picture.width, CV_8UC3, const_cast<std::uint8_t*>(picture.rgb.data())};
}
inline cv::Mat viewOf(const GreyPicture& picture) {
    return {picture.height, picture.width, CV_8UC1, const_cast<std::uint8_t*>(picture.grey.data())};
}

inline RgbPicture rgbOf(const cv::Mat& mat) {
    RgbPicture picture{mat.cols, mat.rows, {}};
    picture.rgb.resize(mat.total() * 3);
    mat.copyTo(viewOf(picture));
    return picture;
}
inline GreyPicture greyOf(const cv::Mat& mat) {
    GreyPicture picture{mat.cols, mat.rows, {}};
    picture.grey.resize(mat.total());
    mat.copyTo(viewOf(picture));
    return picture;
}

} // namespace ibuki
