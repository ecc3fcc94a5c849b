// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/comparison/compare.h"
#include "core/comparison/order_statistics.h"
#include "core/comparison/two_factor.h"
#include "core/distributions/summary.h"
#include "core/models/censored_fit.h"
#include "core/models/dunnett.h"
#include "core/models/multivariate_t.h"
#include "core/models/nested_model.h"
#include "support/near.h"
#include "support/reference_data.h"
#include "support/test_class.h"

#include <algorithm>
#include <cmath>

using namespace ibuki;

namespace {

const PairComparison& pairOf(const Comparison& comparison, const std::string& a, const std::string& b) {
    for (const PairComparison& pair : comparison.pairs)
        if (comparison.groups[pair.a].name == a && comparison.groups[pair.b].name == b) return pair;
    throw std::runtime_error("no pair " + a + b);
}

CompareOptions blocked() {
    CompareOptions options;
    options.blocks = true;
    options.margin = 0.5;
    return options;
}

MountRunsSummary summaryOf(const std::vector<double>& runs) {
    return {mean(runs), static_cast<int>(runs.size()), sumOfSquares(runs)};
}

/// One column of ones a group.
Columns oneHot(const std::vector<std::size_t>& group, std::size_t groups) {
    Columns design(group.size(), groups);
    for (std::size_t j = 0; j < group.size(); ++j) design[group[j]][j] = 1;
    return design;
}

/// DS1 by mounts, in its order; `without`: a day-1 run of A and of C is left out.
std::vector<MountRunsSummary> ds1Mounts(bool without) {
    std::vector<MountRunsSummary> mounts;
    const auto runs = reference::ds1();
    for (std::size_t i = 0; i < runs.size(); i += 2) {
        std::vector<double> both{runs[i].value, runs[i + 1].value};
        if (without && (i == 0 || i == 16)) both.pop_back();
        mounts.push_back(summaryOf(both));
    }
    return mounts;
}
const std::vector<std::size_t> ds1Groups{0, 0, 0, 0, 1, 1, 1, 1, 2, 2, 2, 2, 3, 3, 3};

/// Three materials under two coolers, mounts unequal in number; the order turns over.
std::pair<std::vector<TableRun>, std::vector<std::string>> coolers() {
    const struct {
        const char *material, *cooler;
        double value;
    } rows[] = {{"A", "tall", 41.2}, {"A", "tall", 41.9}, {"A", "tall", 41.5}, {"A", "low", 55.1},
                {"A", "low", 54.6},  {"B", "tall", 43.0}, {"B", "tall", 42.4}, {"B", "low", 55.9},
                {"B", "low", 56.6},  {"B", "low", 56.1},  {"C", "tall", 42.8}, {"C", "tall", 43.3},
                {"C", "low", 53.9},  {"C", "low", 53.1}};
    std::vector<TableRun> runs;
    std::vector<std::string> seconds;
    for (const auto& row : rows) {
        runs.push_back({row.material, std::to_string(runs.size()), row.value});
        seconds.emplace_back(row.cooler);
    }
    return {runs, seconds};
}

/// Davies 1947: six batches, five yields each.
const Groups dyestuff{{1545, 1440, 1440, 1520, 1580}, {1540, 1555, 1490, 1560, 1495},
                      {1595, 1550, 1605, 1510, 1560}, {1445, 1440, 1595, 1465, 1545},
                      {1595, 1630, 1515, 1635, 1625}, {1520, 1455, 1450, 1480, 1445}};

} // namespace

class TestModels : public QObject {
    Q_OBJECT
private slots:
    void blocksAsFixedEffects() { // methods D.8
        const Comparison comparison = compare(reference::ds1(), blocked());
        QCOMPARE(comparison.df, 8.0);
        QVERIFY_REL(*comparison.pooledSd * *comparison.pooledSd, 0.0931611, 1e-6);
        QVERIFY_REL(comparison.anova->f, 28.3630, 1e-5);
        QVERIFY_REL(comparison.anova->p, 0.000129535, 1e-5);
        QVERIFY(!comparison.welch);
        const double adjusted[] = {24.24125, 25.42625, 26.05500, 24.52861};
        const double se[] = {0.152612, 0.152612, 0.152612, 0.183416};
        for (std::size_t i = 0; i < 4; ++i) {
            QVERIFY_NEAR(*comparison.groups[i].adjusted, adjusted[i], 5e-6);
            QVERIFY_NEAR(*comparison.groups[i].se, se[i], 5e-7);
        }
        QVERIFY_NEAR(*comparison.groups[3].mean, 24.613333, 1e-6); // as it was measured
        const struct {
            const char *a, *b;
            double p;
        } rows[] = {{"A", "B", 0.00258182}, {"A", "C", 0.000141342}, {"A", "D", 0.641200},
                    {"B", "C", 0.0751892},  {"B", "D", 0.0229817},   {"C", "D", 0.000949546}};
        for (const auto& row : rows) QVERIFY_REL(*pairOf(comparison, row.a, row.b).pAdjusted, row.p, 5e-6);
        const PairComparison& ad = pairOf(comparison, "A", "D");
        QVERIFY_NEAR(*ad.difference, -0.287361, 5e-7);
        QVERIFY_NEAR(*ad.se, 0.238604, 5e-7);
        QVERIFY_NEAR(*ad.equivalenceP, 0.19942, 5e-6);
        QVERIFY_NEAR(ad.equivalenceCi->hi, 0.1563, 5e-5);
        QVERIFY_NEAR(pairOf(comparison, "A", "B").ci->hi, -0.4939, 5e-5);
        QCOMPARE(*comparison.groups[3].tier, std::string("a")); // D.13: with the block D joins A alone
    }
    void blocksThatHoldOneMaterialEachAreConfounded() {
        std::vector<TableRun> runs;
        for (int day = 0; day < 4; ++day)
            for (int mount = 0; mount < 2; ++mount)
                runs.push_back({day < 2 ? "A" : "B", std::to_string(2 * day + mount),
                                24.0 + 0.1 * mount + day, false, std::to_string(day), 0});
        const Comparison comparison = compare(runs, blocked());
        QVERIFY(!comparison.pairs.front().difference);
        QCOMPARE(comparison.pairs.front().verdict, Verdict::unresolved);
        QVERIFY(hasFlag(comparison.flags, "confounded"));
        QVERIFY(!comparison.groups[0].adjusted && comparison.groups[0].mean);
    }
    void inBlocksThatTouchOnlySomePairsCanBeTold() {
        std::vector<TableRun> runs; // A and B share two days, C and D two others
        const char* names[] = {"A", "B", "C", "D"};
        Random random(5);
        for (int g = 0; g < 4; ++g)
            for (int day = 0; day < 2; ++day)
                for (int mount = 0; mount < 2; ++mount)
                    runs.push_back({names[g], std::to_string(mount + 2 * day), 20 + g + random.normal(),
                                    false, std::to_string(day + 2 * (g / 2)), 0});
        const Comparison comparison = compare(runs, blocked());
        QVERIFY(pairOf(comparison, "A", "B").difference && pairOf(comparison, "C", "D").difference);
        for (const auto& [a, b] : {std::pair{"A", "C"}, {"A", "D"}, {"B", "C"}, {"B", "D"}})
            QVERIFY(!pairOf(comparison, a, b).difference);
    }
    void orderAsCovariate() { // methods D.11, with the room's temperature as the covariate
        std::vector<TableRun> runs;
        const double a[][2] = {{24.7, 24.0}, {24.3, 22.6}, {24.1, 22.1}, {23.8, 21.3}};
        const double b[][2] = {{25.8, 23.8}, {25.2, 22.0}, {25.6, 23.1}, {25.2, 22.4}};
        for (int i = 0; i < 4; ++i) {
            runs.push_back({"A", std::to_string(i), a[i][0], false, {}, a[i][1]});
            runs.push_back({"B", std::to_string(i), b[i][0], false, {}, b[i][1]});
        }
        CompareOptions options;
        options.drift = true;
        const Comparison comparison = compare(runs, options);
        const PairComparison& ab = comparison.pairs.front();
        QVERIFY_NEAR(*ab.difference, -1.1133, 5e-5);
        QVERIFY_NEAR(*ab.se, 0.04419, 5e-6);
        QVERIFY_NEAR(ab.ci->lo, -1.2269, 5e-5);
        QVERIFY_NEAR(ab.ci->hi, -0.9997, 5e-5);
        QVERIFY_NEAR(comparison.drift->slope, 0.3436, 5e-5);
        QVERIFY_NEAR((comparison.drift->ci.hi - comparison.drift->slope) / 2.570581836, 0.0256, 5e-5);
        options.drift = false;
        const Comparison plain = compare(runs, options);
        QVERIFY_NEAR(plain.pairs.front().ci->hi, -0.635, 5e-4);
        QVERIFY(!plain.drift);
    }
    void gamesAndHowell() { // methods D.5
        CompareOptions options;
        options.spread = SpreadModel::welch;
        const Comparison comparison = compare(reference::ds1(), options);
        const struct {
            const char *a, *b;
            double df, p;
        } rows[] = {{"A", "B", 5.16196, 0.0687859}, {"A", "C", 5.99987, 0.0023288},
                    {"A", "D", 4.01185, 0.4039479}, {"B", "C", 0, 0.3793818},
                    {"B", "D", 3.46135, 0.1932667}, {"C", "D", 4.01996, 0.0080561}};
        for (const auto& row : rows) {
            const PairComparison& pair = pairOf(comparison, row.a, row.b);
            QVERIFY_NEAR(*pair.pAdjusted, row.p, 1e-7);
            if (row.df > 0) QVERIFY_NEAR(*pair.df, row.df, 5e-6);
            QCOMPARE(pair.adjustment, Adjustment::gamesHowell);
        }
        QVERIFY_NEAR(pairOf(comparison, "A", "B").ci->lo, -2.4794, 5e-5);
        QVERIFY_NEAR(pairOf(comparison, "A", "B").ci->hi, 0.1094, 5e-5);
        QVERIFY(!comparison.pooledSd);
        QVERIFY_REL(comparison.anova->f, 14.15587693, 1e-8); // both tests are told
        QVERIFY_REL(*comparison.groups[3].se, 0.144943 / std::sqrt(3), 1e-5);
    }
    void welchAgainstAReferenceIsDunnettsOfTheOwnVariances() {
        // With equal spreads and numbers it comes near the pooled one as mounts grow: ρ = 1/2 there.
        std::vector<TableRun> runs;
        Random random(11);
        for (int g = 0; g < 4; ++g)
            for (int m = 0; m < 400; ++m)
                runs.push_back({std::string(1, char('A' + g)), std::to_string(m), g + random.normal()});
        CompareOptions options;
        options.spread = SpreadModel::welch;
        const Comparison own = compare(runs, options, "A");
        options.spread = SpreadModel::pooled;
        const Comparison pooled = compare(runs, options, "A");
        for (std::size_t i = 0; i < 3; ++i) {
            QCOMPARE(own.pairs[i].adjustment, Adjustment::dunnett);
            QVERIFY_REL(own.pairs[i].ci->hi - own.pairs[i].ci->lo,
                        pooled.pairs[i].ci->hi - pooled.pairs[i].ci->lo, 0.08);
        }
    }
    void nestedVariancesOfBalancedRuns() { // methods C.3
        const auto fit = fitNested(ds1Mounts(false), oneHot(ds1Groups, 4));
        QVERIFY_REL(fit->between / fit->within, 20.21738, 1e-6);
        QVERIFY_REL(fit->within, 0.00878667, 1e-6);
        QVERIFY_REL(fit->between, 0.1776434, 1e-6);
        QVERIFY_NEAR(fit->criterion, -0.317305, 1e-6);
    }
    void nestedVariancesOfUnequalRuns() { // methods C.3
        const auto fit = fitNested(ds1Mounts(true), oneHot(ds1Groups, 4));
        QVERIFY_REL(fit->between / fit->within, 22.2166, 1e-5);
        QVERIFY_REL(fit->within, 0.00815230, 1e-5);
        QVERIFY_REL(fit->between, 0.1811163, 1e-5);
        QVERIFY_NEAR(fit->criterion, 1.337324, 1e-6);
        auto runs = reference::ds1();
        runs.erase(runs.begin() + 17);
        runs.erase(runs.begin() + 1);
        const Comparison comparison = compare(runs);
        const double means[] = {24.224996, 25.42625, 26.076969, 24.613333};
        for (std::size_t i = 0; i < 4; ++i) QVERIFY_NEAR(*comparison.groups[i].mean, means[i], 1e-6);
        QCOMPARE(comparison.df, 11.0);
        QVERIFY_REL(comparison.variance->between, fit->between, 1e-9);
        QVERIFY(hasFlag(comparison.flags, "runs-weighted"));
        // F of the weighted means about their weighted mean, by hand from the fit's variances
        double weights = 0;
        double centre = 0;
        std::vector<double> own(4);
        for (std::size_t j = 0; j < ds1Groups.size(); ++j) own[ds1Groups[j]] += 1 / fit->meanVariances[j];
        for (std::size_t i = 0; i < 4; ++i) {
            weights += own[i];
            centre += own[i] * *comparison.groups[i].mean;
        }
        double between = 0;
        for (std::size_t i = 0; i < 4; ++i)
            between += own[i] * std::pow(*comparison.groups[i].mean - centre / weights, 2) / 3;
        QVERIFY_REL(comparison.anova->f, between, 1e-8);
        QVERIFY_REL(*comparison.groups[0].se, 1 / std::sqrt(own[0]), 1e-9);
    }
    void dyestuffOfDavies() { // Davies 1947; Bates et al. 2015
        std::vector<MountRunsSummary> batches;
        for (const auto& batch : dyestuff) batches.push_back(summaryOf(batch));
        const auto fit = fitNested(batches, oneHot({0, 0, 0, 0, 0, 0}, 1));
        QVERIFY_REL(fit->between, 1764.05, 1e-6);
        QVERIFY_REL(fit->within, 2451.25, 1e-9);
        QVERIFY_NEAR(fit->criterion, 319.65428, 1e-5);
    }
    void noScatterBetweenMountsIsAtTheBound() {
        const auto fit =
            fitNested(std::vector<MountRunsSummary>{summaryOf({1, 2, 3}), summaryOf({1.5, 2, 2.5}),
                                                    summaryOf({0, 2, 4})},
                      oneHot({0, 0, 0}, 1));
        QVERIFY(fit->atBound);
        QCOMPARE(fit->between, 0.0);
        QVERIFY_REL(fit->within, 10.5 / 8, 1e-12);
    }
    void censoredMaximumLikelihood() { // methods D.12
        const CensoredSample one{
            {27.1, 27.9, 28.4, 29.0}, {false, false, false, true}, {0, 0, 0, 0}, 1, 0, 0};
        const auto fit = fitCensored(one);
        QVERIFY_NEAR(fit->means[0], 28.22289, 5e-6);
        QVERIFY_NEAR(std::sqrt(fit->covariance[0][0]), 0.46433, 5e-6);
        QVERIFY_NEAR(fit->sigma, 0.89114, 5e-6);
        QVERIFY_NEAR(fit->logLikelihood, -4.942704, 5e-7);
    }
    void limitBoundMountsAgainstOthers() { // methods D.12, with A of DS1
        std::vector<TableRun> runs;
        for (const TableRun& run : reference::ds1())
            if (run.group == "A") runs.push_back(run);
        for (const double y : {27.1, 27.9, 28.4, 29.0})
            runs.push_back({"H", std::to_string(y), y, y == 29.0, {}, 0});
        const Comparison comparison = compare(runs);
        const PairComparison& pair = comparison.pairs.front();
        QVERIFY_NEAR(-*pair.difference, 3.92985, 5e-6);
        QVERIFY_NEAR(*pair.se, 0.44051, 5e-6);
        QVERIFY_NEAR(-pair.ci->hi, 2.9598, 5e-5);
        QVERIFY_NEAR(-pair.ci->lo, 4.9820, 5e-5);
        QCOMPARE(pair.verdict, Verdict::different); // hotter, which it can be shown to be
        QVERIFY_NEAR(*comparison.groups[1].mean - *comparison.groups[0].mean, 3.92985, 5e-6);
        QVERIFY(!comparison.groups[1].tier && !pair.equivalenceP && !pair.df);
        QVERIFY(std::any_of(comparison.flags.begin(), comparison.flags.end(),
                            [](const Flag& flag) { return flag.message.code == "limit-bound.fitted"; }));
        const double p = std::erfc(std::sqrt(18.0228 / 2)); // χ²₁ above 18.0228
        QVERIFY_REL(*pair.pAdjusted, p, 1e-4);
    }
    void aLimitBoundGroupIsNeverShownToBeCooler() {
        std::vector<TableRun> runs;
        for (const double y : {40.1, 40.9, 40.4}) runs.push_back({"A", std::to_string(y), y});
        for (const double y : {27.1, 27.9, 28.4, 27.5})
            runs.push_back({"H", std::to_string(y), y, y == 27.5, {}, 0});
        const Comparison comparison = compare(runs);
        QVERIFY(comparison.pairs.front().ci->lo > 0); // it looks so by far
        QCOMPARE(comparison.pairs.front().verdict, Verdict::unresolved);
        QCOMPARE(comparison.pairs.front().size, DifferenceSize::notKnown);
    }
    void limitsFarAboveChangeNothing() {
        // A bound far below where values lie says nothing: the fit is that of the others.
        const CensoredSample sample{
            {20.1, 20.5, 20.3, 2.0}, {false, false, false, true}, {0, 0, 0, 0}, 1, 0, 0};
        const auto fit = fitCensored(sample);
        QVERIFY_NEAR(fit->means[0], 20.3, 1e-9);
        QVERIFY_REL(fit->sigma * fit->sigma, 0.08 / 3, 1e-8);
    }
    void offsetsCostNothing() {
        auto runs = reference::ds1();
        const Comparison there = compare(runs, blocked());
        for (TableRun& run : runs) run.value += 1e9;
        const Comparison far = compare(runs, blocked());
        for (std::size_t i = 0; i < 6; ++i) // values have 24 bits less behind the point
            QVERIFY_NEAR(*far.pairs[i].pAdjusted, *there.pairs[i].pAdjusted, 1e-5);
        const CensoredSample near{{27.1, 27.9, 28.4, 29.0, 24.1, 24.4},
                                  {false, false, false, true, false, false},
                                  {0, 0, 0, 0, 1, 1},
                                  2,
                                  0,
                                  0};
        CensoredSample distant = near;
        for (double& y : distant.y) y += 1e6;
        const auto a = profileInterval(near, *fitCensored(near), 0, 1, 3.84);
        const auto b = profileInterval(distant, *fitCensored(distant), 0, 1, 3.84);
        QVERIFY_NEAR(a.lo, b.lo, 1e-6);
        QVERIFY_NEAR(a.hi, b.hi, 1e-6);
    }
    void anyCorrelationAgreesWithDunnetts() { // balanced: ρ = 1/2; methods D.6
        for (const auto& [m, nu, d] :
             {std::tuple{3, 10.0, 2.75899698}, {4, 20.0, 2.65102959}, {5, 30.0, 2.65685449}}) {
            Columns half(static_cast<std::size_t>(m), static_cast<std::size_t>(m));
            for (std::size_t i = 0; i < half.rows(); ++i)
                for (std::size_t j = 0; j < half.rows(); ++j) half[i][j] = i == j ? 1 : 0.5;
            const bool nested = m <= 4;
            QVERIFY_NEAR(multivariateTQuantile(0.95, half, nu), d, nested ? 1e-8 : 2e-3);
            QVERIFY_NEAR(multivariateTCdf(d, half, nu), 0.95, nested ? 1e-8 : 1e-4);
        }
    }
    void fewDegreesOfFreedomAreNoLessExact() { // two roads: one factor, and the variables one by one
        const std::vector<double> n{2, 7, 3, 4};
        for (std::size_t m : {2U, 3U, 4U})
            for (const double nu : {1.0, 1.7, 3.0}) {
                const std::span<const double> some(n.data(), m);
                Columns correlation(m, m);
                for (std::size_t i = 0; i < m; ++i)
                    for (std::size_t j = 0; j < m; ++j)
                        correlation[i][j] = i == j ? 1 : std::sqrt(n[i] / (n[i] + 5) * n[j] / (n[j] + 5));
                const double d = dunnettQuantile(0.95, some, 5, nu);
                QVERIFY_REL(multivariateTQuantile(0.95, correlation, nu), d, 1e-7);
            }
    }
    void
    oppositeComparisonsHaveNoCommonFactor() { // ρ = −1/2, one df: |T₁|, |T₂| ≤ d by the angle of the wedge
        Columns correlation(2, 2);
        correlation[0][0] = correlation[1][1] = 1;
        correlation[0][1] = correlation[1][0] = -0.5;
        Random random(11); // Cauchy pairs; standard error of the share 0.0005
        const double d = multivariateTQuantile(0.95, correlation, 1);
        int inside = 0;
        constexpr int draws = 200'000;
        for (int i = 0; i < draws; ++i) {
            const double a = random.normal();
            const double b = -0.5 * a + std::sqrt(0.75) * random.normal();
            const double s = std::abs(random.normal());
            inside += std::abs(a) <= d * s && std::abs(b) <= d * s ? 1 : 0;
        }
        QVERIFY_NEAR(inside / static_cast<double>(draws), 0.95, 0.002); // 4 standard errors
    }
    void dunnettInWholeBlocksIsTheBalancedOne() {
        std::vector<TableRun> runs;
        Random random(3);
        for (int g = 0; g < 4; ++g)
            for (int day = 0; day < 6; ++day)
                runs.push_back({std::string(1, char('A' + g)), std::to_string(day), 20 + random.normal(),
                                false, std::to_string(day), 0});
        CompareOptions options = blocked();
        const Comparison comparison = compare(runs, options, "A");
        const std::vector<double> n(3, 6);
        const double critical = dunnettQuantile(0.95, n, 6, 15);
        for (const PairComparison& pair : comparison.pairs)
            QVERIFY_REL(pair.ci->hi - *pair.difference, critical * *pair.se, 1e-8);
    }
    void withAnAssumedScatterOneMountEachIsCompared() {
        const std::vector<TableRun> runs{{"A", "1", 50.0}, {"B", "1", 44.8}, {"C", "1", 49.6}};
        CompareOptions options;
        options.assumed = KnownScatter{0.4, std::numeric_limits<double>::infinity(), {}};
        const Comparison comparison = compare(runs, options);
        const PairComparison& ab = pairOf(comparison, "A", "B");
        QVERIFY(ab.provisional);
        QVERIFY_REL(*ab.se, 0.4 * std::sqrt(2), 1e-12);
        QVERIFY_NEAR(ab.ci->hi - *ab.difference, 3.31449316 / std::sqrt(2) * *ab.se, 1e-7); // q(.95; 3, ∞)
        QCOMPARE(ab.verdict, Verdict::different);
        QCOMPARE(pairOf(comparison, "A", "C").verdict, Verdict::unresolved);
        QVERIFY(hasFlag(comparison.flags, "scatter-assumed") && !comparison.anova);
        options.assumed->df = 10;
        QVERIFY_NEAR(pairOf(compare(runs, options), "A", "B").ci->hi - *ab.difference,
                     3.87677675 / std::sqrt(2) * *ab.se, 1e-7); // q(.95; 3, 10)
    }
    void provisionalVerdictsKeepTheirErrorRate() {
        // Five identical materials, one mount each, the assumed scatter true: 5 % of 600 families call any
        // pair more than re-mounting. Binomial: more than 52 or fewer than 12 has probability below 1e-3.
        Random random(41);
        CompareOptions options;
        options.assumed = KnownScatter{0.4, std::numeric_limits<double>::infinity(), {}};
        int wrong = 0;
        for (int trial = 0; trial < 600; ++trial) {
            std::vector<TableRun> runs;
            for (int g = 0; g < 5; ++g) runs.push_back({std::to_string(g), "1", 30 + 0.4 * random.normal()});
            const Comparison comparison = compare(runs, options);
            wrong += std::any_of(comparison.pairs.begin(), comparison.pairs.end(),
                                 [](const PairComparison& p) { return p.verdict == Verdict::different; })
                         ? 1
                         : 0;
        }
        QVERIFY2(wrong <= 52 && wrong >= 12, qPrintable(QString::number(wrong)));
    }
    void errorRateWithBlocksDriftAndUnequalRuns_data() {
        QTest::addColumn<int>("kind");
        QTest::newRow("blocks") << 0;
        QTest::newRow("drift") << 1;
        QTest::newRow("unequal runs") << 2;
    }
    void errorRateWithBlocksDriftAndUnequalRuns() {
        // Five identical materials × 4 mounts: 5 % of 500 families. Binomial: more than 45 or fewer than 9
        // has probability below 2e-3 in all.
        QFETCH(int, kind);
        Random random(static_cast<std::uint64_t>(100 + kind));
        CompareOptions options;
        options.blocks = kind == 0;
        options.drift = kind == 1;
        options.mostFurtherMounts = 1; // not asked here
        int wrong = 0;
        for (int trial = 0; trial < 500; ++trial) {
            std::vector<TableRun> runs;
            for (int m = 0; m < 4; ++m) {
                const double day = kind == 0 ? random.normal() : 0;
                for (int g = 0; g < 5; ++g) {
                    const double order = 5 * m + g;
                    const double mount = 30 + day + 0.4 * random.normal() + (kind == 1 ? 0.1 * order : 0);
                    const int repeats = kind == 2 ? 1 + (m + g) % 3 : 1;
                    for (int r = 0; r < repeats; ++r)
                        runs.push_back({std::to_string(g), std::to_string(m),
                                        mount + (kind == 2 ? 0.2 * random.normal() : 0), false,
                                        std::to_string(m), order});
                }
            }
            const Comparison comparison = compare(runs, options);
            wrong += std::any_of(comparison.pairs.begin(), comparison.pairs.end(),
                                 [](const PairComparison& p) { return p.verdict == Verdict::different; })
                         ? 1
                         : 0;
        }
        QVERIFY2(wrong <= 45 && wrong >= 9, qPrintable(QString::number(wrong)));
    }
    void orderStatisticsOfTables() { // methods D.9 (d₂), D.17 (c_n; Harter 1961)
        const std::pair<int, double> ranges[] = {{2, 1.12838}, {3, 1.69257}, {4, 2.05875},
                                                 {6, 2.53441}, {8, 2.84720}, {10, 3.07751}};
        for (const auto& [k, d2] : ranges) QVERIFY_NEAR(expectedRange(k), d2, 5e-6);
        const std::pair<int, double> lows[] = {{2, 0.564190}, {3, 0.846284}, {5, 1.162964}, {10, 1.538753}};
        for (const auto& [n, c] : lows) QVERIFY_NEAR(expectedLowest(n), c, 5e-7);
        const Comparison comparison = compare(reference::ds1());
        const double n = 4 / (3 / 4.0 + 1 / 3.0);
        QVERIFY_REL(*spreadOfIdentical(comparison), 2.05875 * 0.4266576 / std::sqrt(n), 1e-5);
    }
    void chancesOfTheExample() { // methods D.16, one-way
        const auto chances = chancesOfBest(compare(reference::ds1()));
        const double expected[] = {0.860797, 0.000459, 0.0000096, 0.138735};
        for (std::size_t i = 0; i < 4; ++i) QVERIFY_NEAR(*chances[i], expected[i], 1e-6);
    }
    void chancesWithBlocksAreThoseOfDraws() {
        // In whole blocks the differences hang together as those of independent means do, so that the
        // integral with the residual's degrees of freedom is a second road. 20,000 draws: 4 standard errors
        // are 0.014.
        Random random(17);
        std::vector<TableRun> runs;
        for (int block = 0; block < 4; ++block) {
            const double evening = 3 * random.normal();
            for (int group = 0; group < 4; ++group) {
                const std::string name(1, static_cast<char>('A' + group));
                runs.push_back({name, name + std::to_string(block),
                                40 + 0.3 * group + evening + 0.4 * random.normal(), false,
                                std::to_string(block)});
            }
        }
        CompareOptions options;
        options.blocks = true;
        const Comparison blocks = compare(runs, options);
        const auto drawn = chancesOfBest(blocks);
        Comparison alone = blocks;
        alone.options.blocks = false;
        for (GroupSummary& group : alone.groups) group.se = *blocks.pairs.front().se / std::sqrt(2.0);
        const auto exact = chancesOfBest(alone);
        double sum = 0;
        for (std::size_t i = 0; i < 4; ++i) {
            QVERIFY_NEAR(*drawn[i], *exact[i], 0.014);
            sum += *drawn[i];
        }
        QVERIFY_NEAR(sum, 1.0, 1e-9);
    }
    void anAssumedScatterChangesNothingWhereMountsAreRepeated() {
        CompareOptions options;
        options.assumed = KnownScatter{9, 3, {}};
        const Comparison with = compare(reference::ds1(), options);
        QVERIFY(!with.pairs.front().provisional);
        QCOMPARE(*with.pairs.front().se, *compare(reference::ds1()).pairs.front().se);
        QVERIFY(!hasFlag(with.flags, "scatter-assumed"));
    }
    void twoFactorsOfTypeTwo() { // by exact fractions, Gram–Schmidt, in a separate program
        const auto [runs, seconds] = coolers();
        const TwoFactors found = compareTwoFactors(runs, seconds, {});
        QVERIFY_REL(found.interaction->f, 19.727945077235137, 1e-9);
        QVERIFY_REL(found.first->f, 18.660838552927803, 1e-9);
        QVERIFY_REL(found.second->f, 3402.684162895928, 1e-9);
        QCOMPARE(found.interaction->df1, 2.0);
        QCOMPARE(found.second->df1, 1.0);
        QCOMPARE(found.df, 8.0);
        QVERIFY_REL(found.sd * found.sd, 0.15708333333333332, 1e-10);
        QCOMPARE(found.cells.size(), std::size_t{6});
        QVERIFY_NEAR(*found.cell(1, 1).mean, 56.2, 1e-12);
        const PairComparison& ab = found.marginal.front();
        QVERIFY_NEAR(*ab.difference, -1.25833333333334, 1e-10);
        QVERIFY_REL(*ab.se, 0.25583469055014585, 1e-10);
        QVERIFY_NEAR(ab.ci->hi - *ab.difference, 4.0410 / std::sqrt(2) * *ab.se, 1e-4); // q(.95; 3, 8)
        const PairWithin& low = found.within[4]; // A and C with the low cooler
        QCOMPARE(found.secondLevels[low.second].name, std::string("low"));
        QVERIFY_NEAR(*low.pair.difference, 1.35, 1e-10);
        QVERIFY_REL(*low.pair.se, 0.39633739835313714, 1e-10);
    }
    void anEmptyCellLeavesWhatCanBeTold() {
        auto [runs, seconds] = coolers();
        for (std::size_t i = runs.size(); i-- > 0;)
            if (runs[i].group == "C" && seconds[i] == "low") {
                runs.erase(runs.begin() + static_cast<std::ptrdiff_t>(i));
                seconds.erase(seconds.begin() + static_cast<std::ptrdiff_t>(i));
            }
        const TwoFactors found = compareTwoFactors(runs, seconds, {});
        QCOMPARE(found.interaction->df1, 1.0); // over the cells that there are
        QCOMPARE(found.marginal.size(), std::size_t{3});
        QVERIFY(found.marginal[0].difference && !found.marginal[1].difference && !found.marginal[2].ci);
        QCOMPARE(found.marginal[0].adjustment, Adjustment::none); // two can be told
        QVERIFY(!found.cell(2, 1).mean);
    }
    void twoFactorsThatAreNone() {
        auto [runs, seconds] = coolers();
        try {
            compareTwoFactors(runs, std::vector<std::string>(runs.size(), "one"), {});
            QFAIL("not refused");
        } catch (const InputError& error) {
            QCOMPARE(error.code, std::string("compare-one-second"));
        }
    }
    void manyGroupsAndManyMountsAreStillCompared() {
        std::vector<TableRun> runs;
        Random random(8);
        for (int g = 0; g < 200; ++g)
            for (int m = 0; m < 3; ++m)
                runs.push_back(
                    {std::to_string(g), std::to_string(m), random.normal(), false, std::to_string(m), 0});
        QCOMPARE(compare(runs, blocked()).pairs.size(), std::size_t{199 * 100});
    }
};

IBUKI_TEST(TestModels)
#include "tst_models.moc"
