// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/comparison/curve_test.h"
#include "core/comparison/dealing.h"
#include "core/comparison/few_mounts.h"
#include "support/near.h"
#include "support/test_class.h"

#include <bit>
#include <numeric>
#include <set>

using namespace ibuki;

class TestDealing : public QObject {
    Q_OBJECT

    /// Every deal of a group of k: subsets by the bits of a number.
    static double permutationPByBits(const std::vector<double>& values, std::size_t k) {
        const std::size_t n = values.size();
        const auto differenceOf = [&](unsigned bits) {
            double in = 0;
            double out = 0;
            for (std::size_t i = 0; i < n; ++i) (bits >> i & 1U ? in : out) += values[i];
            return std::abs(in / static_cast<double>(k) - out / static_cast<double>(n - k));
        };
        const double seen = differenceOf((1U << k) - 1);
        int all = 0;
        int extreme = 0;
        for (unsigned bits = 0; bits < 1U << n; ++bits) {
            if (static_cast<std::size_t>(std::popcount(bits)) != k) continue;
            ++all;
            extreme += differenceOf(bits) >= seen - 1e-9 ? 1 : 0;
        }
        return static_cast<double>(extreme) / all;
    }

private slots:
    void waysFollowPascalsTriangle() {
        std::vector<double> row{1};
        for (std::size_t n = 0; n <= 50; ++n) {
            for (std::size_t k = 0; k <= n; ++k) QVERIFY_REL(waysToDeal(n, k), row[k], 1e-12);
            std::vector<double> below(row.size() + 1, 1);
            for (std::size_t k = 1; k < row.size(); ++k) below[k] = row[k - 1] + row[k];
            row = below;
        }
        QVERIFY(waysToDeal(5'000, 2'500) > 1e300); // no more than a double holds, and no exception
    }
    void everyDealComesOnceAndInOrder() {
        for (std::size_t n = 1; n <= 9; ++n)
            for (std::size_t k = 1; k <= n; ++k) {
                std::vector<std::size_t> chosen(k);
                std::iota(chosen.begin(), chosen.end(), std::size_t{0});
                std::set<std::vector<std::size_t>> seen;
                std::vector<std::size_t> before;
                do {
                    QVERIFY(std::is_sorted(chosen.begin(), chosen.end()) && chosen.back() < n);
                    QVERIFY(before.empty() || before < chosen);
                    QVERIFY(seen.insert(chosen).second);
                    before = chosen;
                } while (nextDeal(chosen, n));
                QCOMPARE(static_cast<double>(seen.size()), waysToDeal(n, k));
                QCOMPARE(chosen, before); // after the last it stays
            }
    }
    void thePermutationTestIsTheShareOfAllDeals() { // second road: subsets by bits
        Random random(61);
        for (int round = 0; round < 60; ++round) {
            const std::size_t a = 1 + static_cast<std::size_t>(5 * random.uniform());
            const std::size_t b = 1 + static_cast<std::size_t>(5 * random.uniform());
            std::vector<double> values(a + b);
            for (double& value : values) // rounded, so that there are ties
                value = std::round(10 * (45 + random.normal() + (round % 3))) / 10;
            const std::vector<double> first(values.begin(), values.begin() + static_cast<std::ptrdiff_t>(a));
            const std::vector<double> second(values.begin() + static_cast<std::ptrdiff_t>(a), values.end());
            const auto test = permutationTest(first, second);
            QVERIFY(test);
            QVERIFY_NEAR(test->p, permutationPByBits(values, a), 1e-12);
            QVERIFY_NEAR(test->smallest, (a == b ? 2 : 1) / waysToDeal(a + b, a), 1e-12);
            QVERIFY(test->p >= test->smallest - 1e-12);
        }
    }
    void anOffsetChangesNothing() {
        const std::vector<double> a{41.0, 41.2, 41.9};
        const std::vector<double> b{42.1, 42.6, 42.0};
        std::vector<double> highA = a;
        std::vector<double> highB = b;
        for (double& value : highA) value += 1e6;
        for (double& value : highB) value += 1e6;
        QCOMPARE(permutationTest(highA, highB)->p, permutationTest(a, b)->p);
        QCOMPARE(permutationTest(a, b)->p, permutationTest(b, a)->p);
    }
    void thereIsNoTestOfTooManyOrOfNone() {
        QVERIFY(!permutationTest({}, std::vector<double>{1}));
        const std::vector<double> many(40, 1.0);
        QVERIFY(!permutationTest(many, many));
    }
    void curvesOfOnePointAreTestedAsTheirValues() { // |t| grows with the difference of means: the same deals
        Random random(62);
        for (int round = 0; round < 30; ++round) {
            std::vector<std::vector<double>> a(3);
            std::vector<std::vector<double>> b(4);
            std::vector<double> first;
            std::vector<double> second;
            for (auto& curve : a) curve = {first.emplace_back(random.normal())};
            for (auto& curve : b) curve = {second.emplace_back(0.7 + random.normal())};
            QVERIFY_NEAR(compareCurves(a, b, 0.95).p, permutationTest(first, second)->p, 1e-12);
        }
    }
    void holmHoldsTheFamily() { // against the step-down by hand
        const std::vector<double> p{0.04, 0.01, 0.03, 0.2};
        const auto adjusted = holm(p);
        QVERIFY_NEAR(adjusted[1], 0.04, 1e-15); // 4 × 0.01
        QVERIFY_NEAR(adjusted[2], 0.09, 1e-15); // 3 × 0.03
        QVERIFY_NEAR(adjusted[0], 0.09, 1e-15); // 2 × 0.04, no less than the one before
        QVERIFY_NEAR(adjusted[3], 0.2, 1e-15);
        QVERIFY(holm({}).empty());
    }
};

IBUKI_TEST(TestDealing)
#include "tst_dealing.moc"
