// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/import/recorded.h"
#include "core/practice/practice_review.h"
#include "core/setup/plan_setup.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>
#include <set>

using namespace ibuki;

namespace {

const Instant evening = *makeInstant(2031, 3, 4, 18 * 3'600'000LL);

/// So long under load, and no age: a film has wetted, a paste is fresh.
MountClock worn(double loadHours) {
    MountClock clock;
    clock.hours = 0;
    clock.loadHours = loadHours;
    return clock;
}

struct Practised {
    Document document;
    Id<Study> study;
    const Practice& practice() const { return *practiceOf(document, study); }
    template <class Change> void change(Change&& what) {
        Edit edit(document, "change");
        what(edit);
        apply(document, edit.finish());
    }
    /// With the dose and the torque that the face needs stated in the plan, or left to the hands.
    void plan(bool stated, int mounts) {
        change([&](Edit& edit) {
            Plan plan = planFor(document, study);
            plan.mountsPerLevel = mounts;
            if (stated) {
                plan.amount = Gram{0.14};
                plan.torque = NewtonMetre{0.6};
            }
            putPlan(edit, plan);
            layPlan(edit, *firstQuestion(document, study), plan, evening);
        });
    }
};

Practised practised(Scenario scenario, int seed) {
    Practised made;
    Edit edit(made.document, "practice");
    made.study = addPractice(edit, {scenario, seed, 300, plainly}, evening);
    apply(made.document, edit.finish());
    return made;
}

/// What a mount of a slot is truly worth, over its level's truth, at the load.
std::vector<double> offTruth(const Practised& of, bool withMishaps) {
    std::vector<double> off;
    const auto truth = sealedTruth(of.document, of.practice());
    for (const Slot* slot : plannedSlots(of.document, of.study)) {
        const PracticeMount mount = practiceMount(of.document, of.practice(), *slot, worn(100));
        if (!withMishaps && mount.mishap != Mishap::none) continue;
        for (const SealedLevel& level : truth)
            if (level.level == slot->level) {
                const double watt = loadsOf(of.document, of.study).front()->target->value;
                off.push_back(watt * (mount.bench.interfaceKPerW - level.interfaceKPerW));
            }
    }
    return off;
}

double sdOf(const std::vector<double>& values) {
    double sum = 0;
    for (double value : values) sum += value;
    const double mean = sum / static_cast<double>(values.size());
    double ss = 0;
    for (double value : values) ss += (value - mean) * (value - mean);
    return std::sqrt(ss / static_cast<double>(values.size() - 1));
}

} // namespace

class TestPractice : public QObject {
    Q_OBJECT
private slots:
    void theTruthIsSealedAndTheSameAgain() {
        const Practised one = practised(Scenario::threePastes, 7);
        const Practised again = practised(Scenario::threePastes, 7);
        const auto truth = sealedTruth(one.document, one.practice());
        QCOMPARE(truth.size(), std::size_t{3});
        const auto same = sealedTruth(again.document, again.practice());
        for (std::size_t i = 0; i < truth.size(); ++i) QCOMPARE(truth[i].deltaK, same[i].deltaK);
        // Nothing of it stands in the project: no resistance, no conductivity.
        for (const auto& [id, material] : one.document.all<Material>())
            QVERIFY(!material.claimedConductivity);
    }
    void whichIsCoolestIsDealtBySeed() {
        std::set<std::string> coolest;
        for (int seed = 1; seed <= 30; ++seed) {
            const Practised one = practised(Scenario::threePastes, seed);
            const auto truth = sealedTruth(one.document, one.practice());
            coolest.insert(std::min_element(truth.begin(), truth.end(), [](const auto& a, const auto& b) {
                               return a.deltaK < b.deltaK;
                           })->name);
        }
        QCOMPARE(coolest.size(), std::size_t{3});
    }
    void carefulMountsScatterAsSealedAndThoseByFeelMore() { // 240 mounts each: sd told to 5 %
        Practised careful = practised(Scenario::threePastes, 3);
        careful.plan(true, 80);
        const double sealed = 0.39; // of 0.35, 0.35 and 0.45: √mean of squares 0.386
        QVERIFY_NEAR(sdOf(offTruth(careful, false)), sealed, 0.06);
        Practised felt = practised(Scenario::threePastes, 3);
        felt.plan(false, 80);
        QVERIFY(sdOf(offTruth(felt, false)) > 1.5 * sealed);
    }
    void mishapsComeAboutAsOftenAsTheyShould() { // 300 mounts, two in ten: 60 ± 3 × 6.9
        Practised one = practised(Scenario::threePastes, 5);
        one.plan(true, 100);
        int mishaps = 0;
        for (const Slot* slot : plannedSlots(one.document, one.study))
            mishaps += practiceMount(one.document, one.practice(), *slot).mishap != Mishap::none ? 1 : 0;
        QVERIFY2(mishaps > 39 && mishaps < 81, std::to_string(mishaps).c_str());
    }
    void filmIsNotWettedAtFirst() {
        Practised one = practised(Scenario::filmAndSheet, 2);
        one.plan(true, 1);
        for (const Slot* slot : plannedSlots(one.document, one.study)) {
            const Level& level = *one.document.find(slot->level);
            if (one.document.find(level.material)->kind != MaterialClass::phaseChange) continue;
            QCOMPARE(practiceMount(one.document, one.practice(), *slot).bench.wetting->wetted, 0.0);
            QVERIFY(practiceMount(one.document, one.practice(), *slot, worn(1)).bench.wetting->wetted > 0.99);
            return;
        }
        QFAIL("no film among the levels");
    }
    void everyScenarioIsAWholeStudy_data() {
        QTest::addColumn<int>("scenario");
        for (std::size_t i = 0; i < Words<Scenario>::all.size(); ++i)
            QTest::addRow("%zu", i) << static_cast<int>(i);
    }
    void everyScenarioIsAWholeStudy() {
        QFETCH(int, scenario);
        Practised one = practised(static_cast<Scenario>(scenario), 11);
        one.plan(true, 2);
        QCOMPARE(plannedSlots(one.document, one.study).size(), std::size_t{6});
        for (const SealedLevel& level : sealedTruth(one.document, one.practice()))
            QVERIFY2(level.deltaK > 15 && level.deltaK < 80, std::to_string(level.deltaK).c_str());
        QVERIFY(!purposeOf(one.practice().scenario).code.empty());
        for (const Slot* slot : plannedSlots(one.document, one.study)) // a bench that can be
            BenchSimulation(practiceMount(one.document, one.practice(), *slot).bench, 1, 1).next(150);
    }
    void theCameraOverThePracticeBenchSeesWhatWasApplied() { // half the dose covers less than all of it
        Practised one = practised(Scenario::threePastes, 5);
        one.plan(true, 1);
        const Slot slot = *plannedSlots(one.document, one.study).front();
        const Question question = *firstQuestion(one.document, one.study);
        const Material* material = one.document.find(one.document.find(slot.level)->material);
        const Site site = *one.document.find(question.site);
        Id<Mount> made;
        one.change([&](Edit& edit) {
            Mount mount;
            mount.configuration = site.configuration;
            made = edit.add(mount);
            Application application;
            application.site = site.id;
            application.lot = one.document.where(&Lot::material, material->id).front()->id;
            application.pattern = ApplicationPattern::dot;
            edit.add(MountApplication{{}, made, edit.add(application), ApplicationUse::fresh});
            Slot filled = slot;
            filled.mount = made;
            edit.put(filled);
        });
        const auto scene = practicePhotograph(one.document, one.practice(), made, site, LookSide::chip);
        QVERIFY(scene.has_value());
        const auto again = practicePhotograph(one.document, one.practice(), made, site, LookSide::chip);
        QVERIFY(scene->film.bondLines == again->film.bondLines); // sealed: the same whenever it is looked at
        MadeUpLook whole, half;
        half.coveredShare = 0.4;
        const auto covered = [&](const MadeUpLook& look) {
            return coverageMaskOf(maskOf(madeUpScene(one.document, made, site, look)->film)).mean();
        };
        QVERIFY(covered(half) < covered(whole) - 0.1);
    }
    void theReviewTellsRightFromLuck() {
        Practised one = practised(Scenario::threePastes, 4);
        one.plan(true, 1);
        PracticeReview review = reviewOf(one.document, one.practice());
        QCOMPARE(review.levels.size(), std::size_t{3});
        QVERIFY(review.levels.front().trulyBest);
        one.change([&](Edit& edit) {
            Practice committed = one.practice();
            committed.committedBest = review.levels.back().truth.level;
            committed.committedAt = evening;
            edit.put(committed);
        });
        review = reviewOf(one.document, one.practice());
        QVERIFY(!review.right);
        QCOMPARE(review.sentences.front().code, std::string("practice-wrong"));
        one.change([&](Edit& edit) {
            Practice committed = one.practice();
            committed.committedBest = review.levels.front().truth.level;
            edit.put(committed);
        });
        review = reviewOf(one.document, one.practice());
        QVERIFY(review.right);
        // By a second road: the chance that the lowest of three normal means is the truly lowest, integrated.
        double chance = 0;
        const double width = 0.005;
        const auto density = [](double z) { return std::exp(-z * z / 2) / std::sqrt(2 * 3.14159265358979); };
        const auto above = [](double z) { return 0.5 * std::erfc(z / std::sqrt(2.0)); };
        for (std::size_t best = 0; best < 3; ++best) {
            if (!review.levels[best].trulyBest) continue;
            const SealedLevel& own = review.levels[best].truth;
            for (double z = -6; z < 6; z += width) {
                double both = density(z) * width;
                for (std::size_t k = 0; k < 3; ++k) {
                    const SealedLevel& other = review.levels[k].truth;
                    if (k != best)
                        both *= above((own.deltaK + z * own.mountSdK - other.deltaK) / other.mountSdK);
                }
                chance += both;
            }
        }
        QVERIFY_NEAR(review.namedRight, chance, 0.015);
    }
    void pastesAgeAtASealedPace() {
        int pumped = 0;
        int dried = 0;
        int stay = 0;
        for (int seed = 1; seed <= 20; ++seed) {
            auto one = practised(Scenario::threePastes, seed);
            one.plan(true, 1);
            for (const Slot* slot : plannedSlots(one.document, one.study)) {
                MountClock old;
                old.hours = 5'000;
                old.cycles = 300;
                const SimulatedBench fresh = practiceMount(one.document, one.practice(), *slot).bench;
                const SimulatedBench aged = practiceMount(one.document, one.practice(), *slot, old).bench;
                const double risen = BenchSimulation(aged, 1, 1).trueDeltaK(150)
                                     - BenchSimulation(fresh, 1, 1).trueDeltaK(150);
                pumped += aged.pumpOut.has_value();
                dried += aged.dryOut.has_value();
                stay += !aged.pumpOut && !aged.dryOut;
                QCOMPARE(risen > 0.05, aged.pumpOut || aged.dryOut);
            }
        }
        QVERIFY(pumped > 5 && dried > 5 && stay > 5); // 60 mounts; by the seed, not by chance
    }
};

IBUKI_TEST(TestPractice)
#include "tst_practice.moc"
