// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/utf8.h"
#include "support/test_class.h"

#include <QtTest>
#include <random>

using namespace ibuki;

class TestUtf8 : public QObject {
    Q_OBJECT
private slots:
    void onlyWhatRfc3629AllowsIsWellFormed_data() {
        QTest::addColumn<QByteArray>("bytes");
        QTest::addColumn<bool>("good");
        const std::pair<const char*, bool> cases[] = {
            {"plain", true},        {"41 C2 B0 43", true},  {"E2 82 AC", true},     {"F0 9F 9A 80", true},
            {"F4 8F BF BF", true},  {"ED 9F BF", true},     {"EE 80 80", true},     {"C2", false},
            {"C0 AF", false},       {"C1 BF", false},       {"E0 80 AF", false},    {"E0 9F BF", false},
            {"ED A0 80", false},    {"ED BF BF", false},    {"F0 80 80 AF", false}, {"F0 8F BF BF", false},
            {"F4 90 80 80", false}, {"F5 80 80 80", false}, {"FF", false},          {"80", false},
            {"E2 82", false},       {"E2 28 A1", false},    {"F0 9F 9A", false},    {"C2 41", false}};
        for (const auto& [text, good] : cases)
            QTest::newRow(text) << (QByteArray(text) == "plain"
                                        ? QByteArray("plain ASCII, longer than a word")
                                        : QByteArray::fromHex(text))
                                << good;
    }
    void onlyWhatRfc3629AllowsIsWellFormed() {
        QFETCH(QByteArray, bytes);
        QFETCH(bool, good);
        for (int before = 0; before < 18; ++before) { // wherever it stands among the eights
            const std::string text =
                std::string(static_cast<std::size_t>(before), 'x') + bytes.toStdString() + "tail";
            QCOMPARE(isUtf8(text), good);
            QVERIFY(isUtf8(mendedUtf8(text)));
            if (good) QCOMPARE(mendedUtf8(text), text);
        }
    }
    void whatIsAppendedIsWellFormed() {
        for (char32_t c : {U'a', U'\u00b0', U'\u20ac', U'\U0001F680', U'\U0010FFFF'}) {
            std::string text;
            appendUtf8(text, c);
            QVERIFY(isUtf8(text));
            QCOMPARE(QString::fromStdString(text).toUcs4().front(), static_cast<uint>(c));
        }
    }
    void anotherDecoderAgrees() { // Qt's, on random bytes
        std::mt19937 dice(20310306);
        int good = 0;
        for (int i = 0; i < 20'000; ++i) {
            std::string bytes;
            const std::size_t length = dice() % 12;
            for (std::size_t k = 0; k < length; ++k)
                bytes += static_cast<char>(dice() % 3 == 0 ? dice() % 128 : 0x80 + dice() % 128);
            QStringDecoder decoder(QStringDecoder::Utf8, QStringDecoder::Flag::Stateless);
            const QString decoded =
                decoder(QByteArrayView(bytes.data(), static_cast<qsizetype>(bytes.size())));
            const bool theirs = !decoder.hasError() && decoded.toUtf8().toStdString() == bytes;
            QCOMPARE(isUtf8(bytes), theirs);
            good += theirs ? 1 : 0;
        }
        QVERIFY(good > 1'000 && good < 19'000);
    }
    void badBytesAreTakenAsLatin1() {
        QCOMPARE(mendedUtf8("Temp [\xb0"
                            "C]"),
                 std::string("Temp [°C]"));
        QCOMPARE(mendedUtf8("° and \xb0"), std::string("° and °"));
        QCOMPARE(mendedUtf8(""), std::string());
    }
};

IBUKI_TEST(TestUtf8)
#include "tst_utf8.moc"
