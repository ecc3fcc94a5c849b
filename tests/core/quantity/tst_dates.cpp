// SPDX-License-Identifier: GPL-3.0-or-later
// Dates against a walk through the calendar day by day, and spans of time as a person says them.

#include "core/base/random.h"
#include "core/quantity/instant.h"
#include "core/quantity/span.h"
#include "support/near.h"
#include "support/test_class.h"

using namespace ibuki;

namespace {

bool isLeap(int year) { return year % 4 == 0 && (year % 100 != 0 || year % 400 == 0); }

unsigned daysIn(int year, unsigned month) {
    constexpr unsigned days[]{31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31};
    return days[month - 1] + (month == 2 && isLeap(year) ? 1 : 0);
}

constexpr std::int64_t msPerDay = 86'400'000;

} // namespace

class TestDates : public QObject {
    Q_OBJECT

private slots:
    void everyDayFromNineteenHundredToTwentyOneFifty() {
        const char* weekdays[]{"Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"};
        std::int64_t day = -25'567; // 1900-01-01, a Monday
        std::size_t weekday = 0;
        for (int year = 1900; year <= 2150; ++year)
            for (unsigned month = 1; month <= 12; ++month)
                for (unsigned date = 1; date <= daysIn(year, month); ++date, ++day, ++weekday) {
                    const auto at = makeInstant(year, month, date);
                    QVERIFY(at.has_value());
                    QCOMPARE(at->ms, day * msPerDay);
                    QCOMPARE(dayNumber({at->ms + msPerDay - 1}), day);
                    const std::string text = QString("%1-%2-%3")
                                                 .arg(year, 4, 10, QChar('0'))
                                                 .arg(month, 2, 10, QChar('0'))
                                                 .arg(date, 2, 10, QChar('0'))
                                                 .toStdString();
                    QCOMPARE(dateText(*at), text);
                    QCOMPARE(parseInstant(text)->ms, at->ms);
                    QCOMPARE(weekdayText(*at), std::string(weekdays[weekday % 7]));
                }
        QCOMPARE(day, std::int64_t{66'109}); // 2151-01-01
    }
    void daysThatNoMonthHasAreNone() {
        for (int year = 1999; year <= 2101; ++year)
            for (unsigned month = 1; month <= 12; ++month) {
                QVERIFY(!makeInstant(year, month, 0));
                for (unsigned date = daysIn(year, month) + 1; date < 40; ++date)
                    QVERIFY(!makeInstant(year, month, date));
            }
        // 257 is not January, 260 not the fourth, although a byte would hold them so.
        for (const unsigned month : {0U, 13U, 14U, 255U, 256U, 257U, 65'537U})
            QVERIFY(!makeInstant(2031, month, 1));
        for (const unsigned day : {32U, 256U, 257U, 260U, 65'540U}) QVERIFY(!makeInstant(2031, 3, day));
        for (const char* folded : {"2031-257-04", "2031-03-260", "2031-03-65540"})
            QVERIFY2(!parseInstant(folded), folded);
    }
    void anyMomentIsReadBack() { // to its millisecond, before 1970 too
        Random random(71);
        for (int trial = 0; trial < 5'000; ++trial) {
            const Instant at{static_cast<std::int64_t>((random.uniform() - 0.2) * 4e12)};
            const auto back = parseInstant(isoText(at));
            QVERIFY2(back.has_value(), isoText(at).c_str());
            QCOMPARE(back->ms, at.ms);
            const auto minute = parseInstant(dateTimeText(at));
            QVERIFY(minute.has_value());
            QVERIFY(at.ms - minute->ms >= 0 && at.ms - minute->ms < 60'000);
        }
    }
    void oneWrongLetterIsNoDate() { // any letter of a date and time made another kind of letter
        const std::string good = "2031-03-04T09:15:30.500";
        QVERIFY(parseInstant(good).has_value());
        for (std::size_t i = 0; i < good.size(); ++i)
            for (const char wrong : {'x', '/', '\0', '\x80', '+'}) {
                std::string bad = good;
                bad[i] = wrong;
                QVERIFY2(!parseInstant(bad), bad.c_str());
            }
        for (const char* bad :
             {"", " ", "2031", "2031-03", "2031-03-04 ", " 2031-03-04", "2031-03-04 24:00",
              "2031-03-04 09:60", "2031-03-04 09:15:60", "99999-03-04", "67567-03-04", "-031-03-04"})
            QVERIFY2(!parseInstant(bad), bad);
        QCOMPARE(parseInstant("2031-3-4 9:05"), parseInstant("2031-03-04 09:05")); // as some loggers write it
        QVERIFY(!makeInstant(65'536 + 2031, 3, 4)); // no year that the calendar would fold into another
        QVERIFY(!makeInstant(-5, 3, 4));
    }
    void laterIsLater() {
        const Instant at = *parseInstant("2031-12-31 23:59");
        QCOMPARE(dateTimeText(laterBy(at, 60)), std::string("2032-01-01 00:00"));
        QCOMPARE(laterBy(at, 0.5).ms, at.ms + 500);
        QCOMPARE(laterBy(laterBy(at, 7'200), -7'200), at);
        QVERIFY(laterBy(at, 0.001) > at);
    }
    void spansAreSaidInTheUnitThatFits_data() {
        QTest::addColumn<double>("hours");
        QTest::addColumn<QString>("code");
        QTest::addColumn<double>("value");
        QTest::newRow("nothing") << 0.0 << "time-span.few-hours" << 0.0;
        QTest::newRow("under ten hours") << 9.99 << "time-span.few-hours" << 9.99;
        QTest::newRow("ten hours") << 10.0 << "time-span.hours" << 10.0;
        QTest::newRow("three days less a bit") << 71.9 << "time-span.hours" << 71.9;
        QTest::newRow("three days") << 72.0 << "time-span.days" << 3.0;
        QTest::newRow("ninety days") << 90.0 * 24 << "time-span.months" << 90 / 30.4375;
        QTest::newRow("a year") << 8'766.0 << "time-span.months" << 12.0;
        QTest::newRow("a year and a half") << 1.5 * 8'766 << "time-span.years" << 1.5;
        QTest::newRow("a century") << 876'600.0 << "time-span.years" << 100.0;
    }
    void spansAreSaidInTheUnitThatFits() {
        QFETCH(double, hours);
        QFETCH(QString, code);
        QFETCH(double, value);
        const Message message = spanMessage(hours);
        QCOMPARE(QString::fromStdString(message.code), code);
        QCOMPARE(message.fields.size(), std::size_t{1});
        QVERIFY_NEAR(std::get<double>(message.fields.front().value), value, 1e-9 * (1 + value));
    }
};

IBUKI_TEST(TestDates)
#include "tst_dates.moc"
