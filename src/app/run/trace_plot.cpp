// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/run/trace_plot.h"

#include "app/drawn/plot_style.h"
#include "app/drawn/theme.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "core/reduce/metric.h"
#include "core/reduce/reduction.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QVBoxLayout>
#include <qcustomplot.h>
#include <utility>

namespace ibuki {
namespace {

QVector<double> vectorOf(const std::vector<double>& values) { return {values.begin(), values.end()}; }

QVector<double> minutesOf(const std::vector<double>& seconds) {
    QVector<double> minutes;
    minutes.reserve(static_cast<int>(seconds.size()));
    for (double s : seconds) minutes << s / 60;
    return minutes;
}

constexpr double grabPx = 7;
constexpr int restMs = 500; ///< between the last key and the figures that follow from it
constexpr std::size_t manyPoints = 20'000;
const std::array<const char*, 4> borderNames{words::mark("start of the load"), words::mark("end of the load"),
                                             words::mark("start of the window"),
                                             words::mark("end of the window")};

} // namespace

TracePlot::TracePlot(QWidget* parent) : QWidget(parent), plot_(new QCustomPlot) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(plot_);
    setAccessibleName(say("Trace of the run"));
    plot_->setFocusPolicy(Qt::NoFocus);
    plot_->setMouseTracking(true);
    plot_->installEventFilter(this);
    setFocusPolicy(Qt::StrongFocus);
    rest_.setSingleShot(true);
    rest_.setInterval(restMs);
    connect(&rest_, &QTimer::timeout, this, [this] {
        if (probeMovedS_ != 0)
            tellProbe();
        else
            tell();
    });
    plot_->setMinimumHeight(150);
    plot_->setInteraction(QCP::iRangeZoom);
    plot_->axisRect()->setRangeZoom(Qt::Horizontal);
    plot_->axisRect()->setRangeZoomAxes(plot_->xAxis, nullptr);
    plot_->xAxis->setLabel(say("minutes"));
    plot_->yAxis->setLabel("°C");
    plot_->yAxis2->setLabel("W");
    plot_->yAxis2->setVisible(true);
    plot_->yAxis2->grid()->setVisible(false);
    plot_->legend->setFillOrder(QCPLegend::foColumnsFirst);
    plot_->plotLayout()->addElement(1, 0, plot_->legend);
    plot_->plotLayout()->setRowStretchFactor(1, 0.001);
    plot_->legend->setMargins(QMargins(0, 0, 0, 0));
    restyle();
}

void TracePlot::changeEvent(QEvent* event) {
    QWidget::changeEvent(event);
    if (event->type() == QEvent::PaletteChange || event->type() == QEvent::FontChange) restyle();
}

void TracePlot::restyle() {
    const Colours& c = colours();
    plot_->setBackground(QBrush(c.sheet));
    for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis, plot_->yAxis2}) stylePlotAxis(axis);
    plot_->legend->setBrush(QBrush(c.sheet));
    plot_->legend->setBorderPen(Qt::NoPen);
    plot_->legend->setTextColor(c.ink);
    plot_->legend->setFont(textFont(0.85));
    plot_->replot();
}

void TracePlot::clear() {
    rest_.stop();
    hasBorders_ = false;
    room_ = nullptr;
    probeShiftS_.reset();
    plot_->clearItems();
    plot_->clearGraphs();
    plot_->legend->setVisible(false);
    plot_->replot();
}

void TracePlot::shade(double from, double to, const QColor& colour, bool framed) {
    auto* band = new QCPItemRect(plot_);
    band->setPen(framed ? QPen(colours().quiet, 1, Qt::DashLine) : QPen(Qt::NoPen));
    band->setBrush(framed ? QBrush(Qt::NoBrush) : QBrush(colour));
    band->setLayer(say("background"));
    for (QCPItemPosition* position : {band->topLeft, band->bottomRight}) {
        position->setTypeX(QCPItemPosition::ptPlotCoords);
        position->setTypeY(QCPItemPosition::ptAxisRectRatio);
    }
    band->topLeft->setCoords(from / 60, framed ? 0.02 : 0);
    band->bottomRight->setCoords(to / 60, framed ? 0.98 : 1);
}

void TracePlot::show(const Trace& trace, const Reduction& reduction, Metric metric,
                     std::optional<std::size_t> index) {
    // The view may show the same run again while the user still moves something of it.
    const bool moving = hasBorders_ && (rest_.isActive() || dragged_ || probeDraggedFrom_);
    const auto heldMarks = marks_;
    const auto heldShiftS = probeShiftS_;
    const double heldProbeS = std::exchange(probeMovedS_, 0.0);
    hasBorders_ = false;
    room_ = nullptr;
    probeShiftS_ = trace.probe ? std::optional(trace.probe->shiftS) : std::nullopt;
    plot_->clearItems();
    plot_->clearGraphs();
    stepS_ = std::max(reduction.intervalS, 1.0);
    endS_ = trace.durationS();
    const JudgedBy judged = judgedBy(reduction, metric);
    const LoadReduction* load = judged.load(index ? static_cast<int>(*index) : -1);
    if (!load) load = judged.load(-1);
    loadIndex_ = index ? static_cast<int>(*index) : -1;
    QColor loadColour = colours().band;
    loadColour.setAlpha(110);
    for (const LoadReduction& one : *judged.loads)
        for (const Phase& phase : one.phases)
            if (phase.name == "load") shade(phase.startS, phase.endS, loadColour);
    if (load) addBorders(*load);
    addCurves(trace, metric);
    drawQuickly(*plot_, trace.timeS.size() > manyPoints);
    plot_->rescaleAxes();
    for (QCPAxis* axis : {plot_->yAxis, plot_->yAxis2}) {
        const QCPRange range = axis->range();
        axis->setRange(range.lower - 0.05 * range.size(), range.upper + 0.12 * range.size());
    }
    plot_->legend->setVisible(true);
    const bool same = hasBorders_ && heldShiftS == probeShiftS_
                      && std::equal(marks_.begin(), marks_.end(), heldMarks.begin(),
                                    [](const Mark& a, const Mark& b) { return a.foundS == b.foundS; });
    if (moving && same) {
        for (std::size_t i = 0; i < marks_.size(); ++i) {
            marks_[i].nowS = heldMarks[i].nowS;
            marks_[i].byHand = heldMarks[i].byHand;
        }
        moveProbe(heldProbeS);
    } else {
        rest_.stop();
        dragged_.reset();
        probeDraggedFrom_.reset();
    }
    drawBorders();
}

void TracePlot::addCurves(const Trace& trace, Metric metric) {
    const Colours& c = colours();
    const auto time = minutesOf(trace.timeS);
    const auto add = [&](const std::vector<double>& values, const QString& name, const QPen& pen,
                         QCPAxis* axis) {
        if (values.empty()) return;
        QCPGraph* graph = plot_->addGraph(plot_->xAxis, axis);
        graph->setData(time, vectorOf(values), true);
        graph->setPen(pen);
        graph->setName(name);
        graph->setAdaptiveSampling(true);
    };
    const Channel* power =
        firstChannel(trace, isGraphicsMetric(metric) ? Role::gpuPower : Role::packagePower);
    if (power) add(power->values, say("power"), QPen(c.quiet, 1, Qt::DotLine), plot_->yAxis2);
    plot_->yAxis2->setVisible(power != nullptr);
    add(metricSeries(trace, chipChannels(trace, {}), metric), sayTerm(metricTitle(metric)), QPen(c.hot, 1.6),
        plot_->yAxis);
    if (const Channel* room = firstChannel(trace, Role::ambient)) {
        add(room->values, trace.probe ? say("room, probe") : say("room"), QPen(c.cold, 1.6), plot_->yAxis);
        if (trace.probe && !room->values.empty()) room_ = plot_->graph(plot_->graphCount() - 1);
    }
}

void TracePlot::addBorders(const LoadReduction& load) {
    const auto phase = loadPhase(load);
    if (!phase || !load.window) return;
    const Phase foundLoad = load.foundLoad.value_or(*phase);
    const Phase foundWindow = load.foundWindow.value_or(*load.window);
    QColor windowColour = colours().hotWash;
    windowColour.setAlpha(110);
    shade(load.window->startS, load.window->endS, windowColour);
    if (load.foundWindow) shade(foundWindow.startS, foundWindow.endS, {}, true);
    if (load.foundLoad) shade(foundLoad.startS, foundLoad.endS, {}, true);
    const auto mark = [](double foundS, double nowS) {
        return Mark{foundS, nowS, std::abs(foundS - nowS) > 1e-6, nullptr};
    };
    marks_ = {mark(foundLoad.startS, phase->startS), mark(foundLoad.endS, phase->endS),
              mark(foundWindow.startS, load.window->startS), mark(foundWindow.endS, load.window->endS)};
    hasBorders_ = true;
}

void TracePlot::drawBorders() {
    if (hasBorders_ && movable_) {
        for (std::size_t i = 0; i < marks_.size(); ++i) {
            Mark& mark = marks_[i];
            if (!mark.line) {
                mark.line = new QCPItemLine(plot_);
                for (QCPItemPosition* position : {mark.line->start, mark.line->end}) {
                    position->setTypeX(QCPItemPosition::ptPlotCoords);
                    position->setTypeY(QCPItemPosition::ptAxisRectRatio);
                }
            }
            const bool chosen = hasFocus() && i == chosen_;
            mark.line->start->setCoords(mark.nowS / 60, 0);
            mark.line->end->setCoords(mark.nowS / 60, 1);
            mark.line->setPen(QPen(i >= windowStart ? colours().hot : colours().ink,
                                   chosen        ? 3.0
                                   : mark.byHand ? 2.0
                                                 : 1.2,
                                   mark.byHand ? Qt::SolidLine : Qt::DotLine));
        }
        const Mark& mark = marks_[chosen_];
        setAccessibleDescription(
            say("%1 at %2 s%3")
                .arg(say(borderNames[chosen_]))
                .arg(mark.nowS, 0, 'f', 0)
                .arg(mark.byHand ? say(", by hand; found at %1 s").arg(mark.foundS, 0, 'f', 0) : QString()));
    }
    plot_->replot();
}

double TracePlot::timeAt(double x) const { return 60 * plot_->xAxis->pixelToCoord(x); }

std::optional<TracePlot::Border> TracePlot::borderAt(double x) const {
    std::optional<Border> best;
    double nearest = grabPx;
    for (std::size_t i = 0; i < marks_.size() && hasBorders_ && movable_; ++i) {
        const double off = std::abs(plot_->xAxis->coordToPixel(marks_[i].nowS / 60) - x);
        if (off > nearest) continue;
        nearest = off;
        best = static_cast<Border>(i);
    }
    return best;
}

/// Borders stay in their order: the load holds its window.
void TracePlot::moveTo(Border border, double timeS) {
    const bool isStart = border == loadStart || border == windowStart;
    const Mark& partner = marks_[isStart ? border + 1 : border - 1];
    double low = isStart ? 0 : partner.nowS + 2 * stepS_;
    double high = isStart ? partner.nowS - 2 * stepS_ : endS_;
    if (border >= windowStart) {
        low = std::max(low, marks_[loadStart].nowS);
        high = std::min(high, marks_[loadEnd].nowS);
    }
    Mark& mark = marks_[border];
    mark.nowS = std::clamp(timeS, std::min(low, high), std::max(low, high));
    mark.byHand = std::abs(mark.nowS - mark.foundS) > 1e-6;
    chosen_ = border;
    drawBorders();
}

void TracePlot::putBack(Border border) {
    marks_[border].nowS = marks_[border].foundS;
    marks_[border].byHand = false;
    drawBorders();
}

void TracePlot::tell() {
    HandMarks hand;
    hand.load = loadIndex_;
    const auto stated = [&](Border border) {
        return marks_[border].byHand ? std::optional(marks_[border].nowS) : std::nullopt;
    };
    hand.loadStartS = stated(loadStart);
    hand.loadEndS = stated(loadEnd);
    hand.windowStartS = stated(windowStart);
    hand.windowEndS = stated(windowEnd);
    emit bordersMoved(hand);
}

/// The curve moves at once; what follows from it waits until the user rests.
void TracePlot::moveProbe(double byS) {
    if (!room_ || !probeShiftS_) return;
    probeMovedS_ += byS;
    QVector<QCPGraphData> moved;
    for (const QCPGraphData& point : *room_->data()) moved << QCPGraphData(point.key + byS / 60, point.value);
    room_->data()->set(moved, true);
    setAccessibleDescription(
        say("room probe's clock moved by %1 s").arg(*probeShiftS_ + probeMovedS_, 0, 'f', 0));
    plot_->replot();
}

void TracePlot::tellProbe() {
    if (!probeShiftS_ || probeMovedS_ == 0) return;
    const double shift = *probeShiftS_ + std::exchange(probeMovedS_, 0.0);
    emit probeMoved(std::round(10 * shift) / 10);
}

bool TracePlot::eventFilter(QObject* watched, QEvent* event) {
    if (watched != plot_ || !movable_) return QWidget::eventFilter(watched, event);
    const auto* mouse = event->type() == QEvent::MouseButtonPress || event->type() == QEvent::MouseMove
                                || event->type() == QEvent::MouseButtonRelease
                            ? static_cast<QMouseEvent*>(event)
                            : nullptr;
    if (!mouse) return QWidget::eventFilter(watched, event);
    if (event->type() == QEvent::MouseButtonPress) {
        setFocus();
        if (mouse->modifiers().testFlag(Qt::AltModifier) && room_) {
            probeDraggedFrom_ = timeAt(mouse->position().x());
            return true;
        }
        dragged_ = borderAt(mouse->position().x());
        if (dragged_) moveTo(*dragged_, marks_[*dragged_].nowS);
    } else if (event->type() == QEvent::MouseMove && probeDraggedFrom_) {
        const double now = timeAt(mouse->position().x());
        moveProbe(now - *probeDraggedFrom_);
        probeDraggedFrom_ = now;
    } else if (event->type() == QEvent::MouseButtonRelease && probeDraggedFrom_) {
        probeDraggedFrom_.reset();
        tellProbe();
    } else if (event->type() == QEvent::MouseMove && dragged_) {
        moveTo(*dragged_, timeAt(mouse->position().x()));
    } else if (event->type() == QEvent::MouseMove) {
        plot_->setCursor(borderAt(mouse->position().x()) ? Qt::SplitHCursor : Qt::ArrowCursor);
    } else if (dragged_) {
        dragged_.reset();
        tell();
    }
    return QWidget::eventFilter(watched, event);
}

/// Plus and minus about the chosen border, Page Up and Down along, 0 all of it.
bool TracePlot::zooms(const QKeyEvent& event) {
    QCPAxis* axis = plot_->xAxis;
    const double anchor = hasBorders_ ? marks_[chosen_].nowS / 60 : axis->range().center();
    switch (event.key()) {
    case Qt::Key_Plus:
        zoomPlot(*plot_, 0.5, anchor);
        return true;
    case Qt::Key_Minus:
        zoomPlot(*plot_, 2, anchor);
        return true;
    case Qt::Key_0:
        axis->rescale();
        plot_->replot();
        return true;
    case Qt::Key_PageUp:
    case Qt::Key_PageDown:
        axis->moveRange(axis->range().size() / (event.key() == Qt::Key_PageUp ? -4 : 4));
        plot_->replot();
        return true;
    default:
        return false;
    }
}

void TracePlot::keyPressEvent(QKeyEvent* event) {
    if (event->modifiers() == Qt::NoModifier && zooms(*event)) return;
    if (!hasBorders_ || !movable_) {
        QWidget::keyPressEvent(event);
        return;
    }
    const double step = event->modifiers().testFlag(Qt::ShiftModifier) ? 60 : std::max(stepS_, 5.0);
    switch (event->key()) {
    case Qt::Key_Up:
    case Qt::Key_Down:
        chosen_ = static_cast<Border>((chosen_ + (event->key() == Qt::Key_Down ? 1 : 3)) % 4);
        drawBorders();
        break;
    case Qt::Key_Left:
    case Qt::Key_Right:
        if (event->modifiers().testFlag(Qt::AltModifier)) {
            const double by = event->modifiers().testFlag(Qt::ShiftModifier) ? 30 : 1;
            moveProbe(event->key() == Qt::Key_Right ? by : -by);
            rest_.start();
            break;
        }
        moveTo(chosen_, marks_[chosen_].nowS + (event->key() == Qt::Key_Right ? step : -step));
        rest_.start();
        break;
    case Qt::Key_Backspace:
        putBack(chosen_);
        rest_.start();
        break;
    default:
        QWidget::keyPressEvent(event);
    }
}

void TracePlot::focusInEvent(QFocusEvent* event) {
    QWidget::focusInEvent(event);
    drawBorders();
}

void TracePlot::focusOutEvent(QFocusEvent* event) {
    QWidget::focusOutEvent(event);
    if (rest_.isActive()) { // what the keys did counts at once when the user goes on elsewhere
        rest_.stop();
        if (probeMovedS_ != 0)
            tellProbe();
        else
            tell();
    }
    drawBorders();
}

} // namespace ibuki
