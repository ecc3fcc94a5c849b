// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/reduce/reduction.h"

#include <QWidget>

class QCustomPlot;

namespace ibuki {

/// The chosen metric and the room over time, load and steady window shaded, power on a second axis.
class TracePlot : public QWidget {
    Q_OBJECT

public:
    explicit TracePlot(QWidget* parent = nullptr);

    void show(const Trace& trace, const Reduction& reduction, Metric metric);
    void clear();
    void restyle(); ///< colours of the theme in force

private:
    void shade(double from, double to, const QColor& colour);

    QCustomPlot* plot_;
};

} // namespace ibuki
