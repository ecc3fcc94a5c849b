// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/domain/mount.h"
#include "core/evidence/run_budget.h"

#include <QDialog>

namespace ibuki {

/// The uncertainty budget of one run as a table that a person can read, to copy or to keep as CSV.
class BudgetSheet : public QDialog {
    Q_OBJECT

public:
    BudgetSheet(Session& session, Id<Run> run, QWidget* parent = nullptr);

    QString asText(QChar separator) const;

private:
    void addTable(class QVBoxLayout* layout);
    void save();

    Session& session_;
    RunBudget run_;
    double deltaK_ = 0;
};

} // namespace ibuki
