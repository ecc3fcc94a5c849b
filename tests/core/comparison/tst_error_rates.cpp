// SPDX-License-Identifier: GPL-3.0-or-later
// Stated error rates against simulation: short versions with a bound of a stated false-alarm rate.

#include "core/base/random.h"
#include "core/comparison/compare.h"
#include "core/distributions/summary.h"
#include "core/reduce/reduce.h"
#include "core/series/autocorrelation.h"
#include "core/simulate/simulated_bench.h"
#include "support/near.h"
#include "support/test_class.h"

using namespace ibuki;

class TestErrorRates : public QObject {
    Q_OBJECT

    static std::vector<double> autocorrelated(Random& random, std::size_t n, double rho, double sd) {
        std::vector<double> x;
        double state = sd * random.normal();
        for (std::size_t i = 0; i < n; ++i) {
            x.push_back(60 + state);
            state = rho * state + sd * std::sqrt(1 - rho * rho) * random.normal();
        }
        return x;
    }

private slots:
    void windowMeanCoversTheTruthUnderAutocorrelation_data() {
        QTest::addColumn<double>("rho");
        for (double rho : {0.0, 0.5, 0.8}) QTest::addRow("rho %g", rho) << rho;
    }
    void windowMeanCoversTheTruthUnderAutocorrelation() {
        // 500 windows of 1200 samples; a 95 % interval misses Binomial(500, 0.05): 25 ± 4.9. Below 460 hits
        // or above 495 has probability under 1e-3 even for a true coverage of 0.94 to 0.97.
        QFETCH(double, rho);
        Random random(101);
        int hits = 0;
        for (int trial = 0; trial < 500; ++trial) {
            const auto x = autocorrelated(random, 1200, rho, 0.4);
            hits += std::abs(mean(x) - 60) < 1.96 * *meanStandardError(x) ? 1 : 0;
        }
        QVERIFY2(hits >= 455 && hits <= 497, qPrintable(QString::number(hits)));
    }
    void theNaiveErrorWouldNotCover() { // why it matters: σ/√n covers well under 80 % at rho 0.8
        Random random(102);
        int hits = 0;
        for (int trial = 0; trial < 300; ++trial) {
            const auto x = autocorrelated(random, 1200, 0.8, 0.4);
            hits += std::abs(mean(x) - 60) < 1.96 * *sampleSd(x) / std::sqrt(1200.0) ? 1 : 0;
        }
        QVERIFY2(hits < 240, qPrintable(QString::number(hits)));
    }
    void
    slopeIntervalCoversTheTruth() { // 90 % interval, 400 series: below 340 has probability under 1e-2 at 0.88
        Random random(103);
        int hits = 0;
        std::vector<double> t;
        for (int i = 0; i < 300; ++i) t.push_back(i);
        for (int trial = 0; trial < 400; ++trial) {
            auto x = autocorrelated(random, 300, 0.3, 0.3);
            for (std::size_t i = 0; i < x.size(); ++i) x[i] += 0.001 * t[i];
            hits += fitSlope(t, x)->interval(0.9).contains(0.001) ? 1 : 0;
        }
        QVERIFY2(hits >= 340 && hits <= 385, qPrintable(QString::number(hits)));
    }
    void tukeyIntervalsHoldTogether() { // all six differences inside at once in 95 % of 300 studies
        Random random(104);
        const double means[] = {24, 24.7, 25.5, 28};
        int all = 0;
        for (int trial = 0; trial < 300; ++trial) {
            std::vector<TableRun> runs;
            for (int g = 0; g < 4; ++g)
                for (int m = 0; m < 3; ++m)
                    runs.push_back({std::string(1, char('A' + g)), std::to_string(m),
                                    means[g] + 0.4 * random.normal(), false});
            const Comparison comparison = compare(runs);
            bool inside = true;
            for (const PairComparison& pair : comparison.pairs)
                inside = inside && pair.ci->contains(means[pair.a] - means[pair.b]);
            all += inside ? 1 : 0;
        }
        QVERIFY2(all >= 270 && all <= 298, qPrintable(QString::number(all))); // 285 expected, sd 3.8
    }
    void equivalenceIsSeldomClaimedAtTheMargin() {
        // Two materials exactly one margin apart: the two one-sided tests may claim equivalence in at most 5
        // %.
        Random random(105);
        int claimed = 0;
        for (int trial = 0; trial < 600; ++trial) {
            std::vector<TableRun> runs;
            for (int m = 0; m < 6; ++m) {
                runs.push_back({"A", std::to_string(m), 25 + 0.3 * random.normal(), false});
                runs.push_back({"B", std::to_string(m), 26 + 0.3 * random.normal(), false});
            }
            claimed += compare(runs).pairs.front().verdict == Verdict::equivalent ? 1 : 0;
        }
        QVERIFY2(claimed <= 50, qPrintable(QString::number(claimed))); // 30 expected at most, sd 5.3
    }
    void asymptotesOfSimulatedRunsCoverTheTruth() {
        // One slow constant in the fitted part (a loop), stopped at about two of it: 60 runs, at least 51
        // covered (probability of fewer under 1e-3 at 0.95).
        int hits = 0;
        int reported = 0;
        for (std::uint64_t seed = 1; seed <= 60; ++seed) {
            SimulatedBench bench;
            bench.layers = {{0.26, 0.05}, {8, 0.05}, {100, 0.035}, {1800, 0.10}};
            bench.sensorStepK = 0.25;
            bench.coreSpreadK = 0;
            bench.cores = 1;
            bench.ambientSwingK = 0;
            bench.ambientDriftKPerH = 0;
            SimulatedProtocol protocol;
            protocol.loadS = 700;
            const SimulatedRun run = simulate(bench, protocol, seed);
            const Steady steady = reduce(run.trace).main()->steady;
            if (!steady.asymptoteIntervalK) continue;
            ++reported;
            hits += steady.asymptoteIntervalK->contains(run.trueDeltaK) ? 1 : 0;
        }
        QVERIFY2(reported >= 55, qPrintable(QString::number(reported)));
        QVERIFY2(hits >= 0.85 * reported, qPrintable(QString("%1 of %2").arg(hits).arg(reported)));
    }
};

IBUKI_TEST(TestErrorRates)
#include "tst_error_rates.moc"
