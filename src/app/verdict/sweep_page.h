// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evidence/power_sweep.h"

#include <QWidget>

class QCustomPlot;
class QLabel;

namespace ibuki {

/// The levels' differences over power: a line each, the runs as marks, where lines meet and what that is
/// worth.
class SweepPage : public QWidget {
    Q_OBJECT

public:
    explicit SweepPage(QWidget* parent = nullptr);
    void show(const PowerSweep& sweep);

protected:
    void changeEvent(QEvent* event) override;

private:
    void draw();

    PowerSweep sweep_;
    QCustomPlot* plot_;
    QLabel* told_;
};

} // namespace ibuki
