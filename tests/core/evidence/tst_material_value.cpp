// SPDX-License-Identifier: GPL-3.0-or-later
// What materials are worth and for which use; a study of amounts or torques as a curve.

#include "core/evidence/material_value.h"
#include "core/evidence/setting_sweep.h"
#include "core/setup/question_setup.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"

#include <functional>

using namespace ibuki;

class TestMaterialValue : public QObject {
    Q_OBJECT

    static Question question(const story::Asked& asked) {
        return *firstQuestion(asked.document, asked.study);
    }

    /// The story's three pastes with priced tubes and a face of a size; ratings by material.
    static story::Asked priced(const std::map<std::string, double>& prices,
                               const std::map<std::string, int>& spreads = {}) {
        auto asked = story::measured();
        Site site = *asked.document.find(question(asked).site);
        site.width = site.length = Millimetre{34};
        asked.document.put(site);
        std::vector<Lot> lots;
        for (const auto& [id, lot] : asked.document.all<Lot>()) lots.push_back(lot);
        for (Lot& lot : lots) {
            const std::string name = asked.document.find(lot.material)->name;
            lot.content = 10;
            lot.contentUnit = ContentUnit::gram;
            lot.price = prices.contains(name) ? std::optional(prices.at(name)) : std::nullopt;
            lot.currency = lot.price ? "NOK" : "";
            asked.document.put(lot);
        }
        for (const Mount* mount : mountsOf(asked.document, asked.bench)) {
            const Application* there = applicationAt(asked.document, mount->id, question(asked).site);
            const Material* material = materialAt(asked.document, mount->id, question(asked).site);
            if (!there || !material || !spreads.contains(material->name)) continue;
            Application application = *there;
            application.spreads = spreads.at(material->name);
            asked.document.put(application);
        }
        return asked;
    }
    static MaterialValue judged(const story::Asked& asked) {
        return materialValue(asked.document, question(asked), gatherEvidence(asked.document, question(asked)),
                             {});
    }
    static std::vector<Advice> advised(const story::Asked& asked) {
        return adviceFor(judged(asked), gatherEvidence(asked.document, question(asked)));
    }
    static std::string first(const MaterialValue& value, const Advice& advice) {
        return advice.rows.empty() ? "" : value.rows[advice.rows.front()].material;
    }

private slots:
    void withoutPricesItSaysWhatIsMissing() {
        const MaterialValue value = judged(story::measured());
        QVERIFY(!value.front);
        QCOMPARE(value.reason->code, std::string("value-needs-prices"));
        QCOMPARE(value.leftOut.size(), std::size_t{3});
        QVERIFY(adviceFor(value, Evidence{}).empty());
    }
    void whatIsKnownOfAllIsJudged() {
        const auto asked = priced({{"Tern 11", 90}, {"Plover 4", 20}, {"Dunlin C", 5}});
        const MaterialValue value = judged(asked);
        QVERIFY(value.front);
        QCOMPARE(value.rows.size(), std::size_t{3});
        QCOMPARE(value.currency, std::string("NOK"));
        QCOMPARE(value.front->front.size(), std::size_t{3}); // the cooler, the dearer
        QVERIFY(std::find(value.missing.begin(), value.missing.end(), Criterion::ease)
                != value.missing.end());
        QVERIFY(value.rows.front().of(Criterion::safety));
        // Price of an application: the same dose of each, so that prices stand as those of the tubes.
        QVERIFY_NEAR(*value.rows[0].of(Criterion::price) / *value.rows[1].of(Criterion::price), 90.0 / 20,
                     1e-9);
    }
    void eachUseHasItsBest() {
        const auto asked = priced({{"Tern 11", 90}, {"Plover 4", 20}, {"Dunlin C", 5}});
        const MaterialValue value = judged(asked);
        const auto advice = advised(asked);
        QCOMPARE(advice.size(), allUses.size());
        QCOMPARE(first(value, advice[0]), std::string("Tern 11"));  // as cold as can be
        QCOMPARE(first(value, advice[4]), std::string("Dunlin C")); // the tightest budget
        QCOMPARE(advice[0].reasons, std::vector{Criterion::delta});
        QVERIFY(!advice[1].notKnown.empty()); // nobody rated ease
    }
    void ratingsCount() {
        const auto asked = priced({{"Tern 11", 20}, {"Plover 4", 20}, {"Dunlin C", 20}},
                                  {{"Tern 11", 2}, {"Plover 4", 5}, {"Dunlin C", 3}});
        const MaterialValue value = judged(asked);
        QCOMPARE(first(value, advised(asked)[3]), std::string("Plover 4")); // a first build
    }
    void unsettledTemperaturesPartNobody() {
        auto asked = priced({{"Tern 11", 20}, {"Plover 4", 20}, {"Dunlin C", 20}});
        Question wide = question(asked);
        wide.margin = Kelvin{40};
        asked.document.put(wide);
        for (const Advice& advice : advised(asked)) QVERIFY(advice.nothingMatters);
    }
    void scoresFollowTheWeights() {
        const auto asked = priced({{"Tern 11", 90}, {"Plover 4", 20}, {"Dunlin C", 5}});
        MaterialValue value = judged(asked);
        rescore(value, Weights{1, 0, 0, 0, 0, 0});
        QCOMPARE(*value.front->rows[0].score, 1.0);
        QCOMPARE(*value.front->rows[2].score, 0.0);
        rescore(value, Weights{0, 0, 1, 0, 0, 0}); // ease, which is not known
        QVERIFY(!value.front->rows[0].score);
    }
    void otherFactorsHaveNoPrice() {
        auto asked = priced({{"Tern 11", 90}, {"Plover 4", 20}, {"Dunlin C", 5}});
        Question torque = question(asked);
        torque.factor = Factor::torque;
        asked.document.put(torque);
        QCOMPARE(judged(asked).reason->code, std::string("value-needs-materials"));
    }
    void amountsAreACurve() {
        auto asked = story::measured();
        Question amounts = question(asked);
        amounts.factor = Factor::amount;
        asked.document.put(amounts);
        const std::map<std::string, double> grams{{"Dunlin C", 0.05}, {"Plover 4", 0.15}, {"Tern 11", 0.30}};
        for (const Level* there : levelsOf(asked.document, amounts.id)) {
            Level level = *there;
            level.amount = Gram{grams.at(level.name)};
            asked.document.put(level);
        }
        const Evidence evidence = gatherEvidence(asked.document, amounts);
        QVERIFY(variesSetting(amounts));
        const SettingSweep sweep = settingSweep(asked.document, amounts, evidence);
        QVERIFY(sweep.responses);
        QCOMPARE(sweep.points.size(), std::size_t{9});
        QCOMPARE(sweep.swept.lo, 0.05);
        QCOMPARE(sweep.swept.hi, 0.30);
        QCOMPARE(sweep.responses->responses.front().model, ResponseModel::exponential); // 6 K less with more
        QVERIFY(*sweep.responses->responses.front().smallest > 0.05);
    }
    void anAmountThatWasWeighedCounts() {
        auto asked = story::measured();
        Question amounts = question(asked);
        amounts.factor = Factor::amount;
        asked.document.put(amounts);
        QCOMPARE(settingSweep(asked.document, amounts, gatherEvidence(asked.document, amounts)).reason->code,
                 std::string("sweep-needs-setting"));
        const Mount* mount = mountsOf(asked.document, asked.bench).front();
        Application application;
        application.site = amounts.site;
        application.amount = Gram{0.12};
        Edit edit(asked.document, "weighed");
        if (const Application* there = applicationAt(asked.document, mount->id, amounts.site)) {
            application = *there;
            application.amount = Gram{0.12};
            edit.put(application);
        } else {
            edit.add(MountApplication{{}, mount->id, edit.add(application), ApplicationUse::fresh});
        }
        apply(asked.document, edit.finish());
        const auto sweep = settingSweep(asked.document, amounts, gatherEvidence(asked.document, amounts));
        QCOMPARE(sweep.points.size(), std::size_t{1});
        QCOMPARE(sweep.points.front().x, 0.12);
    }
};

IBUKI_TEST(TestMaterialValue)
#include "tst_material_value.moc"
