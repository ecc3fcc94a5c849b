// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/ageing/ageing_desk.h"
#include "app/forms/page_export.h"

class QComboBox;
class QCustomPlot;
class QLabel;
class QTableWidget;

namespace ibuki {

/// Tubes by their age against what they measured; things that happened to mounts or did not, and what share
/// survives how many cycles.
class HappenedPage : public ExportedPage {
    Q_OBJECT

public:
    explicit HappenedPage(AgeingDesk& desk, QWidget* parent = nullptr);

    void refresh();
    std::string csv() const override;

protected:
    void changeEvent(QEvent* event) override;

private:
    void drawTubes();
    void drawSurvival();
    const OutcomeTable* chosen() const;

    AgeingDesk& desk_;
    QCustomPlot* tubes_;
    QLabel* tubesReported_;
    QTableWidget* lots_;
    QComboBox* kind_;
    QCustomPlot* survival_;
    QLabel* happenedReported_;
};

} // namespace ibuki
