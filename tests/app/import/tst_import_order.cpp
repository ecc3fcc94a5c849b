// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/import/import_order.h"
#include "support/test_class.h"

#include <algorithm>

using namespace ibuki;

namespace {

ImportLine line(const char* file, const char* day, int doubts = 0, const char* level = "Tern 11") {
    return {file, level, doubts > 0 ? "no load" : "", doubts, day ? parseInstant(day) : std::nullopt, true};
}

QString reported(const std::vector<ImportPlace>& places, const std::vector<ImportLine>& lines) {
    QStringList words;
    for (const ImportPlace& place : places)
        words << (place.log ? lines[*place.log].file : "[" + place.heading + "]");
    return words.join(' ');
}

const std::vector<ImportLine> four{line("c.csv", "2031-03-05 19:00"), line("a.csv", "2031-03-04 18:00", 1),
                                   line("B.csv", nullptr), line("d.csv", "2031-03-04 20:00", 2, "Plover 4")};

} // namespace

class TestImportOrder : public QObject {
    Q_OBJECT
private slots:
    void daysHaveTheirHeadings() {
        QCOMPARE(reported(importPlaces(four, ImportSort::byDay, {}), four),
                 QString("[Tue 2031-03-04   2 logs, 2 to look at] a.csv d.csv [Wed 2031-03-05   1 log] c.csv "
                         "[no date   1 log] B.csv"));
    }
    void theDoubtfulComeFirst() {
        QCOMPARE(reported(importPlaces(four, ImportSort::byDoubt, {}), four),
                 QString("d.csv a.csv c.csv B.csv"));
        QCOMPARE(reported(importPlaces(four, ImportSort::byFile, {}), four),
                 QString("a.csv B.csv c.csv d.csv"));
        QCOMPARE(reported(importPlaces(four, ImportSort::asGiven, {}), four),
                 QString("c.csv a.csv B.csv d.csv"));
    }
    void allWordsHaveToStandInIt() {
        QCOMPARE(reported(importPlaces(four, ImportSort::asGiven, {"plover", false}), four),
                 QString("d.csv"));
        QCOMPARE(reported(importPlaces(four, ImportSort::asGiven, {"TERN load", false}), four),
                 QString("a.csv"));
        QVERIFY(importPlaces(four, ImportSort::byDay, {"gannet", false}).empty());
        QCOMPARE(reported(importPlaces(four, ImportSort::asGiven, {"", true}), four), QString("a.csv d.csv"));
    }
    void nothingIsLostOrDoubled() { // property: every sort is a permutation
        std::vector<ImportLine> many;
        for (int i = 0; i < 60; ++i)
            many.push_back(
                line(qPrintable(QString("%1.csv").arg(i * 7 % 60)),
                     qPrintable(QString("2031-03-%1 18:00").arg(1 + i * 11 % 9, 2, 10, QChar('0'))), i % 3));
        for (ImportSort sort :
             {ImportSort::asGiven, ImportSort::byDay, ImportSort::byDoubt, ImportSort::byFile}) {
            std::vector<std::size_t> seen;
            for (const ImportPlace& place : importPlaces(many, sort, {}))
                if (place.log) seen.push_back(*place.log);
            std::sort(seen.begin(), seen.end());
            QCOMPARE(seen.size(), many.size());
            for (std::size_t i = 0; i < seen.size(); ++i) QCOMPARE(seen[i], i);
        }
        QCOMPARE(typicalSort(many), ImportSort::byDay);
        QCOMPARE(typicalSort(four), ImportSort::asGiven);
    }
    void theSummaryCounts() {
        auto some = four;
        some[0].take = false;
        QCOMPARE(importSummary(some), QString("4 logs, 3 to bring in, 2 to look at"));
        QCOMPARE(importSummary({}), QString("0 logs, 0 to bring in"));
    }
};

IBUKI_TEST(TestImportOrder)
#include "tst_import_order.moc"
