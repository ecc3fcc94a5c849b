// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/comparison/tiers.h"
#include "support/test_class.h"

#include <QtTest>
#include <algorithm>
#include <set>

using namespace ibuki;

class TestTiers : public QObject {
    Q_OBJECT
private slots:
    void workedExample() { // methods D.13: A, D, B, C by rank; B–A, C–A, D–C differ
        const std::vector<int> ranks{0, 2, 3, 1}; // A B C D
        const Tiers tiers = letterTiers(ranks, {{1, 0}, {2, 0}, {3, 2}});
        QCOMPARE(tiers.letters, (std::vector<std::string>{"a", "bc", "c", "ab"}));
    }
    void lettersNeedNotBeNeighbours() { // methods D.13: only (2,3) of {1,2,3,4}
        const Tiers tiers = letterTiers({0, 1, 2, 3}, {{1, 2}});
        QCOMPARE(tiers.letters, (std::vector<std::string>{"ab", "a", "b", "ab"}));
    }
    void nothingReported() {
        QCOMPARE(letterTiers({0, 1, 2}, {}).letters, (std::vector<std::string>{"a", "a", "a"}));
    }
    void nobody() { QVERIFY(letterTiers({}, {}).letters.empty()); }
    void aLetterIsSharedExactlyByWhatWasNotTold() { // property, 300 random significance patterns
        Random random(3);
        for (int trial = 0; trial < 300; ++trial) {
            const int n = 2 + trial % 7;
            std::vector<int> ranks(static_cast<std::size_t>(n));
            for (int i = 0; i < n; ++i) ranks[static_cast<std::size_t>(i)] = i;
            std::set<std::pair<int, int>> different;
            for (int i = 0; i < n; ++i)
                for (int j = i + 1; j < n; ++j)
                    if (random.uniform() < 0.4) different.emplace(i, j);
            const Tiers tiers = letterTiers(ranks, {different.begin(), different.end()});
            for (int i = 0; i < n; ++i)
                for (int j = i + 1; j < n; ++j) {
                    const std::string& a = tiers.letters[static_cast<std::size_t>(i)];
                    const std::string& b = tiers.letters[static_cast<std::size_t>(j)];
                    const bool shared = std::any_of(a.begin(), a.end(),
                                                    [&](char c) { return b.find(c) != std::string::npos; });
                    QCOMPARE(shared, !different.contains({i, j}));
                }
        }
    }
    void moreTiersThanLettersKeepTheirNames() { // each group told apart from all but its neighbours
        constexpr int n = 120;
        std::vector<int> ranks(n);
        for (int i = 0; i < n; ++i) ranks[static_cast<std::size_t>(i)] = i;
        std::vector<std::pair<int, int>> different;
        for (int i = 0; i < n; ++i)
            for (int j = i + 2; j < n; ++j) different.emplace_back(i, j);
        const Tiers tiers = letterTiers(ranks, different);
        QCOMPARE(tiers.members.size(), std::size_t{n - 1});
        QCOMPARE(tiers.letters[0], std::string("a"));
        QCOMPARE(tiers.letters[52], std::string("Za'"));
        QCOMPARE(tiers.letters[119], std::string("o''"));
    }
    void tiersWithoutNumberAreLeftOut() { // pairs told apart inside each of 20 threes: 3^20 tiers
        std::vector<int> ranks(60);
        for (int i = 0; i < 60; ++i) ranks[static_cast<std::size_t>(i)] = i;
        std::vector<std::pair<int, int>> different;
        for (int i = 0; i < 60; i += 3) {
            different.emplace_back(i, i + 1);
            different.emplace_back(i, i + 2);
            different.emplace_back(i + 1, i + 2);
        }
        QVERIFY(letterTiers(ranks, different).letters.empty());
    }
};

IBUKI_TEST(TestTiers)
#include "tst_tiers.moc"
