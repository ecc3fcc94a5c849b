// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/base/lazy.h"
#include "support/test_class.h"

#include <atomic>
#include <thread>
#include <vector>

using namespace ibuki;

namespace {

std::atomic<int> decoded{0};

int lengthOf(const std::string& stored) {
    ++decoded;
    if (stored.empty()) throw InputError("nothing", {});
    return static_cast<int>(stored.size());
}

} // namespace

class TestLazy : public QObject {
    Q_OBJECT
private slots:
    void init() { decoded = 0; }

    void itIsDecodedOnceForAllCopies() {
        const Lazy<int> value("four", lengthOf);
        const Lazy<int> copy = value; // NOLINT(performance-unnecessary-copy-initialization): that is the case
        QCOMPARE(decoded.load(), 0);
        QCOMPARE(*copy, 4);
        QCOMPARE(*value, 4);
        QCOMPARE(decoded.load(), 1);
    }
    void equalIsWhatDecodesAlike() {
        const Lazy<int> value("four", lengthOf);
        QVERIFY(value == value);
        QCOMPARE(decoded.load(), 0); // the same one needs no look
        QVERIFY(value == Lazy<int>(4));
        QVERIFY(!(value == Lazy<int>(5)));
        QVERIFY(Lazy<int>() == Lazy<int>(0));
    }
    void whatCannotBeReadThrowsAtEveryAsking() {
        const Lazy<int> broken("", lengthOf);
        QVERIFY_THROWS_EXCEPTION(InputError, static_cast<void>(*broken));
        QVERIFY_THROWS_EXCEPTION(InputError, static_cast<void>(*broken));
    }
    void aChangeLeavesCopiesAlone() {
        Lazy<int> value("four", lengthOf);
        const Lazy<int> before = value;
        value.change([](int& number) { number += 3; });
        QCOMPARE(*value, 7);
        QCOMPARE(*before, 4);
    }
    void manyThreadsGetOneValue() {
        const Lazy<int> value("twelve chars", lengthOf);
        std::atomic<int> sum{0};
        {
            std::vector<std::jthread> threads;
            for (int i = 0; i < 8; ++i) threads.emplace_back([&] { sum += *value; });
        }
        QCOMPARE(sum.load(), 8 * 12);
        QCOMPARE(decoded.load(), 1);
    }
};

IBUKI_TEST(TestLazy)
#include "tst_lazy.moc"
