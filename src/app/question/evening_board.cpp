// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/evening_board.h"

#include "app/drawn/class_mark_painter.h"
#include "app/drawn/theme.h"
#include "app/say.h"
#include "app/session/qtext.h"

#include <QApplication>
#include <QKeyEvent>
#include <QPainter>
#include <QScrollBar>
#include <QWheelEvent>

namespace ibuki {
namespace {

constexpr std::int64_t hourMs = 3'600'000;

void paintStep(QPainter& painter, const QRectF& rect, StepLook look) {
    const Colours& c = colours();
    painter.setPen(QPen(c.ink, 1));
    switch (look) {
    case StepLook::manualWork:
        painter.setBrush(c.ink);
        break;
    case StepLook::waiting:
        painter.setBrush(c.sheet);
        break;
    case StepLook::alone:
        painter.setBrush(c.sheet);
        painter.drawRect(rect);
        painter.setBrush(QBrush(c.quiet, Qt::BDiagPattern));
        break;
    }
    painter.drawRect(rect);
}

} // namespace

EveningBoard::EveningBoard(QWidget* parent) : DrawnItems(parent), scroll_(new QScrollBar(Qt::Horizontal)) {
    setAccessibleName(say("Board of the plan"));
    setObjectName("Board");
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    scroll_->setFocusPolicy(Qt::NoFocus);
    connect(scroll_, &QScrollBar::valueChanged, this, qOverload<>(&QWidget::update));
}

void EveningBoard::show(BoardLines lines) {
    const auto chosen = chosenSlot();
    const bool fresh = lines_.bars.empty() && lines_.past.empty();
    lines_ = std::move(lines);
    drag_.reset();
    lay();
    if (fresh || !chosen)
        setFocused(fresh ? static_cast<int>(lines_.past.size()) : focused());
    else
        chooseSlot(*chosen);
    if (fresh) bringIntoView(focused());
    updateGeometry();
}

std::optional<std::size_t> EveningBoard::barOf(int item) const {
    const auto past = static_cast<int>(lines_.past.size());
    if (item < past || item >= itemCount()) return std::nullopt;
    return static_cast<std::size_t>(item - past);
}

std::optional<std::size_t> EveningBoard::chosenBar() const { return barOf(focused()); }

std::optional<Id<Slot>> EveningBoard::chosenSlot() const {
    if (const auto bar = chosenBar()) return lines_.bars[*bar].slot;
    const auto past = static_cast<std::size_t>(focused());
    return past < lines_.past.size() ? std::optional(lines_.past[past].slot) : std::nullopt;
}

QRect EveningBoard::chosenRect() const {
    return itemCount() > 0 ? placeOf(focused()).toAlignedRect() : QRect();
}

void EveningBoard::chooseBar(std::size_t bar) {
    setFocused(static_cast<int>(lines_.past.size() + bar));
    bringIntoView(focused());
}

void EveningBoard::chooseSlot(Id<Slot> slot) {
    for (std::size_t i = 0; i < lines_.bars.size(); ++i)
        if (lines_.bars[i].slot == slot) return chooseBar(i);
    for (std::size_t i = 0; i < lines_.past.size(); ++i)
        if (lines_.past[i].slot == slot) return setFocused(static_cast<int>(i));
    setFocused(focused());
}

void EveningBoard::lay() {
    const QFontMetricsF metrics(textFont(smallText));
    sizes_.headHeight = 2 * metrics.height() + 8;
    sizes_.barHeight = metrics.height();
    sizes_.laneHeight = metrics.height() + 9;
    sizes_.lanesWidth = 90;
    for (const BoardLane& lane : lines_.lanes)
        sizes_.lanesWidth = std::max(sizes_.lanesWidth, metrics.horizontalAdvance(lane.name) + 44);
    sizes_.lanesWidth = std::min(sizes_.lanesWidth, std::max(90.0, 0.22 * width()));
    sizes_.pixelsAMinute = zoom_ * fittingScale(lines_, sizes_, width());
    layout_ = layoutBoard(lines_, sizes_);
    const int range = std::max(0, static_cast<int>(layout_.width) - width());
    scroll_->setPageStep(width());
    scroll_->setRange(0, range);
    scroll_->setVisible(range > 0);
    setMinimumHeight(sizeHint().height());
    update();
}

QSize EveningBoard::sizeHint() const {
    return {700,
            static_cast<int>(sizes_.headHeight + static_cast<double>(lines_.lanes.size()) * sizes_.laneHeight)
                + 20};
}

QRectF EveningBoard::placeOf(int item) const {
    const auto bar = barOf(item);
    const QRectF place = bar ? layout_.bars[*bar] : layout_.past.at(static_cast<std::size_t>(item));
    return place.translated(-scroll_->value(), 0);
}

int EveningBoard::itemAt(const QPointF& point) const {
    if (point.x() < sizes_.lanesWidth) return -1;
    for (int i = 0; i < itemCount(); ++i)
        if (placeOf(i).adjusted(-1, -5, 1, 5).contains(point)) return i;
    return -1;
}

QString EveningBoard::tip(int item) const {
    if (const auto at = barOf(item)) {
        const BoardBar& bar = lines_.bars[*at];
        return bar.title + "\n" + bar.when + "\n" + bar.detail;
    }
    if (item < 0 || item >= itemCount()) return {};
    const BoardPast& past = lines_.past[static_cast<std::size_t>(item)];
    return past.title + "\n" + past.detail;
}

void EveningBoard::bringIntoView(int item) {
    if (item < 0 || item >= itemCount()) return;
    const QRectF place = placeOf(item);
    if (place.left() < sizes_.lanesWidth)
        scroll_->setValue(scroll_->value() + static_cast<int>(place.left() - sizes_.lanesWidth) - 20);
    else if (place.right() > width())
        scroll_->setValue(
            scroll_->value()
            + static_cast<int>(std::min(place.right() - width(), place.left() - sizes_.lanesWidth)) + 20);
}

void EveningBoard::changeScale(double times) {
    zoom_ = std::clamp(zoom_ * times, 0.25, 8.0);
    lay();
    bringIntoView(focused());
}

void EveningBoard::moveBar(std::size_t bar, std::ptrdiff_t by) {
    const auto last = static_cast<std::ptrdiff_t>(lines_.bars.size()) - 1;
    const auto to = std::clamp(static_cast<std::ptrdiff_t>(bar) + by, std::ptrdiff_t{0}, last);
    if (to != static_cast<std::ptrdiff_t>(bar)) emit moveMeant(bar, static_cast<std::size_t>(to));
}

void EveningBoard::keyPressEvent(QKeyEvent* event) {
    const auto bar = chosenBar();
    const bool alt = event->modifiers().testFlag(Qt::AltModifier);
    const bool earlier = event->key() == Qt::Key_Left || event->key() == Qt::Key_Up;
    if (event->key() == Qt::Key_Plus || event->key() == Qt::Key_Equal)
        changeScale(1.25);
    else if (event->key() == Qt::Key_Minus)
        changeScale(0.8);
    else if (alt && bar && (earlier || event->key() == Qt::Key_Right || event->key() == Qt::Key_Down))
        moveBar(*bar, earlier ? -1 : 1);
    else if (alt && bar && event->key() == Qt::Key_Home)
        moveBar(*bar, -static_cast<std::ptrdiff_t>(lines_.bars.size()));
    else
        DrawnItems::keyPressEvent(event);
}

void EveningBoard::mousePressEvent(QMouseEvent* event) {
    DrawnItems::mousePressEvent(event);
    const auto bar = barOf(itemAt(event->position()));
    if (event->button() == Qt::LeftButton && bar) drag_ = Drag{*bar, *bar, event->position().x(), false};
}

void EveningBoard::mouseMoveEvent(QMouseEvent* event) {
    if (!drag_) return DrawnItems::mouseMoveEvent(event);
    const double x = event->position().x();
    if (!drag_->moving && std::abs(x - drag_->pressedX) < QApplication::startDragDistance()) return;
    drag_->moving = true;
    const std::size_t to = layout_.placeAt(x + scroll_->value(), drag_->from);
    if (to != drag_->to) {
        drag_->to = to;
        emit movePreviewed(drag_->from, to);
    }
    if (x > width() - 20) scroll_->setValue(scroll_->value() + 12); // on to the evenings beyond the edge
    if (x < sizes_.lanesWidth + 20) scroll_->setValue(scroll_->value() - 12);
    update();
}

void EveningBoard::mouseReleaseEvent(QMouseEvent*) {
    const auto drag = std::exchange(drag_, std::nullopt);
    if (!drag) return;
    update();
    emit previewEnded();
    if (drag->moving && drag->to != drag->from) emit moveMeant(drag->from, drag->to);
}

void EveningBoard::wheelEvent(QWheelEvent* event) {
    const QPoint turn = event->angleDelta();
    if (event->modifiers().testFlag(Qt::ControlModifier))
        changeScale(turn.y() > 0 ? 1.25 : 0.8);
    else
        scroll_->setValue(scroll_->value() - (turn.x() != 0 ? turn.x() : turn.y()));
}

void EveningBoard::resizeEvent(QResizeEvent*) { lay(); }

void EveningBoard::changeEvent(QEvent* event) {
    DrawnItems::changeEvent(event);
    if (event->type() == QEvent::FontChange) lay();
}

void EveningBoard::paintEvenings(QPainter& painter) const {
    const Colours& c = colours();
    const double line = painter.fontMetrics().height();
    const BoardScale scale(lines_, sizes_);
    for (std::size_t i = 0; i < lines_.evenings.size(); ++i) {
        const BoardEvening& evening = lines_.evenings[i];
        const QRectF rect = layout_.evenings[i].translated(-scroll_->value(), 0);
        if (rect.right() < 0 || rect.left() > width()) continue;
        painter.fillRect(rect, c.band);
        const double mostText = rect.width() + sizes_.nightWidth - 4;
        painter.setPen(c.ink);
        const QString words = evening.title + "  ·  " + evening.manualWork;
        painter.drawText(QRectF(rect.left() + 3, 2, mostText, line), Qt::AlignLeft,
                         painter.fontMetrics().elidedText(words, Qt::ElideRight, static_cast<int>(mostText)));
        const double hourWidth = 60 * sizes_.pixelsAMinute;
        const std::int64_t every = hourWidth < 2.2 * line ? 2 : 1;
        for (std::int64_t at = (evening.start.ms + hourMs - 1) / hourMs * hourMs; at <= evening.end.ms;
             at += every * hourMs) {
            const double x = scale.x({at}) - scroll_->value();
            painter.setPen(QPen(c.line, 1, Qt::DotLine));
            painter.drawLine(QPointF(x, 2 * line + 4), QPointF(x, rect.bottom()));
            painter.setPen(c.quiet);
            painter.drawText(QRectF(x + 2, line + 4, 60, line), Qt::AlignLeft,
                             QString::number(at / hourMs % 24));
        }
    }
}

void EveningBoard::paintPast(QPainter& painter) const {
    const Colours& c = colours();
    for (std::size_t i = 0; i < lines_.past.size(); ++i) {
        const QRectF rect = placeOf(static_cast<int>(i));
        const bool skipped = lines_.past[i].skipped;
        painter.setPen(QPen(c.quiet, 1));
        painter.setBrush(skipped ? QBrush(Qt::NoBrush) : QBrush(c.quiet));
        painter.drawRect(rect);
        if (skipped) painter.drawLine(rect.bottomLeft(), rect.topRight());
        paintFocus(painter, static_cast<int>(i));
    }
}

void EveningBoard::paintFocus(QPainter& painter, int item) const {
    const Colours& c = colours();
    const QRectF rect = placeOf(item).adjusted(-3, -3, 3, 3);
    painter.setBrush(Qt::NoBrush);
    if (item == focused()) {
        painter.setPen(QPen(c.ink, 2));
        painter.drawRect(rect);
    }
    if (showsFocus(item)) {
        painter.setPen(QPen(c.cold, 1.5, Qt::DotLine));
        painter.drawRect(rect.adjusted(-3, -3, 3, 3));
    }
    if (hovered() == item && item != focused()) {
        painter.setPen(QPen(c.quiet, 1.5));
        painter.drawRect(rect);
    }
}

void EveningBoard::paintBar(QPainter& painter, std::size_t at) const {
    const BoardBar& bar = lines_.bars[at];
    const int item = static_cast<int>(lines_.past.size() + at);
    const QRectF whole = placeOf(item);
    if (whole.right() < 0 || whole.left() > width()) return;
    const bool dragged = drag_ && drag_->moving && drag_->from == at;
    painter.setOpacity(dragged ? 0.45 : bar.slot ? 1.0 : 0.75);
    for (std::size_t i = 0; i < bar.steps.size(); ++i)
        paintStep(painter, layout_.steps[at][i].translated(-scroll_->value(), 0), lookOf(bar.steps[i]));
    painter.setOpacity(1);
    if (!bar.steps.empty()) {
        const QRectF first = layout_.steps[at].front().translated(-scroll_->value(), 0);
        QRectF manualWork = first;
        for (std::size_t i = 1; i < bar.steps.size() && lookOf(bar.steps[i]) == StepLook::manualWork; ++i)
            manualWork = manualWork.united(layout_.steps[at][i].translated(-scroll_->value(), 0));
        const QString number = bar.title.section(' ', 0, 0);
        if (lookOf(bar.steps.front()) == StepLook::manualWork
            && manualWork.width() > painter.fontMetrics().horizontalAdvance(number) + 4) {
            painter.setPen(colours().sheet);
            painter.drawText(manualWork, Qt::AlignCenter, number);
        }
    }
    paintFocus(painter, item);
}

void EveningBoard::paintLanes(QPainter& painter) const {
    const Colours& c = colours();
    painter.fillRect(QRectF(0, 0, sizes_.lanesWidth, height()), c.sheet);
    for (std::size_t i = 0; i < lines_.lanes.size(); ++i) {
        const double top = sizes_.headHeight + static_cast<double>(i) * sizes_.laneHeight;
        painter.setPen(QPen(c.line, 1));
        painter.drawLine(QPointF(0, top), QPointF(width(), top));
        const QRectF words(4, top, sizes_.lanesWidth - 40, sizes_.laneHeight);
        painter.setPen(c.ink);
        painter.drawText(words, Qt::AlignLeft | Qt::AlignVCenter,
                         painter.fontMetrics().elidedText(lines_.lanes[i].name, Qt::ElideRight,
                                                          static_cast<int>(words.width())));
        if (lines_.lanes[i].kind)
            paintClassMark(painter, *lines_.lanes[i].kind,
                           {sizes_.lanesWidth - 26, top + sizes_.laneHeight / 2}, 5, c.quiet);
    }
}

void EveningBoard::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setFont(textFont(smallText));
    painter.setRenderHint(QPainter::Antialiasing);
    if (itemCount() == 0) {
        painter.setPen(colours().quiet);
        painter.drawText(rect(), Qt::AlignCenter | Qt::TextWordWrap,
                         lines_.reason.isEmpty() ? say("Nothing is planned yet.") : lines_.reason);
        return;
    }
    paintEvenings(painter);
    paintPast(painter);
    for (std::size_t i = 0; i < lines_.bars.size(); ++i) paintBar(painter, i);
    if (drag_ && drag_->moving && drag_->to != drag_->from) {
        const double x = layout_.gapAt(drag_->from, drag_->to) - scroll_->value();
        painter.setPen(QPen(colours().ink, 3));
        painter.drawLine(QPointF(x, sizes_.headHeight), QPointF(x, height()));
    }
    paintLanes(painter);
}

BoardLegend::BoardLegend(QWidget* parent) : QWidget(parent) {
    setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Preferred);
}

namespace {
std::array<std::pair<StepLook, QString>, 3> legend() {
    return {std::pair{StepLook::manualWork, say("hands")}, std::pair{StepLook::waiting, say("waiting")},
            std::pair{StepLook::alone, say("by itself")}};
}
} // namespace

QSize BoardLegend::sizeHint() const {
    const QFontMetrics metrics(textFont(smallText));
    int width = 0;
    for (const auto& [look, name] : legend()) width += 40 + metrics.horizontalAdvance(name);
    return {width, metrics.height() + 6};
}

void BoardLegend::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setFont(textFont(smallText));
    double x = 2;
    const double size = painter.fontMetrics().height() - 4;
    for (const auto& [look, name] : legend()) {
        paintStep(painter, QRectF(x, (height() - size) / 2, 18, size), look);
        painter.setPen(colours().quiet);
        painter.drawText(QRectF(x + 24, 0, 200, height()), Qt::AlignLeft | Qt::AlignVCenter, name);
        x += 40 + painter.fontMetrics().horizontalAdvance(name);
    }
}

} // namespace ibuki
