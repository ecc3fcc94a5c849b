// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/look/edge_quads.h"

#include "core/base/input_error.h"
#include "core/look/rectify.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double leastSide = 0.06;   // of the picture's diagonal
constexpr double leastArea = 0.02;   // of the picture
constexpr double parallelSine = 0.5; // opposite sides of a face seen at 35° at most
constexpr double crossingSine = 0.6;
constexpr double leastKept = 0.5; // of the best quadrilateral's worth
constexpr std::size_t mostQuads = 40;
constexpr double lyingFrom = 0.02; // strangeness of an upright face: its ratio is wrong by a seventh

/// A line with a running count of the places along it that are an edge.
struct SeenLine {
    EdgeLine line;
    double begin = 0; ///< the first counted place along the direction (−ny, nx)
    std::vector<int> seen;

    double along(const PlanePoint& p) const { return -line.ny * p.x + line.nx * p.y; }
    /// Share of the places from a to b that are an edge.
    double share(double a, double b) const {
        if (b < a) std::swap(a, b);
        const auto last = static_cast<int>(seen.size()) - 1;
        const int from = std::clamp(static_cast<int>(std::lround(a - begin)), 0, last);
        const int to = std::clamp(static_cast<int>(std::lround(b - begin)), 0, last);
        return (seen[static_cast<std::size_t>(to)] - seen[static_cast<std::size_t>(from)])
               / std::max(1.0, b - a);
    }
};

SeenLine looked(const EdgeLine& line, const EdgeField& field) {
    SeenLine seen{line, 0, {0}};
    const double reach = std::hypot(field.width(), field.height());
    const double least = leastStrength(field);
    seen.begin = -reach;
    int count = 0;
    for (double s = -reach; s < reach; s += 1) {
        const double x = line.nx * line.offset - line.ny * s, y = line.ny * line.offset + line.nx * s;
        bool edge = false;
        for (double beside = -1.5; beside <= 1.5 && !edge; beside += 1)
            edge = field.across(x + beside * line.nx, y + beside * line.ny, line.nx, line.ny) > least;
        seen.seen.push_back(count += edge ? 1 : 0);
    }
    return seen;
}

double sine(const EdgeLine& a, const EdgeLine& b) { return std::abs(a.nx * b.ny - a.ny * b.nx); }

/// Clockwise, beginning with the corner that lies most to the upper left.
void beginUpperLeft(FaceCorners& corners) {
    if (areaOf(corners) < 0) std::swap(corners[1], corners[3]);
    const auto first =
        std::min_element(corners.begin(), corners.end(),
                         [](const PlanePoint& a, const PlanePoint& b) { return a.x + a.y < b.x + b.y; });
    std::rotate(corners.begin(), first, corners.end());
}

/// Which of its corners is the face's upper left: the one that lies there, unless the sides' ratio says that
/// the face lies on its side. Tells how odd the view is then.
double orient(FaceCorners& corners, const Extent& face, int width, int height) {
    beginUpperLeft(corners);
    FaceCorners turned = corners;
    std::rotate(turned.begin(), turned.begin() + 1, turned.end());
    const double upright = FaceView(corners, face).strangeness(width, height);
    const double lying = FaceView(turned, face).strangeness(width, height);
    if (lying < 0.15 * upright && upright > lyingFrom) {
        corners = turned;
        return lying;
    }
    return upright;
}

double farthest(const FaceCorners& a, const FaceCorners& b) {
    double most = 0;
    for (std::size_t i = 0; i < 4; ++i) { // they may begin at different corners
        double least = 1e9;
        for (const PlanePoint& other : b)
            least = std::min(least, std::hypot(a[i].x - other.x, a[i].y - other.y));
        most = std::max(most, least);
    }
    return most;
}

class Search {
public:
    Search(const EdgeField& field, const Extent& face, const std::vector<EdgeLine>& lines,
           const ViewTrust& trust)
        : field_(field), face_(face), trust_(trust) {
        lines_.reserve(lines.size());
        for (const EdgeLine& line : lines) lines_.push_back(looked(line, field));
    }

    /// Those worth most first, none like one before it.
    std::vector<EdgeQuad> candidates() {
        for (std::size_t i = 0; i < lines_.size(); ++i)
            for (std::size_t j = i + 1; j < lines_.size(); ++j)
                if (sine(lines_[i].line, lines_[j].line) < parallelSine) pairs_.emplace_back(i, j);
        for (std::size_t p = 0; p < pairs_.size(); ++p)
            for (std::size_t q = p + 1; q < pairs_.size(); ++q) tryPairs(pairs_[p], pairs_[q]);
        std::sort(all_.begin(), all_.end(),
                  [](const EdgeQuad& a, const EdgeQuad& b) { return a.worth > b.worth; });
        const double same = 0.02 * std::hypot(field_.width(), field_.height());
        std::vector<EdgeQuad> different;
        for (const EdgeQuad& one : all_) {
            const bool known = std::any_of(different.begin(), different.end(), [&](const EdgeQuad& other) {
                return farthest(one.corners, other.corners) < same;
            });
            if (!known) different.push_back(one);
            if (different.size() == mostQuads) break;
        }
        return different;
    }

private:
    using Pair = std::pair<std::size_t, std::size_t>;

    void tryPairs(const Pair& p, const Pair& q) {
        const SeenLine *top = &lines_[p.first], *bottom = &lines_[p.second];
        const SeenLine *left = &lines_[q.first], *right = &lines_[q.second];
        if (sine(top->line, left->line) < crossingSine || sine(bottom->line, right->line) < crossingSine)
            return;
        FaceCorners corners;
        if (!meet(top->line, left->line, corners[0]) || !meet(top->line, right->line, corners[1])
            || !meet(bottom->line, right->line, corners[2]) || !meet(bottom->line, left->line, corners[3]))
            return;
        const double width = field_.width(), height = field_.height();
        for (const PlanePoint& c : corners)
            if (c.x < -2 || c.y < -2 || c.x > width + 2 || c.y > height + 2) return;
        const double area = std::abs(areaOf(corners));
        if (area < leastArea * width * height) return;
        const double support = supportOf(corners, {top, right, bottom, left});
        const double most = support * std::pow(area / (width * height), 0.1);
        if (most < leastKept * worth_) return; // oddness only lessens it
        const std::optional<double> odd = oddness(corners);
        if (!odd) return;
        const double worth = most / (1 + *odd / trust_.oddView);
        if (worth < leastKept * worth_) return;
        worth_ = std::max(worth_, worth);
        all_.push_back({corners, support, worth});
    }

    /// Geometric mean over the sides of how much is an edge, less where edges run on beyond the corners.
    double supportOf(const FaceCorners& corners, const std::array<const SeenLine*, 4>& sides) const {
        double product = 1, beyond = 0;
        const double diagonal = std::hypot(field_.width(), field_.height());
        for (std::size_t i = 0; i < 4; ++i) {
            const SeenLine& side = *sides[i];
            double a = side.along(corners[i]), b = side.along(corners[(i + 1) % 4]);
            if (b < a) std::swap(a, b);
            if (b - a < leastSide * diagonal) return 0;
            const double share = side.share(a, b);
            if (share < 0.25) return 0;
            product *= share;
            const double more = 0.2 * (b - a);
            beyond += (side.share(a - more, a - 3) + side.share(b + 3, b + more)) / 8;
        }
        return std::pow(product, 0.25) * (1 - 0.4 * beyond);
    }

    std::optional<double> oddness(FaceCorners& corners) const {
        beginUpperLeft(corners);
        try {
            return orient(corners, face_, field_.width(), field_.height());
        } catch (const InputError&) {
            return std::nullopt; // not convex
        }
    }

    const EdgeField& field_;
    Extent face_;
    ViewTrust trust_;
    std::vector<SeenLine> lines_;
    std::vector<Pair> pairs_;
    std::vector<EdgeQuad> all_;
    double worth_ = 0;
};

} // namespace

double leastStrength(const EdgeField& field) { return std::max(1.0, 1.6 * field.typical()); }

double areaOf(const FaceCorners& c) {
    double twice = 0;
    for (std::size_t i = 0; i < 4; ++i) twice += c[i].x * c[(i + 1) % 4].y - c[(i + 1) % 4].x * c[i].y;
    return twice / 2;
}

std::vector<EdgeQuad> edgeQuads(const EdgeField& field, const Extent& face,
                                const std::vector<EdgeLine>& lines, const ViewTrust& trust) {
    return Search(field, face, lines, trust).candidates();
}

} // namespace ibuki
