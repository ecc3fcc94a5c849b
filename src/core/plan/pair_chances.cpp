// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/pair_chances.h"

#include "core/comparison/compare.h"
#include "core/distributions/power.h"
#include "core/domain/lookup.h"
#include "core/evidence/interim_look.h"
#include "core/models/dunnett.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace ibuki {
namespace {

/// Critical value of |difference| / se that the verdict will use.
double criticalFor(const PlannedVerdict& asked, const std::vector<int>& mounts, double df) {
    const auto groups = std::count_if(mounts.begin(), mounts.end(), [](int n) { return n > 0; });
    if (!asked.reference || groups <= 2)
        return criticalValues(static_cast<int>(std::max<std::ptrdiff_t>(2, groups)), df, asked.confidence)
            .different;
    std::vector<double> others;
    for (std::size_t i = 0; i < mounts.size(); ++i)
        if (i != *asked.reference && mounts[i] > 0) others.push_back(mounts[i]);
    return dunnettQuantile(asked.confidence, others, mounts[*asked.reference], df);
}

/// The weakest chance over all families of the design, each cell with `mounts`.
double weakest(const PlannedVerdict& asked, double sd, const Design& design, const std::vector<int>& mounts) {
    double lowest = 1;
    for (const auto& cells : comparedTogether(design)) {
        std::vector<int> family;
        for (std::size_t cell : cells) family.push_back(mounts[cell]);
        lowest = std::min(lowest, wantedChance(asked, sd, family, nullptr, nullptr));
    }
    return lowest;
}

} // namespace

std::vector<std::vector<std::size_t>> comparedTogether(const Design& design) {
    std::map<std::optional<Id<Level>>, std::vector<std::size_t>> bySecond;
    for (std::size_t i = 0; i < design.cells.size(); ++i) bySecond[design.cells[i].second].push_back(i);
    std::vector<std::vector<std::size_t>> families;
    for (auto& [second, cells] : bySecond) families.push_back(std::move(cells));
    return families;
}

PlannedVerdict askedOf(const Document& document, const Question& question, const Plan& plan,
                       const Design& design) {
    PlannedVerdict asked{question.goal,
                         question.margin.value,
                         {},
                         1 - nominalAlpha(1 - question.confidence, plan.plannedLooks),
                         {},
                         comparedTogether(design).front().size()};
    const Level* held = question.secondFactor ? nullptr : referenceLevelOf(document, question);
    for (std::size_t i = 0; i < design.cells.size() && held; ++i)
        if (design.cells[i].level == held->id) asked.reference = i;
    return asked;
}

double wantedChance(const PlannedVerdict& asked, double sd, const std::vector<int>& mounts,
                    std::vector<PairChance>* pairs, double* widest) {
    double df = 0;
    for (int n : mounts) df += std::max(0, n - 1);
    if (df <= 0) return 0;
    const double critical = criticalFor(asked, mounts, df);
    double lowest = 1;
    std::map<std::pair<int, int>, PairChance> known; // pairs of equal numbers have equal chances
    for (std::size_t a = 0; a < mounts.size(); ++a)
        for (std::size_t b = a + 1; b < mounts.size(); ++b) {
            if (mounts[a] == 0 || mounts[b] == 0) continue;
            if (asked.reference && a != *asked.reference && b != *asked.reference) continue;
            const double se = sd * std::sqrt(1.0 / mounts[a] + 1.0 / mounts[b]);
            auto [found, fresh] = known.try_emplace(std::minmax(mounts[a], mounts[b]));
            PairChance& pair = found->second;
            if (fresh)
                pair = {
                    a, b, pairPower(critical, df, asked.apart.value_or(asked.margin) / se),
                    equivalencePower(asked.apart.value_or(0), asked.margin, se, df, 1 - asked.confidence)};
            pair.a = a;
            pair.b = b;
            lowest = std::min(lowest, asked.goal == Goal::difference ? pair.different : pair.equivalent);
            if (widest) *widest = std::max(*widest, critical * se);
            if (pairs) pairs->push_back(pair);
        }
    return lowest;
}

ChanceCurves chanceCurves(const Document& document, const Question& question, const Plan& plan,
                          const PowerAnalysis& analysis) {
    ChanceCurves curves;
    if (analysis.isChange || analysis.pairs.empty()) return curves;
    const PlannedVerdict asked = askedOf(document, question, plan, analysis.design);
    const double sd = analysis.scatter.sd;
    constexpr int steps = 60;
    for (int i = 0; i <= steps; ++i) {
        const double apart = 3 * asked.margin * i / steps;
        PlannedVerdict truly = asked;
        truly.apart = apart;
        curves.overDifference.push_back({apart, weakest(truly, sd, analysis.design, analysis.mounts)});
    }
    const int chosen = *std::max_element(analysis.mounts.begin(), analysis.mounts.end());
    const int most = std::clamp(std::max(chosen, analysis.neededMounts.value_or(0)) + 2, sensibleMounts,
                                4 * sensibleMounts);
    for (int n = 2; n <= most; ++n) {
        std::vector<int> mounts(analysis.mounts.size(), n);
        curves.overMounts.push_back({static_cast<double>(n), weakest(asked, sd, analysis.design, mounts)});
    }
    return curves;
}

} // namespace ibuki
