// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/look/face_corners.h"

#include "core/base/input_error.h"
#include "core/look/edge_field.h"
#include "core/look/mats.h"
#include "core/look/rectify.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <opencv2/imgproc.hpp>

namespace ibuki {
namespace {

constexpr int searchedAcross = 640; // px of the picture in which quadrilaterals are looked for
constexpr int refinedAcross = 1400; // and in which their sides are laid exactly
constexpr std::size_t mostLines = 44;
constexpr double leastSide = 0.06;   // of the picture's diagonal
constexpr double leastArea = 0.02;   // of the picture
constexpr double parallelSine = 0.5; // opposite sides of a face seen at 35° at most
constexpr double crossingSine = 0.6;
constexpr double leastKept = 0.5; // of the best quadrilateral's worth
constexpr std::size_t mostCandidates = 40;
constexpr std::size_t mostSettled = 4;
constexpr double lyingFrom = 0.02; // strangeness of an upright face: its ratio is wrong by a seventh
constexpr double oddView = 0.004;  // strangeness that halves what a quadrilateral is worth

/// A line with a running count of the places along it that are an edge.
struct SeenLine {
    EdgeLine line;
    double begin = 0; ///< the first counted place along the direction (−ny, nx)
    std::vector<int> seen;

    double along(const PicturePoint& p) const { return -line.ny * p.x + line.nx * p.y; }
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

double leastStrength(const EdgeField& field) { return std::max(1.0, 1.6 * field.usual()); }

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

double areaOf(const FaceCorners& c) {
    double twice = 0;
    for (std::size_t i = 0; i < 4; ++i) twice += c[i].x * c[(i + 1) % 4].y - c[(i + 1) % 4].x * c[i].y;
    return twice / 2;
}

/// Clockwise, beginning with the corner that lies most to the upper left.
void beginUpperLeft(FaceCorners& corners) {
    if (areaOf(corners) < 0) std::swap(corners[1], corners[3]);
    const auto first =
        std::min_element(corners.begin(), corners.end(),
                         [](const PicturePoint& a, const PicturePoint& b) { return a.x + a.y < b.x + b.y; });
    std::rotate(corners.begin(), first, corners.end());
}

/// Which of its corners is the face's upper left: the one that lies there, unless the sides' ratio says that
/// the face lies on its side. Tells how odd the view is then.
double orient(FaceCorners& corners, const FaceSize& face, int width, int height) {
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

struct Candidate {
    FaceCorners corners;
    double support = 0;
    double worth = 0;
};

double farthest(const FaceCorners& a, const FaceCorners& b) {
    double most = 0;
    for (std::size_t i = 0; i < 4; ++i) { // they may begin at different corners
        double least = 1e9;
        for (const PicturePoint& other : b)
            least = std::min(least, std::hypot(a[i].x - other.x, a[i].y - other.y));
        most = std::max(most, least);
    }
    return most;
}

class Search {
public:
    Search(const EdgeField& field, const FaceSize& face, std::vector<EdgeLine> lines)
        : field_(field), face_(face) {
        lines_.reserve(lines.size());
        for (const EdgeLine& line : lines) lines_.push_back(looked(line, field));
    }

    /// Those worth most first, none like one before it.
    std::vector<Candidate> candidates() {
        for (std::size_t i = 0; i < lines_.size(); ++i)
            for (std::size_t j = i + 1; j < lines_.size(); ++j)
                if (sine(lines_[i].line, lines_[j].line) < parallelSine) pairs_.emplace_back(i, j);
        for (std::size_t p = 0; p < pairs_.size(); ++p)
            for (std::size_t q = p + 1; q < pairs_.size(); ++q) tryPairs(pairs_[p], pairs_[q]);
        std::sort(all_.begin(), all_.end(),
                  [](const Candidate& a, const Candidate& b) { return a.worth > b.worth; });
        const double same = 0.02 * std::hypot(field_.width(), field_.height());
        std::vector<Candidate> different;
        for (const Candidate& one : all_) {
            const bool known = std::any_of(different.begin(), different.end(), [&](const Candidate& other) {
                return farthest(one.corners, other.corners) < same;
            });
            if (!known) different.push_back(one);
            if (different.size() == mostCandidates) break;
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
        for (const PicturePoint& c : corners)
            if (c.x < -2 || c.y < -2 || c.x > width + 2 || c.y > height + 2) return;
        const double area = std::abs(areaOf(corners));
        if (area < leastArea * width * height) return;
        const double support = supportOf(corners, {top, right, bottom, left});
        const double most = support * std::pow(area / (width * height), 0.1);
        if (most < leastKept * worth_) return; // oddness only lessens it
        const std::optional<double> odd = oddness(corners);
        if (!odd) return;
        const double worth = most / (1 + *odd / oddView);
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
    FaceSize face_;
    std::vector<SeenLine> lines_;
    std::vector<Pair> pairs_;
    std::vector<Candidate> all_;
    double worth_ = 0;
};

/// How strongly the picture changes across a side, sampled along it and to both of its sides.
struct SideProfile {
    static constexpr double step = 0.5; ///< px to both sides
    double length = 0;
    int samples = 0;
    int beside = 0; ///< steps to each side
    std::vector<float> strength;

    double along(int sample) const { return length * (0.03 + 0.94 * (sample + 0.5) / samples - 0.5); }
    float at(int sample, int offset) const {
        if (std::abs(offset) > beside) return 0;
        return strength[static_cast<std::size_t>(sample * (2 * beside + 1) + offset + beside)];
    }
};

SideProfile profileOf(const EdgeField& field, const PicturePoint& from, const PicturePoint& to,
                      double reach) {
    SideProfile profile;
    profile.length = std::hypot(to.x - from.x, to.y - from.y);
    profile.samples = std::clamp(static_cast<int>(profile.length / 3), 24, 160);
    profile.beside = static_cast<int>(reach / SideProfile::step);
    const double dx = (to.x - from.x) / profile.length, dy = (to.y - from.y) / profile.length;
    // What is strong enough to be an edge counts alike: a straight one wins over a stronger one that wanders.
    const double most = 2.5 * leastStrength(field);
    for (int i = 0; i < profile.samples; ++i) {
        const double s = profile.along(i) + profile.length / 2;
        for (int k = -profile.beside; k <= profile.beside; ++k) {
            const double off = k * SideProfile::step;
            profile.strength.push_back(static_cast<float>(std::min(
                most, field.across(from.x + s * dx - off * dy, from.y + s * dy + off * dx, -dy, dx))));
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
                sum += profile.at(i, static_cast<int>(std::lround(a + (b - a) * t)));
            }
            sum *= 1 - 0.1 * (std::abs(a) + std::abs(b)) / (2.0 * profile.beside); // of equals the nearer one
            if (sum > most) {
                most = sum;
                best = {a * SideProfile::step, b * SideProfile::step};
            }
        }
    return best;
}

/// A side laid along the straightest strong change near it, then through the middles of the changes on it.
std::optional<EdgeLine> laidSide(const EdgeField& field, const PicturePoint& from, const PicturePoint& to,
                                 double reach) {
    const SideProfile profile = profileOf(field, from, to, reach);
    const auto [begin, end] = strongestLine(profile);
    double w = 0, x = 0, y = 0, xx = 0, xy = 0;
    for (int i = 0; i < profile.samples; ++i) {
        const double c = profile.along(i);
        const double on = begin + (end - begin) * (c / profile.length + 0.5);
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
    const double nx = -(to.y - from.y) / profile.length, ny = (to.x - from.x) / profile.length;
    const double half = profile.length / 2;
    const PicturePoint a{from.x + (level - slope * half) * nx, from.y + (level - slope * half) * ny};
    const PicturePoint b{to.x + (level + slope * half) * nx, to.y + (level + slope * half) * ny};
    const double length = std::hypot(b.x - a.x, b.y - a.y);
    const double mx = -(b.y - a.y) / length, my = (b.x - a.x) / length;
    return EdgeLine{mx, my, mx * a.x + my * a.y, length};
}

/// Share of a side's places that are an edge, each to within a pixel and a half.
double edgeShare(const EdgeField& field, const PicturePoint& from, const PicturePoint& to) {
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
    Settling(const EdgeField& field, const FaceSize& face) : field_(field), face_(face) {}

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
        return sum - oddCost * std::sqrt(odd);
    }

private:
    static constexpr double oddCost = 5; // of a relative error of 1, in whole sides

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
    FaceSize face_;
};

/// Sides that are seen laid exactly along their edge; the others as they were.
FaceCorners laid(const EdgeField& field, const FaceCorners& corners, double reach) {
    std::array<EdgeLine, 4> sides;
    for (std::size_t i = 0; i < 4; ++i) {
        const PicturePoint &a = corners[i], &b = corners[(i + 1) % 4];
        const double length = std::hypot(b.x - a.x, b.y - a.y);
        const double nx = -(b.y - a.y) / length, ny = (b.x - a.x) / length;
        sides[i] = {nx, ny, nx * a.x + ny * a.y, length};
        if (edgeShare(field, a, b) > 0.4) sides[i] = laidSide(field, a, b, reach).value_or(sides[i]);
    }
    FaceCorners exact = corners;
    for (std::size_t i = 0; i < 4; ++i) {
        PicturePoint at;
        if (!meet(sides[(i + 3) % 4], sides[i], at)) return corners;
        if (std::hypot(at.x - corners[i].x, at.y - corners[i].y) > 3 * reach) return corners;
        exact[i] = at;
    }
    return exact;
}

FaceCorners scaled(FaceCorners corners, double x, double y) {
    for (PicturePoint& c : corners) c = {c.x * x, c.y * y};
    return corners;
}

struct ShrunkLab {
    cv::Mat lab;
    double x = 1; ///< its pixels for one of the photograph
    double y = 1;
};

ShrunkLab shrunkLab(const cv::Mat& whole, int across) {
    const double scale = std::min(1.0, static_cast<double>(across) / std::max(whole.cols, whole.rows));
    cv::Mat small = whole;
    if (scale < 1) cv::resize(whole, small, {}, scale, scale, cv::INTER_AREA);
    return {labOf(small), static_cast<double>(small.cols) / whole.cols,
            static_cast<double>(small.rows) / whole.rows};
}

/// How much of the sides of a quadrilateral is an edge.
double seenShare(const EdgeField& field, const FaceCorners& corners) {
    double product = 1;
    for (std::size_t i = 0; i < 4; ++i)
        product *= std::max(0.02, edgeShare(field, corners[i], corners[(i + 1) % 4]));
    return std::pow(product, 0.25);
}

bool within(const FaceCorners& inner, const FaceCorners& outer) {
    for (std::size_t i = 0; i < 4; ++i) {
        const PicturePoint &a = outer[i], &b = outer[(i + 1) % 4];
        const double length = std::hypot(b.x - a.x, b.y - a.y);
        for (const PicturePoint& p : inner)
            if (((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / length < -2) return false;
    }
    return true;
}

void fill(cv::Mat& mask, const FaceCorners& corners, int value) {
    std::vector<cv::Point> points;
    for (const PicturePoint& c : corners)
        points.emplace_back(static_cast<int>(std::lround(c.x)), static_cast<int>(std::lround(c.y)));
    cv::fillConvexPoly(mask, points, cv::Scalar(value));
}

/// Colours of a picture in coarse steps; brightness counts least, since light differs over a face.
class ColourSteps {
public:
    explicit ColourSteps(const cv::Mat& lab) : step_(lab.size(), CV_32S) {
        for (int row = 0; row < lab.rows; ++row)
            for (int column = 0; column < lab.cols; ++column) {
                const auto& c = lab.at<cv::Vec3f>(row, column);
                const int l = std::clamp(static_cast<int>(c[0] / 9), 0, lightSteps - 1);
                const int a = std::clamp(static_cast<int>((c[1] + 60) / 5), 0, colourSteps - 1);
                const int b = std::clamp(static_cast<int>((c[2] + 60) / 5), 0, colourSteps - 1);
                step_.at<int>(row, column) = (l * colourSteps + a) * colourSteps + b;
            }
    }

    /// How often each colour is found where the mask says so, as shares; each counts for its neighbours a
    /// little.
    std::vector<float> shares(const cv::Mat& where) const {
        std::vector<float> raw(static_cast<std::size_t>(lightSteps * colourSteps * colourSteps), 0.0F),
            soft = raw;
        double all = 0;
        for (int row = 0; row < step_.rows; ++row)
            for (int column = 0; column < step_.cols; ++column)
                if (where.at<std::uint8_t>(row, column)) {
                    raw[static_cast<std::size_t>(step_.at<int>(row, column))] += 1;
                    all += 1;
                }
        if (all < 30) return {};
        const std::array<std::ptrdiff_t, 7> beside{
            0, 1, -1, colourSteps, -colourSteps, colourSteps * colourSteps, -colourSteps * colourSteps};
        const auto size = static_cast<std::ptrdiff_t>(raw.size());
        for (std::ptrdiff_t i = 0; i < size; ++i) {
            const float count = raw[static_cast<std::size_t>(i)];
            if (count <= 0) continue;
            for (const std::ptrdiff_t d : beside)
                if (i + d >= 0 && i + d < size)
                    soft[static_cast<std::size_t>(i + d)] +=
                        static_cast<float>(count / all * (d == 0 ? 0.4 : 0.1));
        }
        return soft;
    }

private:
    static constexpr int lightSteps = 12, colourSteps = 24;
    cv::Mat step_;
};

double overlap(const std::vector<float>& a, const std::vector<float>& b) {
    if (a.empty() || b.empty()) return 1;
    double shared = 0;
    for (std::size_t i = 0; i < a.size(); ++i) shared += static_cast<double>(std::min(a[i], b[i]));
    return shared;
}

FaceCorners grown(const FaceCorners& corners, double by) {
    PicturePoint middle;
    for (const PicturePoint& c : corners) middle = {middle.x + c.x / 4, middle.y + c.y / 4};
    FaceCorners made = corners;
    for (PicturePoint& c : made) c = {middle.x + (c.x - middle.x) * by, middle.y + (c.y - middle.y) * by};
    return made;
}

cv::Mat between(cv::Size size, const FaceCorners& inner, const FaceCorners& outer) {
    cv::Mat where(size, CV_8U, cv::Scalar(0));
    fill(where, outer, 1);
    fill(where, inner, 0);
    return where;
}

/// How alike the colours just inside and just outside of a quadrilateral's sides are, 0 to 1.
double alikeAcross(const ColourSteps& colours, cv::Size size, const FaceCorners& corners) {
    double sum = 0;
    PicturePoint middle;
    for (const PicturePoint& c : corners) middle = {middle.x + c.x / 4, middle.y + c.y / 4};
    for (std::size_t i = 0; i < 4; ++i) {
        const auto strip = [&](double from, double to) {
            const auto towards = [&](const PicturePoint& p, double by) {
                return PicturePoint{middle.x + (p.x - middle.x) * by, middle.y + (p.y - middle.y) * by};
            };
            const PicturePoint &a = corners[i], &b = corners[(i + 1) % 4];
            cv::Mat where(size, CV_8U, cv::Scalar(0));
            fill(where, {towards(a, from), towards(b, from), towards(b, to), towards(a, to)}, 1);
            return where;
        };
        sum += overlap(colours.shares(strip(0.86, 0.975)), colours.shares(strip(1.025, 1.14)));
    }
    return sum / 4;
}

/// Whether what lies between two quadrilaterals is the bench around a face rather than the rim of one: its
/// colour then is none of those inside.
bool standsOnIt(const ColourSteps& colours, cv::Size size, const FaceCorners& inner,
                const FaceCorners& outer) {
    cv::Mat middle(size, CV_8U, cv::Scalar(0));
    fill(middle, grown(inner, 0.96), 1);
    const std::vector<float> inside = colours.shares(middle);
    const std::vector<float> ring = colours.shares(between(size, grown(inner, 1.03), grown(outer, 0.98)));
    if (inside.empty() || ring.empty()) return false;
    double shared = 0;
    for (std::size_t i = 0; i < ring.size(); ++i)
        if (inside[i] > 0.004F) shared += static_cast<double>(ring[i]);
    return shared < 0.4;
}

/// Whether two quadrilaterals mean the same face: not the board below it, nor a part of it.
bool isAlike(const Candidate& one, const Candidate& chosen) {
    const double share = std::abs(areaOf(one.corners)) / std::abs(areaOf(chosen.corners));
    if (share < 0.75 || share > 1.33 || one.worth < 0.6 * chosen.worth) return false;
    std::size_t shared = 0; // corners in the same place
    const double near = 0.03 * std::sqrt(std::abs(areaOf(chosen.corners)));
    for (const PicturePoint& a : one.corners)
        shared += std::any_of(chosen.corners.begin(), chosen.corners.end(),
                              [&](const PicturePoint& b) { return std::hypot(a.x - b.x, a.y - b.y) < near; })
                      ? 1
                      : 0;
    return shared >= 2;
}

/// The best quadrilateral, or the one inside of it that stands on it.
std::size_t innerFace(const cv::Mat& lab, std::vector<Candidate>& candidates) {
    const ColourSteps colours(lab);
    for (Candidate& one : candidates) one.worth *= 1.05 - alikeAcross(colours, lab.size(), one.corners);
    std::sort(candidates.begin(), candidates.end(),
              [](const Candidate& a, const Candidate& b) { return a.worth > b.worth; });
    std::size_t chosen = 0;
    for (std::size_t other = 1; other < candidates.size(); ++other) {
        const FaceCorners &inner = candidates[other].corners, &outer = candidates[chosen].corners;
        const double share = std::abs(areaOf(inner)) / std::abs(areaOf(outer));
        if (share < 0.08 || share > 0.94 || candidates[other].support < 0.5 || !within(inner, outer))
            continue;
        if (candidates[other].worth > 0.5 * candidates[chosen].worth
            && standsOnIt(colours, lab.size(), inner, outer))
            chosen = other;
    }
    return chosen;
}

} // namespace

std::optional<FoundCorners> findCorners(const RgbPicture& photograph, const FaceSize& face,
                                        const FindCornersOptions& options) {
    if (!(face.widthMm > 0) || !(face.lengthMm > 0)) throw InputError("look-face", {});
    if (photograph.width < 16 || photograph.height < 16) return std::nullopt;
    const cv::Mat whole = viewOf(photograph);
    const ShrunkLab fine = shrunkLab(whole, refinedAcross);
    const EdgeField fineField(fine.lab);
    const double reach = 0.012 * std::hypot(fine.lab.cols, fine.lab.rows);
    if (options.guess) {
        const FaceCorners near =
            laid(fineField, scaled(*options.guess, fine.lab.cols, fine.lab.rows), 2 * reach);
        const double share = seenShare(fineField, near);
        if (share > 0.75) return FoundCorners{scaled(near, 1 / fine.x, 1 / fine.y), share};
    }
    const ShrunkLab coarse = shrunkLab(whole, searchedAcross);
    const EdgeField field(coarse.lab);
    std::vector<Candidate> candidates =
        Search(field, face, straightLines(coarse.lab, mostLines)).candidates();
    if (candidates.empty()) return std::nullopt;
    const Candidate& chosen = candidates[innerFace(coarse.lab, candidates)];
    if (chosen.support < options.leastSupport) return std::nullopt;
    // Of those much like it, the one that can be laid best: a side of one may be a side of the film in
    // another.
    const Settling settling(fineField, face);
    FoundCorners found{chosen.corners, chosen.support};
    double worth = -1e9;
    FaceCorners best{};
    std::size_t tried = 0;
    for (const Candidate& one : candidates) {
        if (&one != &chosen && (tried >= mostSettled || !isAlike(one, chosen))) continue;
        ++tried;
        const FaceCorners settled =
            settling.settled(scaled(one.corners, fine.x / coarse.x, fine.y / coarse.y));
        const double value = settling.worthOf(settled);
        if (value <= worth) continue;
        worth = value;
        best = settled;
    }
    found.corners = scaled(laid(fineField, best, 3), 1 / fine.x, 1 / fine.y);
    return found;
}

} // namespace ibuki
