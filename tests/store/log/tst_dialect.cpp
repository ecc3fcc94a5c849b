// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "store/log/dialect.h"
#include "store/log/text.h"
#include "support/test_class.h"

#include <QtTest>

using namespace ibuki;

class TestDialect : public QObject {
    Q_OBJECT
private slots:
    void findsSeparatorDecimalAndHeader_data() {
        QTest::addColumn<QByteArray>("text");
        QTest::addColumn<QString>("separator");
        QTest::addColumn<QString>("decimal");
        QTest::addColumn<int>("headerLine");
        QTest::newRow("comma") << QByteArray("t,a,b\n0,1.5,2\n1,1.6,2\n") << ","
                               << "." << 1;
        QTest::newRow("semicolon, decimal comma") << QByteArray("t;a;b\n0;1,5;2\n1;1,6;2\n") << ";"
                                                  << "," << 1;
        QTest::newRow("semicolon, decimal point") << QByteArray("t;a;b\n0;1.5;2\n1;1.6;2\n") << ";"
                                                  << "." << 1;
        QTest::newRow("tab") << QByteArray("t\ta\tb\n0\t1.5\t2\n1\t1.6\t2\n") << "\t"
                             << "." << 1;
        QTest::newRow("preamble") << QByteArray("# made aboard\n# second line\n\nt,a,b\n0,1,2\n1,1,2\n")
                                  << ","
                                  << "." << 4;
        QTest::newRow("separator inside quotes")
            << QByteArray("\"t\",\"a, b\"\n\"0\",\"1\"\n\"1\",\"1\"\n") << ","
            << "." << 1;
        QTest::newRow("trailing separator") << QByteArray("t;a;\n0;1;\n1;1;\n") << ";"
                                            << "." << 1;
    }
    void findsSeparatorDecimalAndHeader() {
        QFETCH(QByteArray, text);
        QFETCH(QString, separator);
        QFETCH(QString, decimal);
        QFETCH(int, headerLine);
        const std::string bytes = text.toStdString();
        const auto dialect = detectDialect(bytes);
        QVERIFY(dialect.has_value());
        QCOMPARE(QString(dialect->separator), separator);
        QCOMPARE(QString(dialect->decimal), decimal);
        QCOMPARE(dialect->headerLine, long(headerLine));
        QVERIFY(bytes.substr(dialect->bodyOffset, 1) == "0" || bytes.substr(dialect->bodyOffset, 2) == "\"0");
    }
    void columnsApartBySpaces_data() {
        QTest::addColumn<QByteArray>("text");
        QTest::addColumn<QString>("columns"); ///< apart by bars
        QTest::addColumn<bool>("wide");
        QTest::newRow("one") << QByteArray("t core power\n0 61.5 150\n1 61.6 150\n") << "t|core|power"
                             << false;
        QTest::newRow("set in columns")
            << QByteArray("  t   core  power\n  0   61.5    150\n 10   61.6    150\n") << "t|core|power"
            << true;
        QTest::newRow("names of two words")
            << QByteArray("Time   Core 0 [°C]   Power [W]\n0   61.5   150\n1   61.6   150\n")
            << "Time|Core 0 [°C]|Power [W]" << true;
        QTest::newRow("cells of two words")
            << QByteArray("Time                 Core 0   Power\n2031-03-04 14:00:01  61.5 °C  150 W\n"
                          "2031-03-04 14:00:02  61.6 °C  150 W\n")
            << "Time|Core 0|Power" << true;
        QTest::newRow("names of two words over cells close by")
            << QByteArray("Time   Core 0   Power\n0 61.5 150\n1 61.6 150\n") << "Time|Core 0|Power" << false;
        QTest::newRow("one name over date and clock")
            << QByteArray("Time Core Power\n2031-03-04 14:00:01 61.5 150\n2031-03-04 14:00:02 61.6 150\n")
            << "Date|Time|Core|Power" << false;
        QTest::newRow("quoted") << QByteArray("t \"core 0\" power\n0 61.5 150\n1 61.6 150\n")
                                << "t|core 0|power" << false;
    }
    void columnsApartBySpaces() {
        QFETCH(QByteArray, text);
        QFETCH(QString, columns);
        QFETCH(bool, wide);
        const auto dialect = detectDialect(text.toStdString());
        QVERIFY(dialect.has_value());
        QStringList found;
        for (const std::string& column : dialect->columns) found << QString::fromStdString(column);
        QCOMPARE(found.join('|'), columns);
        QCOMPARE(dialect->separator, wide ? wideBlanks : blanks);
    }
    void aTrailingSeparatorIsNoColumn() {
        QCOMPARE(detectDialect("t;a;\n0;1;\n1;1;\n")->columns.size(), std::size_t{2});
    }
    void proseIsNoTable() {
        QVERIFY(!detectDialect("A sentence, with a comma.\nAnother one without.\nAnd, again, some.\n"));
        QVERIFY(!detectDialect(""));
        QVERIFY(!detectDialect("one\ntwo\nthree\n"));
    }
    void splitsQuotedFields() {
        QCOMPARE(splitFields("a,\"b, c\",\"say \"\"it\"\"\",", ','),
                 (std::vector<std::string>{"a", "b, c", "say \"it\"", ""}));
        QCOMPARE(splitFields("", ','), std::vector<std::string>{""});
    }
    void parsesNumbersThatFillTheField() {
        QCOMPARE(parseNumber(" 1.5 ", '.'), std::optional(1.5));
        QCOMPARE(parseNumber("+2", '.'), std::optional(2.0));
        QCOMPARE(parseNumber("-1,25", ','), std::optional(-1.25));
        QCOMPARE(parseNumber("1e3", '.'), std::optional(1000.0));
        for (const char* text : {"", " ", "1.5x", "n/a", "1,5", "nan", "inf", "--1"})
            QVERIFY2(!parseNumber(text, '.'), text);
        QVERIFY(!parseNumber("1.5", ','));
        QVERIFY(!parseNumber(std::string(60, '1'), ','));
    }
    void decodesEveryEncoding() {
        QCOMPARE(decodeText("\xEF\xBB\xBF°", "f").view(), std::string_view("°"));
        QCOMPARE(decodeText("5 \xB0"
                            "C",
                            "f")
                     .view(),
                 std::string_view("5 °C"));
        QCOMPARE(decodeText(std::string_view("\xFF\xFE\xB0\0C\0", 6), "f").view(), std::string_view("°C"));
        QCOMPARE(decodeText(std::string_view("\xFE\xFF\0\xB0\0C", 6), "f").view(), std::string_view("°C"));
        QCOMPARE(decodeText(std::string_view("\xFF\xFE\x3D\xD8\x00\xDE", 6), "f").view(),
                 std::string_view("\xF0\x9F\x98\x80")); // a surrogate pair
        QVERIFY_THROWS_EXCEPTION(InputError, decodeText(std::string_view("a\0b", 3), "f"));
        const std::string_view plain = "in place";
        QCOMPARE(decodeText(plain, "f").view().data(), plain.data()); // no copy
    }
    void takesLinesOfEveryKind() {
        std::string_view rest = "a\r\nb\n\nc";
        QCOMPARE(takeLine(rest), std::string_view("a"));
        QCOMPARE(takeLine(rest), std::string_view("b"));
        QCOMPARE(takeLine(rest), std::string_view(""));
        QCOMPARE(takeLine(rest), std::string_view("c"));
        QVERIFY(rest.empty());
    }
};

IBUKI_TEST(TestDialect)
#include "tst_dialect.moc"
