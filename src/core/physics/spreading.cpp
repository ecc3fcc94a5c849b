// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/spreading.h"

#include "core/distributions/memo.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <optional>
#include <vector>

namespace ibuki {
namespace {

using std::numbers::pi;

/// ∫ erf, up to a constant.
double erfIntegral(double z) { return z * std::erf(z) + std::exp(-z * z) / std::sqrt(pi); }

/// A line source |x| < a between mirrors at ±c, spread by a Gaussian e^{−δ²s²}: its mean over the source and
/// its value at the centre. 1 at s = 0, a/c at last.
class SpreadLine {
public:
    SpreadLine(double a, double c) : a_(a), c_(c) {}

    struct Value {
        double mean = 1;
        double centre = 1;
    };
    Value at(double s) const { return a_ >= c_ ? Value{} : s < 0.4 * c_ ? byImages(s) : byModes(s); }
    double last() const { return std::min(1.0, a_ / c_); }
    /// The shortest length over which the spread source changes its shape.
    double scale() const { return a_ >= c_ ? c_ : std::min(a_, c_ - a_); }

private:
    Value byImages(double s) const {
        const double w = 2 * s;
        Value sum{0, 0};
        const int reach = 1 + static_cast<int>(std::ceil((6 * w + a_) / (2 * c_)));
        for (int image = -reach; image <= reach; ++image) {
            const double x = 2 * c_ * image;
            sum.mean +=
                w / (4 * a_)
                * (erfIntegral((2 * a_ - x) / w) - 2 * erfIntegral(-x / w) + erfIntegral((-2 * a_ - x) / w));
            sum.centre += 0.5 * (std::erf((a_ - x) / w) + std::erf((a_ + x) / w));
        }
        return sum;
    }
    Value byModes(double s) const {
        Value sum{a_ / c_, a_ / c_};
        for (int m = 1; m < 40; ++m) {
            const double delta = m * pi / c_;
            const double decay = std::exp(-delta * delta * s * s);
            if (decay < 1e-18) break;
            const double sine = std::sin(a_ * delta);
            sum.mean += 2 * sine * sine / (a_ * c_ * delta * delta) * decay;
            sum.centre += 2 * sine / (c_ * delta) * decay;
        }
        return sum;
    }

    double a_;
    double c_;
};

/// Gauss–Legendre, 16 points on (−1, 1): abscissas of the positive half and their weights.
constexpr std::array<std::array<double, 2>, 8> gauss16{{{0.0950125098376374402, 0.1894506104550684963},
                                                        {0.2816035507792589132, 0.1826034150449235888},
                                                        {0.4580167776572273863, 0.1691565193950025381},
                                                        {0.6178762444026437484, 0.1495959888165767320},
                                                        {0.7554044083550030339, 0.1246289712555338720},
                                                        {0.8656312023878317439, 0.0951585116824927848},
                                                        {0.9445750230732325761, 0.0622535239386478929},
                                                        {0.9894009349916499326, 0.0271524594117540949}}};

/// 2/√π ∫ (U(s) V(s) − U∞ V∞) ds, mm: what an endlessly thick plate adds, times the source's area and k.
struct EndlessPart {
    double mean = 0;
    double centre = 0;
};

EndlessPart endlessPart(const SpreadLine& u, const SpreadLine& v, double reach) {
    const double last = u.last() * v.last();
    EndlessPart sum;
    const auto panel = [&](double from, double to) {
        const double half = 0.5 * (to - from);
        for (const auto& [x, weight] : gauss16)
            for (const double sign : {-1.0, 1.0}) {
                const double s = 0.5 * (from + to) + sign * x * half;
                const auto [um, uc] = u.at(s);
                const auto [vm, vc] = v.at(s);
                sum.mean += weight * half * (um * vm - last);
                sum.centre += weight * half * (uc * vc - last);
            }
    };
    const double end = 2.1 * reach;
    double from = 0;
    double to = std::max(std::min(u.scale(), v.scale()) / 16, end * 1e-9);
    while (from < end) {
        panel(from, std::min(to, end));
        from = to;
        to *= 1.7;
    }
    const double factor = 2 / std::sqrt(pi);
    return {factor * sum.mean, factor * sum.centre};
}

/// Depends on sizes alone, so that it is kept: what is varied is mostly behind the plate.
EndlessPart endlessPart(const Extent& source, const Extent& plate) {
    static Memo means, centres;
    const double a = source.widthMm / 2, b = source.lengthMm / 2, c = plate.widthMm / 2,
                 d = plate.lengthMm / 2;
    std::optional<EndlessPart> made;
    const auto make = [&] {
        if (!made) made = endlessPart(SpreadLine(a, c), SpreadLine(b, d), std::max(c, d));
        return *made;
    };
    const std::vector<double> sizes{a, b, c, d};
    return {means(sizes, [&] { return make().mean; }), centres(sizes, [&] { return make().centre; })};
}

/// Z k₁ζ − 1 of the pile for the eigenvalue ζ (1/mm): how the heated face differs from that of an endless
/// plate.
double impedanceExcess(std::span<const Slab> slabs, double behind, double zeta) {
    double impedance = behind;
    double excess = 0;
    for (std::size_t i = slabs.size(); i-- > 0;) {
        const Slab& slab = slabs[i];
        const double k = slab.conductivity / 1000;
        impedance += i + 1 < slabs.size() ? slab.belowMm2KPerW : 0;
        const double z0 = impedance * k * zeta;
        const double away = 2 / (std::exp(2 * zeta * slab.thicknessMm) + 1); // 1 − tanh
        excess = (z0 - 1) * away / (1 + z0 * (1 - away));
        impedance = (1 + excess) / (k * zeta);
    }
    return excess;
}

struct Modes {
    std::vector<double> eigenvalue; ///< 1/mm, the first is 0
    std::vector<double> mean;       ///< what the mode adds to the mean over the source
    std::vector<double> centre;

    Modes(double a, double c, double highest) {
        for (int m = 0; m * pi / c <= highest; ++m) {
            const double delta = m * pi / c;
            const double sine = m == 0 ? 1 : std::sin(a * delta);
            eigenvalue.push_back(delta);
            mean.push_back(m == 0 ? a / c : 2 * sine * sine / (a * c * delta * delta));
            centre.push_back(m == 0 ? a / c : 2 * sine / (c * delta));
        }
    }
};

} // namespace

Extent overlapOf(const Extent& one, const Extent& other) {
    return {std::min(one.widthMm, other.widthMm), std::min(one.lengthMm, other.lengthMm)};
}

SpreadingTerm seriesSpreading(const Extent& source, const Extent& plate, std::span<const Slab> slabs,
                              double behindMm2KPerW) {
    const double a = source.widthMm / 2, b = source.lengthMm / 2;
    const double c = plate.widthMm / 2, d = plate.lengthMm / 2;
    if (slabs.empty() || (a >= c && b >= d)) return {};
    const double k = slabs.front().conductivity / 1000;
    const auto [mean, centre] = endlessPart(source, plate);
    SpreadingTerm term{mean / (source.areaMm2() * k), centre / (source.areaMm2() * k)};
    const double highest = 14 / slabs.front().thicknessMm;
    const Modes x(a, c, highest), y(b, d, highest);
    for (std::size_t m = 0; m < x.eigenvalue.size(); ++m)
        for (std::size_t n = m == 0 ? 1 : 0; n < y.eigenvalue.size(); ++n) {
            const double beta = std::hypot(x.eigenvalue[m], y.eigenvalue[n]);
            if (beta > highest) break;
            const double excess =
                impedanceExcess(slabs, behindMm2KPerW, beta) / (k * beta * source.areaMm2());
            term.meanKPerW += x.mean[m] * y.mean[n] * excess;
            term.centreKPerW += x.centre[m] * y.centre[n] * excess;
        }
    return term;
}

SpreadingTerm leeSpreading(const Extent& source, const Extent& plate, const Slab& slab,
                           double behindMm2KPerW) {
    const double a = std::sqrt(source.areaMm2() / pi), b = std::sqrt(plate.areaMm2() / pi);
    if (a >= b) return {};
    const double k = slab.conductivity / 1000;
    const double epsilon = a / b, tau = slab.thicknessMm / b;
    const double lambda = pi + 1 / (std::sqrt(pi) * epsilon);
    const double overBiot = lambda * behindMm2KPerW * k / b; // λ/Bi
    const double tanh = std::tanh(lambda * tau);
    const double phi = (tanh + overBiot) / (1 + overBiot * tanh);
    const double scale = 1 / (std::sqrt(source.areaMm2()) * k);
    return {0.5 * std::pow(1 - epsilon, 1.5) * phi * scale, (1 - epsilon) * phi / std::sqrt(pi) * scale};
}

} // namespace ibuki
