// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/domain/plan.h"

#include <QWidget>

class QLabel;
class QPushButton;

namespace ibuki {

struct PlannedLines;

/// What to do for the chosen planned tile: dose, pattern, torque, tube, steps, cautions, and the ways on: its
/// card, doing it next, skipping it. For a tile to come back to: done, or skipped.
class PlannedPanel : public QWidget {
    Q_OBJECT

public:
    explicit PlannedPanel(Session& session, QWidget* parent = nullptr);
    void refresh();
    static bool has(const Session& session); ///< a planned slot or a follow-up is chosen

private:
    void show(const PlannedLines& reported, bool skipped);
    void openCard();
    void doNext();
    void skip();
    void markDone();
    /// datesAnew: the evenings of what is planned are laid anew.
    void perform(const Message& title, const std::function<void(Edit&)>& change, bool datesAnew = false);

    Session& session_;
    QLabel* title_;
    QLabel* manualWork_;
    QLabel* when_;
    QLabel* steps_;
    QLabel* cautions_;
    QPushButton* card_;
    QPushButton* next_;
    QPushButton* skip_;
    QPushButton* done_;
};

} // namespace ibuki
