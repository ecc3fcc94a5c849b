// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/shelf/cut.h"
#include "store/json/cut_json.h"
#include "store/paper/cut_svg.h"
#include "support/near.h"
#include "support/places.h"
#include "support/test_class.h"
#include "support/trials.h"

#include <QDir>
#include <QRegularExpression>
#include <fstream>

using namespace ibuki;

namespace {

constexpr double tiny = 1e-6;

CutSheet sheet(double width, double length, std::optional<int> count = {}, bool offcut = false) {
    return {"sheet", width, length, 1, count, offcut};
}

bool apart(const CutRect& a, const CutRect& b, double kerf) {
    return a.x + a.width + kerf <= b.x + tiny || b.x + b.width + kerf <= a.x + tiny
           || a.y + a.length + kerf <= b.y + tiny || b.y + b.length + kerf <= a.y + tiny;
}

/// Whether edge-to-edge cuts of the kerf's width can take the pieces apart.
bool guillotine(const std::vector<CutRect>& pieces, double kerf) {
    if (pieces.size() < 2) return true;
    for (bool down : {true, false})
        for (const CutRect& candidate : pieces) {
            const double at = down ? candidate.x + candidate.width : candidate.y + candidate.length;
            std::vector<CutRect> before, after;
            bool clean = true;
            for (const CutRect& piece : pieces) {
                const double begin = down ? piece.x : piece.y;
                const double end = begin + (down ? piece.width : piece.length);
                if (end <= at + tiny)
                    before.push_back(piece);
                else if (begin >= at + kerf - tiny)
                    after.push_back(piece);
                else
                    clean = false;
            }
            if (clean && !before.empty() && !after.empty())
                return guillotine(before, kerf) && guillotine(after, kerf);
        }
    return false;
}

void cutUp(Random& random, double width, double length, int pieces, std::vector<CutPiece>& made) {
    const bool down = width > length;
    const double side = down ? width : length;
    const double at = std::round(side * (0.25 + 0.5 * random.uniform()));
    if (pieces == 1 || at < 4 || side - at < 4) {
        made.push_back({"piece", width, length, 1, 1, true});
        return;
    }
    const int first = 1 + static_cast<int>(random.uniform() * (pieces - 1));
    cutUp(random, down ? at : width, down ? length : at, first, made);
    cutUp(random, down ? width - at : width, down ? length : length - at, pieces - first, made);
}

} // namespace

class TestCut : public QObject {
    Q_OBJECT

    /// Sizes, borders, no overlap, and that edge-to-edge cuts can take it apart.
    static void checkSound(const CutJob& job, const CutPlan& plan) {
        for (const CutLayout& layout : plan.layouts) {
            const CutSheet& from = job.sheets[layout.sheet];
            const double margin = from.offcut ? 0 : job.marginMm;
            std::vector<CutRect> rects;
            for (const CutPlacement& placement : layout.placements) {
                const CutRect& r = placement.at;
                const CutPiece& piece = job.pieces[placement.piece];
                QVERIFY(r.x >= margin - tiny && r.y >= margin - tiny);
                QVERIFY(r.x + r.width <= from.widthMm - margin + tiny);
                QVERIFY(r.y + r.length <= from.lengthMm - margin + tiny);
                QVERIFY_NEAR(r.width, placement.turned ? piece.lengthMm : piece.widthMm, tiny);
                QVERIFY_NEAR(r.length, placement.turned ? piece.widthMm : piece.lengthMm, tiny);
                QVERIFY(piece.mayTurn || !placement.turned);
                for (const CutRect& other : rects) QVERIFY(apart(r, other, job.kerfMm));
                rects.push_back(r);
            }
            QVERIFY(guillotine(rects, job.kerfMm));
        }
    }

private slots:
    void oneSizeReachesTheTwoOrientationRule() {
        const CutPlan plan = planCuts({{{"pad", 14, 12, 1, 58, true}}, {sheet(100, 100)}, 0, 0, true});
        QCOMPARE(plan.fullSheets, 1);
        QVERIFY(plan.missing.empty());
    }
    void aSheetThatWasCutUpFitsTogetherAgain_data() {
        QTest::addColumn<int>("pieces");
        QTest::addColumn<int>("seed");
        for (int pieces : {5, 8, 11, 14, 17}) {
            if (test::sanitized && pieces > 11) break;
            for (int seed = 1; seed <= (test::sanitized ? 1 : 2); ++seed)
                QTest::addRow("%d pieces, seed %d", pieces, seed) << pieces << seed;
        }
    }
    void aSheetThatWasCutUpFitsTogetherAgain() {
        QFETCH(int, pieces);
        QFETCH(int, seed);
        Random random(static_cast<std::uint64_t>(100 * pieces + seed));
        CutJob job;
        job.sheets = {sheet(100, 100)};
        cutUp(random, 100, 100, pieces, job.pieces);
        const CutPlan plan = planCuts(job);
        QCOMPARE(plan.fullSheets, 1);
        QVERIFY_NEAR(plan.waste(), 0, 1e-9);
    }
    void noMoreSheetsThanTheBestKnown_data() {
        QTest::addColumn<QString>("path");
        QDir folder(QString(places::testData) + "/cuts");
        const QStringList files = folder.entryList({"*.json"});
        QVERIFY(files.size() >= 10);
        for (const QString& file : files) QTest::addRow("%s", qPrintable(file)) << folder.filePath(file);
    }
    void noMoreSheetsThanTheBestKnown() {
        QFETCH(QString, path);
        std::ifstream file(path.toStdString());
        const auto layout = nlohmann::json::parse(file);
        const CutJob job = cutJobFromJson(layout["job"], path.toStdString());
        const CutPlan plan = planCuts(job);
        QVERIFY(plan.missing.empty());
        QVERIFY(plan.fullSheets <= layout["full_sheets"].get<int>());
        checkSound(job, plan);
    }
    void randomJobsAreSound() {
        Random random(7);
        for (int round = 0; round < test::trials(25); ++round) {
            CutJob job;
            job.kerfMm = round % 3 * 0.3;
            job.marginMm = round % 2 * 1.0;
            job.sheets = {sheet(80 + std::floor(60 * random.uniform()), 90), sheet(40, 35, 1, true)};
            int asked = 0;
            for (int i = 0; i < 8; ++i) {
                job.pieces.push_back({"piece", 4 + std::floor(28 * random.uniform()),
                                      4 + std::floor(28 * random.uniform()), 1, 1 + i % 3, i % 4 != 0});
                asked += 1 + i % 3;
            }
            const CutPlan plan = planCuts(job);
            QVERIFY(plan.missing.empty());
            int placed = 0;
            for (const CutLayout& layout : plan.layouts) placed += static_cast<int>(layout.placements.size());
            QCOMPARE(placed, asked);
            checkSound(job, plan);
        }
    }
    void offcutsAreUsedFirst() {
        const CutPlan plan =
            planCuts({{{"pad", 14, 12, 1, 2, true}}, {sheet(100, 100), sheet(30, 14, 1, true)}, 0, 0, true});
        QCOMPARE(plan.fullSheets, 0);
        QCOMPARE(plan.offcutSheets, 1);
    }
    void tooFewSheetsAreSaid() {
        const CutPlan plan = planCuts({{{"pad", 60, 60, 1, 3, true}}, {sheet(100, 100, 2)}, 0, 0, true});
        QCOMPARE(plan.missing, (std::vector<std::pair<std::size_t, int>>{{0, 1}}));
    }
    void whatCannotBeIsRefused() {
        const auto refused = [](const CutJob& job) -> std::string {
            try {
                planCuts(job);
            } catch (const InputError& error) {
                return error.code;
            }
            return "accepted";
        };
        QCOMPARE(refused({{{"pad", 14, 12, 2, 1, true}}, {sheet(100, 100)}, 0, 0, true}),
                 std::string("cut-no-sheet"));
        QCOMPARE(refused({{{"pad", 140, 12, 1, 1, true}}, {sheet(100, 100)}, 0, 0, true}),
                 std::string("cut-piece-too-large"));
        QCOMPARE(refused({{{"pad", -14, 12, 1, 1, true}}, {sheet(100, 100)}, 0, 0, true}),
                 std::string("cut-value"));
        QCOMPARE(refused({{}, {sheet(100, 100)}, 0, 0, true}), std::string("cut-value"));
    }
    void thePageIsOneToOne() {
        const CutJob job{{{"pad", 14, 12, 1, 1, true}}, {sheet(100, 90)}, 0, 0, true};
        const QString svg = QString::fromStdString(cutSvg(job, planCuts(job).layouts.front(), "Sheet 1"));
        QVERIFY(svg.contains("width=\"210mm\" height=\"297mm\" viewBox=\"0 0 210 297\""));
        const auto number = [&](const QString& element, const QString& attribute) {
            const QRegularExpression find("class=\"" + element + "\"[^>]*? " + attribute + "=\"([0-9.]+)\"");
            return find.match(svg).captured(1).toDouble();
        };
        QVERIFY_NEAR(number("ruler", "x2") - number("ruler", "x1"), 50, 1e-9);
        QVERIFY_NEAR(number("sheet", "width"), 100, 1e-9);
        QVERIFY_NEAR(number("piece", "width") * number("piece", "height"), 168, 1e-6);
    }
};

IBUKI_TEST(TestCut)
#include "tst_cut.moc"
