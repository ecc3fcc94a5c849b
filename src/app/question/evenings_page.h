// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/forms/entity_form.h"
#include "app/question/plan_figures.h"

#include <QWidget>

class QListWidget;
class QPushButton;
class QTableWidget;

namespace ibuki {

/// Which evenings the plan fills, how long each step takes, what comes back later, and the calendar file.
class EveningsPage : public QWidget {
    Q_OBJECT

public:
    explicit EveningsPage(Session& session, QWidget* parent = nullptr);
    void refresh(const PlanFigures& figures);
    void chooseCalendar();
    bool exportCalendar(const QString& path); ///< false with a notice

private:
    QWidget* makeForm();
    QWidget* makeEvenings();
    void fillEvenings(const Schedule& schedule, const QStringList& names);
    void fillTimes();
    void stateTime(int row);

    Session& session_;
    PlanFigures figures_;
    QLabel* title_;
    QPushButton* anew_;
    QListWidget* evenings_;
    QTableWidget* times_;
    QLabel* learned_;
    QLabel* later_;
    QComboBox* zone_ = nullptr;
    std::unique_ptr<EntityForm<Plan>> form_;
};

} // namespace ibuki
