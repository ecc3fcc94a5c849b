// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/series/ageing_course.h"

#include "core/base/input_error.h"
#include "core/comparison/pair_family.h"
#include "core/distributions/distributions.h"

#include <algorithm>
#include <boost/math/tools/minima.hpp>
#include <cmath>
#include <limits>

namespace ibuki {
namespace {

constexpr int gridTaus = 60;
constexpr double slopesAlike = 0.1; ///< level at which slopes of mounts are taken for unlike

struct Scaled {
    double scale = 0;
    double rss = 0;
};

Scaled fitScale(const AgeingSample::At& at, const std::vector<double>& reduced) {
    const double gg = dot(reduced, reduced);
    if (gg <= 0) return {0, at.yy()};
    const double gy = dot(reduced, at.y());
    return {gy / gg, std::max(0.0, at.yy() - gy * gy / gg)};
}

std::vector<double> shapeOf(const AgeingSample& sample, AgeingModel model, double tau) {
    return sample.of([&](double t) { return ageingShape(model, t, tau); });
}

/// τ of the least squares for a known θ.
double bestTau(const AgeingSample& sample, AgeingModel model, double theta) {
    const AgeingSample::At at(sample, theta);
    const Interval bounds = tauBounds(sample);
    const double from = std::log(bounds.lo);
    const double step = (std::log(bounds.hi) - from) / gridTaus;
    const auto rss = [&](double logTau) {
        return fitScale(at, at.reduced(shapeOf(sample, model, std::exp(logTau)))).rss;
    };
    int best = 0;
    double least = std::numeric_limits<double>::infinity();
    for (int i = 0; i <= gridTaus; ++i)
        if (const double here = rss(from + i * step); here < least) {
            least = here;
            best = i;
        }
    return std::exp(boost::math::tools::brent_find_minima(rss, from + std::max(0, best - 1) * step,
                                                          from + std::min(gridTaus, best + 1) * step, 30)
                        .first);
}

/// Coefficients of the change and whether so many readings can bear them.
struct Size {
    int ofChange = 0;
    int all = 0; ///< with intercept and columns beside, without the residual variance
};

Size sizeOf(const AgeingSample& sample, AgeingModel model) {
    const int change = model == AgeingModel::constant ? 0 : endsSomewhere(model) ? 2 : 1;
    return {change, 1 + sample.besides() + change};
}

bool canBear(const AgeingSample& sample, AgeingModel model) {
    const Size size = sizeOf(sample, model);
    const std::size_t times = endsSomewhere(model) ? 4 : model == AgeingModel::constant ? 1 : 2;
    return static_cast<int>(sample.size()) > size.all + 2 && sample.times().size() >= times;
}

double aiccOf(const AgeingSample& sample, double rss, double logDeterminant, int coefficients) {
    const auto n = static_cast<double>(sample.size());
    const double k = coefficients + 1;
    return n * std::log(std::max(rss, std::numeric_limits<double>::min()) / n) + logDeterminant + 2 * k
           + 2 * k * (k + 1) / (n - k - 1);
}

std::vector<std::vector<double>> jacobian(const AgeingSample& sample, const AgeingFit& fit) {
    std::vector<std::vector<double>> columns;
    if (fit.model == AgeingModel::constant) return columns;
    columns.push_back(shapeOf(sample, fit.model, fit.tau.value_or(1)));
    if (fit.tau)
        columns.push_back(
            sample.of([&](double t) { return fit.scale * ageingShapeByTau(fit.model, t, *fit.tau); }));
    return columns;
}

void tellVariances(const AgeingSample& sample, const AgeingSample::At& at, double rss, AgeingFit& fit) {
    const Size size = sizeOf(sample, fit.model);
    const auto n = static_cast<double>(sample.size());
    const double variance = rss / (n - size.all);
    fit.residualSd = std::sqrt(variance);
    fit.theta = at.theta();
    fit.mountSd = fit.residualSd * std::sqrt(at.theta());
    fit.df = sample.isNested() ? n - sample.mounts() - sample.besides() - size.ofChange : n - size.all;
    const auto columns = jacobian(sample, fit);
    if (columns.empty()) return;
    Columns design(sample.size(), columns.size());
    for (std::size_t c = 0; c < columns.size(); ++c) {
        const auto seen = at.reduced(columns[c]);
        std::copy(seen.begin(), seen.end(), design[c].begin());
    }
    const Columns inverse = inverseNormal(design);
    fit.varianceOfScale = inverse[0][0] * variance;
    if (columns.size() > 1) {
        fit.covariance = inverse[0][1] * variance;
        fit.varianceOfTau = inverse[1][1] * variance;
    }
}

AgeingFit fitModel(const AgeingSample& sample, AgeingModel model) {
    AgeingFit fit;
    fit.model = model;
    if (!canBear(sample, model)) return fit;
    const bool ends = endsSomewhere(model);
    double tau = ends ? bestTau(sample, model, 0) : 1;
    double theta = 0;
    const auto columns = [&] {
        return model == AgeingModel::constant ? std::vector<std::vector<double>>{}
                                              : std::vector<std::vector<double>>{shapeOf(sample, model, tau)};
    };
    for (int round = 0; round < (ends && sample.isNested() ? 4 : 1); ++round) {
        theta = sample.bestTheta(columns(), false);
        if (ends && sample.isNested()) tau = bestTau(sample, model, theta);
    }
    const AgeingSample::At likely(sample, theta);
    const auto scaledAt = [&](const AgeingSample::At& at) {
        return model == AgeingModel::constant ? Scaled{0, at.yy()} : fitScale(at, at.reduced(columns()[0]));
    };
    fit.aicc = aiccOf(sample, scaledAt(likely).rss, likely.logDeterminant(), sizeOf(sample, model).all);
    if (ends) fit.tau = tau;
    fit.scale = scaledAt(likely).scale;

    const AgeingSample::At restricted(sample, sample.bestTheta(jacobian(sample, fit), true));
    if (ends && sample.isNested()) fit.tau = tau = bestTau(sample, model, restricted.theta());
    const Scaled scaled = scaledAt(restricted);
    fit.scale = scaled.scale;
    auto rest = sample.y();
    const auto shape = shapeOf(sample, model, tau);
    for (std::size_t i = 0; i < rest.size(); ++i) rest[i] -= fit.scale * shape[i];
    fit.start = restricted.nuisance(std::move(rest)).front();
    if (ends) {
        const Interval bounds = tauBounds(sample);
        fit.tauAtBound = tau < bounds.lo * 1.02 || tau > bounds.hi / 1.02;
    }
    tellVariances(sample, restricted, scaled.rss, fit);
    return fit;
}

void weigh(std::vector<AgeingFit>& fits) {
    double least = std::numeric_limits<double>::infinity();
    for (const AgeingFit& fit : fits)
        if (fit.aicc) least = std::min(least, *fit.aicc);
    double sum = 0;
    for (AgeingFit& fit : fits)
        if (fit.aicc) sum += fit.weight = std::exp((least - *fit.aicc) / 2);
    for (AgeingFit& fit : fits)
        if (sum > 0) fit.weight /= sum;
}

/// Scales of single mounts where each is read at two times or more, with the standard error that residuals
/// alone give them.
struct MountScales {
    std::vector<double> scales;
    double meanVariance = 0;
    double separateRss = 0;
    double commonRss = 0;
    double df = 0;
};

MountScales mountScales(const AgeingSample& sample, const AgeingFit& fit) {
    MountScales made;
    const auto shape = shapeOf(sample, fit.model, fit.tau.value_or(1));
    double gg = 0;
    double gy = 0;
    double yy = 0;
    std::vector<double> squares;
    for (std::size_t from = 0, mount = 0; from < sample.size(); ++mount) {
        const std::size_t to = from + static_cast<std::size_t>(sample.count(mount));
        double g = 0;
        double y = 0;
        for (std::size_t i = from; i < to; ++i) {
            g += shape[i];
            y += sample.readings()[i].y;
        }
        g /= static_cast<double>(to - from);
        y /= static_cast<double>(to - from);
        double ownGg = 0;
        double ownGy = 0;
        double ownYy = 0;
        for (std::size_t i = from; i < to; ++i) {
            const double left = sample.readings()[i].y - y;
            ownGg += (shape[i] - g) * (shape[i] - g);
            ownGy += (shape[i] - g) * left;
            ownYy += left * left;
        }
        from = to;
        if (ownGg <= 0) continue;
        made.scales.push_back(ownGy / ownGg);
        squares.push_back(ownGg);
        made.separateRss += ownYy - ownGy * ownGy / ownGg;
        made.df += sample.count(mount) - 2;
        gg += ownGg;
        gy += ownGy;
        yy += ownYy;
    }
    if (gg > 0) made.commonRss = yy - gy * gy / gg;
    if (made.df > 0)
        for (const double square : squares)
            made.meanVariance += made.separateRss / made.df / square / static_cast<double>(squares.size());
    return made;
}

bool areUnlike(const MountScales& mounts) {
    const double between = static_cast<double>(mounts.scales.size()) - 1;
    if (between < 1 || mounts.df < 1 || mounts.separateRss <= 0) return false;
    const double f = (mounts.commonRss - mounts.separateRss) / between / (mounts.separateRss / mounts.df);
    if (!(f > 0)) return false;
    return fisherUpper(f, between, mounts.df) < slopesAlike;
}

/// Lag-1 correlation of residuals inside mounts, and whether it is told from none (one-sided 5 %).
std::pair<double, bool> lagOne(const AgeingSample& sample, const AgeingFit& fit) {
    const auto shape = shapeOf(sample, fit.model, fit.tau.value_or(1));
    double product = 0;
    double square = 0;
    int pairs = 0;
    for (std::size_t from = 0, mount = 0; from < sample.size(); ++mount) {
        const std::size_t to = from + static_cast<std::size_t>(sample.count(mount));
        double centre = 0;
        const auto left = [&](std::size_t i) { return sample.readings()[i].y - fit.scale * shape[i]; };
        for (std::size_t i = from; i < to; ++i) centre += left(i) / static_cast<double>(to - from);
        for (std::size_t i = from; i < to; ++i) {
            square += (left(i) - centre) * (left(i) - centre);
            if (i + 1 == to) break;
            product += (left(i) - centre) * (left(i + 1) - centre);
            ++pairs;
        }
        from = to;
    }
    if (square <= 0 || pairs < 8) return {0, false};
    const double r = product / square;
    return {r, r > 1.645 / std::sqrt(static_cast<double>(pairs))};
}

void spread(AgeingFit& fit, double factor) {
    fit.inflation *= factor;
    fit.varianceOfScale *= factor;
    fit.covariance *= std::sqrt(factor);
}

/// Where mounts change unlike each other, or readings follow each other, the mounts are what scatters.
void tellSpread(const AgeingSample& sample, AgeingCourse& course) {
    const AgeingFit* best = course.fit();
    if (!best || best->model == AgeingModel::constant) return;
    const auto [lag, follows] = lagOne(sample, *best);
    course.followEachOther = follows;
    const MountScales chosen = mountScales(sample, *best);
    course.slopesDiffer = areUnlike(chosen);
    if (!course.slopesDiffer && !follows) return;
    for (AgeingFit& fit : course.fits) {
        if (!fit.aicc || fit.model == AgeingModel::constant || fit.varianceOfScale <= 0) continue;
        const MountScales mounts = mountScales(sample, fit);
        const auto m = static_cast<double>(mounts.scales.size());
        if (m < 3) {
            if (follows) spread(fit, (1 + lag) / (1 - lag));
            continue;
        }
        double mean = 0;
        for (const double scale : mounts.scales) mean += scale / m;
        double square = 0;
        for (const double scale : mounts.scales) square += (scale - mean) * (scale - mean) / (m - 1);
        const double between = std::max(0.0, square - mounts.meanVariance);
        spread(fit, 1 + between / m / fit.varianceOfScale);
        fit.df = m - 1;
    }
}

void addFlags(const AgeingSample& sample, AgeingCourse& course) {
    const auto warn = [&](const char* code, Fields fields = {}) {
        addFlag(course.flags, makeFlag(Severity::warn, code, std::move(fields)));
    };
    const auto note = [&](const char* code, Fields fields = {}) {
        addFlag(course.flags, makeFlag(Severity::info, code, std::move(fields)));
    };
    if (!course.best) {
        warn("drift-few", {{"count", course.readings}});
        return;
    }
    if (course.times.size() == 2) warn("drift-two-times");
    if (course.mounts == 1)
        note("drift-one-mount");
    else if (!sample.isNested())
        warn("drift-read-once");
    if (course.slopesDiffer) warn(course.mounts < 3 ? "drift-two-mounts-unlike" : "drift-mounts-unlike");
    if (course.followEachOther) warn("drift-follow");
    const AgeingFit& fit = *course.fit();
    if (!fit.tau) return;
    const auto before =
        std::count_if(course.times.begin(), course.times.end(), [&](double t) { return t < *fit.tau; });
    const auto after =
        std::count_if(course.times.begin(), course.times.end(), [&](double t) { return t > 3 * *fit.tau; });
    if (before < 2 || after < 2) warn("drift-tau-thin");
}

} // namespace

double AgeingFit::change(double t, double from) const {
    const double own = tau.value_or(1);
    return scale * (ageingShape(model, t, own) - ageingShape(model, from, own));
}

Interval AgeingFit::changeInterval(double t, double from, double confidence) const {
    const double own = tau.value_or(1);
    const double byScale = ageingShape(model, t, own) - ageingShape(model, from, own);
    const double byTau = scale * (ageingShapeByTau(model, t, own) - ageingShapeByTau(model, from, own));
    const double variance = byScale * byScale * varianceOfScale + 2 * byScale * byTau * covariance
                            + byTau * byTau * varianceOfTau;
    return studentInterval(change(t, from), std::sqrt(std::max(0.0, variance)), df, confidence);
}

const AgeingFit* AgeingCourse::fit(AgeingModel model) const {
    for (const AgeingFit& one : fits)
        if (one.model == model && one.aicc) return &one;
    return nullptr;
}

double AgeingCourse::changeAt(double t) const { return fit() ? fit()->change(t, first()) : 0; }

std::optional<Interval> AgeingCourse::changeIntervalAt(double t, double confidence) const {
    const AgeingFit* chosen = fit();
    if (!chosen || chosen->df < 1) return std::nullopt;
    if (chosen->model != AgeingModel::constant) return chosen->changeInterval(t, first(), confidence);
    const AgeingFit* other = nullptr;
    for (const AgeingFit& one : fits)
        if (one.aicc && one.model != AgeingModel::constant && one.df >= 1
            && (!other || *one.aicc < *other->aicc))
            other = &one;
    if (!other) return std::nullopt;
    const Interval reported = other->changeInterval(t, first(), confidence);
    return Interval{std::min(0.0, reported.lo), std::max(0.0, reported.hi)};
}

std::vector<const AgeingFit*> AgeingCourse::credible() const {
    std::vector<const AgeingFit*> found;
    const AgeingFit* chosen = fit();
    if (!chosen) return found;
    double least = *chosen->aicc;
    for (const AgeingFit& one : fits)
        if (one.aicc) least = std::min(least, *one.aicc);
    for (const AgeingFit& one : fits)
        if (one.aicc && &one != chosen && *one.aicc < least + 2) found.push_back(&one);
    std::sort(found.begin(), found.end(),
              [](const AgeingFit* a, const AgeingFit* b) { return *a->aicc < *b->aicc; });
    found.insert(found.begin(), chosen);
    return found;
}

Interval tauBounds(const AgeingSample& sample) {
    const auto& times = sample.times();
    double least = std::numeric_limits<double>::infinity();
    for (std::size_t i = 1; i < times.size(); ++i) least = std::min(least, times[i] - times[i - 1]);
    return {least / 10, 10 * (times.back() - times.front())};
}

AgeingCourse ageingCourse(const AgeingSample& sample, const AgeingOptions& options) {
    if (sample.size() == 0) throw InputError("drift-none", {});
    for (const AgeingReading& one : sample.readings()) {
        if (!std::isfinite(one.t) || !std::isfinite(one.y)) throw InputError("drift-not-finite", {});
        if (one.t < 0) throw InputError("drift-backwards", {}, Fields{{"time", one.t}});
    }
    AgeingCourse course;
    course.readings = static_cast<int>(sample.size());
    course.mounts = sample.mounts();
    course.times = sample.times();
    for (const AgeingModel model : options.models) course.fits.push_back(fitModel(sample, model));
    weigh(course.fits);
    for (std::size_t i = 0; i < course.fits.size(); ++i)
        if (course.fits[i].aicc && (!course.best || *course.fits[i].aicc < *course.fit()->aicc - 1e-9))
            course.best = i;
    tellSpread(sample, course);
    course.noChangeP = options.alpha < 1 ? noChangeP(sample) : 0;
    if (const AgeingFit* chosen = course.fit();
        chosen && course.slopesDiffer && course.mounts >= 3 && chosen->varianceOfScale > 0) {
        const double t = std::abs(chosen->scale) / std::sqrt(chosen->varianceOfScale);
        course.noChangeP = std::max(course.noChangeP, 2 * studentUpper(t, chosen->df));
    }
    if (course.best && course.noChangeP >= options.alpha)
        for (std::size_t i = 0; i < course.fits.size(); ++i)
            if (course.fits[i].model == AgeingModel::constant && course.fits[i].aicc) course.best = i;
    addFlags(sample, course);
    return course;
}

} // namespace ibuki
