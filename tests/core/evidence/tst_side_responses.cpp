// SPDX-License-Identifier: GPL-3.0-or-later
// What is asked of a comparison, other responses of the same mounts, and what they say together.

#include "core/evidence/joint_reading.h"
#include "core/setup/question_setup.h"
#include "store/paper/joint_sentences.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"

#include <functional>

using namespace ibuki;

class TestSideResponses : public QObject {
    Q_OBJECT

    static Question question(const story::Asked& asked) {
        return *firstQuestion(asked.document, asked.study);
    }

    /// A reading for every run: of its mount's name and number.
    static void read(story::Asked& asked, SideResponse kind, Better better, const char* unit,
                     const std::function<double(const Mount&, int number)>& value) {
        Edit edit(asked.document, "read");
        std::map<std::string, int> numbers;
        std::vector<EnteredReading> readings;
        for (const Mount* mount : mountsOf(asked.document, asked.bench))
            for (const Run* run : runsOf(asked.document, mount->id)) {
                EnteredReading reading;
                reading.run = run->id;
                reading.kind = kind;
                reading.unit = unit;
                reading.better = better;
                reading.value = value(*mount, ++numbers[mount->name.substr(0, 4)]);
                readings.push_back(reading);
            }
        for (const EnteredReading& reading : readings) edit.add(reading);
        apply(asked.document, edit.finish());
    }
    static const SideComparison* sideOf(const std::vector<SideComparison>& sides, SideResponse response) {
        for (const SideComparison& side : sides)
            if (side.response == response) return &side;
        return nullptr;
    }
    static void change(story::Asked& asked, const std::function<void(Question&)>& how) {
        Question changed = question(asked);
        how(changed);
        asked.document.put(changed);
    }

private slots:
    void powerAndResistanceComeFromTheLogs() {
        const auto asked = story::measured();
        const Evidence evidence = gatherEvidence(asked.document, question(asked));
        const auto sides = sideComparisons(asked.document, question(asked), evidence);
        const SideComparison* power = sideOf(sides, SideResponse::power);
        QVERIFY(power && power->comparison);
        QVERIFY_NEAR(*power->comparison->groups.front().mean, 150, 1.0);
        QCOMPARE(power->unit, std::string("W"));
        const SideComparison* resistance = sideOf(sides, SideResponse::perWatt);
        QVERIFY(resistance && resistance->comparison);
        // ΔT over power, of the same mounts: the same order, told apart alike.
        QVERIFY_NEAR(*resistance->comparison->pairs.front().difference * 150,
                     *evidence.comparison->pairs.front().difference, 0.1);
        QVERIFY_NEAR(resistance->margin, question(asked).margin.value / 150, 1e-4);
        QVERIFY(!sideOf(sides, SideResponse::score));
    }
    void readingsAreComparedByTheSameMounts() {
        auto asked = story::measured();
        read(asked, SideResponse::score, Better::higher, "points", [](const Mount& mount, int number) {
            return (mount.name.starts_with("Tern") ? 1000 : 940) + 2 * number;
        });
        const Evidence evidence = gatherEvidence(asked.document, question(asked));
        const auto sides = sideComparisons(asked.document, question(asked), evidence);
        const SideComparison* score = sideOf(sides, SideResponse::score);
        QVERIFY(score && score->comparison);
        QVERIFY_NEAR(score->margin, 9.6, 1e-9); // 1 % of 964, to two digits
        QVERIFY(!score->comparison->options.lowerIsBetter);
        QCOMPARE(score->comparison->groups.front().mounts, 3);
        const auto readings = jointReadings(evidence, sides);
        QCOMPARE(readings.size(), std::size_t{2}); // the leader against each other one
        for (const JointReading& reading : readings) {
            QCOMPARE(reading.firstName, std::string("Tern 11"));
            QCOMPARE(reading.temperature, TemperatureReading::cooler);
            QVERIFY(reading.gains.size() == 1 && reading.gains.front().isMerit);
            QVERIFY_NEAR(reading.gains.front().difference, 60, 1e-9);
        }
        const auto reported = jointSentences(evidence, sides, question(asked));
        QVERIFY2(reported.front().text.find("% faster by score.") != std::string::npos,
                 reported.front().text.c_str());
    }
    void aFanThatFollowsHidesAPartOfTheGain() {
        auto asked = story::measured();
        read(asked, SideResponse::fanShare, Better::lower, "%", [](const Mount& mount, int number) {
            return (mount.name.starts_with("Tern") ? 52 : 58) + 0.1 * number;
        });
        const Evidence evidence = gatherEvidence(asked.document, question(asked));
        const auto sides = sideComparisons(asked.document, question(asked), evidence);
        const auto readings = jointReadings(evidence, sides);
        QCOMPARE(readings.front().fan, JointReading::Fan::hides);
        const auto reported = jointSentences(evidence, sides, question(asked)).front().text;
        QVERIFY2(reported.find("points less fan: both are understated, since the fan moved.")
                     != std::string::npos,
                 reported.c_str());
    }
    void aFanThatTurnsFasterIsAPartOfTheGain() {
        auto asked = story::measured();
        read(asked, SideResponse::fanShare, Better::lower, "%", [](const Mount& mount, int number) {
            return (mount.name.starts_with("Tern") ? 66 : 58) + 0.1 * number;
        });
        const Evidence evidence = gatherEvidence(asked.document, question(asked));
        const auto readings =
            jointReadings(evidence, sideComparisons(asked.document, question(asked), evidence));
        QCOMPARE(readings.front().fan, JointReading::Fan::helps);
        QVERIFY(!readings.front().gains.front().isMerit);
    }
    void aStatedMarginCounts() {
        auto asked = story::measured();
        read(asked, SideResponse::noise, Better::lower, "dB(A)",
             [](const Mount&, int number) { return 33 + 0.1 * number; });
        SideMargin margin;
        margin.question = question(asked).id;
        margin.response = SideResponse::noise;
        margin.margin = 2.5;
        Edit edit(asked.document, "margin");
        edit.add(margin);
        apply(asked.document, edit.finish());
        const auto sides =
            sideComparisons(asked.document, question(asked), gatherEvidence(asked.document, question(asked)));
        const SideComparison* noise = sideOf(sides, SideResponse::noise);
        QVERIFY(noise->marginStated);
        QCOMPARE(noise->comparison->options.margin, 2.5);
        for (const PairComparison& pair : noise->comparison->pairs)
            QCOMPARE(pair.verdict, Verdict::equivalent);
    }
    void oneMountEachIsToldWithoutAnInterval() {
        auto asked = story::measured();
        read(asked, SideResponse::score, Better::higher, "points",
             [](const Mount& mount, int) { return mount.name.starts_with("Tern") ? 1000 : 920; });
        for (const Mount* mount : mountsOf(asked.document, asked.bench)) {
            Mount copy = *mount;
            copy.rejected = !copy.name.ends_with(" 1");
            asked.document.put(copy);
        }
        const Evidence evidence = gatherEvidence(asked.document, question(asked));
        const auto sides = sideComparisons(asked.document, question(asked), evidence);
        QVERIFY(!sideOf(sides, SideResponse::score)->comparison);
        const auto reported = jointSentences(evidence, sides, question(asked));
        QVERIFY(!reported.empty());
        for (const VerdictSentence& sentence : reported) {
            QCOMPARE(sentence.kind, SentenceKind::provisional);
            QVERIFY2(sentence.text.find("one mount each") != std::string::npos, sentence.text.c_str());
        }
    }
    void evenAtTheLimitSomethingIsTold() {
        auto asked = story::measured();
        for (const Mount* mount : mountsOf(asked.document, asked.bench))
            for (const Run* run : runsOf(asked.document, mount->id)) {
                RunReduction stored = **asked.document.where(&RunReduction::run, run->id).begin();
                stored.reduction.change([](Reduction& reduction) {
                    for (LoadReduction& load : reduction.loads) load.limit.censored = true;
                    for (auto& [metric, other] : reduction.others)
                        for (LoadReduction& load : other.loads) load.limit.censored = true;
                });
                asked.document.put(stored);
            }
        const Evidence evidence = gatherEvidence(asked.document, question(asked));
        QVERIFY(!evidence.comparison); // all of them at their limit
        const auto sides = sideComparisons(asked.document, question(asked), evidence);
        const auto reported = allSentences(evidence, sides, question(asked));
        QVERIFY(reported.size() > 1);
        QVERIFY2(reported.front().text.find("passed the heat better than") != std::string::npos,
                 reported.front().text.c_str());
        QCOMPARE(reported.back().kind, SentenceKind::caveat);
    }
    void whatIsNotComparedIsNotReadTogether() { // as across the levels of a second factor
        auto asked = story::measured();
        read(asked, SideResponse::score, Better::higher, "points", [](const Mount& mount, int number) {
            return (mount.name.starts_with("Tern") ? 1000 : 940) + 2 * number;
        });
        Evidence evidence = gatherEvidence(asked.document, question(asked));
        const auto sides = sideComparisons(asked.document, question(asked), evidence);
        QCOMPARE(jointReadings(evidence, sides).size(), std::size_t{2});
        std::erase_if(evidence.comparison->pairs, [&](const PairComparison& pair) {
            return evidence.comparison->groups[pair.a].name == "Dunlin C"
                   || evidence.comparison->groups[pair.b].name == "Dunlin C";
        });
        const auto readings = jointReadings(evidence, sides);
        QCOMPARE(readings.size(), std::size_t{1});
        QCOMPARE(readings.front().secondName, std::string("Plover 4"));
    }
    void whatIsTakenOutIsSaid() {
        auto asked = story::measured();
        change(asked, [](Question& q) {
            q.blocks = BlockBy::evening;
            q.orderTakenOut = true;
        });
        const Evidence evidence = gatherEvidence(asked.document, question(asked));
        QVERIFY(evidence.comparison->options.blocks && evidence.comparison->options.drift);
        QVERIFY(hasFlag(evidence.comparison->flags, "blocks-taken-out"));
    }
    void whatIsNotKnownIsNotTakenOut() {
        auto asked = story::measured();
        change(asked, [](Question& q) { q.blocks = BlockBy::person; });
        const Evidence evidence = gatherEvidence(asked.document, question(asked));
        QVERIFY(!evidence.comparison->options.blocks);
        QVERIFY(hasFlag(evidence.comparison->flags, "blocks-unknown"));
        QVERIFY(!evidence.people);
    }
    void peopleAreToldWhereTheyAreStated() {
        auto asked = story::measured();
        int place = 0;
        for (const Mount* mount : mountsOf(asked.document, asked.bench)) {
            Mount copy = *mount;
            copy.mountedBy = ++place % 2 ? "first technician" : "second technician";
            asked.document.put(copy);
        }
        change(asked, [](Question& q) { q.blocks = BlockBy::person; });
        const Evidence evidence = gatherEvidence(asked.document, question(asked));
        QVERIFY(evidence.people && evidence.people->persons == 2);
        QVERIFY(evidence.comparison->options.blocks);
    }
    void theRoomAsALine() {
        auto asked = story::measured();
        change(asked, [](Question& q) { q.covariate = Covariate::room; });
        const Evidence evidence = gatherEvidence(asked.document, question(asked));
        QVERIFY(evidence.comparison->covariate);
        QVERIFY(hasFlag(evidence.comparison->flags, "covariate-taken-out"));
    }
    void ownSpreadsByDesign() {
        auto asked = story::measured();
        change(asked, [](Question& q) { q.spread = MountSpread::own; });
        const Evidence own = gatherEvidence(asked.document, question(asked));
        QVERIFY(!own.comparison->pooledSd);
        QCOMPARE(own.comparison->pairs.front().adjustment, Adjustment::gamesHowell);
        change(asked, [](Question& q) { q.orderTakenOut = true; });
        const Evidence shared = gatherEvidence(asked.document, question(asked));
        QVERIFY(shared.comparison->pooledSd && hasFlag(shared.comparison->flags, "own-spread-left"));
    }
    void aResponseChosenAfterwardsIsMarked() {
        auto asked = story::measured(); // the first log fixed it
        QCOMPARE(question(asked).fixedMetric, std::optional(Metric::hottest));
        QVERIFY(!isResponseChanged(question(asked)));
        change(asked, [](Question& q) { q.metric = Metric::coreAverage; });
        QVERIFY(isResponseChanged(question(asked)));
        QCOMPARE(asFixed(question(asked)).metric, Metric::hottest);
        bool reported = false;
        for (const VerdictSentence& sentence :
             verdictSentences(gatherEvidence(asked.document, question(asked)), question(asked)))
            reported = reported
                       || sentence.text.find("fixed before the first mount was hottest core over room")
                              != std::string::npos;
        QVERIFY(reported);
    }
};

IBUKI_TEST(TestSideResponses)
#include "tst_side_responses.moc"
