// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "store/table/table.h"
#include "support/test_class.h"
#include "words/words.h"

#include <QtTest>

using namespace ibuki;

class TestTable : public QObject {
    Q_OBJECT
private slots:
    void readsSeparatorsAndDecimalSigns() {
        const Table comma = readTable("material,delta_K\nTern 11,24.5\n\"Heron, HV\",25\n", "t.csv");
        QCOMPARE(comma.rows(), std::size_t{2});
        QCOMPARE(comma.number(0, 1), 24.5);
        QCOMPARE(comma.text(1, 0), std::string("Heron, HV"));
        const Table semicolon = readTable("\xEF\xBB\xBFmaterial;delta_K\r\nTern 11;24,5\r\n", "t.csv");
        QCOMPARE(semicolon.number(0, semicolon.need("delta_K")), 24.5);
    }
    void refusesInOneSentenceWithItsPlace_data() {
        QTest::addColumn<QByteArray>("text");
        QTest::addColumn<QString>("sentence");
        QTest::newRow("empty") << QByteArray("\n")
                               << "t.csv: the table is empty. Choose a table with a header line.";
        QTest::newRow("short row")
            << QByteArray("a,b\n1,2\n3\n")
            << "t.csv, line 3: the row has 1 fields, the header 2. Fill in or remove the row.";
        QTest::newRow("doubled")
            << QByteArray("a,b,a\n1,2,3\n")
            << "t.csv, line 1, column 3: the column \"a\" stands twice. Rename one of them.";
        QTest::newRow("no number") << QByteArray("a,b\n1,x\n")
                                   << "t.csv, line 2, column 2: \"x\" in \"b\" is not a number. Write a "
                                      "number there or exclude the row.";
    }
    void refusesInOneSentenceWithItsPlace() {
        QFETCH(QByteArray, text);
        QFETCH(QString, sentence);
        try {
            const Table table = readTable(text.toStdString(), "t.csv");
            table.number(0, table.need("b"));
            QFAIL("not refused");
        } catch (const InputError& error) {
            QCOMPARE(QString::fromStdString(ibuki::words::sentence(error)), sentence);
        }
    }
    void namesTheColumnsThatAreThere() {
        try {
            readTable("a,b\n1,2\n", "t.csv").need("c");
            QFAIL("not refused");
        } catch (const InputError& error) {
            QVERIFY(QString::fromStdString(words::mend(error.message)).contains("a, b"));
        }
    }
    void quotesWhatNeedsIt() {
        QCOMPARE(csvField("plain"), std::string("plain"));
        QCOMPARE(csvField("a \"b\", c"), std::string("\"a \"\"b\"\", c\""));
        const Table back = readTable("x,y\n" + csvField("a \"b\", c") + ",1\n", "t.csv");
        QCOMPARE(back.text(0, 0), std::string("a \"b\", c"));
    }
};

IBUKI_TEST(TestTable)
#include "tst_table.moc"
