// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/question/plan_figures.h"
#include "app/session/session.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QTableWidget;

namespace ibuki {

/// Steps and gates after the hands are done, and how they differ from another study's.
class ProtocolPage : public QWidget {
    Q_OBJECT

public:
    explicit ProtocolPage(Session& session, QWidget* parent = nullptr);
    void refresh();

private:
    QWidget* makeSteps();
    QWidget* makeDifference();
    void fillSteps();
    void fillStudies();
    void fillDifference();
    void usePresetChosen(int index);
    void changeStep(int row);
    void addStep();
    void removeStep();
    /// The study's own steps, stored from the preset when it has none yet.
    std::vector<ProtocolStep> ownSteps(Edit& edit) const;

    Session& session_;
    QTableWidget* steps_;
    QComboBox* preset_;
    QComboBox* other_;
    QLabel* difference_;
};

} // namespace ibuki
