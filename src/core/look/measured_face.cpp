// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/look/measured_face.h"

namespace ibuki {

MeasuredFace measureFace(const RgbPicture& photograph, const Extent& face,
                         const MeasureFaceOptions& options) {
    MeasuredFace made;
    made.corners = options.corners;
    if (!made.corners) {
        if (const auto found = findCorners(photograph, face, options.find)) made.corners = found->corners;
        made.found = true;
    }
    if (!made.corners) {
        made.flags.push_back(LookFlag::cornersNotFound);
        return made;
    }
    const FaceView view(*made.corners, face);
    made.pxPerMm = view.pxPerMm();
    made.face = rectified(photograph, view, options.rectify);
    made.film = filmPicture(made.face, options.film);
    made.mask = maskAt(made.film.film, made.film.thinFrom, made.film.threshold);
    made.covered = coveredRange(made.film);
    made.flags = made.film.flags;
    if (outOfFrame(*made.corners, photograph.width, photograph.height))
        made.flags.push_back(LookFlag::outOfFrame);
    return made;
}

} // namespace ibuki
