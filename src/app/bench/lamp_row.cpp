// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/lamp_row.h"

#include "app/drawn/theme.h"
#include "app/say.h"

#include <QPainter>

namespace ibuki {
namespace {

void paintLamp(QPainter& painter, Lamp lamp, const QRectF& at) {
    const Colours& c = colours();
    painter.setPen(QPen(lamp == Lamp::dark ? c.line : lamp == Lamp::good ? c.quiet : c.ink, 1.5));
    painter.setBrush(lamp == Lamp::dark   ? QBrush(Qt::NoBrush)
                     : lamp == Lamp::good ? QBrush(c.quiet)
                                          : QBrush(c.hot));
    if (lamp == Lamp::warn)
        painter.drawPolygon(QPolygonF{QPointF(at.center().x(), at.top()), at.bottomRight(), at.bottomLeft()});
    else if (lamp == Lamp::stop)
        painter.drawRect(at);
    else
        painter.drawEllipse(lamp == Lamp::dark ? at.adjusted(1, 1, -1, -1) : at.adjusted(2, 2, -2, -2));
}

} // namespace

LampRow::LampRow(QWidget* parent) : QWidget(parent) {
    setAccessibleName(say("Lamps"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

QSize LampRow::sizeHint() const {
    const int line = fontMetrics().height();
    return {500, brief_ ? line + 6 : 2 * line + 8};
}

void LampRow::setBrief(bool brief) {
    brief_ = brief;
    updateGeometry();
}

void LampRow::show(std::vector<LampLine> lamps) {
    lamps_ = std::move(lamps);
    QStringList told;
    for (const LampLine& lamp : lamps_)
        if (lamp.lamp == Lamp::warn || lamp.lamp == Lamp::stop) told << lamp.name;
    setAccessibleDescription(told.isEmpty() ? say("nothing to tell") : told.join(", "));
    update();
}

void LampRow::paintEvent(QPaintEvent* /*event*/) {
    if (lamps_.empty()) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const double line = fontMetrics().height();
    const double each = width() / static_cast<double>(lamps_.size());
    const double mark = line * 0.8;
    for (std::size_t i = 0; i < lamps_.size(); ++i) {
        const LampLine& lamp = lamps_[i];
        const QRectF at(static_cast<double>(i) * each, 0, each, height());
        const bool off = lamp.lamp == Lamp::warn || lamp.lamp == Lamp::stop;
        paintLamp(painter, lamp.lamp, {at.left() + 2, 3 + (line - mark) / 2, mark, mark});
        const QRectF words = at.adjusted(mark + 8, 0, -4, 0);
        painter.setPen(off ? colours().ink : colours().quiet);
        painter.setFont(textFont(smallText, off ? QFont::DemiBold : QFont::Normal));
        painter.drawText(QRectF(words.left(), 2, words.width(), line), Qt::AlignLeft | Qt::AlignVCenter,
                         lamp.name);
        if (brief_) continue;
        painter.setFont(textFont(1.0, QFont::Medium));
        painter.setPen(colours().ink);
        painter.drawText(QRectF(words.left(), line + 4, words.width(), line),
                         Qt::AlignLeft | Qt::AlignVCenter,
                         lamp.value.isEmpty() ? QStringLiteral("–") : lamp.value);
    }
}

} // namespace ibuki
