// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/recording/gate_bar.h"

#include "app/drawn/theme.h"
#include "app/recording/live_lines.h"
#include "app/say.h"
#include "app/session/step_title.h"

#include <QHelpEvent>
#include <QPainter>
#include <QToolTip>
#include <cmath>

namespace ibuki {

std::vector<QRectF> gateBarLayout(const std::vector<StepOccurrence>& steps, const QRectF& inside, double gap,
                                  double least) {
    std::vector<double> weights;
    double sum = 0;
    for (const StepOccurrence& step : steps) {
        weights.push_back(std::sqrt(std::max(1.0, step.minutes)));
        sum += weights.back();
    }
    const auto count = static_cast<double>(steps.size());
    const double free = inside.width() - gap * std::max(0.0, count - 1);
    const double floor = std::min(least, count > 0 ? free / count : free);
    const double spread = std::max(0.0, free - floor * count);
    std::vector<QRectF> rects;
    double x = inside.left();
    for (double weight : weights) {
        const double width = floor + (sum > 0 ? spread * weight / sum : 0);
        rects.emplace_back(x, inside.top(), width, inside.height());
        x += width + gap;
    }
    return rects;
}

GateBar::GateBar(QWidget* parent) : QWidget(parent) {
    setAccessibleName(say("Steps of the run"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

QSize GateBar::sizeHint() const { return {600, 2 * fontMetrics().height() + 14}; }

void GateBar::show(const std::vector<StepOccurrence>& steps, std::size_t place, double share, bool paused) {
    steps_ = steps;
    place_ = place;
    share_ = share;
    paused_ = paused;
    setAccessibleDescription(place < steps.size() ? stepTitle(steps[place]) : say("done"));
    update();
}

std::vector<QRectF> GateBar::rects() const {
    return gateBarLayout(steps_, QRectF(1, 1, width() - 2.0, height() - 2.0), 4,
                         fontMetrics().height() * 2.6);
}

bool GateBar::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        const auto at = rects();
        for (std::size_t i = 0; i < at.size(); ++i)
            if (at[i].contains(help->pos()))
                QToolTip::showText(
                    help->globalPos(),
                    say("%1, %2 min at most").arg(stepTitle(steps_[i])).arg(steps_[i].minutes, 0, 'f', 0),
                    this);
        return true;
    }
    return QWidget::event(event);
}

void GateBar::paintEvent(QPaintEvent* /*event*/) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto at = rects();
    for (std::size_t i = 0; i < at.size(); ++i) paintStep(painter, at[i], i);
}

void GateBar::paintStep(QPainter& painter, const QRectF& rect, std::size_t index) const {
    const Colours& c = colours();
    const StepOccurrence& step = steps_[index];
    const bool now = index == place_;
    const bool done = index < place_;
    const QColor fill = step.load.empty() ? c.band : c.hotWash;
    painter.setPen(QPen(now ? c.ink : c.line, now ? 2 : 1));
    painter.setBrush(done ? QBrush(fill) : QBrush(c.sheet));
    painter.drawRoundedRect(rect, 4, 4);
    if (now && share_ > 0) {
        QRectF filled = rect.adjusted(1, 1, -1, -1);
        filled.setWidth(filled.width() * share_);
        painter.setPen(Qt::NoPen);
        painter.setBrush(QBrush(fill, paused_ ? Qt::BDiagPattern : Qt::SolidPattern));
        painter.drawRoundedRect(filled, 3, 3);
    }
    if (!step.load.empty()) {
        painter.setPen(QPen(c.hot, 2));
        painter.drawLine(rect.bottomLeft() + QPointF(4, -2), rect.bottomRight() + QPointF(-4, -2));
    }
    painter.setFont(textFont(now ? 1.0 : smallText, now ? QFont::DemiBold : QFont::Normal));
    painter.setPen(now || done ? c.ink : c.quiet);
    const QString title =
        QFontMetricsF(painter.font()).elidedText(stepTitle(step, false), Qt::ElideRight, rect.width() - 8);
    painter.drawText(rect.adjusted(4, 0, -4, 0), Qt::AlignCenter,
                     done ? title + QStringLiteral(" ✓") : title);
}

} // namespace ibuki
