// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/look/side_settling.h"

#include "core/base/input_error.h"
#include "core/look/edge_quads.h"
#include "core/look/rectify.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace ibuki {
namespace {

/// How strongly the picture changes across a side, sampled along it and to both of its sides.
struct SideProfile {
    static constexpr double step = 0.5; ///< px to both sides
    double length = 0;
    int samples = 0;
    int beside = 0; ///< steps to each side
    /// What is strong enough to be an edge counts alike where a line is chosen: a straight one wins over a
    /// stronger one that wanders.
    float most = 0;
    std::vector<float> strength;

    double along(int sample) const { return length * (0.03 + 0.94 * (sample + 0.5) / samples - 0.5); }
    float at(int sample, int offset) const {
        if (std::abs(offset) > beside) return 0;
        return strength[static_cast<std::size_t>(sample) * static_cast<std::size_t>(2 * beside + 1)
                        + static_cast<std::size_t>(offset + beside)];
    }
};

SideProfile profileOf(const EdgeField& field, const PlanePoint& from, const PlanePoint& to, double reach) {
    SideProfile profile;
    profile.length = std::hypot(to.x - from.x, to.y - from.y);
    profile.samples = std::clamp(static_cast<int>(profile.length / 3), 24, 160);
    profile.beside = static_cast<int>(reach / SideProfile::step);
    const double dx = (to.x - from.x) / profile.length, dy = (to.y - from.y) / profile.length;
    profile.most = static_cast<float>(2.5 * leastStrength(field));
    for (int i = 0; i < profile.samples; ++i) {
        const double s = profile.along(i) + profile.length / 2;
        for (int k = -profile.beside; k <= profile.beside; ++k) {
            const double off = k * SideProfile::step;
            profile.strength.push_back(static_cast<float>(
                field.across(from.x + s * dx - off * dy, from.y + s * dy + off * dx, -dy, dx)));
        }
    }
    return profile;
}

/// Offsets at both ends of the straight line along which the picture changes most.
std::pair<double, double> strongestLine(const SideProfile& profile) {
    double most = -1;
    std::pair<double, double> best{0, 0};
    for (int a = -profile.beside; a <= profile.beside; ++a)
        for (int b = -profile.beside; b <= profile.beside; ++b) {
            double sum = 0;
            for (int i = 0; i < profile.samples; ++i) {
                const double t = profile.along(i) / profile.length + 0.5;
                sum += std::min(profile.most, profile.at(i, static_cast<int>(std::lround(a + (b - a) * t))));
            }
            sum *= 1 - 0.1 * (std::abs(a) + std::abs(b)) / (2.0 * profile.beside); // of equals the nearer one
            if (sum > most) {
                most = sum;
                best = {a * SideProfile::step, b * SideProfile::step};
            }
        }
    return best;
}

/// The line through the middles of the changes within a pixel and a half of another one; both by their
/// offsets at the ends. Nothing where there is no change.
std::optional<std::pair<double, double>> throughMiddles(const SideProfile& profile,
                                                        const std::pair<double, double>& near) {
    double w = 0, x = 0, y = 0, xx = 0, xy = 0;
    for (int i = 0; i < profile.samples; ++i) {
        const double c = profile.along(i);
        const double on = near.first + (near.second - near.first) * (c / profile.length + 0.5);
        const int middle = static_cast<int>(std::lround(on / SideProfile::step));
        for (int k = middle - 3; k <= middle + 3; ++k) {
            const double weight = std::pow(static_cast<double>(profile.at(i, k)), 2);
            w += weight;
            x += weight * c;
            y += weight * k * SideProfile::step;
            xx += weight * c * c;
            xy += weight * c * k * SideProfile::step;
        }
    }
    const double det = w * xx - x * x;
    if (!(w > 0) || !(det > 0)) return std::nullopt;
    const double slope = (w * xy - x * y) / det, level = (y - slope * x) / w;
    const double half = profile.length / 2;
    return std::pair{level - slope * half, level + slope * half};
}

/// A side laid along the straightest strong change near it, then through the middles of the changes on it,
/// again until it rests: a strong edge is wider than what is looked at of it.
std::optional<EdgeLine> laidSide(const EdgeField& field, const PlanePoint& from, const PlanePoint& to,
                                 double reach) {
    const SideProfile profile = profileOf(field, from, to, reach);
    std::optional<std::pair<double, double>> ends = strongestLine(profile);
    for (int pass = 0; pass < 6; ++pass) {
        const auto better = throughMiddles(profile, *ends);
        if (!better) return std::nullopt;
        ends = better;
    }
    const double nx = -(to.y - from.y) / profile.length, ny = (to.x - from.x) / profile.length;
    const PlanePoint a{from.x + ends->first * nx, from.y + ends->first * ny};
    const PlanePoint b{to.x + ends->second * nx, to.y + ends->second * ny};
    const double length = std::hypot(b.x - a.x, b.y - a.y);
    const double mx = -(b.y - a.y) / length, my = (b.x - a.x) / length;
    return EdgeLine{mx, my, mx * a.x + my * a.y, length};
}

/// Share of a side's places that are an edge, each to within a pixel and a half.
double edgeShare(const EdgeField& field, const PlanePoint& from, const PlanePoint& to) {
    const double length = std::hypot(to.x - from.x, to.y - from.y);
    if (length < 8) return 0;
    const double dx = (to.x - from.x) / length, dy = (to.y - from.y) / length;
    const double least = leastStrength(field);
    constexpr int samples = 60;
    double sum = 0;
    for (int i = 0; i < samples; ++i) {
        const double s = length * (0.02 + 0.96 * (i + 0.5) / samples);
        const double x = from.x + s * dx, y = from.y + s * dy;
        const double strength =
            std::max({field.across(x, y, -dy, dx), 0.7 * field.across(x - dy, y + dx, -dy, dx),
                      0.7 * field.across(x + dy, y - dx, -dy, dx)});
        sum += std::min(1.0, strength / (1.6 * least));
    }
    return sum / samples;
}

/// Moves the sides of a quadrilateral so that most of them is an edge and a flat face of the known size can
/// look so; a side that paste hides is laid by the other three.
class Settling {
public:
    Settling(const EdgeField& field, const Extent& face, double oddCost)
        : field_(field), face_(face), oddCost_(oddCost) {}

    FaceCorners settled(const FaceCorners& corners) const {
        FaceCorners best = climbed(corners);
        double worth = worthOf(best);
        for (std::size_t side = 0; side < 4; ++side)
            for (const double by : {-0.09, -0.06, -0.03, 0.03, 0.06, 0.09}) {
                const FaceCorners other = climbed(moved(best, side, by * across(best, side), 0));
                const double value = worthOf(other);
                if (value > worth + 0.01) {
                    worth = value;
                    best = other;
                }
            }
        return best;
    }

    double worthOf(const FaceCorners& corners) const {
        double odd = 0;
        try {
            odd = FaceView(corners, face_).strangeness(field_.width(), field_.height());
        } catch (const InputError&) {
            return -1e9;
        }
        double sum = 0;
        for (std::size_t i = 0; i < 4; ++i) sum += edgeShare(field_, corners[i], corners[(i + 1) % 4]);
        return sum - oddCost_ * std::sqrt(odd);
    }

private:
    static double across(const FaceCorners& c, std::size_t side) {
        return std::hypot(c[(side + 2) % 4].x - c[(side + 1) % 4].x,
                          c[(side + 2) % 4].y - c[(side + 1) % 4].y);
    }

    /// Both ends of a side moved outwards, along the sides beside it.
    static FaceCorners moved(FaceCorners c, std::size_t side, double first, double turn) {
        const auto push = [&](std::size_t end, std::size_t from, double by) {
            const double length = std::hypot(c[end].x - c[from].x, c[end].y - c[from].y);
            if (length < 1) return;
            c[end] = {c[end].x + (c[end].x - c[from].x) / length * by,
                      c[end].y + (c[end].y - c[from].y) / length * by};
        };
        const std::size_t a = side, b = (side + 1) % 4;
        push(a, (side + 3) % 4, first + turn);
        push(b, (side + 2) % 4, first - turn);
        return c;
    }

    FaceCorners climbed(FaceCorners corners) const {
        double worth = worthOf(corners);
        for (double step = 4; step > 0.3;) {
            bool better = false;
            for (std::size_t side = 0; side < 4; ++side)
                for (const auto& [shift, turn] :
                     {std::pair{1.0, 0.0}, {-1.0, 0.0}, {0.0, 1.0}, {0.0, -1.0}}) {
                    const FaceCorners other = moved(corners, side, shift * step, turn * step);
                    const double value = worthOf(other);
                    if (value <= worth) continue;
                    worth = value;
                    corners = other;
                    better = true;
                }
            if (!better) step /= 2;
        }
        return corners;
    }

    const EdgeField& field_;
    Extent face_;
    double oddCost_;
};

} // namespace

SettledSides settledSides(const EdgeField& field, const Extent& face, const FaceCorners& corners,
                          const ViewTrust& trust) {
    const Settling settling(field, face, trust.oddCost);
    const FaceCorners settled = settling.settled(corners);
    return {settled, settling.worthOf(settled)};
}

/// Sides that are seen laid exactly along their edge; the others as they were.
FaceCorners laidSides(const EdgeField& field, const FaceCorners& corners, double reach) {
    std::array<EdgeLine, 4> sides;
    for (std::size_t i = 0; i < 4; ++i) {
        const PlanePoint &a = corners[i], &b = corners[(i + 1) % 4];
        const double length = std::hypot(b.x - a.x, b.y - a.y);
        const double nx = -(b.y - a.y) / length, ny = (b.x - a.x) / length;
        sides[i] = {nx, ny, nx * a.x + ny * a.y, length};
        if (edgeShare(field, a, b) > 0.4) sides[i] = laidSide(field, a, b, reach).value_or(sides[i]);
    }
    FaceCorners exact = corners;
    for (std::size_t i = 0; i < 4; ++i) {
        PlanePoint at;
        if (!meet(sides[(i + 3) % 4], sides[i], at)) return corners;
        if (std::hypot(at.x - corners[i].x, at.y - corners[i].y) > 3 * reach) return corners;
        exact[i] = at;
    }
    return exact;
}

/// How much of the sides of a quadrilateral is an edge.
double seenShare(const EdgeField& field, const FaceCorners& corners) {
    double product = 1;
    for (std::size_t i = 0; i < 4; ++i)
        product *= std::max(0.02, edgeShare(field, corners[i], corners[(i + 1) % 4]));
    return std::pow(product, 0.25);
}

} // namespace ibuki
