// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/plan/order.h"
#include "support/near.h"
#include "support/test_class.h"

#include <map>
#include <set>

using namespace ibuki;

namespace {

OrderInput plain(std::size_t levels, int blocks, std::uint64_t seed = 1) {
    OrderInput input;
    input.levels.resize(levels);
    input.blocks = blocks;
    input.seed = seed;
    return input;
}

std::vector<std::size_t> levelsInBlock(const std::vector<OrderedMount>& order, int block) {
    std::vector<std::size_t> levels;
    for (const OrderedMount& mount : order)
        if (mount.block == block && mount.level) levels.push_back(*mount.level);
    return levels;
}

} // namespace

class TestOrder : public QObject {
    Q_OBJECT
private slots:
    void williamsSquaresBalancePlacesAndFollowers() { // Williams 1949
        for (std::size_t k = 2; k <= 9; ++k) {
            const auto rows = williamsRows(k);
            QCOMPARE(rows.size(), k % 2 == 0 ? k : 2 * k);
            const int each = k % 2 == 0 ? 1 : 2;
            std::map<std::pair<std::size_t, std::size_t>, int> at;
            std::map<std::pair<std::size_t, std::size_t>, int> follows;
            for (const auto& row : rows)
                for (std::size_t i = 0; i < k; ++i) {
                    ++at[{row[i], i}];
                    if (i > 0) ++follows[{row[i - 1], row[i]}];
                }
            QCOMPARE(at.size(), k * k);
            for (const auto& [where, count] : at) QCOMPARE(count, each);
            QCOMPARE(follows.size(), k * (k - 1));
            for (const auto& [pair, count] : follows) QCOMPARE(count, each);
        }
    }
    void everyBlockIsComplete() {
        for (std::uint64_t seed = 1; seed <= 200; ++seed) {
            const auto order = orderMounts(plain(5, 4, seed));
            QCOMPARE(order.size(), std::size_t{20});
            for (int block = 1; block <= 4; ++block) {
                const auto levels = levelsInBlock(order, block);
                QCOMPARE(std::set<std::size_t>(levels.begin(), levels.end()).size(), std::size_t{5});
            }
        }
    }
    void noLevelIsAlwaysFirst() {
        for (std::uint64_t seed = 1; seed <= 200; ++seed) {
            std::set<std::size_t> first;
            const auto order = orderMounts(plain(4, 4, seed));
            for (int block = 1; block <= 4; ++block) first.insert(levelsInBlock(order, block).front());
            QCOMPARE(first.size(), std::size_t{4}); // within one square each opens once
        }
    }
    void placesAreFairOverManySeeds() { // 10 000 seeds; within 4.5 standard errors of the middle
        constexpr int seeds = 10'000;
        constexpr std::size_t k = 5;
        constexpr int blocks = 3;
        std::vector<double> sum(k, 0);
        for (int seed = 0; seed < seeds; ++seed) {
            const auto order = orderMounts(plain(k, blocks, static_cast<std::uint64_t>(seed)));
            for (int block = 1; block <= blocks; ++block) {
                const auto levels = levelsInBlock(order, block);
                for (std::size_t i = 0; i < levels.size(); ++i) sum[levels[i]] += static_cast<double>(i + 1);
            }
        }
        const double se = std::sqrt((k * k - 1) / 12.0) / std::sqrt(static_cast<double>(seeds * blocks));
        for (double total : sum) QVERIFY_NEAR(total / (seeds * blocks), (k + 1) / 2.0, 4.5 * se);
    }
    void fairAlsoBesideConstrainedLevels() {
        constexpr int seeds = 10'000;
        std::vector<double> sum(4, 0);
        for (int seed = 0; seed < seeds; ++seed) {
            OrderInput input = plain(6, 2, static_cast<std::uint64_t>(seed));
            input.levels[4].placement = Placement::endsEvening;
            input.levels[5].placement = Placement::lastOfAll;
            const auto order = orderMounts(input);
            for (int block = 1; block <= 2; ++block) {
                const auto levels = levelsInBlock(order, block);
                for (std::size_t i = 0; i < 4; ++i) {
                    QVERIFY(levels[i] < 4);
                    sum[levels[i]] += static_cast<double>(i + 1);
                }
            }
        }
        const double se = std::sqrt(15 / 12.0) / std::sqrt(2.0 * seeds);
        for (double total : sum) QVERIFY_NEAR(total / (2.0 * seeds), 2.5, 4.5 * se);
    }
    void constrainedLevelsKeepTheirPlaces() { // property: random rules, every rule holds
        Random random(99);
        for (int round = 0; round < 2000; ++round) {
            const std::size_t k = 2 + static_cast<std::size_t>(random.uniform() * 7);
            OrderInput input =
                plain(k, 1 + static_cast<int>(random.uniform() * 5), static_cast<std::uint64_t>(round));
            input.checks = static_cast<int>(random.uniform() * 5);
            for (LevelRule& rule : input.levels) {
                rule.placement = static_cast<Placement>(static_cast<int>(random.uniform() * 6));
                if (random.uniform() < 0.3) rule.mostMounts = static_cast<int>(random.uniform() * 4);
            }
            const auto order = orderMounts(input);
            std::map<std::size_t, int> count;
            int checks = 0;
            int stage = 0; // first of all, blocks, last of all
            int block = 1;
            int rank = 0;
            for (const OrderedMount& mount : order) {
                if (!mount.level) {
                    ++checks;
                    continue;
                }
                ++count[*mount.level];
                const Placement placement = input.levels[*mount.level].placement;
                const int own = placement == Placement::firstOfAll  ? 0
                                : placement == Placement::lastOfAll ? 2
                                                                    : 1;
                QVERIFY(own >= stage);
                stage = own;
                if (own != 1) continue;
                if (mount.block != block) rank = 0;
                QVERIFY(mount.block >= block);
                block = mount.block;
                const int here = placement == Placement::lastInBlock   ? 1
                                 : placement == Placement::endsEvening ? 2
                                                                       : 0;
                QVERIFY(here >= rank);
                rank = here;
            }
            QCOMPARE(checks, count.empty() ? 0 : input.checks);
            for (std::size_t level = 0; level < k; ++level)
                QCOMPARE(count[level],
                         std::clamp(input.levels[level].mostMounts.value_or(input.blocks), 0, input.blocks));
        }
    }
    void checksStandAtBothEndsAndBetween() {
        OrderInput input = plain(4, 3);
        input.checks = 3;
        const auto order = orderMounts(input);
        QCOMPARE(order.size(), std::size_t{15});
        QVERIFY(!order.front().level);
        QVERIFY(!order.back().level);
        QVERIFY(!order[7].level);
    }
    void levelsOfOneMountStandTogether() {
        for (std::uint64_t seed = 1; seed <= 100; ++seed) {
            OrderInput input = plain(6, 3, seed);
            input.levels[1].together = input.levels[4].together = 0;
            for (int block = 1; block <= 3; ++block) {
                const auto levels = levelsInBlock(orderMounts(input), block);
                const auto at = [&](std::size_t level) {
                    return std::find(levels.begin(), levels.end(), level) - levels.begin();
                };
                QCOMPARE(std::abs(at(1) - at(4)), std::ptrdiff_t{1});
            }
        }
    }
    void aChainKeepsItsSequence() {
        OrderInput input = plain(3, 2);
        input.inSequence = true;
        input.levels[0].mostMounts = 1;
        const auto order = orderMounts(input);
        const std::vector<OrderedMount> expected{{0, 1}, {1, 2}, {1, 2}, {2, 3}, {2, 3}};
        QCOMPARE(order, expected);
    }
    void sameSeedSameOrderEverywhere() { // the very order, so that another machine must agree
        const auto order = orderMounts(plain(4, 2, 20310304));
        QCOMPARE(order, orderMounts(plain(4, 2, 20310304)));
        QVERIFY(order != orderMounts(plain(4, 2, 20310305)));
        std::string text;
        for (const OrderedMount& mount : order) text += static_cast<char>('A' + *mount.level);
        QCOMPARE(text, std::string("CBADDABC"));
    }
    void costsOfAFairOrderAreSmall() {
        const OrderCosts fair = orderCosts(orderMounts(plain(4, 4)), 4);
        QVERIFY_NEAR(fair.spread, 0, 1e-12); // a whole square: every level has the same mean place
        QVERIFY_NEAR(fair.driftInflation, 1, 1e-12);
        QVERIFY(fair.alwaysFirst.empty() && fair.gathered.empty() && fair.missing.empty());
    }
    void costsOfOneAfterTheOther() { // all of A, then all of B: 1 2 3 | 4 5 6
        const std::vector<OrderedMount> order{{0, 1}, {0, 1}, {0, 1}, {1, 2}, {1, 2}, {1, 2}};
        const OrderCosts costs = orderCosts(order, 2);
        QVERIFY_NEAR(costs.spread, 3, 1e-12);
        QCOMPARE(costs.gathered, (std::vector<std::size_t>{0, 1}));
        QCOMPARE(costs.missing.size(), std::size_t{2});
        // 1 + 3²/(4 · 2/3): sum of squares inside 2 + 2, weight 1/3 + 1/3
        QVERIFY_NEAR(costs.driftInflation, 1 + 9 / (4 * 2.0 / 3), 1e-12);
    }
    void
    driftInflationIsThatOfLeastSquares() { // against the covariance of the fitted model y = level + place
        const std::vector<OrderedMount> order{{0, 1}, {1, 1}, {2, 1}, {0, 2}, {2, 2},
                                              {1, 2}, {0, 3}, {1, 3}, {2, 3}};
        const OrderCosts costs = orderCosts(order, 3);
        // Level means of place: 4, 5.33…, 5.66…; pair 0–2 is the worst.
        const double inside =
            2 * 9 + (std::pow(2 - 16 / 3.0, 2) + std::pow(6 - 16 / 3.0, 2) + std::pow(8 - 16 / 3.0, 2))
            + (std::pow(3 - 17 / 3.0, 2) + std::pow(5 - 17 / 3.0, 2) + std::pow(9 - 17 / 3.0, 2));
        QVERIFY_NEAR(costs.driftInflation, 1 + std::pow(5 / 3.0, 2) / (inside * 2 / 3), 1e-12);
        QCOMPARE(costs.alwaysFirst, (std::vector<std::size_t>{0}));
    }
    void refusesWhatCannotBe() {
        QVERIFY_THROWS_EXCEPTION(InputError, orderMounts(plain(0, 3)));
        QVERIFY_THROWS_EXCEPTION(InputError, orderMounts(plain(3, 0)));
        OrderInput input = plain(3, 2);
        input.checks = -1;
        QVERIFY_THROWS_EXCEPTION(InputError, orderMounts(input));
        input.checks = 0;
        input.levels[0].together = input.levels[1].together = 0;
        input.levels[1].placement = Placement::endsEvening;
        QVERIFY_THROWS_EXCEPTION(InputError, orderMounts(input));
    }
};
IBUKI_TEST(TestOrder)
#include "tst_order.moc"
