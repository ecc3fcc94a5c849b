// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/stage_bar.h"

#include "app/drawn/theme.h"
#include "app/drawn/walk.h"
#include "app/say.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

namespace ibuki {

StageBar::StageBar(const std::vector<Stage>& stages, QWidget* parent) : QWidget(parent), stages_(stages) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(say("Stages"));
    setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Expanding);
}

QSize StageBar::sizeHint() const {
    int widest = 0;
    for (const Stage& stage : stages_)
        widest = std::max(widest, QFontMetrics(textFont(1.0, QFont::DemiBold)).horizontalAdvance(stage.name));
    return {widest + 34, 300};
}

QRectF StageBar::rectOf(int index) const {
    const double height = 2.6 * fontMetrics().height();
    return {0, index * (height + 4), width() - 8.0, height};
}

int StageBar::stageAt(const QPointF& point) const {
    for (int i = 0; i < static_cast<int>(stages_.size()); ++i)
        if (rectOf(i).contains(point)) return i;
    return -1;
}

void StageBar::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Colours& c = colours();
    // One line through all stages: the order of work. The stage you are at stands out as a step on it.
    painter.setPen(QPen(c.line, 2));
    painter.drawLine(QPointF(7, rectOf(0).center().y()),
                     QPointF(7, rectOf(static_cast<int>(stages_.size()) - 1).center().y()));
    for (int i = 0; i < static_cast<int>(stages_.size()); ++i) {
        const QRectF rect = rectOf(i);
        const bool here = i == current_;
        if (here) {
            painter.setPen(Qt::NoPen);
            painter.setBrush(c.band);
            painter.drawRoundedRect(rect.adjusted(14, 2, 0, -2), 4, 4);
        }
        painter.setPen(QPen(here ? c.ink : c.quiet, 2));
        painter.setBrush(here ? c.ink : c.ground);
        painter.drawRect(QRectF(7 - 3.5, rect.center().y() - 3.5, 7, 7));
        painter.setPen(here ? c.ink : c.quiet);
        painter.setFont(textFont(1.0, here ? QFont::DemiBold : QFont::Medium));
        painter.drawText(rect.adjusted(22, 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter,
                         stages_[static_cast<std::size_t>(i)].name);
        if (hasFocus() && i == focused_) {
            painter.setBrush(Qt::NoBrush);
            painter.setPen(QPen(c.ink, 1.5, Qt::DotLine));
            painter.drawRoundedRect(rect.adjusted(15, 3, -1, -3), 4, 4);
        }
    }
}

void StageBar::setCurrent(int index) {
    current_ = index;
    focused_ = index;
    setAccessibleDescription(stages_[static_cast<std::size_t>(index)].name);
    update();
}

void StageBar::choose(int index) {
    if (index < 0 || index >= static_cast<int>(stages_.size())) return;
    emit chosen(index);
}

void StageBar::mousePressEvent(QMouseEvent* event) { choose(stageAt(event->position())); }

void StageBar::keyPressEvent(QKeyEvent* event) {
    if (opens(*event) || event->key() == Qt::Key_Space) {
        choose(focused_);
    } else if (const auto next = walked(*event, Qt::Vertical, focused_, static_cast<int>(stages_.size()))) {
        focused_ = *next;
        update();
    } else {
        QWidget::keyPressEvent(event);
    }
}

bool StageBar::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        auto* help = static_cast<QHelpEvent*>(event);
        const int stage = stageAt(help->pos());
        QToolTip::showText(help->globalPos(), stage < 0 ? QString()
                                                        : stages_[static_cast<std::size_t>(stage)].what
                                                              + say(" (Ctrl+%1)").arg(stage + 1));
        return true;
    }
    return QWidget::event(event);
}

} // namespace ibuki
