// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/drawn/drawn_items.h"
#include "core/plan/expected_curve.h"

#include <QStringList>

namespace ibuki {

struct ProtocolDrawing {
    ExpectedCurve curve;
    std::vector<ProtocolStep> protocol;
    QStringList names;     ///< of the curve's steps
    QStringList forecasts; ///< of the curve's steps
};

/// The curve that the bench should draw over the protocol. Items are the steps as they are run: the end of
/// one is dragged along the time, its gate along the curve; Alt with Left and Right changes its minutes (with
/// Shift by five), Alt with Up and Down its gate.
class ProtocolCurve : public DrawnItems {
    Q_OBJECT

public:
    explicit ProtocolCurve(QWidget* parent = nullptr);

    void show(ProtocolDrawing drawing);
    void chooseRow(std::size_t row); ///< of the protocol
    std::optional<std::size_t> chosenRow() const;
    const ProtocolDrawing& drawing() const { return drawing_; }
    QPointF handleOf(std::size_t step) const; ///< at its end
    QPointF gateOf(std::size_t step) const;   ///< null without a gate on the curve
    QSize sizeHint() const override { return {700, 11 * fontMetrics().height()}; }

signals:
    void minutesMeant(std::size_t row, double minutes, bool dragging);
    void gateMeant(std::size_t row, double value, bool dragging);

protected:
    void paintEvent(QPaintEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    int itemCount() const override { return static_cast<int>(drawing_.curve.steps.size()); }
    int itemAt(const QPointF& point) const override;
    QString tip(int item) const override;
    void openItem(int) override {}

private:
    enum class Grip { end, gate };
    struct Drag {
        Grip grip = Grip::end;
        std::size_t step = 0;
        double minutesPerPixel = 0; ///< as it was when the drag began: the axis follows the drag
        double fromX = 0;
        double fromMinutes = 0;
    };
    QRectF plot() const;
    double xOf(double minute) const;
    double minuteOf(double x) const;
    double yOf(double riseK) const;
    double lastMinute() const;
    double highestK() const;
    std::optional<Drag> gripAt(const QPointF& point) const;
    const ProtocolStep& protocolOf(std::size_t step) const;
    void dragTo(double x, bool dragging);
    void paintSteps(QPainter& painter) const;
    void paintAxes(QPainter& painter) const;
    void paintGates(QPainter& painter) const;

    ProtocolDrawing drawing_;
    std::optional<Drag> drag_;
};

/// Minutes as a hand sets them: whole ones, halves below five.
double roundedMinutes(double minutes);
/// A gate's figure to two digits.
double roundedGate(double value);

} // namespace ibuki
