// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/ageing/ageing_desk.h"

#include <QWidget>

class QPushButton;
class QStackedWidget;

namespace ibuki {

class CoursePage;
class DuePage;
class HappenedPage;
class MachinesPage;
class MountsPage;

/// Mounts that are left alone: whether they need a break-in, whether they wear, when to come back.
class AgeingView : public QWidget {
    Q_OBJECT

public:
    explicit AgeingView(Session& session, QWidget* parent = nullptr);

    void refresh();
    void showDue(); ///< the page of what wants to be looked at
    const AgeingMatter* matter() const { return desk_.matter(); }

signals:
    void checkWanted(ibuki::Id<ibuki::FollowUp> check);

protected:
    void showEvent(QShowEvent* event) override;

private:
    Session& session_;
    AgeingDesk desk_;
    QPushButton* export_;
    QStackedWidget* pages_;
    CoursePage* course_;
    MountsPage* mounts_;
    DuePage* due_;
    MachinesPage* machines_;
    HappenedPage* happened_;
};

} // namespace ibuki
