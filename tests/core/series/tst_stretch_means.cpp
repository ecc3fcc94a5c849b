// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/series/stretch_means.h"
#include "support/test_class.h"

#include <cmath>
#include <limits>

using namespace ibuki;

class TestStretchMeans : public QObject {
    Q_OBJECT
private slots:
    void peaksAndTheSizeAreKept() {
        StretchMeans curve(0.05, 1'200);
        for (int i = 0; i < 300'000; ++i) curve.take(0.1 * i, i == 123'456 ? 99 : 40);
        QVERIFY(curve.stretches().size() <= 1'200);
        double highest = 0;
        double sum = 0;
        int count = 0;
        double before = -1;
        for (const MeanStretch& stretch : curve.stretches()) {
            highest = std::max(highest, stretch.highest);
            sum += stretch.sum;
            count += stretch.count;
            QVERIFY(stretch.beginS > before);
            before = stretch.beginS;
        }
        QCOMPARE(highest, 99.0);
        QCOMPARE(count, 300'000);
        QCOMPARE(sum, 300'000 * 40.0 + 59);
    }
    /// However often it was widened, a stretch's mean is that of the values between its begin and the next
    /// one's.
    void aMeanIsOfItsStretch() {
        const auto value = [](int i) { return 20 + 10 * std::sin(0.003 * i); };
        for (const int values : {100, 1'000, 30'000}) {
            StretchMeans means(1, 50);
            for (int i = 0; i < values; ++i) means.take(0.7 * i, value(i));
            const auto& all = means.stretches();
            QVERIFY(all.size() <= 50);
            int i = 0;
            for (std::size_t k = 0; k < all.size(); ++k) {
                double sum = 0;
                int count = 0;
                for (; i < values && (k + 1 == all.size() || 0.7 * i < all[k + 1].beginS); ++i, ++count)
                    sum += value(i);
                QCOMPARE(all[k].count, count);
                QVERIFY(std::abs(all[k].mean() - sum / count) < 1e-9);
                QVERIFY(k + 1 == all.size() || all[k + 1].beginS - all[k].beginS >= means.widthS());
            }
            QCOMPARE(i, values);
        }
    }
    void theOldestGo() {
        StretchMeans minutes(60, 3, StretchMeans::Overflow::forgetOldest);
        for (int second = 0; second < 600; ++second) minutes.take(second, second / 60);
        QCOMPARE(minutes.stretches().size(), 3UL);
        QCOMPARE(minutes.widthS(), 60.0);
        for (int k = 0; k < 3; ++k)
            QCOMPARE(minutes.stretches()[static_cast<std::size_t>(k)].mean(), 7.0 + k);
    }
    void whatIsNoNumberIsLeftOut() {
        StretchMeans means(1, 10);
        means.take(0, std::numeric_limits<double>::quiet_NaN());
        means.take(0, std::numeric_limits<double>::infinity());
        QVERIFY(means.stretches().empty());
        means.take(5, 2);
        means.take(5.5, std::numeric_limits<double>::quiet_NaN());
        QCOMPARE(means.stretches().size(), 1UL);
        QCOMPARE(means.stretches()[0].mean(), 2.0);
    }
    /// Hours without a value, or a clock that jumps: no loop without end, no stretch without a value.
    void aGapIsNoStretch() {
        StretchMeans means(0.05, 4);
        for (const double t : {0.0, 1e-9, 1e9, 1e9 + 1, 1e15, 1e15, 1e16}) means.take(t, 1);
        QVERIFY(means.stretches().size() <= 4);
        for (const MeanStretch& stretch : means.stretches()) QVERIFY(stretch.count > 0);
    }
};

IBUKI_TEST(TestStretchMeans)
#include "tst_stretch_means.moc"
