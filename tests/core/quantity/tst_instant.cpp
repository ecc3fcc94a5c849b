// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/quantity/instant.h"
#include "support/test_class.h"

#include <QtTest>

using namespace ibuki;

class TestInstant : public QObject {
    Q_OBJECT
private slots:
    void readsBackWhatItWrites_data() {
        QTest::addColumn<QString>("text");
        for (const char* text : {"1970-01-01T00:00:00.000", "2031-03-04T23:59:59.999",
                                 "2028-02-29T12:00:00.500", "1969-12-31T23:00:00.000"})
            QTest::newRow(text) << text;
    }
    void readsBackWhatItWrites() {
        QFETCH(QString, text);
        const auto instant = parseInstant(text.toStdString());
        QVERIFY(instant.has_value());
        QCOMPARE(QString::fromStdString(isoText(*instant)), text);
    }
    void refusesDatesThatCannotBe_data() {
        QTest::addColumn<QString>("text");
        for (const char* text : {"2031-02-29", "2031-13-01", "2031-03-04 24:10", "2031-03-04 12:60",
                                 "4.3.2031", "", "2031-03-04x"})
            QTest::newRow(text) << text;
    }
    void refusesDatesThatCannotBe() {
        QFETCH(QString, text);
        QVERIFY(!parseInstant(text.toStdString()));
    }
    void knowsTheWeekday() { QCOMPARE(weekdayText(*parseInstant("2031-03-04")), std::string("Tue")); }
    void countsDaysBeforeTheEpochDownwards() { QCOMPARE(dayNumber(*parseInstant("1969-12-31 23:00")), -1); }
};

IBUKI_TEST(TestInstant)
#include "tst_instant.moc"
