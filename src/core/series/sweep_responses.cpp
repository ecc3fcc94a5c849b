// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/distributions/distributions.h"
#include "core/distributions/summary.h"
#include "core/models/least_squares.h"
#include "core/series/sweep.h"

#include <algorithm>
#include <boost/math/tools/minima.hpp>
#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>
#include <functional>
#include <limits>
#include <map>

namespace ibuki {
namespace {

constexpr int gridPoints = 500;
constexpr double infinite = std::numeric_limits<double>::infinity();

/// Mount means of one group by growing setting.
struct Settings {
    Named group;
    std::vector<double> x;
    std::vector<double> y;
};

std::vector<Settings> gatherSettings(const std::vector<SweepPoint>& points, bool mountsKnown) {
    struct Mean {
        double x = 0;
        std::vector<double> y;
    };
    std::vector<Settings> groups;
    std::map<std::int64_t, std::size_t> groupAt;
    std::vector<std::map<std::pair<std::int64_t, double>, Mean>> mounts;
    for (const SweepPoint& point : points) {
        const auto [at, isNew] = groupAt.try_emplace(point.group.id, groups.size());
        if (isNew) {
            groups.push_back({point.group, {}, {}});
            mounts.emplace_back();
        }
        auto& own = mounts[at->second];
        const auto id = mountsKnown ? point.mount.id : -static_cast<std::int64_t>(own.size()) - 1;
        Mean& mean = own[{id, point.x}];
        mean.x = point.x;
        mean.y.push_back(point.y);
    }
    for (std::size_t g = 0; g < groups.size(); ++g) {
        std::vector<std::pair<double, double>> pairs;
        for (const auto& [key, one] : mounts[g]) pairs.emplace_back(one.x, mean(one.y));
        std::sort(pairs.begin(), pairs.end());
        for (const auto& [x, y] : pairs) {
            groups[g].x.push_back(x);
            groups[g].y.push_back(y);
        }
    }
    return groups;
}

/// y = c + height · shape(x); shape falls to 0.
struct Curve {
    double plateau = 0;
    double height = 0;
    double rss = infinite;
};

template <class Shape> Curve fitCurve(const Settings& data, const Shape& shape) {
    Columns design(data.x.size(), 2);
    for (std::size_t i = 0; i < data.x.size(); ++i) {
        design[0][i] = 1;
        design[1][i] = shape(data.x[i]);
    }
    const LeastSquares fit = leastSquares(design, data.y);
    return {fit.coefficients[0], fit.coefficients[1], fit.rss};
}

/// With the height held: only the plateau is free.
template <class Shape> double heldRss(const Settings& data, double height, const Shape& shape) {
    std::vector<double> left;
    for (std::size_t i = 0; i < data.x.size(); ++i) left.push_back(data.y[i] - height * shape(data.x[i]));
    return sumOfSquares(left);
}

auto hingeAt(double knee) {
    return [knee](double x) { return std::max(0.0, knee - x); };
}
auto decayAt(double tau) {
    return [tau](double x) { return std::exp(-x / tau); };
}

/// The lowest of a function over a grid, then Brent beside it.
double lowestAt(const std::function<double(double)>& f, double from, double to) {
    const double step = (to - from) / gridPoints;
    double best = from;
    double lowest = infinite;
    for (int i = 0; i <= gridPoints; ++i)
        if (const double x = from + step * i, here = f(x); here < lowest) {
            lowest = here;
            best = x;
        }
    return boost::math::tools::brent_find_minima(f, std::max(from, best - step), std::min(to, best + step),
                                                 50)
        .first;
}

/// A response with what its profile asks: RSS when it is within the margin from x_δ on.
struct Fitted {
    double knee = 0; ///< x₀ or τ
    Curve curve;
    std::function<double(double)> rssAt; ///< by x_δ
    double smallest = 0;
    double leftmost = 0; ///< where the search for an interval ends
    double rightmost = 0;
};

std::optional<Fitted> fitHinge(const Settings& data, double margin) {
    const double lo = data.x.front();
    const double hi = data.x.back();
    const auto rss = [&](double knee) { return fitCurve(data, hingeAt(knee)).rss; };
    Fitted fitted;
    fitted.knee = lowestAt(rss, lo + 1e-9 * (hi - lo), hi);
    fitted.curve = fitCurve(data, hingeAt(fitted.knee));
    if (!(fitted.curve.height > 0)) return std::nullopt; // it does not fall
    fitted.smallest = fitted.knee - margin / fitted.curve.height;
    fitted.leftmost = lo - (hi - lo);
    fitted.rightmost = hi;
    fitted.rssAt = [&data, margin, lo, hi](double setting) { // b = δ/(x₀ − x_δ)
        const auto held = [&](double knee) {
            return heldRss(data, margin / (knee - setting), hingeAt(knee));
        };
        const double from = std::max(lo, setting) + 1e-6 * (hi - lo);
        return held(lowestAt(held, from, std::max(hi, from) + 0.5 * (hi - lo)));
    };
    return fitted;
}

std::optional<Fitted> fitDecay(const Settings& data, double margin) {
    const double span = data.x.back() - data.x.front();
    const double least = std::log(span / 200);
    const double most = std::log(span * 10);
    const auto rss = [&](double logTau) { return fitCurve(data, decayAt(std::exp(logTau))).rss; };
    Fitted fitted;
    fitted.knee = std::exp(lowestAt(rss, least, most));
    fitted.curve = fitCurve(data, decayAt(fitted.knee));
    if (!(fitted.curve.height > 0)) return std::nullopt;
    fitted.smallest = fitted.knee * std::log(fitted.curve.height / margin);
    fitted.leftmost = data.x.front() - span;
    fitted.rightmost = data.x.back() + 2 * span;
    fitted.rssAt = [&data, margin, least, most](double setting) { // A = δ e^{x_δ/τ}
        const auto held = [&](double logTau) {
            const double tau = std::exp(logTau);
            return heldRss(data, margin, [&](double x) { return std::exp((setting - x) / tau); });
        };
        return held(lowestAt(held, least, most));
    };
    return fitted;
}

/// Where RSS(x_δ) rises above `level`, from the best setting in the direction of `end`; nothing up to there.
std::optional<double> limitTowards(const Fitted& fitted, double level, double end) {
    const auto above = [&](double setting) { return fitted.rssAt(setting) - level; };
    constexpr int steps = 60;
    double inside = fitted.smallest;
    for (int i = 1; i <= steps; ++i) {
        const double outside = fitted.smallest + (end - fitted.smallest) * i / steps;
        if (above(outside) > 0) {
            std::uintmax_t iterations = 60;
            const auto [a, b] = boost::math::tools::toms748_solve(
                above, std::min(inside, outside), std::max(inside, outside),
                [](double p, double q) { return std::abs(p - q) <= 1e-9 * (std::abs(p) + std::abs(q)); },
                iterations);
            return (a + b) / 2;
        }
        inside = outside;
    }
    return std::nullopt;
}

double levelOf(const Fitted& fitted, std::size_t n, double confidence) {
    const double freedom = static_cast<double>(n) - 3;
    return fitted.curve.rss * (1 + fisherQuantile(confidence, 1, freedom) / freedom);
}

double aicc(double rss, std::size_t n, int coefficients) {
    const double k = coefficients + 1; // the variance too
    const auto values = static_cast<double>(n);
    return values * std::log(rss / values) + 2 * k + 2 * k * (k + 1) / (values - k - 1);
}

SweepResponse responseOf(const Settings& data, ResponseModel wanted, const SweepOptions& options,
                         std::vector<Flag>& flags) {
    SweepResponse response;
    response.group = data.group;
    response.plateau = mean(data.y);
    if (!data.x.empty()) response.smallest = data.x.front();
    const std::size_t n = data.x.size();
    if (n < 6 || !(data.x.back() > data.x.front())) { // AICc of three coefficients needs more
        addFlag(flags, makeFlag(Severity::warn, "sweep-few", {{"group", data.group.name}}));
        return response;
    }
    const auto fitted =
        wanted == ResponseModel::hinge ? fitHinge(data, options.margin) : fitDecay(data, options.margin);
    const double constant = sumOfSquares(data.y);
    if (!fitted || !(constant > 0)
        || (fitted->curve.rss > 0 && aicc(constant, n, 1) <= aicc(fitted->curve.rss, n, 3)))
        return response;
    response.model = wanted;
    response.plateau = fitted->curve.plateau;
    response.knee = fitted->knee;
    response.height = fitted->curve.height;
    response.smallest = fitted->smallest;
    if (!(fitted->curve.rss > 0)) return response;
    const double level = levelOf(*fitted, n, options.confidence);
    const auto lo = limitTowards(*fitted, level, fitted->leftmost);
    const auto hi = limitTowards(*fitted, level, fitted->rightmost);
    if (lo && hi) response.smallestInterval = Interval{*lo, *hi};
    // One-sided: all of α above.
    response.recommended =
        limitTowards(*fitted, levelOf(*fitted, n, 2 * options.confidence - 1), fitted->rightmost);
    return response;
}

} // namespace

std::string_view responseModelName(ResponseModel model) {
    switch (model) {
    case ResponseModel::constant:
        return "constant";
    case ResponseModel::hinge:
        return "hinge";
    case ResponseModel::exponential:
        return "exponential";
    }
    return "";
}

double SweepResponse::at(double x) const {
    switch (model) {
    case ResponseModel::constant:
        return plateau;
    case ResponseModel::hinge:
        return plateau + height * hingeAt(knee)(x);
    case ResponseModel::exponential:
        return plateau + height * decayAt(knee)(x);
    }
    return plateau;
}

Responses sweepResponses(const std::vector<SweepPoint>& points, ResponseModel model,
                         const SweepOptions& options) {
    if (points.empty()) throw InputError("sweep-empty", {});
    if (!(options.margin > 0)) throw InputError("compare-margin", {}, {{"margin", options.margin}});
    Responses found;
    for (const Settings& data : gatherSettings(points, options.mountsKnown))
        found.responses.push_back(responseOf(data, model, options, found.flags));
    return found;
}

} // namespace ibuki
