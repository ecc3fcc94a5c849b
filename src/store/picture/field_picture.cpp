// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/picture/field_picture.h"

#include "core/physics/field_values.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

using Colour = std::array<std::uint8_t, 3>;

/// Paper, straw, rust, ember, char: each darker than the one before, so that it holds in grey too.
constexpr std::array<std::array<double, 3>, 5> stops{
    {{246, 240, 226}, {240, 196, 128}, {214, 112, 52}, {146, 40, 38}, {52, 14, 22}}};

} // namespace

Colour heatColour(double share) {
    const double at = std::clamp(share, 0.0, 1.0) * (stops.size() - 1);
    const auto low = std::min(static_cast<std::size_t>(at), stops.size() - 2);
    const double along = at - static_cast<double>(low);
    Colour colour{};
    for (std::size_t c = 0; c < 3; ++c)
        colour[c] =
            static_cast<std::uint8_t>(std::lround((1 - along) * stops[low][c] + along * stops[low + 1][c]));
    return colour;
}

RgbPicture fieldPicture(const FieldFace& face, const FieldPictureOptions& options) {
    const double width = face.x.back() - face.x.front(), height = face.y.back() - face.y.front();
    const double scale = std::min(options.pixelsPerMm, options.longest / std::max(width, height));
    RgbPicture picture{std::max(1, static_cast<int>(std::lround(width * scale))),
                       std::max(1, static_cast<int>(std::lround(height * scale))),
                       {}};
    const auto [least, most] = std::minmax_element(face.celsius.begin(), face.celsius.end());
    const double lo = options.lowestC.value_or(*least), hi = options.highestC.value_or(*most);
    const double step = roundStep(*least, *most, 8);
    std::vector<double> above; // the row before
    std::vector<double> row(static_cast<std::size_t>(picture.width));
    picture.rgb.reserve(3 * row.size() * static_cast<std::size_t>(picture.height));
    for (int y = 0; y < picture.height; ++y) {
        for (int x = 0; x < picture.width; ++x)
            row[static_cast<std::size_t>(x)] =
                celsiusAt(face, face.x.front() + (x + 0.5) / scale, face.y.back() - (y + 0.5) / scale);
        for (std::size_t x = 0; x < row.size(); ++x) {
            const auto band = [&](double celsius) { return std::floor(celsius / step); };
            const bool onLine = options.contours && *most - *least > 1e-6
                                && ((x > 0 && band(row[x]) != band(row[x - 1]))
                                    || (!above.empty() && band(row[x]) != band(above[x])));
            Colour colour = heatColour(hi > lo ? (row[x] - lo) / (hi - lo) : 0);
            if (onLine)
                for (auto& channel : colour) channel = static_cast<std::uint8_t>(channel / 2);
            picture.rgb.insert(picture.rgb.end(), colour.begin(), colour.end());
        }
        above = row;
    }
    return picture;
}

} // namespace ibuki
