// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/field_values.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace ibuki {
namespace {

std::vector<double> centresOf(const std::vector<double>& lines) {
    std::vector<double> centres;
    for (std::size_t i = 0; i + 1 < lines.size(); ++i) centres.push_back(0.5 * (lines[i] + lines[i + 1]));
    return centres;
}

/// Between which two centres a place lies, and how far along.
struct Between {
    std::size_t low = 0, high = 0;
    double share = 0;

    Between(const std::vector<double>& centres, double at) {
        const auto above = std::upper_bound(centres.begin(), centres.end(), at);
        high = std::min(static_cast<std::size_t>(above - centres.begin()), centres.size() - 1);
        low = above == centres.begin() ? 0 : static_cast<std::size_t>(above - centres.begin()) - 1;
        if (high > low) share = (at - centres[low]) / (centres[high] - centres[low]);
    }
};

/// The pieces of one line through the squares between centres, each from one edge of a square to another.
class Marching {
public:
    Marching(const FieldFace& face, double celsius)
        : face_(face), level_(celsius), x_(centresOf(face.x)), y_(centresOf(face.y)) {
        for (std::size_t j = 0; j + 1 < y_.size(); ++j)
            for (std::size_t i = 0; i + 1 < x_.size(); ++i) square(i, j);
    }

    std::vector<Contour> joined() {
        std::vector<Contour> lines;
        while (!next_.empty()) {
            // An end that only one piece has begins an open line.
            auto start = next_.begin();
            for (auto at = next_.begin(); at != next_.end(); ++at)
                if (at->second.size() == 1) {
                    start = at;
                    break;
                }
            lines.push_back(follow(start->first));
        }
        return lines;
    }

private:
    using Edge = std::size_t; ///< of the raster of centres: twice its lower left point, plus one when upright

    double value(std::size_t i, std::size_t j) const { return face_.celsius[j * x_.size() + i]; }
    Edge level(std::size_t i, std::size_t j) const { return 2 * (j * x_.size() + i); }
    Edge upright(std::size_t i, std::size_t j) const { return level(i, j) + 1; }

    void link(Edge from, Edge to) {
        next_[from].push_back(to);
        next_[to].push_back(from);
    }

    void square(std::size_t i, std::size_t j) {
        const bool a = value(i, j) > level_, b = value(i + 1, j) > level_;
        const bool c = value(i + 1, j + 1) > level_, d = value(i, j + 1) > level_;
        std::vector<Edge> crossed; // counter-clockwise from the lower edge
        if (a != b) crossed.push_back(level(i, j));
        if (b != c) crossed.push_back(upright(i + 1, j));
        if (c != d) crossed.push_back(level(i, j + 1));
        if (d != a) crossed.push_back(upright(i, j));
        if (crossed.size() == 2) link(crossed[0], crossed[1]);
        if (crossed.size() < 4) return;
        const double middle = 0.25 * (value(i, j) + value(i + 1, j) + value(i, j + 1) + value(i + 1, j + 1));
        const std::size_t turn = (middle > level_) == a ? 1 : 0; // which corners hang together
        link(crossed[turn], crossed[turn + 1]);
        link(crossed[(turn + 2) % 4], crossed[(turn + 3) % 4]);
    }

    PlanePoint placeOf(Edge edge) const {
        const std::size_t i = edge / 2 % x_.size(), j = edge / 2 / x_.size();
        const bool isUpright = edge % 2 == 1;
        const std::size_t i2 = isUpright ? i : i + 1, j2 = isUpright ? j + 1 : j;
        const double share = (level_ - value(i, j)) / (value(i2, j2) - value(i, j));
        return {x_[i] + share * (x_[i2] - x_[i]), y_[j] + share * (y_[j2] - y_[j])};
    }

    void unlink(Edge from, Edge to) {
        const auto at = next_.find(from);
        at->second.erase(std::find(at->second.begin(), at->second.end(), to));
        if (at->second.empty()) next_.erase(at);
    }

    Contour follow(Edge start) {
        Contour line{level_, {placeOf(start)}, false};
        Edge at = start;
        for (auto found = next_.find(at); found != next_.end(); found = next_.find(at)) {
            const Edge to = found->second.front();
            unlink(at, to);
            unlink(to, at);
            at = to;
            if (at == start) {
                line.isClosed = true;
                break;
            }
            line.points.push_back(placeOf(at));
        }
        return line;
    }

    const FieldFace& face_;
    double level_;
    std::vector<double> x_, y_;
    std::map<Edge, std::vector<Edge>> next_;
};

} // namespace

double celsiusAt(const FieldFace& face, double xMm, double yMm) {
    const auto xs = centresOf(face.x), ys = centresOf(face.y);
    const Between x(xs, xMm), y(ys, yMm);
    const auto at = [&](std::size_t i, std::size_t j) { return face.celsius[j * xs.size() + i]; };
    return (1 - y.share) * ((1 - x.share) * at(x.low, y.low) + x.share * at(x.high, y.low))
           + y.share * ((1 - x.share) * at(x.low, y.high) + x.share * at(x.high, y.high));
}

double roundStep(double lo, double hi, int wanted) {
    const double rough = (hi - lo) / std::max(1, wanted);
    if (!(rough > 0)) return 1;
    const double power = std::pow(10, std::floor(std::log10(rough)));
    const double times = rough / power;
    return (times < 1.5 ? 1 : times < 3.5 ? 2 : times < 7.5 ? 5 : 10) * power;
}

std::vector<Contour> contoursOf(const FieldFace& face, int wanted) {
    const auto [lo, hi] = std::minmax_element(face.celsius.begin(), face.celsius.end());
    std::vector<Contour> lines;
    if (lo == face.celsius.end() || !(*hi - *lo > 1e-6)) return lines;
    const double step = roundStep(*lo, *hi, wanted);
    for (double k = std::ceil(*lo / step); k * step < *hi; ++k)
        for (Contour& line : Marching(face, k * step).joined()) lines.push_back(std::move(line));
    return lines;
}

} // namespace ibuki
