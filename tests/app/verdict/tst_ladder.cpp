// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/ladder.h"
#include "core/stats/compare.h"
#include "support/test_class.h"

#include <QSignalSpy>
#include <QtTest>

using namespace ibuki;

class TestLadder : public QObject {
    Q_OBJECT

    std::unique_ptr<Ladder> ladder_;

    /// The mount under the focus, asked for with Enter.
    QString mountAfter(Qt::Key key) {
        QTest::keyClick(ladder_.get(), key);
        QSignalSpy meant(ladder_.get(), &Ladder::mountMeant);
        QTest::keyClick(ladder_.get(), Qt::Key_Return);
        return meant.count() == 1 ? meant.front().front().toString() : QString();
    }

private slots:
    void init() {
        ladder_ = std::make_unique<Ladder>();
        ladder_->resize(700, 300);
        // Mounts in the order of the log, which is not their order on the rung.
        ladder_->show(compare({{"Tern 11", "T2", 30.2, false},
                               {"Tern 11", "T1", 30.0, false},
                               {"Plover 4", "P3", 32.3, false},
                               {"Plover 4", "P1", 32.0, false},
                               {"Plover 4", "P2", 32.1, false}}),
                      {}, "K");
    }
    void leftAndRightWalkOnlyAlongOneRung() {
        QCOMPARE(mountAfter(Qt::Key_Left), QString("T1"));
        QCOMPARE(mountAfter(Qt::Key_Right), QString("T2"));
        QCOMPARE(mountAfter(Qt::Key_Right), QString("T2"));
        QCOMPARE(mountAfter(Qt::Key_Home), QString("T1"));
        QCOMPARE(mountAfter(Qt::Key_End), QString("T2"));
    }
    void upAndDownChangeTheRung() {
        QCOMPARE(mountAfter(Qt::Key_Down), QString("P1"));
        QCOMPARE(mountAfter(Qt::Key_End), QString("P3"));
        QCOMPARE(mountAfter(Qt::Key_Up), QString("T2")); // the rung above has no third mark
        QCOMPARE(mountAfter(Qt::Key_Up), QString("T2"));
        QCOMPARE(mountAfter(Qt::Key_Down), QString("P2"));
        QCOMPARE(mountAfter(Qt::Key_Down), QString("P2"));
    }
    void aClickMeansTheMarkAlsoAfterAResize() {
        ladder_->resize(1000, 400);
        ladder_->grab(); // lays a hidden widget out
        QSignalSpy meant(ladder_.get(), &Ladder::mountMeant);
        for (int x = 0; x < ladder_->width() && meant.isEmpty(); x += 4)
            for (int y = 0; y < ladder_->height() && meant.isEmpty(); y += 4)
                QTest::mouseClick(ladder_.get(), Qt::LeftButton, {}, QPoint(x, y));
        QCOMPARE(meant.count(), 1);
        QCOMPARE(meant.front().front().toString(), QString("T1")); // the leftmost
    }
    void aClearedLadderHasNothingToOpen() {
        ladder_->clear();
        QSignalSpy meant(ladder_.get(), &Ladder::mountMeant);
        for (Qt::Key key : {Qt::Key_Down, Qt::Key_Right, Qt::Key_Return}) QTest::keyClick(ladder_.get(), key);
        QCOMPARE(meant.count(), 0);
    }
};

IBUKI_TEST(TestLadder)
#include "tst_ladder.moc"
