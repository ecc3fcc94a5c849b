// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/tape.h"

#include "app/drawn/class_mark_painter.h"
#include "app/drawn/theme.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/session/session.h"
#include "store/paper/mount_card.h"
#include "store/paper/sentences.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <QWheelEvent>

namespace ibuki {

Tape::Tape(Session& session, QWidget* parent)
    : DrawnItems(parent), session_(session), scroll_(new QScrollBar(Qt::Horizontal, this)) {
    setAccessibleName(say("Tape: the bench's record"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    scroll_->setFocusPolicy(Qt::NoFocus);
    connect(scroll_, &QScrollBar::valueChanged, this, qOverload<>(&QWidget::update));
    connect(&session_, &Session::documentChanged, this, &Tape::refresh);
    connect(&session_, &Session::selectionChanged, this, &Tape::refresh);
    connect(&session_, &Session::projectChanged, this, &Tape::showEnd);
    refresh();
}

double Tape::dayHeight() const { return fontMetrics().height() + 4.0; }
QSize Tape::sizeHint() const {
    return {900, static_cast<int>(dayHeight()) + 3 * fontMetrics().height() + 38};
}

QRectF Tape::placeOf(int item) const {
    return layout_.rects.at(static_cast<std::size_t>(item)).translated(-scroll_->value(), 0);
}

void Tape::refresh() {
    tiles_ = tapeOutline(session_.document(), session_.selection().bench, session_.selection().study,
                         session_.now());
    setFocused(focused());
    lay();
    const bool moved = std::exchange(shown_, session_.selection()) != session_.selection();
    for (std::size_t i = 0; i < tiles_.size(); ++i)
        if (isSelected(tiles_[i])) {
            setFocused(static_cast<int>(i));
            if (moved) bringIntoView(focused());
        }
}

const TapeTile& Tape::tileAt(int index) const {
    TapeTile& tile = tiles_.at(static_cast<std::size_t>(index));
    describe(tile, session_.document(), session_.selection().study);
    return tile;
}

const std::vector<TapeTile>& Tape::tiles() const {
    for (std::size_t i = 0; i < tiles_.size(); ++i) tileAt(static_cast<int>(i));
    return tiles_;
}

void Tape::lay() {
    const double tileWidth = fontMetrics().horizontalAdvance(QStringLiteral("Driftwood 52 10"));
    layout_ = layoutTape(tiles_, tileWidth, height() - 14.0, dayHeight());
    scroll_->setGeometry(0, height() - 12, width(), 12);
    const int range = std::max(0, static_cast<int>(layout_.width) - width());
    scroll_->setPageStep(width());
    scroll_->setRange(0, range);
    scroll_->setVisible(range > 0);
}

void Tape::showEnd() {
    refresh();
    scroll_->setValue(scroll_->maximum());
}

bool Tape::isSelected(const TapeTile& tile) const {
    const Selection& selection = session_.selection();
    if (tile.followUp || selection.followUp) return tile.followUp == selection.followUp;
    return (tile.mount && tile.mount == selection.mount) || (tile.slot && tile.slot == selection.slot);
}

void Tape::paintFrame(QPainter& painter, const QRectF& rect, int index, bool planned) const {
    const TapeTile& tile = tileAt(index);
    const Colours& c = colours();
    painter.setBrush(planned ? QBrush(Qt::NoBrush) : QBrush(c.sheet));
    const bool selected = isSelected(tile);
    painter.setPen(QPen(selected                        ? c.ink
                        : tile.state == TileState::next ? c.ink
                                                        : c.line,
                        selected ? 2.5 : 1.2,
                        tile.state == TileState::draft ? Qt::DotLine
                        : planned                      ? Qt::DashLine
                                                       : Qt::SolidLine));
    painter.drawRoundedRect(rect.adjusted(1, 1, -1, -1), 4, 4);
    if (showsFocus(index)) {
        painter.setPen(QPen(c.cold, 1.5, Qt::DotLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawRoundedRect(rect.adjusted(4, 4, -4, -4), 3, 3);
    }
}

void Tape::paintTile(QPainter& painter, const QRectF& rect, int index) const {
    const TapeTile& tile = tileAt(index);
    const Colours& c = colours();
    const bool planned = tile.state != TileState::done && tile.state != TileState::rejected;
    const bool struck = tile.state == TileState::rejected || tile.state == TileState::skipped;
    painter.setOpacity(tile.otherStudy && !planned ? 0.55 : 1.0);
    paintFrame(painter, rect, index, planned);
    const double end = tile.mount && !tile.followUp ? rect.right() - peelPart(rect).left() + 2 : 6;
    const QRectF words = rect.adjusted(8, 5, -end, -5);
    painter.setPen(struck || tile.state == TileState::draft ? c.quiet : c.ink);
    painter.setFont(textFont(0.9, QFont::Medium));
    painter.drawText(
        words, Qt::AlignLeft | Qt::AlignTop,
        painter.fontMetrics().elidedText(tile.title, Qt::ElideRight, static_cast<int>(words.width())));
    painter.setFont(textFont(0.9));
    painter.setPen(tile.isLate ? c.hot : planned || tile.state == TileState::rejected ? c.quiet : c.ink);
    painter.drawText(words, Qt::AlignLeft | Qt::AlignBottom,
                     tile.state == TileState::rejected ? say("rejected") : tile.value);
    const double markY = rect.center().y();
    if (tile.kind) paintClassMark(painter, *tile.kind, {words.left() + 5, markY}, 4.5, c.quiet);
    if (tile.isCheck) {
        painter.setPen(c.quiet);
        painter.drawText(QRectF(words.left() + 12 + 1.6 * painter.fontMetrics().averageCharWidth(),
                                markY - 10, words.width(), 20),
                         Qt::AlignLeft | Qt::AlignVCenter, say("check"));
    }
    if (tile.censored) { // a flat top: the temperature could not rise
        painter.setPen(QPen(c.hot, 2));
        painter.drawLine(QPointF(rect.left() + 6, rect.top() + 2), QPointF(rect.right() - 6, rect.top() + 2));
    }
    if (tile.isHeld) {
        painter.setPen(c.hot);
        painter.drawText(words, Qt::AlignRight | Qt::AlignBottom, say("held"));
    }
    if (tile.mount && !tile.followUp) paintPeel(painter, rect, tile);
    if (struck) {
        painter.setPen(QPen(c.quiet, 1.2));
        painter.drawLine(rect.bottomLeft() + QPointF(6, -6), rect.topRight() + QPointF(-6, 6));
    }
    painter.setOpacity(1);
}

/// A column filled as far as the face was covered; open where nobody has looked yet.
void Tape::paintPeel(QPainter& painter, const QRectF& rect, const TapeTile& tile) const {
    const Colours& c = colours();
    const QRectF part = peelPart(rect);
    painter.setPen(QPen(c.line, 1, tile.looked ? Qt::SolidLine : Qt::DashLine));
    painter.drawLine(part.topLeft() + QPointF(0, 4), part.bottomLeft() - QPointF(0, 4));
    if (!tile.looked) return;
    const QRectF gauge(part.center().x() - 4, part.top() + 8, 8, part.height() - 16);
    painter.setPen(QPen(c.quiet, 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(gauge);
    if (!tile.covered) return;
    const double height = gauge.height() * *tile.covered;
    painter.fillRect(QRectF(gauge.left(), gauge.bottom() - height, gauge.width(), height), c.quiet);
}

void Tape::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.fillRect(rect(), colours().band);
    if (tiles_.empty()) {
        painter.setFont(textFont());
        painter.setPen(colours().quiet);
        painter.drawText(rect(), Qt::AlignCenter,
                         say("The tape: mounts appear here in the order in which they were made."));
        return;
    }
    painter.setFont(textFont(0.85));
    constexpr double textWidth = 200;
    for (const TapeNotch& notch : layout_.notches) {
        const double x = notch.x - scroll_->value();
        if (x + textWidth < 0 || x > width()) continue;
        painter.setPen(QPen(colours().quiet, 1.5));
        painter.drawLine(QPointF(x, 4), QPointF(x, height() - 18));
        painter.drawText(QRectF(x + 5, 2, textWidth, dayHeight()), Qt::AlignLeft | Qt::AlignVCenter,
                         notch.text);
    }
    for (int i = layout_.firstRightOf(scroll_->value()); i < itemCount() && placeOf(i).left() < width(); ++i)
        paintTile(painter, placeOf(i), i);
}

int Tape::itemAt(const QPointF& point) const {
    return layout_.tileAt(point.x() + scroll_->value(), point.y());
}

/// A planned tile carries its level, tube, dose, pattern, torque, loads and cautions.
QString Tape::tip(int item) const {
    const TapeTile& tile = tileAt(item);
    const Slot* slot = tile.mount || tile.followUp ? nullptr : session_.document().find(tile.slot);
    if (!slot) return tile.detail;
    const MountBrief brief = briefOf(session_.document(), *slot, session_.now());
    QStringList lines{tile.detail};
    if (const std::string manualWork = manualWorkLine(brief); !manualWork.empty()) lines << qtext(manualWork);
    for (const std::string& load : brief.loads) lines << say("under ") + qtext(load);
    for (const Caution& caution : brief.cautions)
        if (!caution.rule->handling) lines << qtext(cautionText(caution));
    return lines.join("\n");
}

void Tape::openItem(int item) {
    const TapeTile& at = tiles_.at(static_cast<std::size_t>(item));
    if (at.followUp)
        emit followUpOpened(*at.followUp);
    else if (at.mount)
        emit mountOpened(*at.mount);
    else if (at.slot)
        emit slotOpened(*at.slot);
    else if (at.state == TileState::draft)
        emit draftOpened();
}

void Tape::bringIntoView(int tile) {
    if (tile < 0 || tile >= itemCount()) return;
    const QRectF rect = placeOf(tile);
    if (rect.left() < 0) scroll_->setValue(scroll_->value() + static_cast<int>(rect.left()) - 20);
    if (rect.right() > width())
        scroll_->setValue(scroll_->value() + static_cast<int>(rect.right()) - width() + 20);
}

void Tape::openNext() {
    for (std::size_t i = 0; i < tiles_.size(); ++i)
        if (tiles_[i].state == TileState::next || tiles_[i].state == TileState::draft) {
            setFocused(static_cast<int>(i));
            bringIntoView(focused());
            openItem(focused());
            return;
        }
    session_.refuse(say("Nothing is planned. Put an order on the tape: Question, Evenings."));
}

void Tape::keyPressEvent(QKeyEvent* event) {
    const bool onMount =
        focused() >= 0 && focused() < itemCount() && tiles_[static_cast<std::size_t>(focused())].mount;
    if (event->key() == Qt::Key_Space)
        openNext();
    else if (event->key() == Qt::Key_P && event->modifiers() == Qt::NoModifier && onMount)
        emit peelOpened(*tiles_[static_cast<std::size_t>(focused())].mount);
    else
        DrawnItems::keyPressEvent(event);
}

void Tape::mousePressEvent(QMouseEvent* event) {
    const int item = itemAt(event->position());
    const TapeTile* tile = item >= 0 ? &tiles_.at(static_cast<std::size_t>(item)) : nullptr;
    if (event->button() == Qt::LeftButton && tile && tile->mount && !tile->followUp
        && peelPart(placeOf(item)).contains(event->position())) {
        setFocused(item);
        emit peelOpened(*tile->mount);
        return;
    }
    DrawnItems::mousePressEvent(event);
}

void Tape::wheelEvent(QWheelEvent* event) {
    const QPoint turn = event->angleDelta();
    scroll_->setValue(scroll_->value() - (turn.x() != 0 ? turn.x() : turn.y()));
}

void Tape::resizeEvent(QResizeEvent*) { lay(); }

void Tape::changeEvent(QEvent* event) {
    DrawnItems::changeEvent(event);
    if (event->type() == QEvent::FontChange) lay();
}

} // namespace ibuki
