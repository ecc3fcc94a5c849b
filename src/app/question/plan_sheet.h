// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/forms/entity_form.h"

#include <QDialog>

class QTableWidget;

namespace ibuki {

/// What the board is laid by: the evenings there are, checks, looks and seed, delays of follow-ups, and how
/// long hands take. Every change is laid at once.
class PlanSheet : public QDialog {
    Q_OBJECT

public:
    PlanSheet(Session& session, Id<Study> study, QWidget* parent);

private:
    QWidget* makeEvenings();
    QWidget* makeChecks();
    QWidget* makeTimes();
    void refresh();
    void fillTimes();
    void stateTime(int row);
    void takeZone(int index);

    Session& session_;
    Id<Study> study_;
    std::unique_ptr<EntityForm<Plan>> eveningForm_;
    std::unique_ptr<EntityForm<Plan>> checkForm_;
    QComboBox* zone_ = nullptr;
    QTableWidget* times_;
    QLabel* learned_;
};

} // namespace ibuki
