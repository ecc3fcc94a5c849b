// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/field_picture_view.h"

#include "app/drawn/theme.h"
#include "app/say.h"
#include "store/picture/field_picture.h"

#include <QPainter>
#include <algorithm>

namespace ibuki {

FieldPictureView::FieldPictureView(QWidget* parent) : QWidget(parent) {
    setAccessibleName(say("Temperatures of a face"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void FieldPictureView::show(const FieldFace& face) {
    face_ = face;
    FieldPictureOptions options;
    options.contours = false; // they are drawn as lines
    options.longest = 800;
    const RgbPicture picture = fieldPicture(face, options);
    image_ =
        QImage(picture.rgb.data(), picture.width, picture.height, 3 * picture.width, QImage::Format_RGB888)
            .copy();
    contours_ = contoursOf(face);
    const auto [least, most] = std::minmax_element(face.celsius.begin(), face.celsius.end());
    lowestC_ = *least;
    highestC_ = *most;
    update();
}

void FieldPictureView::clear() {
    face_.reset();
    update();
}

void FieldPictureView::paintScale(QPainter& painter, const QRectF& bar) const {
    for (int y = 0; y < static_cast<int>(bar.height()); ++y) {
        const auto [red, green, blue] = heatColour(1 - y / bar.height());
        painter.fillRect(QRectF(bar.left(), bar.top() + y, bar.width(), 1.5), QColor(red, green, blue));
    }
    painter.setPen(colours().ink);
    const double line = painter.fontMetrics().height();
    const QRectF words(bar.right() + 6, bar.top(), 90, line);
    painter.drawText(words, Qt::AlignLeft, say("%1 °C").arg(highestC_, 0, 'f', 1));
    painter.drawText(words.translated(0, bar.height() - line), Qt::AlignLeft,
                     say("%1 °C").arg(lowestC_, 0, 'f', 1));
}

void FieldPictureView::paintEvent(QPaintEvent*) {
    if (!face_) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(textFont(smallText));
    const double right = 120, line = painter.fontMetrics().height();
    const double wide = face_->x.back() - face_->x.front(), high = face_->y.back() - face_->y.front();
    const double scale = std::min((width() - right - 12) / wide, (height() - line - 16) / high);
    const QRectF face(6, 6, wide * scale, high * scale);
    painter.drawImage(face, image_);
    const auto place = [&](double x, double y) {
        return QPointF(face.left() + (x - face_->x.front()) * scale,
                       face.bottom() - (y - face_->y.front()) * scale);
    };
    for (const Contour& contour : contours_) {
        QPolygonF polygon;
        for (const PlanePoint& point : contour.points) polygon << place(point.x, point.y);
        if (contour.isClosed) polygon << polygon.front();
        painter.setPen(QPen(QColor(0, 0, 0, 120), 1));
        painter.drawPolyline(polygon);
        if (polygon.size() < 8) continue;
        const QString text = QString::number(contour.celsius, 'g', 5);
        QRectF words = painter.boundingRect(QRectF(), Qt::AlignCenter, text);
        words.moveCenter(polygon[polygon.size() / 2]);
        if (!face.contains(words)) continue;
        painter.fillRect(words.adjusted(-2, 0, 2, 0), QColor(255, 255, 255, 170));
        painter.setPen(Qt::black);
        painter.drawText(words, Qt::AlignCenter, text);
    }
    const QPointF hottest = place(face_->maxXMm, face_->maxYMm);
    painter.setPen(QPen(Qt::white, 3));
    painter.drawEllipse(hottest, 5, 5);
    painter.setPen(QPen(Qt::black, 1.5));
    painter.drawEllipse(hottest, 5, 5);
    painter.setPen(QPen(colours().line, 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(face);
    paintScale(painter, QRectF(face.right() + 14, face.top(), 14, std::max(40.0, face.height())));
    painter.setPen(colours().quiet);
    painter.drawText(QRectF(6, face.bottom() + 3, face.width() + right, line), Qt::AlignLeft,
                     say("%1 × %2 mm; ring: the hottest place").arg(wide, 0, 'g', 4).arg(high, 0, 'g', 4));
}

} // namespace ibuki
