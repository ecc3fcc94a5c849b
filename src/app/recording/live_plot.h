// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/live_run.h"

#include <QWidget>

class QCPGraph;
class QCustomPlot;

namespace ibuki {

/// The curve of the run while it comes, with the mounts made earlier behind it: of the same level darker, of
/// rejected ones dashed. Time counts from the start of the load. Plus and minus make it closer and wider,
/// left and right move along it, 0 shows all of it again; the wheel and dragging do the same.
class LivePlot : public QWidget {
    Q_OBJECT

public:
    explicit LivePlot(QWidget* parent = nullptr);

    /// all: every temperature in place of the difference over the room.
    void show(const LiveRun& run, bool all);
    void restyle(); ///< colours of the theme in force
    QCustomPlot* plot() const { return plot_; }

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void changeEvent(QEvent* event) override;

private:
    void begin(const LiveRun& run, bool all);
    void fill(QCPGraph* graph, const StretchMeans& curve, double zeroS) const;
    void zoom(double factor);
    void fit();

    QCustomPlot* plot_;
    std::vector<QCPGraph*> live_;
    EarlierRises ghosts_;
    const LiveRun* shown_ = nullptr;
    bool all_ = false;
    bool follows_ = true; ///< the whole of it, as it grows
};

} // namespace ibuki
