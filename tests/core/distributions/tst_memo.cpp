// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/distributions/memo.h"
#include "support/test_class.h"

#include <QtTest>
#include <thread>

using namespace ibuki;

class TestMemo : public QObject {
    Q_OBJECT
private slots:
    void theSameArgumentsAreMadeOnce() {
        Memo memo;
        int made = 0;
        const auto make = [&] { return 10.0 + ++made; };
        QCOMPARE(memo({0.95, 3, 6}, make), 11.0);
        QCOMPARE(memo({0.95, 3, 6}, make), 11.0);
        QCOMPARE(memo({0.95, 3, 7}, make), 12.0);
        QCOMPARE(memo({0.95, 3}, make), 13.0);
        QCOMPARE(made, 3);
    }
    void itForgetsRatherThanGrow() {
        Memo memo;
        int made = 0;
        for (int i = 0; i < 20'000; ++i) memo({double(i)}, [&] { return double(++made); });
        QCOMPARE(made, 20'000);
        memo({0.0}, [&] { return double(++made); });
        QCOMPARE(made, 20'001); // was dropped meanwhile
    }
    void threadsAgree() {
        Memo memo;
        std::atomic<int> wrong = 0;
        {
            std::vector<std::jthread> threads;
            for (int t = 0; t < 4; ++t)
                threads.emplace_back([&] {
                    for (int i = 0; i < 2'000; ++i)
                        if (memo({double(i % 97)}, [&] { return std::sqrt(i % 97); }) != std::sqrt(i % 97))
                            ++wrong;
                });
        }
        QCOMPARE(wrong.load(), 0);
    }
};

IBUKI_TEST(TestMemo)
#include "tst_memo.moc"
