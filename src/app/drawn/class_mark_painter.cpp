// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawn/class_mark_painter.h"

#include "app/drawn/theme.h"
#include "store/paper/class_mark.h"

#include <QPainter>
#include <QPixmap>

namespace ibuki {

void paintClassMark(QPainter& painter, MaterialClass kind, const QPointF& centre, double radius,
                    const QColor& colour) {
    const ClassMark mark = classMark(kind);
    painter.save();
    painter.setPen(Qt::NoPen);
    painter.setBrush(colour);
    if (mark.corners.empty()) {
        painter.drawEllipse(centre, radius, radius);
    } else {
        QPolygonF shape;
        for (const auto& [x, y] : mark.corners) shape << centre + radius * QPointF(x, y);
        painter.drawPolygon(shape);
    }
    painter.setPen(colour);
    painter.setFont(textFont(0.8, QFont::Medium));
    painter.drawText(QRectF(centre.x() + radius + 4, centre.y() - 10, 20, 20),
                     Qt::AlignLeft | Qt::AlignVCenter,
                     QString::fromUtf8(mark.letter.data(), static_cast<int>(mark.letter.size())));
    painter.restore();
}

QIcon classIcon(MaterialClass kind) {
    QPixmap pixmap(56, 40);
    pixmap.setDevicePixelRatio(2);
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    painter.setRenderHint(QPainter::Antialiasing);
    paintClassMark(painter, kind, {7, 10}, 5, colours().quiet);
    return QIcon(pixmap);
}

} // namespace ibuki
