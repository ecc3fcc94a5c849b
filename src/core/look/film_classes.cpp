// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/look/film_classes.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>
#include <vector>

namespace ibuki {
namespace {

constexpr int passes = 25;
constexpr double leastSpread =
    0.012;                           // of a kind's logarithms: cameras round and smooth more finely than this
constexpr double typicalLight = 0.3; // standard deviation that a term of the light has beforehand
constexpr double neighbours = 2.0;   // how much the places around a place say of it

std::array<double, 5> basis(double x, double y) { return {x, y, x * x - 1.0 / 3, x * y, y * y - 1.0 / 3}; }

struct Places {
    std::vector<cv::Point> at;
    std::vector<cv::Vec3d> value;
    std::vector<std::array<double, 5>> basis;
};

Places placesOf(const cv::Mat& logRgb, const cv::Mat& counted) {
    Places places;
    for (int row = 0; row < logRgb.rows; ++row)
        for (int column = 0; column < logRgb.cols; ++column) {
            if (!counted.at<std::uint8_t>(row, column)) continue;
            places.at.emplace_back(column, row);
            places.value.emplace_back(logRgb.at<cv::Vec3f>(row, column));
            places.basis.push_back(
                basis(2 * (column + 0.5) / logRgb.cols - 1, 2 * (row + 0.5) / logRgb.rows - 1));
        }
    return places;
}

double dot(const std::array<double, 5>& a, const std::array<double, 5>& b) {
    double sum = 0;
    for (std::size_t i = 0; i < 5; ++i) sum += a[i] * b[i];
    return sum;
}

class Fit {
public:
    Fit(const Places& places, cv::Size size, cv::Mat second) : places_(places), size_(size) {
        classes_.second = std::move(second);
    }

    FilmClasses run(bool lightFromTheBegin) {
        for (int pass = 0; pass < passes; ++pass) {
            fitKinds();
            if (lightFromTheBegin || pass >= 4) fitLight();
            assign();
        }
        return classes_;
    }

private:
    cv::Vec3d unlit(std::size_t i) const {
        const double light = dot(classes_.light.terms, places_.basis[i]);
        return places_.value[i] - cv::Vec3d(light, light, light);
    }
    double ofKind(std::size_t i, std::size_t kind) const {
        const auto p = static_cast<double>(classes_.second.at<float>(places_.at[i]));
        return kind == 1 ? p : 1 - p;
    }

    void fitKinds() {
        for (std::size_t k = 0; k < 2; ++k) {
            FilmKind& kind = classes_.kinds[k];
            double weight = 1e-9;
            cv::Vec3d sum(0, 0, 0);
            for (std::size_t i = 0; i < places_.at.size(); ++i) {
                const double w = ofKind(i, k);
                weight += w;
                sum += w * unlit(i);
            }
            kind.logRgb = sum * (1 / weight);
            kind.share = weight / static_cast<double>(std::max<std::size_t>(1, places_.at.size()));
            cv::Matx33d spread = cv::Matx33d::zeros();
            for (std::size_t i = 0; i < places_.at.size(); ++i) {
                const cv::Vec3d away = unlit(i) - kind.logRgb;
                spread += (away * away.t()) * ofKind(i, k);
            }
            kind.spread = spread * (1 / weight) + cv::Matx33d::eye() * (leastSpread * leastSpread);
        }
    }

    /// Ridge regression of what is left on the light's terms.
    void fitLight() {
        cv::Matx<double, 5, 5> normal = cv::Matx<double, 5, 5>::zeros();
        cv::Vec<double, 5> right = cv::Vec<double, 5>::all(0);
        std::array<cv::Vec3d, 2> pull;
        std::array<double, 2> weight{};
        for (std::size_t k = 0; k < 2; ++k) {
            const cv::Matx33d precise = classes_.kinds[k].spread.inv();
            pull[k] = precise * cv::Vec3d(1, 1, 1);
            weight[k] = pull[k][0] + pull[k][1] + pull[k][2];
        }
        for (std::size_t i = 0; i < places_.at.size(); ++i) {
            double w = 0, target = 0;
            for (std::size_t k = 0; k < 2; ++k) {
                const double p = ofKind(i, k);
                w += p * weight[k];
                target += p * pull[k].dot(places_.value[i] - classes_.kinds[k].logRgb);
            }
            for (int a = 0; a < 5; ++a) {
                right[a] += target * places_.basis[i][static_cast<std::size_t>(a)];
                for (int b = 0; b < 5; ++b)
                    normal(a, b) += w * places_.basis[i][static_cast<std::size_t>(a)]
                                    * places_.basis[i][static_cast<std::size_t>(b)];
            }
        }
        for (int a = 0; a < 5; ++a) normal(a, a) += 1 / (typicalLight * typicalLight);
        const cv::Vec<double, 5> terms = normal.solve(right, cv::DECOMP_CHOLESKY);
        for (std::size_t a = 0; a < 5; ++a) classes_.light.terms[a] = terms[static_cast<int>(a)];
    }

    void assign() {
        std::array<cv::Matx33d, 2> precise;
        std::array<double, 2> level{};
        for (std::size_t k = 0; k < 2; ++k) {
            const FilmKind& kind = classes_.kinds[k];
            precise[k] = kind.spread.inv();
            level[k] = std::log(std::max(kind.share, 1e-6)) - 0.5 * std::log(cv::determinant(kind.spread));
        }
        cv::Mat around;
        cv::blur(classes_.second, around, {3, 3});
        cv::Mat next(size_, CV_32F, cv::Scalar(0.5));
        classes_.logLikelihood = 0;
        for (std::size_t i = 0; i < places_.at.size(); ++i) {
            const cv::Vec3d value = unlit(i);
            std::array<double, 2> log{};
            for (std::size_t k = 0; k < 2; ++k) {
                const cv::Vec3d away = value - classes_.kinds[k].logRgb;
                log[k] = level[k] - 0.5 * away.dot(precise[k] * away);
            }
            const double most = std::max(log[0], log[1]);
            classes_.logLikelihood += most + std::log(std::exp(log[0] - most) + std::exp(log[1] - most));
            const double pull = neighbours * (2.0 * static_cast<double>(around.at<float>(places_.at[i])) - 1);
            next.at<float>(places_.at[i]) = static_cast<float>(1 / (1 + std::exp(log[0] - log[1] - pull)));
        }
        classes_.second = next;
        for (const double term : classes_.light.terms)
            classes_.logLikelihood -= 0.5 * term * term / (typicalLight * typicalLight);
    }

    const Places& places_;
    cv::Size size_;
    FilmClasses classes_;
};

/// Two heaps of the features, as a raster of likelihoods to begin with.
cv::Mat heaps(const Places& places, cv::Size size, const cv::Mat& features) {
    cv::Mat labels, centres;
    cv::theRNG().state = 7; // the same picture gives the same mask
    cv::kmeans(features, 2, labels, {cv::TermCriteria::COUNT + cv::TermCriteria::EPS, 30, 1e-4}, 3,
               cv::KMEANS_PP_CENTERS, centres);
    cv::Mat second(size, CV_32F, cv::Scalar(0.5));
    for (std::size_t i = 0; i < places.at.size(); ++i)
        second.at<float>(places.at[i]) = labels.at<int>(static_cast<int>(i)) == 1 ? 0.9F : 0.1F;
    return second;
}

/// Features of each place: brightness without the plane through it, counted `bright` times, and two of
/// colour.
cv::Mat features(const Places& places, double bright, bool withoutPlane) {
    const auto n = static_cast<int>(places.at.size());
    std::array<double, 2> slope{};
    if (withoutPlane) {
        std::array<double, 2> xy{}, xx{};
        double mean = 0;
        for (const cv::Vec3d& v : places.value) mean += (v[0] + v[1] + v[2]) / (3 * n);
        for (std::size_t i = 0; i < places.at.size(); ++i)
            for (std::size_t axis = 0; axis < 2; ++axis) {
                const cv::Vec3d& v = places.value[i];
                xy[axis] += places.basis[i][axis] * ((v[0] + v[1] + v[2]) / 3 - mean);
                xx[axis] += places.basis[i][axis] * places.basis[i][axis];
            }
        for (std::size_t axis = 0; axis < 2; ++axis) slope[axis] = xx[axis] > 0 ? xy[axis] / xx[axis] : 0;
    }
    cv::Mat made(n, 3, CV_32F);
    for (int i = 0; i < n; ++i) {
        const auto at = static_cast<std::size_t>(i);
        const cv::Vec3d& v = places.value[at];
        const double light = slope[0] * places.basis[at][0] + slope[1] * places.basis[at][1];
        made.at<float>(i, 0) = static_cast<float>(bright * ((v[0] + v[1] + v[2]) / 3 - light));
        made.at<float>(i, 1) = static_cast<float>(1.5 * (v[0] - v[1]));
        made.at<float>(i, 2) = static_cast<float>(1.5 * (v[2] - v[1]));
    }
    return made;
}

} // namespace

double LightField::at(double x, double y) const {
    return dot(terms, basis(std::clamp(x, -1.0, 1.0), std::clamp(y, -1.0, 1.0)));
}

FilmClasses filmClasses(const cv::Mat& logRgb, const cv::Mat& counted) {
    const Places places = placesOf(logRgb, counted);
    if (places.at.size() < 16) {
        FilmClasses nothing;
        nothing.second = cv::Mat(logRgb.size(), CV_32F, cv::Scalar(0.5));
        return nothing;
    }
    FilmClasses best;
    bool first = true;
    for (const auto& [bright, withoutPlane] :
         {std::pair{1.0, false}, std::pair{1.0, true}, std::pair{0.15, false}})
        for (const bool light : {false, true}) {
            FilmClasses fitted = Fit(places, logRgb.size(),
                                     heaps(places, logRgb.size(), features(places, bright, withoutPlane)))
                                     .run(light);
            if (!first && !(fitted.logLikelihood > best.logLikelihood)) continue;
            best = fitted;
            first = false;
        }
    return best;
}

} // namespace ibuki
