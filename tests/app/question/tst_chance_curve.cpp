// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawn/theme.h"
#include "app/question/chance_curve.h"
#include "support/test_class.h"

#include <QSignalSpy>
#include <set>

using namespace ibuki;

class TestChanceCurve : public QObject {
    Q_OBJECT

    static ChanceCurves curves() {
        ChanceCurves made;
        for (int i = 0; i <= 60; ++i) made.overDifference.push_back({i / 20.0, i / 60.0});
        for (int n = 2; n <= 12; ++n) made.overMounts.push_back({double(n), n / 12.0});
        return made;
    }

private slots:
    void initTestCase() { applyTheme(*qApp, Shade::light); }
    void arrowsWalkAlongTheMountsAndReturnChooses() {
        ChanceCurve curve;
        curve.resize(640, 400);
        curve.show(curves(), {Goal::difference, 1.0, "K", 0.9, 4, 11});
        static_cast<QWidget&>(curve).show();
        QVERIFY(QTest::qWaitForWindowActive(&curve));
        curve.setFocus();
        QVERIFY(curve.accessibleDescription().contains("4 mounts of each"));
        QSignalSpy meant(&curve, &ChanceCurve::mountsMeant);
        QTest::keyClick(&curve, Qt::Key_Right);
        QTest::keyClick(&curve, Qt::Key_Right);
        QTest::keyClick(&curve, Qt::Key_Return);
        QCOMPARE(meant.count(), 1);
        QCOMPARE(meant[0][0].toInt(), 6);
        curve.show(curves(), {Goal::difference, 0.006, "K/W", 0.9, 4, 11}); // with digits to see it by
        QTest::keyClick(&curve, Qt::Key_Right);
        QVERIFY2(curve.accessibleDescription().contains("a difference of 0.0060 K/W"),
                 qPrintable(curve.accessibleDescription()));
    }
    void aClickBelowAPointChoosesItsNumber() {
        ChanceCurve curve;
        curve.resize(640, 400);
        curve.show(curves(), {Goal::equivalence, 1.0, "K", 0.9, 4, {}});
        static_cast<QWidget&>(curve).show();
        QSignalSpy meant(&curve, &ChanceCurve::mountsMeant);
        std::set<int> chosen;
        for (int x = 60; x < 640; x += 10) {
            QTest::mouseClick(&curve, Qt::LeftButton, {}, QPoint(x, 370));
            if (meant.count()) chosen.insert(meant.takeLast()[0].toInt());
        }
        QCOMPARE(chosen.size(), std::size_t{11});                       // each number can be reached
        QTest::mouseClick(&curve, Qt::LeftButton, {}, QPoint(300, 60)); // the upper curve chooses nothing
        QVERIFY(meant.isEmpty());
        curve.clear();
        QVERIFY(curve.isEmpty());
        QVERIFY(!curve.grab().isNull());
    }
};

IBUKI_TEST(TestChanceCurve)
#include "tst_chance_curve.moc"
