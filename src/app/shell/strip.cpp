// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shell/strip.h"

#include "app/shell/session.h"
#include "app/shell/theme.h"
#include "app/shell/walk.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

namespace ibuki {

Strip::Strip(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAccessibleName("Heat path");
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    connect(&session_, &Session::documentChanged, this, &Strip::refresh);
    connect(&session_, &Session::selectionChanged, this, &Strip::refresh);
    refresh();
}

QSize Strip::sizeHint() const { return {900, 44 + 2 * fontMetrics().height()}; }

void Strip::refresh() {
    model_ =
        stripModel(session_.document(), session_.selection().bench, session_.question(), session_.mount());
    focused_ = std::min(focused_, static_cast<int>(model_.blocks.size()) - 1);
    setAccessibleDescription(model_.caption);
    update();
}

QRectF Strip::blockArea() const {
    return {1, 2, width() - 2.0, static_cast<double>(height() - fontMetrics().height() - 8)};
}

StripLayout Strip::layout() const { return layoutStrip(model_, blockArea()); }

void Strip::paintBlock(QPainter& painter, const QRectF& rect, int index) const {
    const StripBlock& block = model_.blocks[static_cast<std::size_t>(index)];
    const Colours& c = colours();
    const bool isInterface = block.kind == LayerKind::interface;
    const QColor fill = isInterface                       ? c.hotWash
                        : block.kind == LayerKind::cooler ? c.coldWash
                        : block.kind == LayerKind::room   ? c.ground
                                                          : c.body;
    const QRectF inner = rect.adjusted(1, 1, -1, -1);
    painter.setPen(Qt::NoPen);
    painter.setBrush(fill);
    painter.drawRect(inner);
    if (!block.share && block.layer) {
        QColor hatch = c.quiet;
        hatch.setAlpha(60);
        painter.save();
        painter.setClipRect(inner);
        painter.setPen(QPen(hatch, 1));
        for (double x = inner.left() - inner.height(); x < inner.right(); x += 9)
            painter.drawLine(QPointF(x, inner.bottom()), QPointF(x + inner.height(), inner.top()));
        painter.restore();
    }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(block.underStudy ? c.hot : c.line, block.underStudy ? 2.5 : 1));
    painter.drawRect(inner.adjusted(0.5, 0.5, -0.5, -0.5));
    if (index == hovered_ || (hasFocus() && index == focused_)) {
        painter.setPen(QPen(c.ink, 2));
        painter.drawRect(inner.adjusted(3, 3, -3, -3));
    }
    // Words stand on a plain patch, so that the hatching does not run through them.
    const QRectF words =
        painter.boundingRect(inner.adjusted(6, 4, -6, -4), Qt::AlignCenter | Qt::TextWordWrap, block.name);
    painter.fillRect(words.adjusted(-4, -1, 4, 1), fill);
    painter.setPen(c.ink);
    painter.drawText(inner.adjusted(6, 4, -6, -4), static_cast<int>(Qt::AlignCenter) | Qt::TextWordWrap,
                     block.name);
}

void Strip::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(textFont(0.95));
    const StripLayout at = layout();
    for (std::size_t i = 0; i < at.rects.size(); ++i) paintBlock(painter, at.rects[i], static_cast<int>(i));
    painter.setFont(textFont(0.9));
    painter.setPen(colours().ink);
    const double top = blockArea().bottom() + 3;
    const double height = fontMetrics().height();
    for (const StripBoundary& boundary : at.boundaries) {
        const bool left = boundary.x < width() / 2.0;
        painter.drawText(QRectF(left ? 2 : width() / 2.0, top, width() / 2.0 - 2, height),
                         left ? Qt::AlignLeft : Qt::AlignRight,
                         (left ? "chip, measured " : "room, measured ") + boundary.text);
    }
    painter.setPen(colours().quiet);
    painter.drawText(QRectF(0, top, width(), height), Qt::AlignCenter, model_.caption);
}

void Strip::open(int block) {
    if (block < 0 || block >= static_cast<int>(model_.blocks.size())) return;
    const auto layer = model_.blocks[static_cast<std::size_t>(block)].layer;
    if (layer)
        emit layerOpened(*layer);
    else
        emit benchWanted();
}

void Strip::mouseMoveEvent(QMouseEvent* event) {
    const int block = layout().blockAt(event->position().x(), event->position().y());
    if (block == hovered_) return;
    hovered_ = block;
    update();
}

void Strip::leaveEvent(QEvent*) {
    hovered_ = -1;
    update();
}

void Strip::mousePressEvent(QMouseEvent* event) {
    if (event->button() == Qt::LeftButton)
        open(layout().blockAt(event->position().x(), event->position().y()));
}

void Strip::keyPressEvent(QKeyEvent* event) {
    if (opens(*event)) {
        open(focused_);
    } else if (const auto next =
                   walked(*event, Qt::Horizontal, focused_, static_cast<int>(model_.blocks.size()))) {
        focused_ = *next;
        update();
    } else {
        QWidget::keyPressEvent(event);
    }
}

bool Strip::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        auto* help = static_cast<QHelpEvent*>(event);
        const int block = layout().blockAt(help->pos().x(), help->pos().y());
        if (block >= 0) {
            const StripBlock& at = model_.blocks[static_cast<std::size_t>(block)];
            const QString detail = at.detail.isEmpty() ? QString("no size or metal stated") : at.detail;
            QToolTip::showText(help->globalPos(), at.layer ? at.name.section('\n', 0, 0) + ": " + detail
                                                                 + ". Click or Enter to edit."
                                                           : at.name);
        }
        return true;
    }
    return QWidget::event(event);
}

} // namespace ibuki
