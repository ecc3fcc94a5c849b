// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/peel/canvas.h"

#include <QKeyEvent>
#include <algorithm>

namespace ibuki {

QImage imageOf(const RgbPicture& picture) {
    if (picture.rgb.empty()) return {};
    return QImage(picture.rgb.data(), picture.width, picture.height, 3 * picture.width, QImage::Format_RGB888)
        .copy();
}

PictureCanvas::PictureCanvas(QWidget* parent) : QWidget(parent) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
}

void PictureCanvas::setImage(QImage image) {
    image_ = std::move(image);
    update();
}

double PictureCanvas::zoom() const {
    if (image_.isNull()) return 1;
    return std::min((width() - 4.0) / image_.width(), (height() - 4.0) / image_.height());
}

QRectF PictureCanvas::shownAt() const {
    const QSizeF size = QSizeF(image_.size()) * zoom();
    return {(width() - size.width()) / 2, (height() - size.height()) / 2, size.width(), size.height()};
}

QPointF PictureCanvas::toWidget(const PlanePoint& pixel) const {
    return shownAt().topLeft() + QPointF(pixel.x, pixel.y) * zoom();
}

PlanePoint PictureCanvas::toPicture(const QPointF& at) const {
    const QPointF pixel = (at - shownAt().topLeft()) / zoom();
    return {pixel.x(), pixel.y()};
}

bool PictureCanvas::arrow(const QKeyEvent& event, double& dx, double& dy) {
    const double step = event.modifiers().testFlag(Qt::ShiftModifier) ? 10 : 1;
    dx = event.key() == Qt::Key_Left ? -step : event.key() == Qt::Key_Right ? step : 0;
    dy = event.key() == Qt::Key_Up ? -step : event.key() == Qt::Key_Down ? step : 0;
    return dx != 0 || dy != 0;
}

} // namespace ibuki
