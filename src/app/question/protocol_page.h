// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/question/plan_figures.h"
#include "app/session/session.h"
#include "core/plan/expected_curve.h"

#include <QWidget>
#include <functional>

class QComboBox;
class QLabel;
class QTableWidget;

namespace ibuki {

class ProtocolCurve;

/// Steps and gates after the hands are done: the curve that the bench should draw with them, the exact table,
/// and how they differ from another study's.
class ProtocolPage : public QWidget {
    Q_OBJECT

public:
    explicit ProtocolPage(Session& session, QWidget* parent = nullptr);
    void refresh();

private:
    QWidget* makeCurve();
    QWidget* makeSteps();
    QWidget* makeDifference();
    void fillSteps();
    void fillCurve(const std::vector<ProtocolStep>& protocol);
    void showForecast();
    /// Of the curve: while a handle is dragged it is only drawn.
    void meanChange(std::size_t row, const std::function<void(ProtocolStep&)>& change, bool dragging);
    void fillStudies();
    void fillDifference();
    void usePresetChosen(int index);
    void changeStep(int row);
    void openCycles();
    void addStep();
    void removeStep();
    /// The study's own steps, stored from the preset when it has none yet.
    std::vector<ProtocolStep> ownSteps(Edit& edit) const;

    Session& session_;
    ExpectedBench expected_; ///< what the bench has taught, gathered when the page is shown anew
    ProtocolCurve* curve_;
    QLabel* forecast_;
    QLabel* bench_;
    QTableWidget* steps_;
    QComboBox* preset_;
    QComboBox* other_;
    QLabel* difference_;
};

} // namespace ibuki
