// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/distributions/power.h"
#include "core/plan/campaign_judge.h"
#include "core/plan/rehearsal.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

namespace {

RehearsalScenario five(double mountSdK) {
    RehearsalScenario scenario;
    for (const char* name : {"A", "B", "C", "D", "E"}) scenario.materials.push_back({name, 45});
    scenario.mountSdK = mountSdK;
    scenario.practices = {{.name = "five mounts", .mounts = 5}};
    return scenario;
}

/// How far a share of n campaigns may lie from its truth: 4 standard errors, one false alarm in 16,000.
double shareError(double p, long n) { return 4 * std::sqrt(p * (1 - p) / static_cast<double>(n)); }

} // namespace

class TestRehearsal : public QObject {
    Q_OBJECT

private slots:
    void judgesAsTheComparisonDoes_data() {
        QTest::addColumn<bool>("blocks");
        QTest::newRow("groups alone") << false;
        QTest::newRow("evenings, complete or not") << true;
    }
    void judgesAsTheComparisonDoes() {
        QFETCH(bool, blocks);
        Random random(3);
        for (int campaign = 0; campaign < 60; ++campaign) {
            const std::size_t k = 2 + static_cast<std::size_t>(4 * random.uniform());
            const int n = 2 + static_cast<int>(3 * random.uniform());
            std::vector<CampaignMount> mounts;
            std::vector<RunValue> runs;
            for (std::size_t material = 0; material < k; ++material)
                for (int i = 0; i < n; ++i) {
                    const auto evening = static_cast<std::size_t>(3 * random.uniform());
                    mounts.push_back(
                        {material, evening, 40 + 0.4 * static_cast<double>(material) + random.normal()});
                }
            std::vector<std::size_t> seen; // evenings count from 0 without a gap
            for (CampaignMount& mount : mounts) {
                const auto at = std::find(seen.begin(), seen.end(), mount.evening);
                if (at == seen.end()) seen.push_back(mount.evening);
                mount.evening = static_cast<std::size_t>(std::find(seen.begin(), seen.end(), mount.evening)
                                                         - seen.begin());
                const auto id = static_cast<std::int64_t>(runs.size()) + 1;
                runs.push_back(
                    {{static_cast<std::int64_t>(mount.material) + 1, std::to_string(mount.material)},
                     {id, std::to_string(id)},
                     mount.value,
                     false,
                     {static_cast<std::int64_t>(mount.evening) + 1, std::to_string(mount.evening)}});
            }
            CampaignJudge judge(k, 1.5, 0.9, blocks);
            std::vector<JudgedPair> pairs;
            CompareOptions options;
            options.margin = 1.5;
            options.confidence = 0.9;
            options.blocks = blocks;
            std::optional<Comparison> truth;
            try {
                truth = compare(runs, options);
            } catch (const InputError&) {
                QVERIFY(!judge.judge(mounts, pairs)); // no degrees of freedom
                continue;
            }
            QVERIFY(judge.judge(mounts, pairs));
            QCOMPARE(pairs.size(), truth->pairs.size());
            for (const PairComparison& pair : truth->pairs) {
                const auto found = std::find_if(pairs.begin(), pairs.end(), [&](const JudgedPair& one) {
                    return one.a == std::min(pair.a, pair.b) && one.b == std::max(pair.a, pair.b);
                });
                QVERIFY(found != pairs.end());
                QCOMPARE(found->isReported, pair.difference.has_value());
                if (!found->isReported) continue;
                const double sign = pair.a < pair.b ? 1 : -1;
                QVERIFY_NEAR(sign * found->difference, *pair.difference, 1e-9);
                QVERIFY_NEAR(found->halfWidth, pair.ci->hi - *pair.difference, 1e-7);
                QCOMPARE(found->different, pair.verdict == Verdict::different);
                QCOMPARE(found->equivalent, pair.verdict == Verdict::equivalent);
            }
        }
    }
    void powerIsTheAnalyticOne() { // noncentral t at Tukey's critical value, methods E.1
        RehearsalScenario scenario = five(0.4);
        scenario.materials[4].deltaK = 46;
        const Rehearsal rehearsal = rehearse(scenario, {.campaigns = 20'000});
        const double lambda = 1 / 0.4 * std::sqrt(5 / 2.0);
        const double power = pairPower(criticalValues(5, 20, 0.95).different, 20, lambda);
        for (const RehearsedPair& pair : rehearsal.practices[0].pairs)
            if (pair.b == 4) QVERIFY_NEAR(pair.different, power, shareError(power, 20'000));
    }
    void theFamilyKeepsItsErrorRate() {
        RehearsalScenario scenario = five(0.4);
        scenario.runSdK = 0.3;
        scenario.eveningSdK = 0.8;
        scenario.practices = {{.name = "plain", .mounts = 5},
                              {.name = "blocks",
                               .mounts = 5,
                               .runs = 3,
                               .order = RehearsedOrder::blocks,
                               .model = RehearsedModel::blocks}};
        const Rehearsal rehearsal = rehearse(scenario, {.campaigns = 20'000});
        for (const RehearsedOutcome& outcome : rehearsal.practices) {
            QVERIFY_NEAR(*outcome.anyFalseDifferent, 0.05, shareError(0.05, 20'000));
            QVERIFY_NEAR(*outcome.familyCoverage, 0.95, shareError(0.05, 20'000));
            QVERIFY_NEAR(outcome.rightBest + outcome.wrongBest + outcome.noCall, 1.0, 1e-12);
            QCOMPARE(outcome.wrongBest, 0.0); // all are truly lowest
            QCOMPARE(outcome.totalMounts, 25);
        }
    }
    void ranksOfTwo() { // one mount each: Φ(D/(σ√2)); best of three: no closed form, but better than one
        RehearsalScenario scenario;
        scenario.materials = {{"A", 45}, {"B", 45.5}};
        scenario.mountSdK = 0.5;
        const RehearsedPractice one{.name = "one each", .mounts = 1, .judge = RehearsedJudge::rank};
        RehearsedPractice best = one, mean = one;
        best.mounts = mean.mounts = 3;
        best.summary = RehearsedSummary::best;
        scenario.practices = {one, best, mean};
        const Rehearsal rehearsal = rehearse(scenario, {.campaigns = 40'000});
        const auto normal = [](double z) { return 0.5 * std::erfc(-z / std::sqrt(2.0)); };
        const double single = normal(0.5 / (0.5 * std::sqrt(2.0)));
        QVERIFY_NEAR(rehearsal.practices[0].rightBest, single, shareError(single, 40'000));
        const double three = normal(0.5 / (0.5 * std::sqrt(2.0 / 3)));
        QVERIFY_NEAR(rehearsal.practices[2].rightBest, three, shareError(three, 40'000));
        QVERIFY(rehearsal.practices[1].rightBest > single && rehearsal.practices[1].rightBest < three);
        QCOMPARE(rehearsal.practices[0].noCall, 0.0);
        QVERIFY(!rehearsal.practices[0].anyFalseDifferent && !rehearsal.practices[0].familyCoverage);
    }
    void allOfOneThenAllOfTheOtherIsFooledByDrift() {
        RehearsalScenario scenario;
        scenario.materials = {{"A", 45.4}, {"B", 45}};
        scenario.mountSdK = 0.2;
        scenario.driftKPerMount = 0.2;
        const RehearsedPractice listed{.name = "listed", .mounts = 5, .order = RehearsedOrder::asListed};
        RehearsedPractice blocks = listed;
        blocks.order = RehearsedOrder::blocks;
        blocks.model = RehearsedModel::blocks;
        scenario.practices = {listed, blocks};
        const Rehearsal rehearsal = rehearse(scenario, {.campaigns = 4'000});
        QVERIFY(rehearsal.practices[0].wrongBest > 0.5);
        QVERIFY(rehearsal.practices[0].pairs[0].wrongWay == rehearsal.practices[0].wrongBest);
        QVERIFY(rehearsal.practices[1].wrongBest < 0.01);
    }
    void atTheLimitNothingIsSeen() {
        RehearsalScenario scenario;
        scenario.materials = {{"A", 60}, {"B", 62}};
        scenario.mountSdK = 0.3;
        scenario.runSdK = 0.2;
        scenario.limitDeltaK = 55;
        const RehearsedPractice free{.name = "below", .mounts = 3, .judge = RehearsedJudge::rank};
        RehearsedPractice held = free;
        held.atLimit = true;
        scenario.practices = {free, held};
        const Rehearsal rehearsal = rehearse(scenario, {.campaigns = 10'000});
        QVERIFY(rehearsal.practices[0].rightBest > 0.99);
        QVERIFY_NEAR(rehearsal.practices[1].rightBest, 0.5, shareError(0.5, 10'000));
        scenario.runSdK = 0; // then all are level, and lots are drawn
        scenario.materials.push_back({"C", 63});
        const double level = rehearse(scenario, {.campaigns = 10'000}).practices[1].rightBest;
        QVERIFY_NEAR(level, 1 / 3.0, shareError(1 / 3.0, 10'000));
    }
    void oneMountEachIsNoVerdict() {
        RehearsalScenario scenario = five(0.3);
        scenario.practices[0].mounts = 1;
        const Rehearsal rehearsal = rehearse(scenario, {.campaigns = 100});
        QCOMPARE(rehearsal.practices[0].noCall, 1.0);
        QVERIFY(!rehearsal.practices[0].familyCoverage);
    }
    void withoutScatterTheTruthIsSeen() {
        RehearsalScenario scenario = five(0);
        scenario.materials[2].deltaK = 44;
        const Rehearsal rehearsal = rehearse(scenario, {.campaigns = 50});
        QCOMPARE(rehearsal.practices[0].rightBest, 1.0);
        QCOMPARE(*rehearsal.practices[0].familyCoverage, 1.0);
        QCOMPARE(*rehearsal.practices[0].anyFalseDifferent, 0.0);
    }
    void neitherThreadsNorNeighboursChangeAFigure() {
        RehearsalScenario scenario = five(0.4);
        scenario.materials[1].deltaK = 44.5;
        scenario.eveningSdK = 0.3;
        scenario.practices[0].mountsPerEvening = 3;
        const auto one = rehearse(scenario, {.campaigns = 3'001, .seed = 9, .threads = 1});
        scenario.practices.insert(scenario.practices.begin(), {.name = "other", .mounts = 2});
        const auto three = rehearse(scenario, {.campaigns = 3'001, .seed = 9, .threads = 3});
        QCOMPARE(one.practices[0].rightBest, three.practices[1].rightBest);
        QCOMPARE(one.practices[0].pairs[2].equivalent, three.practices[1].pairs[2].equivalent);
        QCOMPARE(*one.practices[0].familyCoverage, *three.practices[1].familyCoverage);
        const auto other = rehearse(scenario, {.campaigns = 3'001, .seed = 10});
        QVERIFY(other.practices[1].rightBest != one.practices[0].rightBest);
    }
    void cancelledInTime() {
        std::stop_source stop;
        RehearsalOptions options{.campaigns = 10'000'000};
        options.stop = stop.get_token();
        options.progress = [&](double) { stop.request_stop(); };
        QVERIFY(rehearse(five(0.4), options).cancelled);
    }
    void whatCannotBeIsRefused() {
        const auto refused = [](const auto& change) {
            RehearsalScenario scenario = five(0.4);
            change(scenario);
            try {
                rehearse(scenario, {.campaigns = 1});
            } catch (const InputError& error) {
                return error.message.code;
            }
            return std::string("nothing");
        };
        QCOMPARE(refused([](auto& s) { s.materials.resize(1); }), std::string("rehearse.materials"));
        QCOMPARE(refused([](auto& s) { s.materials[1].name = "A"; }), std::string("rehearse.name-twice"));
        QCOMPARE(refused([](auto& s) { s.eveningSdK = -0.1; }), std::string("rehearse.sd"));
        QCOMPARE(refused([](auto& s) { s.materials[1].mountSdK = -1; }), std::string("rehearse.sd"));
        QCOMPARE(refused([](auto& s) { s.practices.clear(); }), std::string("rehearse.practices"));
        QCOMPARE(refused([](auto& s) { s.practices[0].mounts = 0; }), std::string("rehearse.mounts"));
        QCOMPARE(refused([](auto& s) { s.practices[0].atLimit = true; }), std::string("rehearse.limit"));
        QVERIFY_THROWS_EXCEPTION(InputError, rehearse(five(0.4), {.campaigns = 0}));
    }

    /// Own numbers of mounts by rank: two normal means, so that the chance is Φ(d/√(σ₁²/n₁ + σ₂²/n₂)); 4
    /// standard errors of 40,000 campaigns are allowed.
    void materialsMayHaveTheirOwnMounts() {
        RehearsalScenario scenario;
        scenario.materials = {{"A", 0, 1.0, 2}, {"B", 0.8, 1.5, 6}};
        RehearsedPractice practice;
        practice.judge = RehearsedJudge::rank;
        scenario.practices = {practice};
        RehearsalOptions options{40'000};
        const RehearsedOutcome outcome = rehearse(scenario, options).practices.front();
        const double z = 0.8 / std::sqrt(1.0 / 2 + 1.5 * 1.5 / 6),
                     chance = std::erfc(-z / std::sqrt(2.0)) / 2;
        QVERIFY_NEAR(outcome.rightBest, chance, 4 * std::sqrt(chance * (1 - chance) / 40'000));
        QCOMPARE(outcome.totalMounts, 8);
        scenario.asGoodK = 0.8;
        QCOMPARE(rehearse(scenario, options).practices.front().rightBest, 1.0);
        scenario.materials[0].mounts = 0;
        QVERIFY_THROWS_EXCEPTION(InputError, rehearse(scenario, options));
    }
};

IBUKI_TEST(TestRehearsal)
#include "tst_rehearsal.moc"
