// SPDX-License-Identifier: GPL-3.0-or-later
// What a verdict costs and what its error rates are. bench-verdict [FAMILIES]

#include "core/base/random.h"
#include "core/stats/compare.h"
#include "core/stats/order_statistics.h"

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

} // namespace

int main(int argc, char** argv) {
    cost();
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
    return 0;
}
