// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/domain/plan_values.h"
#include "support/project_files.h"
#include "support/test_class.h"

using namespace ibuki;

class TestPlanValues : public QObject {
    Q_OBJECT
private slots:
    void weekdaysAreReadAsPeopleWriteThem_data() {
        QTest::addColumn<QString>("text");
        QTest::addColumn<QString>("read");
        QTest::newRow("short") << "Mon Tue Fri"
                               << "Mon Tue Fri";
        QTest::newRow("long and small") << "monday, FRIDAY"
                                        << "Mon Fri";
        QTest::newRow("order does not matter") << "Sun;Sat"
                                               << "Sat Sun";
        QTest::newRow("twice") << "Wed wed"
                               << "Wed";
        QTest::newRow("nothing") << "  "
                                 << "";
    }
    void weekdaysAreReadAsPeopleWriteThem() {
        QFETCH(QString, text);
        QFETCH(QString, read);
        QCOMPARE(parseWeekdays(text.toStdString()).text(), read.toStdString());
    }
    void aDayThatIsNoneIsNamed() {
        try {
            (void)parseWeekdays("Mon, Someday");
            QFAIL("there is no such day");
        } catch (const InputError& error) {
            QCOMPARE(error.code, std::string("plan-weekdays"));
            QCOMPARE(std::get<std::string>(error.message.fields.front().value), std::string("someday"));
        }
        QVERIFY(!parseWeekdays("").any());
        QVERIFY(mondayToFriday.any());
    }
    void everySetOfDaysComesBack() { // all 128
        for (unsigned bits = 0; bits < 128; ++bits) {
            Weekdays days;
            for (std::size_t i = 0; i < 7; ++i) days.days.at(i) = (bits >> i & 1U) != 0;
            QVERIFY(parseWeekdays(days.text()) == days);
        }
    }
    void delaysAreReadWithTheirUnits() {
        const auto delays = parseDelays("24 h, 5d;6 mo ,1 y, 2w");
        QCOMPARE(textOf(delays), std::string("24 h, 5 d, 6 mo, 1 y, 2 w"));
        QCOMPARE(delays[0].minutes(), 24.0 * 60);
        QCOMPARE(delays[1].minutes(), 5.0 * 24 * 60);
        QCOMPARE(delays[2].minutes(), 6 * 30.4 * 24 * 60);
        QCOMPARE(delays[3].minutes(), 365.0 * 24 * 60);
        QCOMPARE(delays[4].minutes(), 14.0 * 24 * 60);
        QVERIFY(parseDelays("").empty());
        QVERIFY(parseDelays(" , ;").empty());
    }
    void whatIsNoDelayIsRefused() {
        for (const char* text :
             {"h", "24", "24 x", "0 h", "-3 d", "1.5 h", "99999 h", "3 dd", "5 d 6 w", "∞ h"})
            QCOMPARE(story::codeOf([&] { (void)parseDelays(text); }), QString("follow-up"));
        std::string many = "1 h";
        for (int i = 0; i < 99; ++i) many += ", 1 h";
        QCOMPARE(parseDelays(many).size(), std::size_t{100});
        QCOMPARE(story::codeOf([&] { (void)parseDelays(many + ", 1 h"); }), QString("follow-up"));
    }
    void everyListOfDelaysComesBack() {
        Random random(31);
        for (int round = 0; round < 200; ++round) {
            std::vector<Delay> delays(static_cast<std::size_t>(8 * random.uniform()));
            for (Delay& delay : delays)
                delay = {1 + static_cast<int>(9'998 * random.uniform()),
                         static_cast<Delay::Unit>(static_cast<int>(5 * random.uniform()))};
            QVERIFY(parseDelays(textOf(delays)) == delays);
        }
    }
    void bytesThatAreNoTextAreRefusedOrRead() { // never anything else
        Random random(32);
        for (int round = 0; round < 3'000; ++round) {
            std::string text(static_cast<std::size_t>(12 * random.uniform()), ' ');
            for (char& c : text) c = static_cast<char>(static_cast<int>(256 * random.uniform()));
            for (const QString& code : {story::codeOf([&] { (void)parseDelays(text); }),
                                        story::codeOf([&] { (void)parseWeekdays(text); })})
                QVERIFY2(code == "nothing thrown" || code == "follow-up" || code == "plan-weekdays",
                         qPrintable(code));
        }
    }
};

IBUKI_TEST(TestPlanValues)
#include "tst_plan_values.moc"
