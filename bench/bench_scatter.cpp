// SPDX-License-Identifier: GPL-3.0-or-later
// What a scatter known from earlier studies does to verdicts of few mounts: share of simulated studies of
// four groups without a difference whose Tukey intervals all held the truth (one less it: a family with a
// false "different"), with the prior and without it, and how wide the intervals were. Build: ninja
// bench-scatter.

#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/comparison/compare.h"

#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <optional>

using namespace ibuki;

namespace {

const KnownScatter prior{0.8, 4, {}};
constexpr int groups = 4;

enum class Truth { drawn, twice, fixed };

/// Of a study: drawn from the prior (scaled inverse chi-squared), twice that, or 1.6 of the prior's.
double trueSd(Truth truth, Random& random) {
    if (truth == Truth::fixed) return 1.6 * prior.sd;
    double chi = 0;
    for (int i = 0; i < static_cast<int>(prior.df); ++i) chi += std::pow(random.normal(), 2);
    return (truth == Truth::twice ? 2 : 1) * prior.sd * std::sqrt(prior.df / chi);
}

struct Told {
    int studies = 0;
    int held = 0;
    int conflicts = 0;
    double width = 0;
};

void tell(Told& told, const std::vector<RunValue>& runs, const CompareOptions& options) {
    const Comparison found = compare(runs, options);
    bool held = true;
    for (const PairComparison& pair : found.pairs) held = held && pair.ci->contains(0);
    ++told.studies;
    told.held += held ? 1 : 0;
    told.conflicts += found.moderated && found.moderated->isConflict() ? 1 : 0;
    told.width += (found.pairs.front().ci->hi - found.pairs.front().ci->lo) / 2;
}

} // namespace

int main(int argc, char** argv) {
    const int studies = argc > 1 ? std::atoi(argv[1]) : 10'000;
    std::printf("%-22s %7s %16s %12s %12s %16s %12s\n", "true scatter", "mounts", "held with prior",
                "conflicts", "half width", "held without", "half width");
    for (const auto& [truth, name] : {std::pair{Truth::drawn, "drawn from the prior"},
                                      {Truth::twice, "twice as large"},
                                      {Truth::fixed, "1.6 of the prior's"}})
        for (const int mounts : {1, 2, 3, 5}) {
            Random random(20'310'304);
            CompareOptions without;
            without.mostFurtherMounts = 0;
            without.tellP = false;
            CompareOptions with = without;
            with.prior = prior;
            Told by, plain;
            for (int study = 0; study < studies; ++study) {
                const double sd = trueSd(truth, random);
                std::vector<RunValue> runs;
                for (int g = 1; g <= groups; ++g)
                    for (int m = 1; m <= mounts; ++m) {
                        RunValue run;
                        run.group = {g, std::to_string(g)};
                        run.mount = {10 * g + m, std::to_string(m)};
                        run.value = 40 + sd * random.normal();
                        runs.push_back(run);
                    }
                tell(by, runs, with);
                if (mounts > 1) tell(plain, runs, without);
            }
            std::printf("%-22s %7d %14.1f %% %10.1f %% %10.2f K", name, mounts, 100.0 * by.held / by.studies,
                        100.0 * by.conflicts / by.studies, by.width / by.studies);
            if (mounts > 1)
                std::printf(" %14.1f %% %10.2f K", 100.0 * plain.held / plain.studies,
                            plain.width / plain.studies);
            std::printf("\n");
        }
}
