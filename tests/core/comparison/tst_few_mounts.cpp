// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/few_mounts.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

class TestFewMounts : public QObject {
    Q_OBJECT
private slots:
    void holmOfTheExample() { // methods D.7: DS1, pooled t
        const std::vector<double> raw{0.0612651, 8.7748e-5, 0.277770, 0.00102152, 0.00236082, 0.0297887};
        const double expected[] = {0.122530, 5.2649e-4, 0.277770, 0.00510759, 0.00944327, 0.0893662};
        const auto adjusted = holm(raw);
        for (std::size_t i = 0; i < raw.size(); ++i) QVERIFY_REL(adjusted[i], expected[i], 1e-5);
        QVERIFY(holm({}).empty());
        QCOMPARE(holm(std::vector<double>{0.9, 0.8}), (std::vector<double>{1, 1}));
    }
    void theSmallestThatFewMountsCanGive_data() {
        QTest::addColumn<int>("n");
        QTest::addColumn<double>("p");
        QTest::newRow("2") << 2 << 0.3333; // methods D.9
        QTest::newRow("3") << 3 << 0.1000;
        QTest::newRow("4") << 4 << 0.0286;
        QTest::newRow("5") << 5 << 0.0079;
        QTest::newRow("6") << 6 << 0.0022;
    }
    void theSmallestThatFewMountsCanGive() {
        QFETCH(int, n);
        QFETCH(double, p);
        std::vector<double> low;
        std::vector<double> high;
        for (int i = 0; i < n; ++i) {
            low.push_back(1e6 + 0.1 * i);
            high.push_back(1e6 + 10 + 0.1 * i);
        }
        const auto apart = permutationTest(low, high);
        QVERIFY_NEAR(apart->p, p, 5e-5);
        QCOMPARE(apart->p, apart->smallest);
        QVERIFY(permutationTest(low, low)->p > 0.99);
    }
    void unequalGroupsAreCountedByHand() {
        // {1} against {2, 3}: the sums of one value are 1, 2, 3; as far from their mean 2 as 1 are 1 and 3.
        const auto found = permutationTest(std::vector<double>{1}, std::vector<double>{2, 3});
        QVERIFY_NEAR(found->p, 2.0 / 3, 1e-12);
        QVERIFY_NEAR(found->smallest, 1.0 / 3, 1e-12);
    }
    void tooManyWaysAreNotTried() {
        QVERIFY(!permutationTest(std::vector<double>(15, 1.0), std::vector<double>(15, 2.0)));
        QVERIFY(!permutationTest({}, std::vector<double>{1}));
    }
    void aPairIsDealtOutBesideAllOthers() {
        const Comparison three = compare({{"A", "1", 24.0},
                                          {"A", "2", 24.4},
                                          {"A", "3", 24.2},
                                          {"B", "4", 25.0},
                                          {"B", "5", 25.4},
                                          {"B", "6", 25.2},
                                          {"C", "7", 25.1},
                                          {"C", "8", 25.3},
                                          {"C", "9", 25.5}});
        const auto found = permutationOf(three, 0); // A − B, wholly apart: 2 of 20 ways
        QVERIFY(found && found->holm);
        QCOMPARE(found->test.p, 0.1);
        QCOMPARE(*found->holm, std::min(1.0, 3 * 0.1));
        std::vector<TableRun> many;
        for (int i = 0; i < 30; ++i)
            many.push_back(
                {std::string(1, static_cast<char>('A' + i / 10)), std::to_string(i), 40.0 + i % 7});
        const auto dear = permutationOf(compare(many), 0); // 184,756 ways each: this pair only
        QVERIFY(dear && !dear->holm);
        QVERIFY(!permutationOf(compare({{"A", "1", 24.0}, {"B", "2", 25.0}, {"B", "3", 25.4}}), 0));
    }
};

IBUKI_TEST(TestFewMounts)
#include "tst_few_mounts.moc"
