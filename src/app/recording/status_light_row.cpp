// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/recording/status_light_row.h"

#include "app/drawn/theme.h"
#include "app/say.h"

#include <QPainter>

namespace ibuki {
namespace {

void paintStatusLight(QPainter& painter, StatusLight statusLight, const QRectF& at) {
    const Colours& c = colours();
    painter.setPen(QPen(statusLight == StatusLight::dark   ? c.line
                        : statusLight == StatusLight::good ? c.quiet
                                                           : c.ink,
                        1.5));
    painter.setBrush(statusLight == StatusLight::dark   ? QBrush(Qt::NoBrush)
                     : statusLight == StatusLight::good ? QBrush(c.quiet)
                                                        : QBrush(c.hot));
    if (statusLight == StatusLight::warn)
        painter.drawPolygon(QPolygonF{QPointF(at.center().x(), at.top()), at.bottomRight(), at.bottomLeft()});
    else if (statusLight == StatusLight::stop)
        painter.drawRect(at);
    else
        painter.drawEllipse(statusLight == StatusLight::dark ? at.adjusted(1, 1, -1, -1)
                                                             : at.adjusted(2, 2, -2, -2));
}

} // namespace

StatusLightRow::StatusLightRow(QWidget* parent) : QWidget(parent) {
    setAccessibleName(say("Lamps"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

QSize StatusLightRow::sizeHint() const {
    const int line = fontMetrics().height();
    return {500, brief_ ? line + 6 : 2 * line + 8};
}

void StatusLightRow::setBrief(bool brief) {
    brief_ = brief;
    updateGeometry();
}

void StatusLightRow::show(std::vector<StatusLightLine> statusLights) {
    statusLights_ = std::move(statusLights);
    QStringList reported;
    for (const StatusLightLine& statusLight : statusLights_)
        if (statusLight.statusLight == StatusLight::warn || statusLight.statusLight == StatusLight::stop)
            reported << statusLight.name;
    setAccessibleDescription(reported.isEmpty() ? say("nothing to tell") : reported.join(", "));
    update();
}

void StatusLightRow::paintEvent(QPaintEvent* /*event*/) {
    if (statusLights_.empty()) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const double line = fontMetrics().height();
    const double each = width() / static_cast<double>(statusLights_.size());
    const double mark = line * 0.8;
    for (std::size_t i = 0; i < statusLights_.size(); ++i) {
        const StatusLightLine& statusLight = statusLights_[i];
        const QRectF at(static_cast<double>(i) * each, 0, each, height());
        const bool off =
            statusLight.statusLight == StatusLight::warn || statusLight.statusLight == StatusLight::stop;
        paintStatusLight(painter, statusLight.statusLight,
                         {at.left() + 2, 3 + (line - mark) / 2, mark, mark});
        const QRectF words = at.adjusted(mark + 8, 0, -4, 0);
        painter.setPen(off ? colours().ink : colours().quiet);
        painter.setFont(textFont(smallText, off ? QFont::DemiBold : QFont::Normal));
        painter.drawText(QRectF(words.left(), 2, words.width(), line), Qt::AlignLeft | Qt::AlignVCenter,
                         statusLight.name);
        if (brief_) continue;
        painter.setFont(textFont(1.0, QFont::Medium));
        painter.setPen(colours().ink);
        painter.drawText(QRectF(words.left(), line + 4, words.width(), line),
                         Qt::AlignLeft | Qt::AlignVCenter,
                         statusLight.value.isEmpty() ? QStringLiteral("–") : statusLight.value);
    }
}

} // namespace ibuki
