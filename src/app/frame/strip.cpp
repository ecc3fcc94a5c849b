// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/strip.h"

#include "app/drawn/theme.h"
#include "app/drawn/walk.h"
#include "app/say.h"
#include "app/session/session.h"
#include "core/domain/bench.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

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
    const Selection& selection = session_.selection();
    const auto modelOf = [&](const Mount* mount) {
        return stripModel(session_.document(), selection.bench, session_.question(), mount, selection.site,
                          selection.material, selection.slot);
    };
    model_ = modelOf(session_.mount());
    const Mount* beside = session_.document().find(selection.beside);
    if (beside && beside != session_.mount() && model_.sharesKnown())
        if (StripModel other = modelOf(beside); other.sharesKnown())
            model_.beside.push_back(std::move(other));
    if (turnedOver_ && model_.sharesKnown()) {
        model_.beside.clear();
        model_.beside.push_back(stripOfComputed(model_, *turnedOver_, say("as turned over")));
    }
    setFocused(focused());
    updateGeometry();
}

void Strip::turnOver(const std::optional<SeenPath>& path) {
    turnedOver_ = path;
    if (!path || !model_.sharesKnown())
        refresh();
    else // a slider does not wait for what was measured to be worked out again
        model_.beside.assign(1, stripOfComputed(model_, *path, say("as turned over")));
    update();
}

QRectF Strip::blockArea() const {
    const double line = fontMetrics().height();
    // Two paths stand in the height of one with its temperatures: nothing below moves when the second comes.
    const int lines = model_.sharesKnown() && !isPair() ? 2 : 1;
    return {1, 2, width() - 2.0, height() - lines * line - 8};
}

StripLayout Strip::layout() const {
    if (isPair()) return layoutPair(model_, model_.beside.front(), blockArea()).upper;
    return layoutStrip(model_, blockArea(), fontMetrics().height());
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

namespace {

const QColor& fillOf(const StripBlock& block) {
    const Colours& c = colours();
    return block.kind == LayerKind::interface ? c.hotWash
           : block.kind == LayerKind::cooler  ? c.coldWash
           : block.kind == LayerKind::room    ? c.ground
                                              : c.body;
}

/// What does not fit is left to the tool tip: first the name goes, then the figure.
void paintWords(QPainter& painter, const QRectF& inner, const StripBlock& block) {
    const QString figure = block.deltaK && block.kind != LayerKind::room
                               ? QString("%1 K").arg(*block.deltaK, 0, 'f', 1)
                               : QString();
    const QString name = block.name.section('\n', 0, 0), material = block.name.section('\n', 1);
    const QRectF room = inner.adjusted(3, 2, -3, -2);
    QStringList tries{block.name};
    if (block.share) {
        tries = {name + "\n" + figure, name + " " + figure, figure};
        if (!material.isEmpty())
            tries = QStringList{name + ", " + material + "\n" + figure, material + "\n" + figure} + tries;
    }
    for (const QString& words : tries) {
        const QRectF needed = painter.boundingRect(room, Qt::AlignCenter, words);
        if (block.share && !room.adjusted(-1, -1, 1, 1).contains(needed)) continue;
        const int flags = static_cast<int>(Qt::AlignCenter) | (block.share ? 0 : Qt::TextWordWrap);
        // Words stand on a plain patch, so that the hatching does not run through them.
        const QRectF patch = painter.boundingRect(room, flags, words);
        painter.fillRect(patch.adjusted(-4, -1, 4, 1) & inner.adjusted(1, 1, -1, -1), fillOf(block));
        painter.setPen(colours().ink);
        painter.drawText(room, flags, words);
        break;
    }
}

} // namespace

void Strip::paintBlock(QPainter& painter, const QRectF& rect, const StripBlock& block, bool isLit) const {
    const Colours& c = colours();
    const QRectF inner = rect.adjusted(1, 1, -1, -1);
    painter.setPen(Qt::NoPen);
    painter.setBrush(fillOf(block));
    painter.drawRect(inner);
    if ((!block.share || block.isAssumed) && (block.layer || block.site)) {
        QColor hatch = c.quiet;
        hatch.setAlpha(block.share ? 35 : 60);
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
    if (isLit) {
        painter.setPen(QPen(c.ink, 2));
        painter.drawRect(inner.adjusted(3, 3, -3, -3));
    }
    paintWords(painter, inner, block);
}

/// Measured ends first, then computed faces where there is room between those that stand already.
void Strip::paintBoundaries(QPainter& painter, const StripLayout& at) const {
    const double height = fontMetrics().height();
    const double top = blockArea().bottom() + 3;
    std::vector<QRectF> taken;
    for (const bool measured : {true, false})
        for (const StripBoundary& boundary : at.boundaries) {
            if (boundary.isMeasured != measured) continue;
            const bool left = boundary.x<4, right = boundary.x> width() - 4;
            const QString text = measured && left ? say("%1, measured %2").arg(model_.source, boundary.text)
                                 : measured && right ? say("room, measured %1").arg(boundary.text)
                                                     : boundary.text;
            const double wide = fontMetrics().horizontalAdvance(text) + 4;
            const double x = left ? 2 : right ? width() - wide - 2 : boundary.x - wide / 2;
            const QRectF place(x, top, wide, height);
            if (std::any_of(taken.begin(), taken.end(),
                            [&](const QRectF& one) { return one.adjusted(-6, 0, 6, 0).intersects(place); }))
                continue;
            taken.push_back(place);
            QFont font = textFont(0.9);
            font.setItalic(!measured);
            painter.setFont(font);
            painter.setPen(measured ? colours().ink : colours().quiet);
            painter.drawText(place, Qt::AlignCenter, text);
        }
}

void Strip::paintPair(QPainter& painter) const {
    const StripModel& other = model_.beside.front();
    const StripPair pair = layoutPair(model_, other, blockArea());
    for (const bool isUpper : {true, false}) {
        const StripModel& model = isUpper ? model_ : other;
        const StripLayout& row = isUpper ? pair.upper : pair.lower;
        for (std::size_t i = 0; i < row.rects.size(); ++i) {
            const int index = static_cast<int>(i);
            if (row.rects[i].width() > 0.5)
                paintBlock(painter, row.rects[i], model.blocks[i],
                           isUpper && (index == hovered() || showsFocus(index)));
        }
    }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(colours().ink, 2, Qt::DashLine));
    painter.drawRect(pair.difference.adjusted(1, 1, -1, -1));
    painter.setFont(textFont(0.9));
    painter.setPen(colours().ink);
    const double height = fontMetrics().height();
    painter.drawText(QRectF(0, blockArea().bottom() + 3, width(), height), Qt::AlignCenter,
                     say("above %1, below %2: %3 K %4 above")
                         .arg(model_.caption, other.caption)
                         .arg(std::abs(pair.differenceK), 0, 'f', 1)
                         .arg(pair.differenceK > 0 ? say("more") : say("less")));
}

void Strip::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(textFont(0.95));
    if (isPair()) {
        painter.setFont(textFont(smallText));
        return paintPair(painter);
    }
    const StripLayout at = layout();
    for (std::size_t i = 0; i < at.rects.size(); ++i) {
        const int index = static_cast<int>(i);
        paintBlock(painter, at.rects[i], model_.blocks[i], index == hovered() || showsFocus(index));
    }
    painter.setFont(textFont(0.9));
    for (std::size_t i = 0; i < at.lines.size(); ++i) paintOtherPath(painter, at, static_cast<int>(i));
    paintBoundaries(painter, at);
    painter.setFont(textFont(0.9));
    painter.setPen(colours().quiet);
    const double height = fontMetrics().height();
    painter.drawText(QRectF(0, this->height() - height - 3, width(), height), Qt::AlignCenter,
                     model_.isComputed      ? say("%1; computed").arg(model_.caption)
                     : model_.sharesKnown() ? say("%1; between chip and room computed").arg(model_.caption)
                                            : model_.caption);
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
    const QStringList name = block.name.split('\n');
    if (block.figures.isEmpty()) return say("%1: %2. Click or Enter to edit.").arg(name.front(), detail);
    return say("%1: %2. %3. Click or Enter to edit.").arg(name.front(), block.figures, detail);
}

} // namespace ibuki
