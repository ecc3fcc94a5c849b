// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/comparison/pair_family.h"
#include "core/distributions/distributions.h"
#include "core/distributions/summary.h"
#include "core/series/straight_line.h"
#include "core/series/sweep.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace ibuki {
namespace {

struct Line {
    double intercept = 0; ///< at the centre of what was swept
    double slope = 0;
};

struct Points {
    std::vector<double> x; ///< about the centre
    std::vector<double> y;
};

struct SweptGroup {
    Named group;
    std::vector<Points> mounts;
    std::vector<Line> lines; ///< one a mount, or one
};

/// What is known of intercepts and slopes: variances of one unit of information.
struct Covariance {
    double intercept = 0;
    double both = 0;
    double slope = 0;
};

StraightLine through(const Points& points) { return {points.x, points.y}; }

std::optional<Line> lineOf(const Points& points) {
    const StraightLine line = through(points);
    if (!(line.spread() > 0)) return std::nullopt;
    return Line{mean(points.y) - line.slope() * mean(points.x), line.slope()};
}

std::vector<SweptGroup> gatherSwept(const std::vector<SweepPoint>& points, bool mountsKnown, double centre) {
    std::vector<SweptGroup> groups;
    std::map<std::int64_t, std::size_t> groupAt;
    std::map<std::pair<std::int64_t, std::int64_t>, std::size_t> mountAt;
    for (const SweepPoint& point : points) {
        const auto [at, isNew] = groupAt.try_emplace(point.group.id, groups.size());
        if (isNew) groups.push_back({point.group, {}, {}});
        auto& mounts = groups[at->second].mounts;
        const std::int64_t mount = mountsKnown ? point.mount.id : 0;
        const auto place = mountAt.try_emplace({point.group.id, mount}, mounts.size()).first->second;
        if (place == mounts.size()) mounts.emplace_back();
        mounts[place].x.push_back(point.x - centre);
        mounts[place].y.push_back(point.y);
    }
    return groups;
}

Interval sweptOf(const std::vector<SweepPoint>& points) {
    if (points.empty()) throw InputError("sweep-empty", {});
    Interval swept{points.front().x, points.front().x};
    for (const SweepPoint& point : points) swept = {std::min(swept.lo, point.x), std::max(swept.hi, point.x)};
    return swept;
}

/// Pooled over groups, of the mounts' coefficients about their group's mean. df: mounts − groups.
Covariance betweenMounts(const std::vector<SweptGroup>& groups, double df) {
    Covariance s;
    for (const SweptGroup& group : groups) {
        std::vector<double> intercepts;
        std::vector<double> slopes;
        for (const Line& line : group.lines) {
            intercepts.push_back(line.intercept);
            slopes.push_back(line.slope);
        }
        s.intercept += sumOfSquares(intercepts) / df;
        s.slope += sumOfSquares(slopes) / df;
        for (std::size_t i = 0; i < slopes.size(); ++i)
            s.both += (intercepts[i] - mean(intercepts)) * (slopes[i] - mean(slopes)) / df;
    }
    return s;
}

/// Of a group's mean coefficients.
struct Known {
    Line line;
    std::optional<Covariance> covariance;
};

/// Mounts are the units: their coefficients scatter alike in all groups.
std::vector<Known> knownByMounts(const std::vector<SweptGroup>& groups, double df) {
    const auto s = df > 0 ? std::optional(betweenMounts(groups, df)) : std::nullopt;
    std::vector<Known> known;
    for (const SweptGroup& group : groups) {
        const auto n = static_cast<double>(group.lines.size());
        Known one;
        for (const Line& line : group.lines) {
            one.line.intercept += line.intercept / n;
            one.line.slope += line.slope / n;
        }
        if (s) one.covariance = Covariance{s->intercept / n, s->both / n, s->slope / n};
        known.push_back(one);
    }
    return known;
}

/// Points are the units: s²(XᵀX)⁻¹ with a variance pooled over the groups.
std::vector<Known> knownByPoints(const std::vector<SweptGroup>& groups, double df) {
    double rss = 0;
    for (const SweptGroup& group : groups) rss += through(group.mounts.front()).rss();
    std::vector<Known> known;
    for (const SweptGroup& group : groups) {
        Known one{group.lines.front(), {}};
        const Points& points = group.mounts.front();
        const double sxx = sumOfSquares(points.x);
        const double centre = mean(points.x);
        if (df > 0) {
            const double variance = rss / df;
            one.covariance =
                Covariance{variance * (1 / static_cast<double>(points.x.size()) + centre * centre / sxx),
                           -variance * centre / sxx, variance / sxx};
        }
        known.push_back(one);
    }
    return known;
}

/// By points: what the residuals grow with one slope for all groups.
std::optional<FTest> equalSlopesByPoints(const std::vector<SweptGroup>& groups, double df) {
    if (groups.size() < 2 || !(df > 0)) return std::nullopt;
    StraightLine common;
    double rss = 0;
    for (const SweptGroup& group : groups) {
        const Points& points = group.mounts.front();
        common.add(points.x, points.y);
        rss += through(points).rss();
    }
    if (!(rss > 0)) return std::nullopt;
    const double df1 = static_cast<double>(groups.size()) - 1;
    return fTest(std::max(0.0, (common.rss() - rss) / df1 / (rss / df)), df1, df);
}

std::optional<FTest> equalSlopesByMounts(const std::vector<SweptGroup>& groups) {
    Groups slopes;
    for (const SweptGroup& group : groups) {
        slopes.emplace_back();
        for (const Line& line : group.lines) slopes.back().push_back(line.slope);
    }
    const auto anova = oneWayAnova(slopes);
    return anova && anova->withinSs > 0 ? std::optional(anova->test) : std::nullopt;
}

/// {W : |Δa + ΔR·W| ≤ t·se(W)}; nothing where it is unbounded or everything.
std::optional<Interval> fieller(const Line& d, const Covariance& v, double t) {
    const double a = d.slope * d.slope - t * t * v.slope;
    if (!(a > 0)) return std::nullopt;
    const double b = d.intercept * d.slope - t * t * v.both;
    const double c = d.intercept * d.intercept - t * t * v.intercept;
    const double root = std::sqrt(std::max(0.0, b * b - a * c));
    return Interval{(-b - root) / a, (-b + root) / a};
}

SweepPair pairOf(const Known& a, const Known& b, const Lines& lines, double centre, double confidence) {
    SweepPair pair;
    const Line d{a.line.intercept - b.line.intercept, a.line.slope - b.line.slope};
    const double w = lines.at - centre;
    pair.gap = d.intercept + d.slope * w;
    if (d.slope != 0)
        if (const double meet = centre - d.intercept / d.slope; lines.swept.contains(meet))
            pair.crossover = meet;
    if (!a.covariance || !b.covariance) return pair;
    const Covariance v{a.covariance->intercept + b.covariance->intercept,
                       a.covariance->both + b.covariance->both, a.covariance->slope + b.covariance->slope};
    const double t = studentQuantile(0.5 + confidence / 2, lines.df);
    const double half = t * std::sqrt(v.intercept + 2 * w * v.both + w * w * v.slope);
    pair.gapInterval = Interval{pair.gap - half, pair.gap + half};
    if (const auto around = fieller(d, v, t))
        pair.crossoverInterval = Interval{centre + around->lo, centre + around->hi};
    return pair;
}

} // namespace

namespace {

/// The lines of a group's mounts; how many had no range. Throws InputError (sweep-no-range).
int addLines(SweptGroup& group) {
    int left = 0;
    for (const Points& mount : group.mounts)
        if (const auto line = lineOf(mount))
            group.lines.push_back(*line);
        else
            ++left;
    if (group.lines.empty()) throw InputError("sweep-no-range", {}, {{"group", group.group.name}});
    return left;
}

} // namespace

Lines sweepLines(const std::vector<SweepPoint>& points, const SweepOptions& options) {
    Lines found;
    found.swept = sweptOf(points);
    const double centre = (found.swept.lo + found.swept.hi) / 2;
    found.at = options.at.value_or(centre);
    auto groups = gatherSwept(points, options.mountsKnown, centre);
    double units = 0;
    for (SweptGroup& group : groups) {
        if (const int left = addLines(group); left > 0)
            addFlag(found.flags, makeFlag(Severity::warn, "sweep-left-out",
                                          {{"group", group.group.name}, {"count", left}}));
        units +=
            static_cast<double>(options.mountsKnown ? group.lines.size() : group.mounts.front().x.size());
    }
    const auto k = static_cast<double>(groups.size());
    found.df = options.mountsKnown ? units - k : units - 2 * k;
    const auto known =
        options.mountsKnown ? knownByMounts(groups, found.df) : knownByPoints(groups, found.df);
    found.equalSlopes =
        options.mountsKnown ? equalSlopesByMounts(groups) : equalSlopesByPoints(groups, found.df);
    if (!(found.df > 0)) addFlag(found.flags, makeFlag(Severity::warn, "sweep-no-df"));
    for (std::size_t i = 0; i < groups.size(); ++i) {
        const Line& line = known[i].line;
        SweepLine reported{groups[i].group,
                           options.mountsKnown ? static_cast<int>(groups[i].lines.size()) : 0,
                           line.intercept - line.slope * centre,
                           line.slope,
                           {}};
        if (known[i].covariance) {
            const double se = std::sqrt(known[i].covariance->slope);
            reported.slopeInterval = studentInterval(line.slope, se, found.df, options.confidence);
        }
        found.lines.push_back(reported);
    }
    for (std::size_t i = 0; i < groups.size(); ++i)
        for (std::size_t j = i + 1; j < groups.size(); ++j) {
            SweepPair pair = pairOf(known[i], known[j], found, centre, options.confidence);
            pair.a = i;
            pair.b = j;
            found.pairs.push_back(pair);
        }
    return found;
}

} // namespace ibuki
