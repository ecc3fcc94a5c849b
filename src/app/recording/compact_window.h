// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/live_run.h"

#include <QWidget>

class QLabel;
class QPushButton;

namespace ibuki {

class GateBar;
class StatusLightRow;

/// The run in a small window that stays above all others, for a machine whose own screen is busy with its
/// load. Space moves on, as in the large one.
class CompactWindow : public QWidget {
    Q_OBJECT

public:
    explicit CompactWindow(LiveRun& run, QWidget* parent = nullptr);

signals:
    void wholeWanted(); ///< back to the window

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void closeEvent(QCloseEvent* event) override;
    void showEvent(QShowEvent* event) override;

private:
    void refresh();

    LiveRun& run_;
    QLabel* figure_;
    QLabel* step_;
    QLabel* until_;
    GateBar* bar_;
    StatusLightRow* statusLights_;
    QPushButton* on_;
};

} // namespace ibuki
