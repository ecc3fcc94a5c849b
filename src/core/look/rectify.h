// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A face as seen straight from above: the homography of its four corners (Hartley and Zisserman, Multiple
// View Geometry, 2004, 2.3) and the picture resampled at one scale.

#include "core/look/picture.h"

namespace ibuki {

/// Maps millimetres of the face (from its upper left, down positive) to pixels, row by row, h[8] = 1.
class FaceView {
public:
    /// Throws InputError (look-corners) when the corners make no convex quadrilateral in clockwise order,
    /// (look-face) for a face without a size.
    FaceView(const FaceCorners& corners, const Extent& face);

    PlanePoint toPicture(double xMm, double yMm) const;
    PlanePoint toFace(const PlanePoint& pixel) const; ///< mm
    /// Pixels a millimetre at the face's middle: the root of the areas' ratio.
    double pxPerMm() const;
    /// How far the picture is from one of a flat face of this size: 0 for any parallel view, and for a camera
    /// whose field of view is usual; the squared sine of the worse of both errors (angle, ratio) else.
    double strangeness(int pictureWidth, int pictureHeight) const;

    const std::array<double, 9>& homography() const { return forward_; }
    const Extent& face() const { return face_; }

private:
    Extent face_;
    std::array<double, 9> forward_{};
    std::array<double, 9> back_{};
};

/// A face at one scale, with what lies around it.
struct FacePicture {
    RgbPicture picture;
    double pxPerMm = 0;
    int margin = 0;   ///< pixels around the face on every side
    GreyPicture seen; ///< 255 where the photograph reaches
    int faceWidth() const { return picture.width - 2 * margin; }
    int faceHeight() const { return picture.height - 2 * margin; }
};

struct RectifyOptions {
    int longerSidePx = 480;    ///< of the face; fewer when the photograph has fewer
    double marginShare = 0.12; ///< of the longer side
};

FacePicture rectified(const RgbPicture& photograph, const FaceView& view, const RectifyOptions& options = {});

/// Where the corners lie as a share of the picture: outside of it, or on its very border.
bool outOfFrame(const FaceCorners& corners, int pictureWidth, int pictureHeight);

} // namespace ibuki
