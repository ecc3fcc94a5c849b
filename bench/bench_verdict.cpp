// SPDX-License-Identifier: GPL-3.0-or-later
// What a verdict costs and what its error rates are. bench-verdict [FAMILIES]

#include "core/base/random.h"
#include "core/comparison/compare.h"
#include "core/comparison/order_statistics.h"
#include "core/series/sweep.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <fmt/format.h>

using namespace ibuki;

namespace {

double msSince(std::chrono::steady_clock::time_point begin) {
    return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count();
}

/// Best of ten, so that what else the machine does counts least.
template <class Work> double bestMs(const Work& work) {
    double best = 1e300;
    for (int i = 0; i < 10; ++i) {
        const auto begin = std::chrono::steady_clock::now();
        work();
        best = std::min(best, msSince(begin));
    }
    return best;
}

std::vector<TableRun> campaign(Random& random, int materials, int mounts, int runs, bool unequal,
                               double step) {
    std::vector<TableRun> all;
    for (int g = 0; g < materials; ++g)
        for (int m = 0; m < mounts; ++m) {
            const double mount = 30 + step * g + 0.4 * random.normal();
            for (int r = 0; r < (unequal ? 1 + (m + g) % runs : runs); ++r)
                all.push_back({std::to_string(g), std::to_string(m), mount + 0.1 * random.normal(), false,
                               std::to_string(m), static_cast<double>(m * materials + g)});
        }
    return all;
}

void cost() {
    Random random(7);
    CompareOptions plain;
    CompareOptions blocks;
    blocks.blocks = true;
    CompareOptions welch;
    welch.spread = SpreadModel::welch;
    for (const double step : {0.0, 0.15}) {
        const auto equal = campaign(random, 12, 10, 3, false, step);
        const auto unequal = campaign(random, 12, 10, 3, true, step);
        fmt::print("12 materials x 10 mounts x 3 runs, {}:\n", step > 0 ? "0.15 K apart" : "identical");
        fmt::print("  REML and Tukey, equal runs   {:7.1f} ms\n", bestMs([&] { compare(equal, plain); }));
        fmt::print("  REML and Tukey, unequal runs {:7.1f} ms\n", bestMs([&] { compare(unequal, plain); }));
        fmt::print("  blocks                       {:7.1f} ms\n", bestMs([&] { compare(equal, blocks); }));
        fmt::print("  Games-Howell                 {:7.1f} ms\n", bestMs([&] { compare(equal, welch); }));
        const Comparison comparison = compare(equal, plain);
        fmt::print("  chances of being best        {:7.1f} ms\n", bestMs([&] { chancesOfBest(comparison); }));
    }
}

/// The same family by R's aov and TukeyHSD, where Rscript is there: mount means, all pairs.
void besideR() {
    if (std::system("command -v Rscript >/dev/null 2>&1") != 0) { // NOLINT(concurrency-mt-unsafe)
        fmt::print("Rscript is not on this machine: no figure of R beside these\n");
        return;
    }
    std::fflush(stdout);
    const int status = std::system( // NOLINT(concurrency-mt-unsafe)
        "Rscript -e 'set.seed(7); g <- gl(12, 10); y <- 30 + 0.15 * as.integer(g) + rnorm(120, sd = 0.4);"
        " f <- function() TukeyHSD(aov(y ~ g)); f(); t <- sapply(1:10, function(i) "
        "system.time(f())[[\"elapsed\"]]);"
        " cat(sprintf(\"  R, aov + TukeyHSD on the mount means %7.1f ms\\n\", 1000 * min(t)))'");
    if (status != 0) fmt::print("R did not answer\n");
}

/// Share of families of five identical materials × 4 mounts × 2 runs in which any pair is called different,
/// and of intervals that hold their truth.
void errorRate(const char* name, int families, const CompareOptions& options, double day, double drift,
               bool unequal) {
    Random random(11);
    int wrong = 0;
    for (int f = 0; f < families; ++f) {
        auto runs = campaign(random, 5, 4, 2, unequal, 0);
        double days[4];
        for (double& one : days) one = day * random.normal();
        for (TableRun& run : runs) run.value += days[std::atoi(run.block.c_str())] + drift * run.order;
        const Comparison comparison = compare(runs, options);
        wrong += std::any_of(comparison.pairs.begin(), comparison.pairs.end(),
                             [](const PairComparison& pair) { return pair.verdict == Verdict::different; })
                     ? 1
                     : 0;
    }
    const double share = 100.0 * wrong / families;
    fmt::print("  {:<16} {:5.2f} % of families (+- {:.2f})\n", name, share,
               196 * std::sqrt(0.05 * 0.95 / families));
}

/// How often intervals at 95 % hold their truth.
class Coverage {
public:
    explicit Coverage(const char* name) : name_(name) {}
    void count(const std::optional<Interval>& ci, double truth) {
        if (!ci) return;
        ++tries_;
        if (ci->lo <= truth && truth <= ci->hi) ++held_;
    }
    void print() const {
        if (tries_ == 0) return;
        fmt::print("  {:<34} {:6.2f} % (+- {:.2f})\n", name_, 100.0 * held_ / tries_,
                   196 * std::sqrt(0.05 * 0.95 / tries_));
    }

private:
    const char* name_;
    int tries_ = 0;
    int held_ = 0;
};

/// Two materials of five mounts that truly differ by `gap`, mounts scattering by 0.4 and `wider` times that.
std::vector<TableRun> pairOf(Random& random, double gap, double wider, double drift, double follow) {
    std::vector<TableRun> runs;
    for (int m = 0; m < 10; ++m) {
        const bool second = m % 2 != 0;
        TableRun run{second ? "B" : "A", std::to_string(m), 0};
        run.order = m;
        run.covariate = 22 + random.normal();
        run.value = 40 + (second ? gap : 0) + 0.4 * (second ? wider : 1) * random.normal() + drift * m
                    + follow * (run.covariate - 22);
        runs.push_back(run);
    }
    return runs;
}

void pairCoverage(int trials) {
    Random random(21);
    Coverage mean("mean of a level");
    Coverage pair("difference of two (Student)");
    Coverage welch("difference, own spreads (Welch)");
    Coverage slope("drift a mount");
    Coverage covariate("slope over the room");
    Coverage adjusted("difference with the room taken out");
    for (int t = 0; t < trials; ++t) {
        CompareOptions options;
        options.mostFurtherMounts = 0;
        const Comparison plain = compare(pairOf(random, 0.7, 1, 0, 0), options);
        mean.count(plain.groups[0].ci, 40);
        pair.count(plain.pairs[0].ci, -0.7);
        options.spread = SpreadModel::welch;
        welch.count(compare(pairOf(random, 0.7, 2.5, 0, 0), options).pairs[0].ci, -0.7);
        options.spread = SpreadModel::pooled;
        options.drift = true;
        if (const auto found = compare(pairOf(random, 0.7, 1, 0.05, 0), options).drift)
            slope.count(found->ci, 0.05);
        options.drift = false;
        options.covariate = true;
        const Comparison followed = compare(pairOf(random, 0.7, 1, 0, 0.8), options);
        if (followed.covariate) covariate.count(followed.covariate->ci, 0.8);
        adjusted.count(followed.pairs[0].ci, -0.7);
    }
    for (const Coverage* one : {&mean, &pair, &welch, &slope, &covariate, &adjusted}) one->print();
}

/// Two materials swept over four powers in four mounts each: slopes, the gap, where they change places.
void sweepCoverage(int trials) {
    Random random(23);
    Coverage slope("slope over power");
    Coverage gap("gap at a power");
    Coverage crossover("crossover (Fieller)");
    for (int t = 0; t < trials; ++t) {
        std::vector<SweepPoint> points;
        for (std::int64_t g = 0; g < 2; ++g)
            for (std::int64_t m = 0; m < 4; ++m) {
                const double a = (g ? 2.0 : 0.6) + 0.2 * random.normal();
                const double r = (g ? 0.165 : 0.173) + 0.0012 * random.normal();
                for (double w : {100.0, 150.0, 200.0, 250.0})
                    points.push_back({{g + 1, g ? "B" : "A"},
                                      {10 * g + m + 1, "m"},
                                      w,
                                      a + r * w + 0.05 * random.normal()});
            }
        SweepOptions options;
        options.at = 180;
        const Lines lines = sweepLines(points, options);
        slope.count(lines.lines[0].slopeInterval, 0.173);
        gap.count(lines.pairs[0].gapInterval, (0.6 - 2.0) + (0.173 - 0.165) * 180);
        crossover.count(lines.pairs[0].crossoverInterval, (2.0 - 0.6) / (0.173 - 0.165));
    }
    for (const Coverage* one : {&slope, &gap, &crossover}) one->print();
}

/// One of the groups sits at its limit now and then: the profile interval of the difference.
void limitCoverage(int trials) {
    Random random(25);
    Coverage profile("difference at the limit (profile)");
    for (int t = 0; t < trials; ++t) {
        std::vector<TableRun> runs;
        for (int m = 0; m < 20; ++m) {
            const bool second = m % 2 != 0;
            TableRun run{second ? "B" : "A", std::to_string(m), (second ? 41.5 : 40) + 0.4 * random.normal()};
            run.censored = run.value > 41.9;
            run.value = std::min(run.value, 41.9);
            runs.push_back(run);
        }
        CompareOptions options;
        options.mostFurtherMounts = 0;
        const Comparison found = compare(runs, options);
        if (found.groups[1].censoredMounts > 0) profile.count(found.pairs[0].ci, -1.5);
    }
    profile.print();
}

/// At a true difference of exactly the margin, how often it is called the same.
void equivalenceLevel(int trials) {
    Random random(27);
    int same = 0;
    for (int t = 0; t < trials; ++t) {
        CompareOptions options;
        options.mostFurtherMounts = 0;
        same +=
            compare(pairOf(random, 1.0, 1, 0, 0), options).pairs[0].verdict == Verdict::equivalent ? 1 : 0;
    }
    fmt::print("called the same at a true difference of the margin: {:.2f} % (level 5 %)\n",
               100.0 * same / trials);
}

} // namespace

int main(int argc, char** argv) {
    cost();
    besideR();
    const int families = argc > 1 ? std::atoi(argv[1]) : 10'000;
    fmt::print("family-wise error at 5 % under the null, {} families:\n", families);
    CompareOptions options;
    options.mostFurtherMounts = 0;
    errorRate("nested runs", families, options, 0, 0, false);
    errorRate("unequal runs", families, options, 0, 0, true);
    options.blocks = true;
    errorRate("blocks", families, options, 1, 0, false);
    options.blocks = false;
    options.drift = true;
    errorRate("drift", families, options, 0, 0.05, false);
    fmt::print("coverage of intervals at 95 %, {} trials:\n", families);
    pairCoverage(families);
    sweepCoverage(families);
    limitCoverage(families);
    equivalenceLevel(families);
    return 0;
}
