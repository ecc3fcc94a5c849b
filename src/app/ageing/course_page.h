// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/ageing/ageing_desk.h"
#include "app/forms/page_export.h"

class QComboBox;
class QCustomPlot;
class QLabel;
class QListWidget;
class QPushButton;
class QTableWidget;

namespace ibuki {

struct AgeingCurves;

/// What an axis of hours counts in.
struct SpanUnit {
    double hours = 1;
    QString name;
};

/// Change since fresh, mount by mount and fitted, with the threshold and when it is reached; what may be said
/// of each material, and what that rests on.
class CoursePage : public ExportedPage {
    Q_OBJECT

public:
    explicit CoursePage(AgeingDesk& desk, QWidget* parent = nullptr);

    void refresh();
    std::string csv() const override;
    QWidget* picture() override;

protected:
    void changeEvent(QEvent* event) override;

private:
    const AgeingJudgement* judged() const;
    const GroupAgeing* chosen() const;
    AgeingClock clock() const;
    bool byDate() const; ///< the calendar is the clock
    void followClock();  ///< the one that the chosen material goes with
    void fillGroups();
    void fillChosen();
    void draw();
    void drawGroup(std::size_t place, const GroupAgeing& ageing, bool isChosen);
    void nameAxis(const SpanUnit& unit);
    void drawBand(const AgeingCurves& curves, const SpanUnit& unit);
    void drawReadings(const AgeingCurves& curves, const SpanUnit& unit, const QPen& pen, bool isChosen);
    void drawThreshold(const GroupAgeing& ageing);
    void selectAt(const QPointF& pos);

    AgeingDesk& desk_;
    QComboBox* scope_;
    QComboBox* clock_;
    QLabel* head_;
    QCustomPlot* plot_;
    QListWidget* groups_;
    QLabel* reported_;
    QTableWidget* models_;
    QLabel* foot_;
    QPushButton* plan_;
};

} // namespace ibuki
