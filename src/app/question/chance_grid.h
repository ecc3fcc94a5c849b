// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/drawn/drawn_items.h"
#include "core/plan/power_analysis.h"

namespace ibuki {

/// One cell a pair of levels: how likely the plan is to settle it. Filled from below by the chance, with its
/// percent; arrow keys walk along the pairs.
class ChanceGrid : public DrawnItems {
    Q_OBJECT

public:
    explicit ChanceGrid(QWidget* parent = nullptr);

    void show(const PowerAnalysis& analysis, Goal goal);
    void clear();

signals:
    void pairMeant(const QString& words);

protected:
    void paintEvent(QPaintEvent* event) override;
    int itemCount() const override { return static_cast<int>(analysis_.pairs.size()); }
    int itemAt(const QPointF& point) const override;
    QString tip(int item) const override;
    void openItem(int item) override { emit pairMeant(tip(item)); }

private:
    QRectF cellOf(const PairChance& pair) const;
    double chanceOf(const PairChance& pair) const;

    PowerAnalysis analysis_;
    Goal goal_ = Goal::difference;
};

} // namespace ibuki
