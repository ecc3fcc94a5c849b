// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"

#include <QWidget>

class QLabel;
class QPushButton;

namespace ibuki {

/// What is to be decided when a run has ended, over its figures: keep it, reject it with a reason, measure it
/// once more, and what was read beside the sensors. Keeping it leads to the next planned mount.
class AfterRunBar : public QWidget {
    Q_OBJECT

public:
    explicit AfterRunBar(Session& session, QWidget* parent = nullptr);

    void remember(Id<Mount> mount);
    void forget() { mount_.reset(); }
    void refresh(); ///< shown while the mount that was recorded is chosen

signals:
    void againWanted(Id<Mount> mount);
    void peelWanted(Id<Mount> mount);

private:
    void keep();

    Session& session_;
    std::optional<Id<Mount>> mount_;
    QLabel* reported_;
    QPushButton* keep_;
    bool isNew_ = false; ///< shown for the first time: the keyboard goes on here
};

/// The readings of the mount's latest run.
void openReadings(Session& session, Id<Mount> mount, QWidget* parent);

} // namespace ibuki
