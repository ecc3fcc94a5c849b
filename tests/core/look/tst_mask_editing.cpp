// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/look/mask_editing.h"
#include "support/test_class.h"

#include <queue>

using namespace ibuki;

namespace {

GreyPicture plain(int width, int height, std::uint8_t level) {
    return {
        width, height,
        std::vector<std::uint8_t>(static_cast<std::size_t>(width) * static_cast<std::size_t>(height), level)};
}

std::uint8_t& at(GreyPicture& mask, int x, int y) {
    return mask.grey[static_cast<std::size_t>(y) * static_cast<std::size_t>(mask.width)
                     + static_cast<std::size_t>(x)];
}

std::ptrdiff_t count(const GreyPicture& mask, std::uint8_t level) {
    return std::count(mask.grey.begin(), mask.grey.end(), level);
}

/// What differs lies inside the part that was said to be touched.
void checkPart(const GreyPicture& before, GreyPicture after, const MaskPart& part) {
    GreyPicture old = before;
    for (int y = 0; y < old.height; ++y)
        for (int x = 0; x < old.width; ++x) {
            const bool inside =
                x >= part.left && x < part.left + part.width && y >= part.top && y < part.top + part.height;
            if (!inside) QCOMPARE(at(after, x, y), at(old, x, y));
        }
    QVERIFY(part.left >= 0 && part.top >= 0 && part.left + part.width <= old.width
            && part.top + part.height <= old.height);
}

} // namespace

class TestMaskEditing : public QObject {
    Q_OBJECT
private slots:
    void aBrushAtRestIsADisc() {
        GreyPicture mask = plain(101, 101, maskBare);
        brush(mask, {50.5, 50.5}, {50.5, 50.5}, 20, maskCovered);
        const double area = static_cast<double>(count(mask, maskCovered));
        QVERIFY2(std::abs(area / (std::numbers::pi * 400) - 1) < 0.06, std::to_string(area).c_str());
        QCOMPARE(at(mask, 50, 50), maskCovered);
        QCOMPARE(at(mask, 50, 50 + 25), maskBare);
    }
    void aStrokeIsAStadium() {
        GreyPicture mask = plain(200, 60, maskBare);
        brush(mask, {30, 30}, {170, 30}, 10, maskThin);
        const double area = static_cast<double>(count(mask, maskThin));
        QVERIFY2(std::abs(area / (140 * 20 + std::numbers::pi * 100) - 1) < 0.07,
                 std::to_string(area).c_str());
        for (int x = 30; x <= 170; x += 10) QCOMPARE(at(mask, x, 30), maskThin);
        QCOMPARE(at(mask, 100, 45), maskBare);
    }
    void brushesAnywhereStayInsideTheirPart() { // also far outside the mask, and of no size
        Random random(41);
        for (int round = 0; round < 400; ++round) {
            GreyPicture mask = plain(40, 30, maskBare);
            const GreyPicture before = mask;
            const auto place = [&] {
                return PlanePoint{-60 + 160 * random.uniform(), -60 + 150 * random.uniform()};
            };
            const PlanePoint from = place();
            const PlanePoint to = place();
            checkPart(before, mask, brush(mask, from, to, 25 * random.uniform(), maskCovered));
        }
    }
    void aPolygonIsFilledToItsArea() {
        GreyPicture mask = plain(100, 100, maskBare);
        const GreyPicture before = mask;
        const MaskPart part = fillPolygon(mask, {{10, 10}, {90, 10}, {90, 70}, {10, 70}}, maskCovered);
        checkPart(before, mask, part);
        QVERIFY(std::abs(static_cast<double>(count(mask, maskCovered)) - 80 * 60)
                < 160); // its outline counts
        GreyPicture triangle = plain(100, 100, maskBare);
        fillPolygon(triangle, {{0, 0}, {99, 0}, {0, 99}}, maskCovered);
        QVERIFY(std::abs(static_cast<double>(count(triangle, maskCovered)) - 99 * 99 / 2.0) < 160);
    }
    void aPolygonOfLessThanThreeCornersTouchesNoArea() {
        for (const std::vector<PlanePoint>& corners :
             {std::vector<PlanePoint>{}, std::vector<PlanePoint>{{5, 5}},
              std::vector<PlanePoint>{{5, 5}, {9, 9}}}) {
            GreyPicture mask = plain(20, 20, maskBare);
            const GreyPicture before = mask;
            checkPart(before, mask, fillPolygon(mask, corners, maskCovered));
            QVERIFY(count(mask, maskCovered) <= 10);
        }
    }
    void aRegionIsFilledAsFarAsItsLevelReaches() { // against a walk of our own, on random masks
        Random random(42);
        for (int round = 0; round < 100; ++round) {
            GreyPicture mask = plain(24, 18, maskBare);
            for (std::uint8_t& level : mask.grey) level = random.uniform() < 0.45 ? maskCovered : maskBare;
            const int x0 = static_cast<int>(24 * random.uniform());
            const int y0 = static_cast<int>(18 * random.uniform());
            GreyPicture wanted = mask;
            const std::uint8_t level = at(wanted, x0, y0);
            std::queue<std::pair<int, int>> todo;
            todo.emplace(x0, y0);
            while (!todo.empty()) {
                const auto [x, y] = todo.front();
                todo.pop();
                if (x < 0 || y < 0 || x >= 24 || y >= 18 || at(wanted, x, y) != level) continue;
                at(wanted, x, y) = maskThin;
                for (const auto& [dx, dy] : {std::pair{1, 0}, {-1, 0}, {0, 1}, {0, -1}})
                    todo.emplace(x + dx, y + dy);
            }
            const GreyPicture before = mask;
            const MaskPart part = fillRegion(mask, {x0 + 0.5, y0 + 0.5}, maskThin);
            QVERIFY(mask == wanted);
            checkPart(before, mask, part);
        }
    }
    void fillingOutsideTouchesNothing() {
        GreyPicture mask = plain(10, 10, maskBare);
        const GreyPicture before = mask;
        for (const PlanePoint& outside : {PlanePoint{-1, 5}, PlanePoint{5, -0.5}, PlanePoint{10, 5},
                                          PlanePoint{5, 10}, PlanePoint{1e9, 1e9}, PlanePoint{-1e9, 3}}) {
            QCOMPARE(fillRegion(mask, outside, maskCovered).width, 0);
            QVERIFY(mask == before);
        }
    }
    void seedsHoldWhereTheyAre() {
        // Left half dark, right half bright, and the beginning is wrong by eight columns.
        const int width = 60;
        const int height = 40;
        RgbPicture face{width, height, {}};
        GreyPicture mask = plain(width, height, maskBare);
        GreyPicture seeds = plain(width, height, seedNone);
        Random random(43);
        for (int y = 0; y < height; ++y)
            for (int x = 0; x < width; ++x) {
                const double grey = (x < width / 2 ? 70 : 190) + 6 * random.normal();
                for (int c = 0; c < 3; ++c)
                    face.rgb.push_back(static_cast<std::uint8_t>(std::clamp(grey, 0.0, 255.0)));
                if (x < width / 2 - 8) at(mask, x, y) = maskCovered;
            }
        for (int y = 10; y < 30; ++y) {
            at(seeds, 4, y) = maskCovered;
            at(seeds, width - 5, y) = maskBare;
        }
        GreyPicture refined = refinedMask(face, mask, seeds);
        int wrong = 0;
        for (int y = 0; y < height; ++y)
            for (int x = 0; x < width; ++x)
                wrong += (at(refined, x, y) >= maskFromHere) != (x < width / 2) ? 1 : 0;
        QVERIFY2(wrong < width * height / 50, std::to_string(wrong).c_str());
        for (int y = 10; y < 30; ++y) {
            QVERIFY(at(refined, 4, y) >= maskFromHere);
            QVERIFY(at(refined, width - 5, y) < maskFromHere);
        }
    }
};

IBUKI_TEST(TestMaskEditing)
#include "tst_mask_editing.moc"
