// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/protocol_curve.h"

#include "app/drawn/theme.h"
#include "app/question/protocol_lines.h"
#include "app/say.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <cmath>

namespace ibuki {
namespace {

constexpr double gripPixels = 8;

} // namespace

double roundedMinutes(double minutes) {
    const double kept = std::clamp(minutes, 0.5, 10'000.0);
    return kept < 5 ? std::round(2 * kept) / 2 : std::round(kept);
}

double roundedGate(double value) {
    if (!(value > 0)) return 0.01;
    const double unit = std::pow(10, std::floor(std::log10(value)) - 1);
    return std::max(0.01, std::round(value / unit) * unit);
}

ProtocolCurve::ProtocolCurve(QWidget* parent) : DrawnItems(parent) {
    setAccessibleName(say("The curve that the bench should draw"));
    setObjectName("Protocol curve");
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setMinimumHeight(140);
}

void ProtocolCurve::show(ProtocolDrawing drawing) {
    drawing_ = std::move(drawing);
    setFocused(focused());
    update();
}

const ProtocolStep& ProtocolCurve::protocolOf(std::size_t step) const {
    return drawing_.protocol.at(drawing_.curve.steps.at(step).row);
}

void ProtocolCurve::chooseRow(std::size_t row) {
    for (std::size_t i = 0; i < drawing_.curve.steps.size(); ++i)
        if (drawing_.curve.steps[i].row == row) {
            if (chosenRow() != row) setFocused(static_cast<int>(i));
            return;
        }
}

std::optional<std::size_t> ProtocolCurve::chosenRow() const {
    const auto at = static_cast<std::size_t>(focused());
    return at < drawing_.curve.steps.size() ? std::optional(drawing_.curve.steps[at].row) : std::nullopt;
}

QRectF ProtocolCurve::plot() const {
    const QFontMetricsF metrics(textFont(smallText));
    const double left = metrics.horizontalAdvance("100 K") + 12;
    return {left, metrics.height() + 12, width() - left - 14, height() - 2 * metrics.height() - 20};
}

double ProtocolCurve::lastMinute() const {
    return drawing_.curve.points.empty() ? 1 : std::max(1.0, drawing_.curve.points.back().minute);
}

double ProtocolCurve::highestK() const {
    double highest = 1;
    for (const ExpectedPoint& point : drawing_.curve.points) highest = std::max(highest, point.riseK);
    return 1.1 * highest;
}

double ProtocolCurve::xOf(double minute) const {
    return plot().left() + minute / lastMinute() * plot().width();
}
double ProtocolCurve::minuteOf(double x) const { return (x - plot().left()) / plot().width() * lastMinute(); }
double ProtocolCurve::yOf(double riseK) const {
    return plot().bottom() - riseK / highestK() * plot().height();
}

QPointF ProtocolCurve::handleOf(std::size_t step) const {
    return {xOf(drawing_.curve.forecasts.at(step).to), plot().top()};
}

QPointF ProtocolCurve::gateOf(std::size_t step) const {
    const StepForecast& at = drawing_.curve.forecasts.at(step);
    if (!at.atEnd) return {};
    const double minute = at.opensAt ? std::clamp(*at.opensAt, at.from, at.to) : at.to;
    const auto& points = drawing_.curve.points;
    const auto point =
        std::lower_bound(points.begin(), points.end(), minute - 1e-9,
                         [](const ExpectedPoint& one, double wanted) { return one.minute < wanted; });
    return {xOf(minute), yOf(point == points.end() ? at.riseK : point->riseK)};
}

int ProtocolCurve::itemAt(const QPointF& point) const {
    const double minute = minuteOf(point.x());
    for (std::size_t i = 0; i < drawing_.curve.steps.size(); ++i)
        if (minute >= drawing_.curve.forecasts[i].from && minute < drawing_.curve.forecasts[i].to)
            return static_cast<int>(i);
    return -1;
}

QString ProtocolCurve::tip(int item) const {
    return item >= 0 && item < drawing_.forecasts.size() ? drawing_.forecasts[item] : QString();
}

std::optional<ProtocolCurve::Drag> ProtocolCurve::gripAt(const QPointF& point) const {
    const double perPixel = lastMinute() / plot().width();
    for (std::size_t i = 0; i < drawing_.curve.steps.size(); ++i) {
        const QPointF gate = gateOf(i);
        if (!gate.isNull() && QLineF(gate, point).length() <= gripPixels)
            return Drag{Grip::gate, i, perPixel, point.x(), minuteOf(gate.x())};
    }
    for (std::size_t i = 0; i < drawing_.curve.steps.size(); ++i) {
        const StepForecast& step = drawing_.curve.forecasts[i];
        if (std::abs(xOf(step.to) - point.x()) <= gripPixels && point.y() < plot().bottom())
            return Drag{Grip::end, i, perPixel, point.x(), step.to - step.from};
    }
    return std::nullopt;
}

void ProtocolCurve::mousePressEvent(QMouseEvent* event) {
    drag_ = event->button() == Qt::LeftButton ? gripAt(event->position()) : std::nullopt;
    if (drag_)
        setFocused(static_cast<int>(drag_->step));
    else
        DrawnItems::mousePressEvent(event);
}

void ProtocolCurve::mouseMoveEvent(QMouseEvent* event) {
    if (drag_) return dragTo(event->position().x(), true);
    setCursor(gripAt(event->position()) ? Qt::SizeHorCursor : Qt::ArrowCursor);
    DrawnItems::mouseMoveEvent(event);
}

void ProtocolCurve::mouseReleaseEvent(QMouseEvent* event) {
    if (!drag_) return;
    if (std::abs(event->position().x() - drag_->fromX) >= 2) dragTo(event->position().x(), false);
    drag_.reset();
}

void ProtocolCurve::dragTo(double x, bool dragging) {
    const std::size_t row = drawing_.curve.steps.at(drag_->step).row;
    if (drag_->grip == Grip::end) {
        const double by = (x - drag_->fromX) * drag_->minutesPerPixel;
        emit minutesMeant(row, roundedMinutes(drag_->fromMinutes + by), dragging);
        return;
    }
    const StepForecast& step = drawing_.curve.forecasts[drag_->step];
    const double minute = std::clamp(minuteOf(x), step.from, step.to);
    if (const auto reads = drawing_.curve.gateFigure(drag_->step, protocolOf(drag_->step).gate, minute))
        emit gateMeant(row, roundedGate(*reads), dragging);
}

void ProtocolCurve::keyPressEvent(QKeyEvent* event) {
    const auto row = chosenRow();
    if (!row || !event->modifiers().testFlag(Qt::AltModifier)) return DrawnItems::keyPressEvent(event);
    const ProtocolStep& step = drawing_.protocol.at(*row);
    const double by = event->modifiers().testFlag(Qt::ShiftModifier) ? 5 : step.minutes < 5 ? 0.5 : 1;
    const bool gated = step.gate != GateKind::none;
    if (event->key() == Qt::Key_Right)
        emit minutesMeant(*row, roundedMinutes(step.minutes + by), false);
    else if (event->key() == Qt::Key_Left)
        emit minutesMeant(*row, roundedMinutes(step.minutes - by), false);
    else if (event->key() == Qt::Key_Up && gated)
        emit gateMeant(*row, roundedGate(step.gateValue * 1.25), false);
    else if (event->key() == Qt::Key_Down && gated)
        emit gateMeant(*row, roundedGate(step.gateValue / 1.25), false);
    else
        DrawnItems::keyPressEvent(event);
}

void ProtocolCurve::paintSteps(QPainter& painter) const {
    const Colours& c = colours();
    const QRectF in = plot();
    const double line = painter.fontMetrics().height();
    for (std::size_t i = 0; i < drawing_.curve.steps.size(); ++i) {
        const StepForecast& step = drawing_.curve.forecasts[i];
        const QRectF band(xOf(step.from), in.top(), xOf(step.to) - xOf(step.from), in.height());
        const int item = static_cast<int>(i);
        if (protocolOf(i).kind == StepKind::measure) {
            QColor wash = c.hotWash;
            wash.setAlphaF(0.55F);
            painter.fillRect(band, wash); // here the figure is taken
        } else if (i % 2 == 0) {
            painter.fillRect(band, c.band);
        }
        painter.setPen(item == focused() ? c.ink : c.quiet);
        painter.setFont(textFont(smallText, item == focused() ? QFont::DemiBold : QFont::Normal));
        painter.drawText(QRectF(band.left() + 2, 1, band.width() - 4, line), Qt::AlignHCenter,
                         painter.fontMetrics().elidedText(drawing_.names.value(item), Qt::ElideRight,
                                                          static_cast<int>(band.width()) - 4));
        painter.setPen(QPen(c.line, 1));
        painter.drawLine(band.topRight(), band.bottomRight());
        painter.setPen(QPen(c.ink, 1.2));
        painter.setBrush(item == focused() ? c.ink : c.sheet);
        painter.drawRoundedRect(QRectF(band.right() - 4, in.top() - 6, 8, 12), 2, 2);
        if (showsFocus(item)) {
            painter.setBrush(Qt::NoBrush);
            painter.setPen(QPen(c.cold, 1.5, Qt::DotLine));
            painter.drawRect(band.adjusted(1, 1, -1, -1));
        }
    }
    painter.setFont(textFont(smallText));
}

void ProtocolCurve::paintAxes(QPainter& painter) const {
    const Colours& c = colours();
    const QRectF in = plot();
    const double line = painter.fontMetrics().height();
    const double step = std::pow(10, std::floor(std::log10(highestK() / 2)));
    const double every = highestK() / step > 5 ? 2 * step : step;
    for (double rise = 0; rise < highestK(); rise += every) {
        painter.setPen(QPen(c.line, 1, rise == 0 ? Qt::SolidLine : Qt::DotLine));
        painter.drawLine(QPointF(in.left(), yOf(rise)), QPointF(in.right(), yOf(rise)));
        painter.setPen(c.quiet);
        painter.drawText(QRectF(0, yOf(rise) - line / 2, in.left() - 8, line),
                         Qt::AlignRight | Qt::AlignVCenter, QString("%1 K").arg(rise));
    }
    double lastX = -100;
    painter.setPen(c.quiet);
    for (const StepForecast& one : drawing_.curve.forecasts) {
        const QString text = say("%1 min").arg(one.to, 0, 'f', 0);
        const double wide = painter.fontMetrics().horizontalAdvance(text);
        const double x = std::min(xOf(one.to) - wide / 2, width() - wide);
        if (x < lastX + 8) continue;
        painter.drawText(QPointF(x, in.bottom() + line), text);
        lastX = x + wide;
    }
}

void ProtocolCurve::paintGates(QPainter& painter) const {
    const Colours& c = colours();
    const double line = painter.fontMetrics().height();
    for (std::size_t i = 0; i < drawing_.curve.steps.size(); ++i) {
        const QPointF at = gateOf(i);
        if (at.isNull()) continue;
        const StepForecast& step = drawing_.curve.forecasts[i];
        const bool opens = step.opensAt && *step.opensAt <= step.to;
        painter.setPen(QPen(c.ink, 1.5));
        painter.setBrush(opens ? c.ink : c.sheet); // hollow: not within the step
        painter.drawPolygon(
            QPolygonF{at + QPointF(0, -6), at + QPointF(6, 0), at + QPointF(0, 6), at + QPointF(-6, 0)});
        QString text = gateText(protocolOf(i).gate, opens ? protocolOf(i).gateValue : *step.atEnd);
        if (!opens) text = say("still %1").arg(text);
        const double wide = painter.fontMetrics().horizontalAdvance(text) + 4;
        const double x = std::min(at.x() + 8, width() - wide);
        const bool above = at.y() > plot().center().y();
        painter.drawText(QRectF(x, above ? at.y() - line - 6 : at.y() + 6, wide, line), Qt::AlignLeft, text);
    }
}

void ProtocolCurve::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(textFont(smallText));
    if (itemCount() == 0) {
        painter.setPen(colours().quiet);
        painter.drawText(rect(), Qt::AlignCenter, say("No step follows the hands yet."));
        return;
    }
    paintSteps(painter);
    paintAxes(painter);
    QPainterPath path;
    for (const ExpectedPoint& point : drawing_.curve.points) {
        const QPointF at(xOf(point.minute), yOf(point.riseK));
        path.elementCount() == 0 ? path.moveTo(at) : path.lineTo(at);
    }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(colours().ink, 2));
    painter.drawPath(path);
    paintGates(painter);
}

} // namespace ibuki
