// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/domain/plan.h"

#include <QDialog>

class QFormLayout;
class QLabel;
class QLineEdit;
class QPushButton;
class QTableWidget;

namespace ibuki {

/// By which rules a study reduces its logs. Changed rules are tried on all its runs first: a list tells each
/// figure before and after, and only then are rules and figures taken over, in one action.
class RulesSheet : public QDialog {
    Q_OBJECT

public:
    RulesSheet(Session& session, QWidget* parent = nullptr);

private:
    struct Field {
        QString label;
        double ReductionRules::*member;
        double least;
        QLineEdit* line;
    };

    void addField(QFormLayout* form, const QString& label, double ReductionRules::*member, double least);
    void showRules(const ReductionRules& rules);
    std::optional<ReductionRules> typed(); ///< nothing with a notice when a field is no number
    void tryThem();
    void show(const std::vector<RunReduction>& fresh);
    void takeOver();

    Session& session_;
    std::vector<Field> fields_;
    ReductionRules stored_; ///< as they hold now; without an id where the study has the defaults
    ReductionRules tried_;
    std::vector<RunReduction> fresh_;
    int triedAt_ = -1; ///< revision of the document that `fresh_` is of
    QTableWidget* list_;
    QLabel* words_;
    QPushButton* take_;
};

} // namespace ibuki
