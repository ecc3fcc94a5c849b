// SPDX-License-Identifier: GPL-3.0-or-later
// Quantiles and tails against printed tables (NIST/SEMATECH e-Handbook 1.3.6.7, R. A. Fisher's own examples)
// and against integrals and sums of our own.

#include "core/base/random.h"
#include "core/distributions/distributions.h"
#include "core/distributions/growing_root.h"
#include "core/distributions/normal.h"
#include "core/distributions/rainflow.h"
#include "support/near.h"
#include "support/test_class.h"

#include <map>

using namespace ibuki;

namespace {

/// Simpson over `steps` pairs.
template <class Density> double integral(Density&& density, double from, double to, int steps = 20'000) {
    const double h = (to - from) / (2 * steps);
    double sum = density(from) + density(to);
    for (int i = 1; i < 2 * steps; ++i) sum += (i % 2 ? 4 : 2) * density(from + i * h);
    return sum * h / 3;
}

double studentDensity(double t, double df) {
    return std::exp(std::lgamma((df + 1) / 2) - std::lgamma(df / 2)) / std::sqrt(df * std::numbers::pi)
           * std::pow(1 + t * t / df, -(df + 1) / 2);
}

double chiSquaredDensity(double x, double df) {
    return std::exp((df / 2 - 1) * std::log(x) - x / 2 - df / 2 * std::numbers::ln2 - std::lgamma(df / 2));
}

double choose(unsigned n, unsigned k) {
    return std::exp(std::lgamma(n + 1.0) - std::lgamma(k + 1.0) - std::lgamma(n - k + 1.0));
}

} // namespace

class TestDistributions : public QObject {
    Q_OBJECT
private slots:
    void quantilesOfTheTables() {
        QVERIFY_NEAR(normalQuantile(0.975), 1.959964, 5e-7);
        QVERIFY_NEAR(normalQuantile(0.999), 3.090232, 5e-7);
        QVERIFY_NEAR(studentQuantile(0.975, 1), 12.7062, 5e-5);
        QVERIFY_NEAR(studentQuantile(0.975, 5), 2.57058, 5e-6);
        QVERIFY_NEAR(studentQuantile(0.95, 10), 1.81246, 5e-6);
        QVERIFY_NEAR(studentQuantile(0.975, 30), 2.04227, 5e-6);
        QVERIFY_NEAR(chiSquaredQuantile(0.95, 1), 3.841, 5e-4);
        QVERIFY_NEAR(chiSquaredQuantile(0.95, 10), 18.307, 5e-4);
        QVERIFY_NEAR(chiSquaredQuantile(0.05, 10), 3.940, 5e-4);
        QVERIFY_NEAR(fisherQuantile(0.95, 3, 10), 3.708, 5e-4);
        QVERIFY_NEAR(fisherQuantile(0.99, 2, 20), 5.849, 5e-4);
    }
    void tailsAreIntegralsOfTheDensities() { // second road
        for (double df : {1.0, 2.5, 7.0, 40.0})
            for (double t : {0.3, 1.0, 2.5})
                QVERIFY_NEAR(studentUpper(t, df),
                             0.5 - integral([&](double x) { return studentDensity(x, df); }, 0, t), 1e-9);
        for (double df : {2.0, 5.0, 12.0})
            for (double x : {0.7, 4.0, 15.0})
                QVERIFY_NEAR(chiSquaredUpper(x, df),
                             1 - integral([&](double y) { return chiSquaredDensity(y, df); }, 1e-12, x),
                             2e-6);
    }
    void aQuantileIsWhereTheTailIs() { // property over a grid
        for (double p : {0.001, 0.05, 0.5, 0.9, 0.999})
            for (double df : {1.0, 3.0, 8.5, 200.0}) {
                QVERIFY_NEAR(studentUpper(studentQuantile(p, df), df), 1 - p, 1e-10);
                QVERIFY_NEAR(chiSquaredUpper(chiSquaredQuantile(p, df), df), 1 - p, 1e-10);
                QVERIFY_NEAR(fisherUpper(fisherQuantile(p, df, 7), df, 7), 1 - p, 1e-10);
                QVERIFY_NEAR(normalCdf(normalQuantile(p)), p, 1e-13);
            }
    }
    void theFamiliesMeet() {
        for (double p : {0.6, 0.9, 0.99}) {
            QVERIFY_REL(studentQuantile(p, std::numeric_limits<double>::infinity()), normalQuantile(p),
                        1e-12);
            for (double df : {4.0, 11.0}) { // t² is F on 1 and df
                QVERIFY_REL(std::pow(studentQuantile((1 + p) / 2, df), 2), fisherQuantile(p, 1, df), 1e-9);
                QVERIFY_REL(chiSquaredQuantile(p, df), df * fisherQuantile(p, df, 1e9), 1e-5);
            }
        }
        QVERIFY_REL(chiSquaredQuantile(0.9, 1), std::pow(normalQuantile(0.95), 2), 1e-10);
    }
    void anIntervalIsCentreAndHalfWidth() {
        const Interval interval = studentInterval(10, 0.5, 5, 0.95);
        QVERIFY_NEAR(interval.lo, 10 - 0.5 * 2.570581836, 1e-8);
        QVERIFY_NEAR(interval.hi, 10 + 0.5 * 2.570581836, 1e-8);
        QVERIFY(interval.contains(10) && !interval.contains(12));
        QVERIFY(!interval.within(5) && Interval({-0.4, 0.3}).within(0.5)
                && !Interval({-0.4, 0.5}).within(0.5));
    }
    void nonCentralTailsAreThoseOfDraws() { // simulation; four standard errors, so 1 in 16,000 a figure
        Random random(71);
        constexpr int draws = 40'000;
        for (const auto& [df, ncp] : {std::pair{4.0, 1.0}, {9.0, 2.5}, {20.0, -0.7}}) {
            int over = 0;
            int overF = 0;
            for (int i = 0; i < draws; ++i) {
                double chi = 0;
                for (int k = 0; k < static_cast<int>(df); ++k) chi += std::pow(random.normal(), 2);
                const double t = (random.normal() + ncp) / std::sqrt(chi / df);
                over += t > 1.2 ? 1 : 0;
                overF += t * t > 3 ? 1 : 0; // non-central F on 1 and df, λ = ncp²
            }
            const auto agrees = [&](int count, double p) {
                return std::abs(count / static_cast<double>(draws) - p) < 4 * std::sqrt(p * (1 - p) / draws);
            };
            QVERIFY(agrees(over, nonCentralStudentUpper(1.2, df, ncp)));
            QVERIFY(agrees(overF, nonCentralFisherUpper(3, 1, df, ncp * ncp)));
            QVERIFY_NEAR(nonCentralStudentCdf(1.2, df, ncp), 1 - nonCentralStudentUpper(1.2, df, ncp), 1e-12);
        }
        QVERIFY_NEAR(nonCentralStudentUpper(1.7, 6, 0), studentUpper(1.7, 6), 1e-12);
        for (double lambda : {0.0, 1e-12, 1e-7})
            QVERIFY_NEAR(nonCentralFisherUpper(2.2, 3, 8, lambda), fisherUpper(2.2, 3, 8), 1e-6);
    }
    void theLadyTastingTea() { // Fisher 1935: all four of eight right by chance in 1 of 70
        QVERIFY_NEAR(hypergeometric(4, 4, 4, 8), 1.0 / 70, 1e-12);
        QVERIFY_NEAR(hypergeometric(3, 4, 4, 8), 16.0 / 70, 1e-12);
        for (const auto& [marked, drawn, all] : {std::tuple{5U, 7U, 12U}, {3U, 3U, 20U}, {9U, 2U, 10U}}) {
            double sum = 0;
            for (unsigned k = 0; k <= std::min(marked, drawn); ++k) {
                if (drawn - k > all - marked) continue; // cannot be
                const double p = hypergeometric(k, marked, drawn, all);
                QVERIFY_REL(p, choose(marked, k) * choose(all - marked, drawn - k) / choose(all, drawn),
                            1e-9);
                sum += p;
            }
            QVERIFY_NEAR(sum, 1, 1e-12);
        }
    }
    void betaQuantilesMakeExactShares() { // Clopper and Pearson 1934: 2 of 9 at 95 % is 2.8 to 60.0 %
        QVERIFY_NEAR(betaQuantile(0.025, 2, 8), 0.0281, 5e-5);
        QVERIFY_NEAR(betaQuantile(0.975, 3, 7), 0.6001, 5e-5);
        QVERIFY_NEAR(betaQuantile(0.3, 1, 1), 0.3, 1e-12); // uniform
    }
    void theRootOfAGrowingFunctionIsFoundFromAnyBracket() {
        for (double root : {1e-3, 0.7, 12.0, 4e5})
            for (double hi : {2e-3, 1.0, 1e6}) {
                const auto f = [&](double x) { return std::log(x / root) + 0.1 * (x - root) / root; };
                QVERIFY_REL(rootOfGrowing(f, 1e-6, hi), root, 1e-9);
            }
    }
    void rainflowOfTheStandard() { // ASTM E1049-85, 5.4.4 and figure 6
        RainflowCounter counter;
        for (double value : {-2.0, 1.0, -3.0, 5.0, -1.0, 3.0, -4.0, 4.0, -2.0}) counter.add(value);
        std::map<double, double> counted;
        for (const CountedCycle& cycle : counter.closed()) counted[cycle.range] += cycle.count;
        for (const CountedCycle& half : counter.open()) counted[half.range] += half.count;
        const std::map<double, double> wanted{{3, 0.5}, {4, 1.5}, {6, 0.5}, {8, 1.0}, {9, 0.5}};
        QVERIFY(counted == wanted);
    }
    void turnsAreReversalsThatAreLargeEnough() {
        const std::vector<double> values{0, 1, 2, 1.8, 3, 3, -1, -0.9, -4, 2};
        QCOMPARE(turningPoints(values, 0), (std::vector<double>{0, 2, 1.8, 3, -1, -0.9, -4, 2}));
        QCOMPARE(turningPoints(values, 0.5), (std::vector<double>{0, 3, -4, 2}));
        const auto at = turningIndexes(values, 0.5);
        const auto points = turningPoints(values, 0.5);
        QCOMPARE(at.size(), points.size());
        for (std::size_t i = 0; i < at.size(); ++i) QCOMPARE(values[at[i]], points[i]);
        QVERIFY(turningPoints({}, 1).empty());
    }
};

IBUKI_TEST(TestDistributions)
#include "tst_distributions.moc"
