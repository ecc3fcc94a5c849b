// SPDX-License-Identifier: GPL-3.0-or-later
// Photographs from outside: what is read, what is refused, and that nothing beside the pixels is kept.

#include "core/base/input_error.h"
#include "store/picture/photograph_file.h"
#include "store/picture/png.h"
#include "support/test_class.h"

#include <QtTest>
#include <random>

using namespace ibuki;

class TestPhotographFile : public QObject {
    Q_OBJECT

    static RgbPicture ramp(int width, int height) {
        RgbPicture made{width, height, {}};
        for (int row = 0; row < height; ++row)
            for (int column = 0; column < width; ++column)
                for (const int level : {column * 255 / width, row * 255 / height, 90})
                    made.rgb.push_back(static_cast<std::uint8_t>(level));
        return made;
    }
    static std::string big(unsigned value, int bytes) {
        std::string made;
        for (int i = bytes - 1; i >= 0; --i) made.push_back(static_cast<char>(value >> (8 * i) & 255U));
        return made;
    }
    /// A JPEG with what a telephone writes: how it was held, a maker, a place.
    static std::string withExif(const std::string& jpeg, unsigned held) {
        const std::string reported = "Exif" + std::string(2, '\0') + "MM" + big(42, 2) + big(8, 4) + big(1, 2)
                                     + big(0x112, 2) + big(3, 2) + big(1, 4) + big(held, 2) + big(0, 2)
                                     + big(0, 4) + "SECRETPLACE 59.9N 10.7E MAKER";
        return jpeg.substr(0, 2) + "\xFF\xE1" + big(static_cast<unsigned>(reported.size() + 2), 2) + reported
               + jpeg.substr(2);
    }
    static std::string codeOf(const std::string& bytes) {
        try {
            photographFrom(bytes, "a.jpg");
        } catch (const InputError& error) {
            return error.message.code;
        }
        return {};
    }

private slots:
    void pngAndJpegAreRead() {
        const RgbPicture made = ramp(90, 60);
        const RgbPicture png = photographFrom(pngBytes(made), "a.png");
        QVERIFY(png.rgb == made.rgb);
        const RgbPicture jpeg = photographFrom(keptPhotograph(made), "a.jpg");
        QCOMPARE(jpeg.width, 90);
        int most = 0;
        for (std::size_t i = 0; i < made.rgb.size(); ++i)
            most = std::max(most, std::abs(made.rgb[i] - jpeg.rgb[i]));
        QVERIFY(most < 12);
    }
    void nothingBesideThePixelsIsKept() {
        const std::string from = withExif(keptPhotograph(ramp(90, 60)), 1);
        QVERIFY(from.find("SECRETPLACE") != std::string::npos);
        const std::string kept = keptPhotograph(photographFrom(from, "a.jpg"));
        for (const char* word : {"SECRETPLACE", "Exif", "MAKER", "59.9N"})
            QVERIFY(kept.find(word) == std::string::npos);
        QVERIFY(kept.find("\xFF\xE1") == std::string::npos);
    }
    void picturesStandAsTheCameraWasHeld_data() {
        QTest::addColumn<unsigned>("held");
        QTest::addColumn<int>("x"); // where the first pixel of the file is seen
        QTest::addColumn<int>("y");
        QTest::newRow("upright") << 1U << 0 << 0;
        QTest::newRow("mirrored") << 2U << 89 << 0;
        QTest::newRow("on its head") << 3U << 89 << 59;
        QTest::newRow("flipped") << 4U << 0 << 59;
        QTest::newRow("transposed") << 5U << 0 << 0;
        QTest::newRow("to the right") << 6U << 59 << 0;
        QTest::newRow("transversed") << 7U << 59 << 89;
        QTest::newRow("to the left") << 8U << 0 << 89;
    }
    void picturesStandAsTheCameraWasHeld() {
        QFETCH(unsigned, held);
        QFETCH(int, x);
        QFETCH(int, y);
        RgbPicture made = ramp(90, 60);
        for (std::size_t i = 0; i < made.rgb.size(); ++i) made.rgb[i] = 0;
        for (int row = 0; row < 12; ++row)
            for (int column = 0; column < 12 * 3; ++column)
                made.rgb[static_cast<std::size_t>(row * 270 + column)] = 255;
        const RgbPicture seen = photographFrom(withExif(keptPhotograph(made), held), "a.jpg");
        QCOMPARE(seen.width, held >= 5 ? 60 : 90);
        QVERIFY(seen.rgb[static_cast<std::size_t>((y * seen.width + x) * 3)] > 200);
    }
    void largePicturesAreKeptSmaller() {
        const RgbPicture kept = photographFrom(keptPhotograph(ramp(900, 300), 300), "a.jpg");
        QCOMPARE(kept.width, 300);
        QCOMPARE(kept.height, 100);
    }
    void hugeOnesAreRefusedBeforeTheyAreDecoded() {
        std::string png = pngBytes(ramp(20, 20));
        png.replace(16, 8, big(60'000, 4) + big(60'000, 4));
        QCOMPARE(codeOf(png), std::string("picture-large"));
        std::string jpeg = keptPhotograph(ramp(20, 20));
        const std::size_t frame = jpeg.find("\xFF\xC0");
        QVERIFY(frame != std::string::npos);
        jpeg.replace(frame + 5, 4, big(65'000, 2) + big(65'000, 2));
        QCOMPARE(codeOf(jpeg), std::string("picture-large"));
    }
    void halfAFileIsToldAsThat() {
        for (const std::string& whole : {pngBytes(ramp(200, 100)), keptPhotograph(ramp(200, 100))})
            QCOMPARE(codeOf(whole.substr(0, whole.size() / 2)), std::string("picture-unreadable.cut"));
    }
    void otherThingsAreNoPictures() {
        for (const std::string& bytes : {std::string(), std::string("GIF89a"), std::string("\xFF\xD8\xFF", 3),
                                         std::string("\x89PNG\r\n\x1A\n"), std::string(5000, '\xFF')})
            QVERIFY(!codeOf(bytes).empty());
    }
    void damagedPicturesEndInAValueOrARefusal() {
        std::mt19937 random(5);
        for (const std::string& whole : {pngBytes(ramp(40, 30)), withExif(keptPhotograph(ramp(40, 30)), 6)})
            for (int trial = 0; trial < 1500; ++trial) {
                std::string bytes = whole;
                for (int hits = 0; hits < 1 + trial % 6; ++hits)
                    bytes[random() % bytes.size()] = static_cast<char>(random() & 255U);
                try {
                    const RgbPicture read = photographFrom(bytes, "a");
                    QCOMPARE(read.rgb.size(), static_cast<std::size_t>(read.width)
                                                  * static_cast<std::size_t>(read.height) * 3);
                } catch (const InputError&) { // refused with a sentence
                }
            }
    }
};

IBUKI_TEST(TestPhotographFile)
#include "tst_photograph_file.moc"
