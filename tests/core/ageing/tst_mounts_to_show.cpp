// SPDX-License-Identifier: GPL-3.0-or-later
// How many mounts show that nothing changed, against the two one-sided tests carried out on drawn samples.

#include "core/ageing/break_in.h"
#include "core/base/random.h"
#include "core/distributions/distributions.h"
#include "core/distributions/summary.h"
#include "support/near.h"
#include "support/test_class.h"

using namespace ibuki;

namespace {

/// Share of samples of n changes without any mean whose 90 % interval lies within the margin.
double shown(int n, double sd, double margin, int samples, std::uint64_t seed) {
    Random random(seed);
    const double t = studentQuantile(0.95, n - 1);
    int within = 0;
    std::vector<double> changes(static_cast<std::size_t>(n));
    for (int k = 0; k < samples; ++k) {
        for (double& change : changes) change = sd * random.normal();
        const double half = t * *sampleSd(changes) / std::sqrt(n);
        within += std::abs(mean(changes)) + half < margin;
    }
    return static_cast<double>(within) / samples;
}

} // namespace

class TestMountsToShow : public QObject {
    Q_OBJECT

private slots:
    /// 20,000 samples: a share near 0.9 has a standard error of 0.0021; 0.01 is 4.7 of them.
    void theTestsShowItAsOftenAsPromised_data() {
        QTest::addColumn<double>("sd");
        for (const double sd : {0.2, 0.35, 0.5, 0.8, 1.2, 1.6}) QTest::addRow("%.2f K", sd) << sd;
    }
    void theTestsShowItAsOftenAsPromised() {
        QFETCH(double, sd);
        const auto mounts = mountsToShowSame(sd, 1);
        QVERIFY(mounts.has_value());
        QVERIFY(*mounts >= 2);
        const double enough = shown(*mounts, sd, 1, 20'000, 81);
        QVERIFY2(enough > 0.89, qPrintable(QString("%1 of %2 mounts").arg(enough).arg(*mounts)));
        if (*mounts > 2) {
            const double fewer = shown(*mounts - 1, sd, 1, 20'000, 82);
            QVERIFY2(fewer < 0.91, qPrintable(QString("%1 of %2 mounts").arg(fewer).arg(*mounts - 1)));
        }
    }
    void onlyTheRatioCounts() {
        for (const double sd : {0.1, 0.4, 1.1}) {
            const auto plain = mountsToShowSame(sd, 0.8);
            QCOMPARE(mountsToShowSame(1'000 * sd, 800), plain);
            QCOMPARE(mountsToShowSame(sd / 1'000, 0.0008), plain);
        }
    }
    void moreScatterAsksForMore() {
        int before = 0;
        for (double sd = 0.05; sd < 1.5; sd += 0.05) {
            const auto mounts = mountsToShowSame(sd, 1);
            QVERIFY(mounts.has_value());
            QVERIFY(*mounts >= before);
            before = *mounts;
        }
        QVERIFY(before > 10);
    }
    void
    whatNoEveningsWouldShowIsSaidSo() { // 60 mounts of sd 3 know a mean to 0.39 K: not within 0.5 in 9 of 10
        QVERIFY(!mountsToShowSame(3, 0.5));
        QVERIFY(!mountsToShowSame(1e6, 1));
    }
};

IBUKI_TEST(TestMountsToShow)
#include "tst_mounts_to_show.moc"
