// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/strip.h"

#include "app/drawn/theme.h"
#include "app/drawn/walk.h"
#include "app/say.h"
#include "app/session/session.h"
#include "core/domain/bench.h"

#include <QPainter>

namespace ibuki {

Strip::Strip(Session& session, QWidget* parent) : DrawnItems(parent), session_(session) {
    setAccessibleName(say("Heat path"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    connect(&session_, &Session::documentChanged, this, &Strip::refresh);
    connect(&session_, &Session::selectionChanged, this, &Strip::refresh);
    refresh();
}

QSize Strip::sizeHint() const {
    return {900, 44 + (2 + static_cast<int>(model_.others.size())) * fontMetrics().height()};
}

void Strip::refresh() {
    model_ = stripModel(session_.document(), session_.selection().bench, session_.question(),
                        session_.mount(), session_.selection().site);
    setFocused(focused());
    updateGeometry();
}

StripLayout Strip::layout() const {
    const double line = fontMetrics().height();
    return layoutStrip(model_, {1, 2, width() - 2.0, height() - line - 8}, line);
}

void Strip::paintOtherPath(QPainter& painter, const StripLayout& at, int index) const {
    const auto i = static_cast<std::size_t>(index);
    const QRectF& line = at.lines[i];
    const bool lit = hovered() == blockCount() + index || showsFocus(blockCount() + index);
    painter.setPen(lit ? colours().ink : colours().quiet);
    const QRectF name = painter.boundingRect(line.adjusted(4, 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter,
                                             model_.others[i].name);
    painter.drawText(name, Qt::AlignLeft | Qt::AlignVCenter, model_.others[i].name);
    painter.setPen(QPen(colours().hot, lit ? 3 : 1.5));
    // Each line bends up into the block it joins a little beside the one before.
    const double end = line.right() - 8.0 * index;
    const double top = at.rects[model_.others[i].joins].bottom() - 2;
    painter.drawPolyline(QPolygonF{QPointF(name.right() + 8, line.center().y()),
                                   QPointF(end, line.center().y()), QPointF(end, top)});
}

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
    if (!block.share && (block.layer || block.site)) {
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
    if (index == hovered() || showsFocus(index)) {
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
    for (std::size_t i = 0; i < at.lines.size(); ++i) paintOtherPath(painter, at, static_cast<int>(i));
    painter.setPen(colours().ink);
    const double height = fontMetrics().height();
    const double top = this->height() - height - 3;
    for (const StripBoundary& boundary : at.boundaries) {
        const bool left = boundary.x < width() / 2.0;
        painter.drawText(QRectF(left ? 2 : width() / 2.0, top, width() / 2.0 - 2, height),
                         left ? Qt::AlignLeft : Qt::AlignRight,
                         left ? say("%1, measured %2").arg(model_.source, boundary.text)
                              : say("room, measured %1").arg(boundary.text));
    }
    painter.setPen(colours().quiet);
    painter.drawText(QRectF(0, top, width(), height), Qt::AlignCenter, model_.caption);
}

int Strip::itemCount() const { return blockCount() + static_cast<int>(model_.others.size()); }
int Strip::itemAt(const QPointF& point) const { return layout().itemAt(point.x(), point.y()); }

void Strip::openItem(int item) {
    if (item >= blockCount()) {
        Selection selection = session_.selection();
        selection.site = model_.others.at(static_cast<std::size_t>(item - blockCount())).site;
        session_.select(selection);
        setFocused(0); // where the path now shown begins
        return;
    }
    const StripBlock& block = model_.blocks.at(static_cast<std::size_t>(item));
    if (block.layer)
        emit layerOpened(*block.layer);
    else if (block.site)
        emit siteOpened(*block.site);
    else
        emit benchWanted();
}

std::optional<int> Strip::stepped(const QKeyEvent& event) const {
    const int others = static_cast<int>(model_.others.size());
    const bool onPath = focused() >= blockCount();
    if (onPath) {
        const bool first = focused() == blockCount();
        if (event.key() == Qt::Key_Home || (event.key() == Qt::Key_Up && first)) return 0;
        const auto next = walked(event, Qt::Vertical, focused() - blockCount(), others);
        return next ? std::optional(blockCount() + *next) : std::nullopt;
    }
    if (event.key() == Qt::Key_Down && others > 0) return blockCount();
    return walked(event, Qt::Horizontal, focused(), blockCount());
}

QString Strip::tip(int item) const {
    if (item >= blockCount())
        return say("The heat also comes from %1. Click or Enter to see that path.")
            .arg(model_.others.at(static_cast<std::size_t>(item - blockCount())).name);
    const StripBlock& block = model_.blocks.at(static_cast<std::size_t>(item));
    if (!block.layer && !block.site) return block.name;
    const QString detail = block.detail.isEmpty() ? say("no size or metal stated") : block.detail;
    return say("%1: %2. Click or Enter to edit.").arg(block.name.section('\n', 0, 0), detail);
}

} // namespace ibuki
