// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/ladder.h"
#include "core/comparison/compare.h"
#include "support/test_class.h"

#include <QtTest>

using namespace ibuki;

class TestLadder : public QObject {
    Q_OBJECT

    std::unique_ptr<Ladder> ladder_;

    /// The mount under the focus, asked for with Enter.
    QString mountAfter(Qt::Key key) {
        QTest::keyClick(ladder_.get(), key);
        const auto meant = meantBy([&] { QTest::keyClick(ladder_.get(), Qt::Key_Return); });
        return meant.size() == 1 ? nameOf(meant.front()) : QString();
    }
    template <class Act> QList<Id<Mount>> meantBy(Act&& act) {
        QList<Id<Mount>> meant;
        const auto heard =
            connect(ladder_.get(), &Ladder::mountMeant, this, [&](Id<Mount> mount) { meant << mount; });
        act();
        disconnect(heard);
        return meant;
    }
    QString nameOf(Id<Mount> mount) const {
        for (const GroupSummary& group : shown_.groups)
            for (const Named& one : group.mountsInOrder)
                if (one.id == mount.value) return QString::fromStdString(one.name);
        return {};
    }

    Comparison shown_;

private slots:
    void init() {
        ladder_ = std::make_unique<Ladder>();
        ladder_->resize(700, 300);
        // Mounts in the order of the log, which is not their order on the rung.
        shown_ = compare({{"Tern 11", "T2", 30.2, false},
                          {"Tern 11", "T1", 30.0, false},
                          {"Plover 4", "P3", 32.3, false},
                          {"Plover 4", "P1", 32.0, false},
                          {"Plover 4", "P2", 32.1, false}});
        ladder_->show(shown_, {}, "K");
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
        QList<Id<Mount>> meant;
        for (int x = 0; x < ladder_->width() && meant.isEmpty(); x += 4)
            for (int y = 0; y < ladder_->height() && meant.isEmpty(); y += 4)
                meant = meantBy([&] { QTest::mouseClick(ladder_.get(), Qt::LeftButton, {}, QPoint(x, y)); });
        QCOMPARE(meant.size(), 1);
        QCOMPARE(nameOf(meant.front()), QString("T1")); // the leftmost
    }
    void aClearedLadderHasNothingToOpen() {
        ladder_->clear();
        QVERIFY(meantBy([&] {
                    for (Qt::Key key : {Qt::Key_Down, Qt::Key_Right, Qt::Key_Return})
                        QTest::keyClick(ladder_.get(), key);
                }).isEmpty());
    }
    void mountsOfOneNameAreToldApart() {
        RunValue first{{1, "Tern 11"}, {11, "again"}, 30.0, false};
        RunValue second{{1, "Tern 11"}, {12, "again"}, 30.4, false};
        RunValue third{{2, "Plover 4"}, {13, "again"}, 32.0, false};
        ladder_->show(compare({first, second, third}), {}, "K");
        QTest::keyClick(ladder_.get(), Qt::Key_End);
        QCOMPARE(meantBy([&] { QTest::keyClick(ladder_.get(), Qt::Key_Return); }),
                 QList<Id<Mount>>{Id<Mount>{12}});
    }
};

IBUKI_TEST(TestLadder)
#include "tst_ladder.moc"
