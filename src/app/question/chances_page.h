// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/forms/entity_form.h"
#include "app/question/plan_figures.h"

#include <QWidget>

namespace ibuki {

class ChanceCurve;
class ChanceGrid;

/// What the chosen number of mounts would settle and cost, and what would help where it settles too little.
class ChancesPage : public QWidget {
    Q_OBJECT

public:
    explicit ChancesPage(Session& session, QWidget* parent = nullptr);
    void refresh(const PlanFigures& figures);

signals:
    void mountsMeant(int mounts); ///< of each level, chosen on the curve

private:
    Session& session_;
    QLabel* title_;
    ChanceCurve* curve_;
    ChanceGrid* grid_;
    QLabel* pair_;
    QLabel* figures_;
    QLabel* helps_;
    std::unique_ptr<EntityForm<Plan>> form_;
    QLabel* scatterLabel_ = nullptr; ///< names the unit of the response
};

} // namespace ibuki
