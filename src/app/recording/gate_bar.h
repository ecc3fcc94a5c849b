// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/conduct/conductor.h"

#include <QRectF>
#include <QWidget>
#include <vector>

namespace ibuki {

/// A step where it stands in the bar: longer steps are wider, but no step is too narrow for its name.
std::vector<QRectF> gateBarLayout(const std::vector<StepOccurrence>& steps, const QRectF& inside, double gap,
                                  double least);

/// The steps of a run in a row: what is done solid, what is under way filled as far as it is, the rest
/// outlined; loads stand on a hot line.
class GateBar : public QWidget {
    Q_OBJECT

public:
    explicit GateBar(QWidget* parent = nullptr);

    /// place: of the step under way; share: how far it is.
    void show(const std::vector<StepOccurrence>& steps, std::size_t place, double share, bool paused);
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return {200, sizeHint().height()}; }

protected:
    void paintEvent(QPaintEvent* event) override;
    bool event(QEvent* event) override;

private:
    std::vector<QRectF> rects() const;
    void paintStep(QPainter& painter, const QRectF& rect, std::size_t index) const;

    std::vector<StepOccurrence> steps_;
    std::size_t place_ = 0;
    double share_ = 0;
    bool paused_ = false;
};

} // namespace ibuki
