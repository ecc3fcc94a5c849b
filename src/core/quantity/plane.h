// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Places and sizes in a plane: of faces, plates and pictures.

namespace ibuki {

/// In the unit and from the origin that its owner states: mm of a face, pixels of a picture.
struct PlanePoint {
    double x = 0;
    double y = 0;
    bool operator==(const PlanePoint&) const = default;
};

/// A rectangle, mm.
struct Extent {
    double widthMm = 0;
    double lengthMm = 0;

    double areaMm2() const { return widthMm * lengthMm; }
    bool operator==(const Extent&) const = default;
};

} // namespace ibuki
