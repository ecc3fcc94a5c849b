// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/checks_page.h"
#include "app/verdict/factors_page.h"
#include "app/verdict/pairs_page.h"
#include "support/reference_data.h"
#include "support/test_class.h"

#include <QApplication>
#include <QClipboard>
#include <QLabel>
#include <QSignalSpy>
#include <QTableWidget>
#include <QtTest>

using namespace ibuki;

class TestVerdictPages : public QObject {
    Q_OBJECT
private slots:
    void everyPairStandsTwiceWithOppositeSigns() {
        PairsPage page;
        page.show(compare(reference::ds1()), "K"); // A, D, B, C from the coolest on
        auto* table = page.findChild<QTableWidget*>();
        QCOMPARE(table->rowCount(), 4);
        QCOMPARE(table->horizontalHeaderItem(1)->text(), QString("D"));
        QCOMPARE(table->item(0, 2)->text(), QString("−1.2 ✓\n−2.1 to −0.3")); // A − B
        QCOMPARE(table->item(2, 0)->text(), QString("+1.2 ✓\n+0.3 to +2.1"));
        QCOMPARE(table->item(0, 1)->text(), QString("−0.4 ≈\n−1.4 to +0.6"));
    }
    void aCellMeansItsPairAndIsCopied() {
        PairsPage page;
        const Comparison comparison = compare(reference::ds1());
        page.show(comparison, "K");
        std::optional<std::size_t> meant;
        connect(&page, &PairsPage::pairMeant, &page, [&](auto pair) { meant = pair; });
        auto* table = page.findChild<QTableWidget*>();
        table->setCurrentCell(2, 0);
        QVERIFY(meant);
        QCOMPARE(comparison.groups[comparison.pairs[*meant].a].name, std::string("A"));
        QCOMPARE(comparison.groups[comparison.pairs[*meant].b].name, std::string("B"));
        QTest::keySequence(table, QKeySequence::Copy);
        QCOMPARE(QApplication::clipboard()->text(), QString("+1.2 K (+0.3 to +2.1 K)"));
        table->setCurrentCell(1, 1);
        QVERIFY(!meant); // a group with itself
    }
    void bothFactorsTellTheirTests() {
        FactorsPage page;
        std::vector<TableRun> runs;
        std::vector<std::string> seconds;
        for (int i = 0; i < 8; ++i) {
            runs.push_back(
                {i % 2 ? "A" : "B", std::to_string(i), 40.0 + i % 2 + (i < 4 ? 0 : 9) + 0.1 * (i % 3)});
            seconds.emplace_back(i < 4 ? "tall" : "low");
        }
        const TwoFactors factors = compareTwoFactors(runs, seconds, {});
        page.show(factors, "K", 0.95);
        const QString reported = page.findChild<QLabel*>("Factors told")->text();
        QVERIFY2(reported.contains("Interaction: F(1, 4)"), qPrintable(reported));
        QVERIFY(reported.contains("Second factor: F(1, 4)"));
        page.tell("one factor only");
        QCOMPARE(page.findChild<QLabel*>("Factors told")->text(), QString("one factor only"));
    }
    void aBenchThatMovedIsSaidWithWhatToRepeat() {
        Document document;
        Edit edit(document, "mounts");
        CheckEvidence checks;
        std::vector<CheckValue> values;
        for (int i = 0; i < 6; ++i) {
            Mount mount;
            mount.name = "Check " + std::to_string(i + 1);
            checks.mounts.push_back(edit.add(mount));
            values.push_back({1.0 + i, 45 + 0.1 * (i % 2) + (i > 3 ? 2 : 0)});
        }
        apply(document, edit.finish());
        checks.health = judgeHealth(values);
        checks.touched = {checks.mounts.back()};
        ChecksPage page;
        page.show(document, checks, nullptr, "K");
        const QString reported = page.findChild<QLabel*>("Checks told")->text();
        QVERIFY2(reported.contains("The bench moved"), qPrintable(reported));
        QVERIFY(reported.contains("repeat these, not all: Check 6."));
        checks.health.reset();
        checks.reason = Message{"health-few", {{"count", 2}}};
        page.show(document, checks, nullptr, "K");
        QVERIFY(page.findChild<QLabel*>("Checks told")->text().contains("a chart needs five"));
    }
};

IBUKI_TEST(TestVerdictPages)
#include "tst_verdict_pages.moc"
