// SPDX-License-Identifier: GPL-3.0-or-later
// Looks of a document: both sides joined, a corner that is bare again and again, what is bare in kelvins,
// what a rejection by look does to the verdict.

#include "core/domain/edit.h"
#include "core/evidence/evidence.h"
#include "core/inspect/joint_coverage.h"
#include "core/inspect/seen_before.h"
#include "core/inspect/void_penalty.h"
#include "core/shelf/shelf.h"
#include "core/simulate/made_up_look.h"
#include "support/near.h"
#include "support/places.h"
#include "support/stored_story.h"
#include "support/test_class.h"

#include "core/base/random.h"
#include "core/domain/lookup.h"
#include "store/project/project.h"

#include <QtTest>
#include <algorithm>
#include <cmath>

using namespace ibuki;

class TestLooks : public QObject {
    Q_OBJECT

    Document demo_;
    const Question* question_ = nullptr;

    static GreyPicture mask(int width, int height, int coveredColumns) {
        GreyPicture made{width, height, {}};
        for (int row = 0; row < height; ++row)
            for (int column = 0; column < width; ++column)
                made.grey.push_back(column < coveredColumns ? maskCovered : maskBare);
        return made;
    }
    const Mount* mountNamed(const char* name) const {
        for (const Slot* slot : slotsOf(demo_, question_->study))
            if (const Mount* mount = slot->mount ? demo_.find(*slot->mount) : nullptr;
                mount && mount->name == name)
                return mount;
        return nullptr;
    }

private slots:
    void initTestCase() {
        demo_ = Project::open(places::sampleProject, Access::readOnly).document();
        for (const auto& [id, study] : demo_.all<Study>())
            if (study.name == "Node coolers before the next voyage") question_ = firstQuestion(demo_, id);
        QVERIFY(question_);
    }

    void thePlateIsMirroredOntoTheChip() { // film to the left of both faces as they are seen: opposite places
        const GreyPicture chip = mask(40, 20, 10), plate = mask(40, 20, 10);
        const GreyPicture either = joined(chip, plate, LookJoin::either),
                          both = joined(chip, plate, LookJoin::both);
        QVERIFY_NEAR(coverageMaskOf(either).mean(), 0.5, 1e-9);
        QVERIFY_NEAR(coverageMaskOf(both).mean(), 0, 1e-9);
        QVERIFY(mirrored(mirrored(chip)) == chip);
        const GreyPicture same = joined(chip, mirrored(chip), LookJoin::both); // what was the same film
        QVERIFY(same == chip);
        QVERIFY_NEAR(coverageMaskOf(joined(mask(80, 40, 20), plate, LookJoin::either)).mean(), 0.5,
                     1e-9); // other scales
    }
    void theMeanMapIsTheMeanOfMasks() {
        const GreyPicture a = mask(40, 20, 40), b = mask(40, 20, 20);
        const CoverageMap map = coverageMap({&a, &b}, 40);
        QCOMPARE(map.looks, 2);
        QVERIFY_NEAR(double(map.covered[0]), 1, 1e-6);
        QVERIFY_NEAR(double(map.covered[39]), 0.5, 1e-6);
        QCOMPARE(coverageMap({}, 40).looks, 0);
    }
    void aCornerThatIsBareAgainAndAgainIsTold() {
        std::vector<std::array<double, 4>> looks;
        Random random(4);
        for (int i = 0; i < 8; ++i) {
            std::array<double, 4> corners{};
            for (double& corner : corners) corner = 0.9 + 0.05 * random.normal();
            corners[1] -= 0.4;
            looks.push_back(corners);
        }
        const auto bare = bareCorner(looks);
        QVERIFY(bare && bare->corner == 1);
        QVERIFY_NEAR(bare->less, 0.4, 0.06);
        QVERIFY(!bareCorner({looks[0], looks[1]}));
    }
    void
    cornersThatScatterAlikeAreNotBlamed() { // at most 5 % of sets of six looks; 3 standard errors above that
        Random random(9);
        constexpr int sets = 2'000;
        int blamed = 0;
        for (int set = 0; set < sets; ++set) {
            std::vector<std::array<double, 4>> looks(6);
            for (auto& look : looks)
                for (double& corner : look) corner = std::clamp(0.6 + 0.25 * random.normal(), 0.0, 1.0);
            blamed += bareCorner(looks) ? 1 : 0;
        }
        qInfo("blamed in %.2f %%", 100.0 * blamed / sets);
        QVERIFY(blamed <= sets * (0.05 + 3 * std::sqrt(0.05 * 0.95 / sets)));
    }
    void coverageAgainstDeltaIsOneSlopeWithinMaterials() { // y = height + 45 − 12·x, exactly; heights differ
        std::vector<CoveragePoint> points;
        for (const int material : {1, 2})
            for (const double covered : {0.6, 0.7, 0.9, 0.95})
                points.push_back({material, covered - 0.05 * material,
                                  45 + 6 * material - 12 * (covered - 0.05 * material)});
        const auto slope = coverageSlope(points);
        QVERIFY(slope.has_value());
        QVERIFY_NEAR(slope->kPerTenth, -1.2, 1e-9);
        QVERIFY_NEAR(slope->ci.lo, -1.2, 1e-5);
        QVERIFY(!coverageSlope({points[0], points[1], points[2]}));
        // Coverage of the interval over 2,000 sets: 95 % ± 3 standard errors.
        Random random(21);
        constexpr int sets = 2'000;
        int held = 0;
        for (int set = 0; set < sets; ++set) {
            for (CoveragePoint& point : points)
                point.deltaK =
                    45 + 6 * static_cast<double>(point.material) - 12 * point.covered + 0.4 * random.normal();
            const CoverageSlope found = *coverageSlope(points);
            held += found.ci.lo <= -1.2 && -1.2 <= found.ci.hi ? 1 : 0;
        }
        QVERIFY(std::abs(held - 0.95 * sets) <= 3 * std::sqrt(0.95 * 0.05 * sets));
    }
    void theDemoHasLooksAndTheirPicturesAreMeasured() {
        int measured = 0;
        for (const auto& [id, picture] : demo_.all<JointPicture>()) {
            QVERIFY(picture.corners.has_value());
            QVERIFY(picture.covered && *picture.covered > 0.3 && *picture.covered <= 1);
            QVERIFY(*picture.coveredLow <= *picture.covered && *picture.covered <= *picture.coveredHigh);
            ++measured;
        }
        QVERIFY(measured >= 20);
        QVERIFY(!seenBefore(demo_, benchOf(demo_, *mountNamed("Tern 11 2"))->id).empty());
    }
    void whatIsBareCostsKelvins() {
        const Mount* mount = mountNamed("Tern 11 2");
        QVERIFY(mount);
        const auto whole = costPaths(demo_, *question_, *mount, mask(60, 60, 60));
        QVERIFY(whole.has_value());
        FieldOptions options;
        options.grid.cellMm = 1.5;
        QVERIFY_NEAR(voidPenalty(*whole, options).meanK, 0, 1e-6);
        double before = 0;
        for (const int columns : {54, 42, 30}) { // a property: the less is covered, the more it costs
            const VoidPenalty cost =
                voidPenalty(*costPaths(demo_, *question_, *mount, mask(60, 60, columns)), options);
            QVERIFY(cost.meanK > before && cost.maxK > 0);
            before = cost.meanK;
        }
    }
    void fellowsAreTheOthersOfItsLevel() { // by hand: its ΔT less the mean of the others under the same load
        const Mount* mount = mountNamed("Tern 11 2");
        const auto residual = fellowResidual(demo_, *question_, mount->id);
        QVERIFY(residual && residual->sdK);
        const auto rows = runRows(demo_, *question_);
        double own = 0, sum = 0;
        int fellows = 0;
        for (const RunRow& row : rows) {
            if (!row.cell || !row.deltaK) continue;
            if (row.mountId == mount->id)
                own = *row.deltaK;
            else if (enters(row) && demo_.find(row.level)->name == "Tern 11") {
                sum += *row.deltaK;
                ++fellows;
            }
        }
        QCOMPARE(residual->fellows, fellows);
        QVERIFY_NEAR(residual->aboveK, own - sum / fellows, 1e-9);
    }
    void readingsOfACost_data() {
        QTest::addColumn<double>("cost");
        QTest::addColumn<double>("above");
        QTest::addColumn<int>("reading");
        QTest::newRow("explains") << 2.1 << 2.4 << static_cast<int>(CostReading::explains);
        QTest::newRow("too little") << 0.2 << 2.4 << static_cast<int>(CostReading::tooLittle);
        QTest::newRow("not seen") << 2.1 << 0.1 << static_cast<int>(CostReading::notSeen);
        QTest::newRow("nothing") << 0.2 << 0.1 << static_cast<int>(CostReading::nothingToExplain);
        QTest::newRow("cooler") << 0.2 << -2.4 << static_cast<int>(CostReading::nothingToExplain);
    }
    void readingsOfACost() {
        QFETCH(double, cost);
        QFETCH(double, above);
        QFETCH(int, reading);
        QCOMPARE(static_cast<int>(readCost({cost, cost, false}, FellowResidual{above, 3, 0.3})), reading);
        QCOMPARE(static_cast<int>(readCost({cost, cost, false}, std::nullopt)),
                 static_cast<int>(CostReading::unknown));
    }
    void theDoseSaysHowFarItShouldHaveSpread() {
        const Mount* mount = mountNamed("Plover 4 1");
        QVERIFY(mount);
        const auto site = lookedSite(demo_, *question_, *mount);
        const auto expected = expectedSpread(demo_, mount->id, *demo_.find(*site));
        QVERIFY(expected.has_value());
        QVERIFY(expected->covered > 0.5 && expected->covered <= 1);
    }
    void aRejectionByLookIsTakenBackOnPaper() {
        Edit edit(demo_, "reject");
        const Mount* mount = mountNamed("Tern 11 2");
        Mount rejected = *mount;
        rejected.rejected = true;
        rejected.reason = "dry corner";
        edit.put(rejected);
        JointInspection look = *demo_.where(&JointInspection::mount, mount->id).front();
        look.rejects = true;
        look.figureKnown = true;
        edit.put(look);
        const Question* question = edit.document().find(question_->id);
        const auto byLook = lookRejections(edit.document(), *question);
        QVERIFY(byLook && byLook->mounts == 1 && byLook->figureKnown == 1 && byLook->with);
        const Evidence before = gatherEvidence(demo_, *question_),
                       after = gatherEvidence(edit.document(), *question);
        QVERIFY(!before.byLook && after.byLook);
        // With it the groups are what they were.
        for (std::size_t g = 0; g < before.comparison->groups.size(); ++g) {
            QCOMPARE(byLook->with->groups[g].mounts, before.comparison->groups[g].mounts);
            if (before.comparison->groups[g].mean)
                QVERIFY_NEAR(*byLook->with->groups[g].mean, *before.comparison->groups[g].mean, 1e-12);
        }
    }
    void effortFeedsTheShelfsRatingWhereNothingWasStated() {
        Edit edit(demo_, "ratings");
        for (const auto& [id, application] : demo_.all<Application>()) {
            Application unrated = application;
            unrated.comesOff.reset();
            edit.put(unrated);
        }
        for (const auto& [id, look] : demo_.all<JointInspection>()) {
            JointInspection hard = look;
            hard.effort = 5;
            edit.put(hard);
        }
        const Material* material = materialAt(demo_, mountNamed("Tern 11 2")->id, question_->site);
        QVERIFY(material);
        const Ratings ratings = ratingsOf(edit.document(), material->id);
        QVERIFY(ratings.comesOff.has_value());
        QVERIFY_NEAR(ratings.comesOff->mean, 1, 1e-9); // as hard as can be
        QVERIFY(ratings.comesOff->count >= 2);
    }
    void theSimulatedCameraSeesBothFacesOfOneFilm() {
        const Mount* mount = mountNamed("Plover 4 1");
        const Site& site = *demo_.find(*lookedSite(demo_, *question_, *mount));
        MadeUpLook chip, plate;
        plate.side = LookSide::plate;
        const auto a = madeUpScene(demo_, mount->id, site, chip),
                   b = madeUpScene(demo_, mount->id, site, plate);
        QVERIFY(a && b);
        QVERIFY(mirrored(maskOf(b->film)) == maskOf(a->film));
    }
};

IBUKI_TEST(TestLooks)
#include "tst_looks.moc"
