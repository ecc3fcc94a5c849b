// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/series/ageing_threshold.h"

#include "core/base/random.h"
#include "core/comparison/pair_family.h"
#include "core/distributions/distributions.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>

namespace ibuki {
namespace {

constexpr double never = std::numeric_limits<double>::infinity();
constexpr int profileTaus = 400;
constexpr double searchedSpans = 1'000; ///< behind which an interval's end is taken for none

/// What is asked of a model: the scale that it must have for the answer to be t, given τ; and the answer of a
/// scale and τ.
struct Asked {
    std::function<double(AgeingModel model, double t, double tau, double sign)> scaleFor;
    std::function<double(const AgeingFit& fit)> answer; ///< never: it does not get there
};

/// RSS of one model as a function of the scale, for every τ, at the θ it was fitted with.
class Profile {
public:
    Profile(const AgeingSample& sample, const AgeingFit& fit) : fit_(fit), yy_(0) {
        const AgeingSample::At at(sample, fit.theta);
        yy_ = at.yy();
        const auto add = [&](double tau) {
            const auto shape =
                at.reduced(sample.of([&](double t) { return ageingShape(fit.model, t, tau); }));
            taus_.push_back({tau, dot(shape, shape), dot(shape, at.y())});
        };
        if (fit.tau) {
            const Interval bounds = tauBounds(sample);
            for (int i = 0; i <= profileTaus; ++i)
                add(bounds.lo * std::pow(bounds.hi / bounds.lo, static_cast<double>(i) / profileTaus));
        } else {
            add(1);
        }
        const double free = static_cast<double>(sample.size()) - 1 - sample.besides() - 1 - (fit.tau ? 1 : 0);
        variance_ = fit.residualSd * fit.residualSd * fit.inflation;
        least_ = fit.residualSd * fit.residualSd * free;
        sign_ = fit.scale < 0 ? -1 : 1;
        for (const Tau& tau : taus_)
            if (tau.gg > 0) least_ = std::min(least_, yy_ - tau.gy * tau.gy / tau.gg);
    }

    /// Probability that the answer is below t, as the profile tells it.
    double below(const Asked& asked, double t, double answer) const {
        const double rss = heldRss(asked, t);
        if (!std::isfinite(rss)) return t < answer ? 0 : 1;
        const double root = variance_ > 0 ? std::sqrt(std::max(0.0, rss - least_) / variance_) : never;
        const double tail = std::isfinite(root) ? studentUpper(root, fit_.df) : 0;
        return t < answer ? tail : 1 - tail;
    }

private:
    struct Tau {
        double tau = 1;
        double gg = 0;
        double gy = 0;
    };

    double heldRss(const Asked& asked, double t) const {
        std::vector<double> rss;
        rss.reserve(taus_.size());
        for (const Tau& tau : taus_) {
            const double scale = asked.scaleFor(fit_.model, t, tau.tau, sign_);
            rss.push_back(std::isfinite(scale) ? yy_ - 2 * scale * tau.gy + scale * scale * tau.gg : never);
        }
        const auto least = std::min_element(rss.begin(), rss.end());
        if (least == rss.begin() || least + 1 == rss.end()) return *least;
        const double a = *(least - 1);
        const double c = *(least + 1);
        const double bend = a - 2 * *least + c;
        if (!std::isfinite(bend) || bend <= 0) return *least;
        return *least - (a - c) * (a - c) / (8 * bend); // the parabola through the three
    }

    const AgeingFit& fit_;
    double yy_;
    std::vector<Tau> taus_;
    double variance_ = 0;
    double least_ = 0;
    double sign_ = 1;
};

/// The t at which the weighted probability of being below it is p; `to` where it is not reached.
double quantile(const std::function<double(double)>& below, double p, double from, double to) {
    if (below(to) < p) return never;
    double lo = std::log(from);
    double hi = std::log(to);
    for (int i = 0; i < 60; ++i) {
        const double middle = (lo + hi) / 2;
        (below(std::exp(middle)) < p ? lo : hi) = middle;
    }
    return std::exp((lo + hi) / 2);
}

AgeingTime timeOf(const AgeingSample& sample, const AgeingCourse& course, const Asked& asked,
                  const std::vector<const AgeingFit*>& fits, double confidence) {
    AgeingTime reported;
    if (fits.empty()) return reported;
    const double span = course.last() - course.first();
    double weights = 0;
    for (const AgeingFit* fit : fits) weights += fit->weight;
    std::vector<std::pair<const AgeingFit*, Profile>> profiles;
    for (const AgeingFit* fit : fits) {
        const double answer = asked.answer(*fit);
        reported.models.push_back({fit->model, std::isfinite(answer) ? std::optional(answer) : std::nullopt,
                                   fit->weight / weights});
        if (fit->model != AgeingModel::constant && fit->df >= 1)
            profiles.emplace_back(fit, Profile(sample, *fit));
    }
    if (const auto at = reported.models.front().at; at && *at <= course.first() + farthestSpans * span) {
        reported.at = at;
        reported.beyondReadings = *at > course.last();
        reported.farBeyond = *at > course.first() + 2 * span;
    }
    if (profiles.empty()) return reported;
    const auto below = [&](double t) {
        double sum = 0;
        for (const auto& [fit, profile] : profiles)
            sum += fit->weight / weights * profile.below(asked, t, asked.answer(*fit));
        return sum;
    };
    const double from = std::max(course.first() * (1 + 1e-9), span * 1e-6);
    const double to = course.first() + searchedSpans * span;
    const double lo = quantile(below, (1 - confidence) / 2, from, to);
    const double hi = quantile(below, (1 + confidence) / 2, from, to);
    if (std::isfinite(lo)) reported.notBefore = lo;
    if (std::isfinite(lo) && std::isfinite(hi)) reported.interval = Interval{lo, hi};
    return reported;
}

/// First time at which the change is ±threshold; never where it is not.
double reached(const AgeingFit& fit, double first, double threshold) {
    if (fit.model == AgeingModel::constant || fit.scale == 0) return never;
    const double tau = fit.tau.value_or(1);
    const double shape = ageingShape(fit.model, first, tau) + threshold / std::abs(fit.scale);
    switch (fit.model) {
    case AgeingModel::linear:
        return shape;
    case AgeingModel::squareRoot:
        return shape * shape;
    case AgeingModel::logarithmic:
        return std::expm1(shape);
    case AgeingModel::exponential:
        return shape < 1 ? -tau * std::log1p(-shape) : never;
    case AgeingModel::hyperbolic:
        return shape < 1 ? tau * shape / (1 - shape) : never;
    case AgeingModel::constant:
        break;
    }
    return never;
}

Asked askedThreshold(double first, double threshold) {
    return {[=](AgeingModel model, double t, double tau, double sign) {
                const double grown = ageingShape(model, t, tau) - ageingShape(model, first, tau);
                return grown > 0 ? sign * threshold / grown : never;
            },
            [=](const AgeingFit& fit) { return reached(fit, first, threshold); }};
}

Asked askedSettling(double first, double within) {
    return {[=](AgeingModel model, double t, double tau, double sign) {
                const double left = 1 - ageingShape(model, t, tau);
                return left > 0 ? sign * within / left : never;
            },
            [=](const AgeingFit& fit) {
                const double size = std::abs(fit.scale);
                if (size * (1 - ageingShape(fit.model, first, *fit.tau)) <= within) return first;
                return fit.model == AgeingModel::exponential ? *fit.tau * std::log(size / within)
                                                             : *fit.tau * (size / within - 1);
            }};
}

} // namespace

AgeingTime timeToThreshold(const AgeingSample& sample, const AgeingCourse& course, double threshold,
                           double confidence) {
    return timeOf(sample, course, askedThreshold(course.first(), threshold), course.credible(), confidence);
}

std::optional<AgeingTime> timeToSettle(const AgeingSample& sample, const AgeingCourse& course, double within,
                                       double confidence) {
    std::vector<const AgeingFit*> fits;
    for (const AgeingFit* fit : course.credible())
        if (fit->tau && !fit->tauAtBound) fits.push_back(fit);
    if (fits.empty() || !course.fit()->tau) return std::nullopt;
    return timeOf(sample, course, askedSettling(course.first(), within), fits, confidence);
}

std::optional<Interval> thresholdOverMounts(const AgeingSample& sample, const AgeingCourse& course,
                                            double threshold, double confidence, int draws) {
    const AgeingFit* fit = course.fit();
    if (!fit || fit->model == AgeingModel::constant || sample.mounts() < 5 || sample.besides() > 0)
        return std::nullopt;
    std::vector<std::vector<AgeingReading>> mounts(static_cast<std::size_t>(sample.mounts()));
    for (std::size_t i = 0; i < sample.size(); ++i) mounts[sample.mountOf(i)].push_back(sample.readings()[i]);
    Random random(7);
    std::vector<double> found;
    for (int draw = 0; draw < draws; ++draw) {
        std::vector<AgeingReading> drawn;
        for (int j = 0; j < sample.mounts(); ++j) {
            const auto which = static_cast<std::size_t>(random.uniform() * sample.mounts());
            for (AgeingReading one : mounts[which]) {
                one.mount = j;
                drawn.push_back(one);
            }
        }
        const AgeingCourse again =
            ageingCourse(AgeingSample(std::move(drawn)), {.models = {fit->model}, .alpha = 1});
        found.push_back(again.fit() ? reached(*again.fit(), course.first(), threshold) : never);
    }
    std::sort(found.begin(), found.end());
    const auto at = [&](double p) { return found[static_cast<std::size_t>(p * (draws - 1))]; };
    const double hi = at((1 + confidence) / 2);
    if (!std::isfinite(hi)) return std::nullopt;
    return Interval{at((1 - confidence) / 2), hi};
}

} // namespace ibuki
