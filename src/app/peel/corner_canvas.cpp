// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/peel/corner_canvas.h"

#include "app/drawn/theme.h"
#include "app/say.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double handle = 9;      // radius of a corner's ring
constexpr double grip = 26;       // how near a press has to be: gloves
constexpr double magnified = 5;   // times
constexpr double magnifier = 130; // its side
constexpr int restMs = 500;

} // namespace

CornerCanvas::CornerCanvas(QWidget* parent) : PictureCanvas(parent) {
    setAccessibleName(say("Photograph with the face's corners"));
    setObjectName("Corners");
    setToolTip(
        say("Drag a corner, or choose it with 1 to 4 and move it with the arrow keys (Shift: ten pixels)"));
    rest_.setSingleShot(true);
    rest_.setInterval(restMs);
    connect(&rest_, &QTimer::timeout, this, &CornerCanvas::tell);
}

void CornerCanvas::show(const RgbPicture& photograph, const std::optional<FaceCorners>& corners) {
    corners_ = corners;
    setImage(imageOf(photograph));
}

void CornerCanvas::clear() {
    corners_.reset();
    setImage({});
}

void CornerCanvas::place() {
    const double w = image().width(), h = image().height();
    corners_ =
        FaceCorners{{{0.25 * w, 0.25 * h}, {0.75 * w, 0.25 * h}, {0.75 * w, 0.75 * h}, {0.25 * w, 0.75 * h}}};
}

void CornerCanvas::move(std::size_t corner, const PlanePoint& to) {
    if (!corners_) return;
    (*corners_)[corner] = {std::clamp(to.x, -0.2 * image().width(), 1.2 * image().width()),
                           std::clamp(to.y, -0.2 * image().height(), 1.2 * image().height())};
    update();
}

void CornerCanvas::tell() {
    rest_.stop();
    if (corners_) emit cornersMoved(*corners_);
}

void CornerCanvas::mousePressEvent(QMouseEvent* event) {
    if (image().isNull() || event->button() != Qt::LeftButton) return;
    if (!corners_) {
        place();
        return tell();
    }
    double nearest = grip;
    dragged_ = false;
    for (std::size_t i = 0; i < 4; ++i) {
        const double away = QLineF(toWidget((*corners_)[i]), event->position()).length();
        if (away > nearest) continue;
        nearest = away;
        chosen_ = i;
        dragged_ = true;
    }
    update();
}

void CornerCanvas::mouseMoveEvent(QMouseEvent* event) {
    if (dragged_) move(chosen_, toPicture(event->position()));
}

void CornerCanvas::mouseReleaseEvent(QMouseEvent*) {
    if (std::exchange(dragged_, false)) tell();
    update();
}

void CornerCanvas::keyPressEvent(QKeyEvent* event) {
    if (image().isNull()) return PictureCanvas::keyPressEvent(event);
    double dx = 0, dy = 0;
    if (event->key() >= Qt::Key_1 && event->key() <= Qt::Key_4) {
        if (!corners_) place();
        chosen_ = static_cast<std::size_t>(event->key() - Qt::Key_1);
        update();
    } else if (corners_ && arrow(*event, dx, dy)) {
        const PlanePoint at = (*corners_)[chosen_];
        move(chosen_, {at.x + dx, at.y + dy});
        rest_.start();
    } else if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
        if (!corners_) place();
        tell();
    } else {
        PictureCanvas::keyPressEvent(event);
    }
}

void CornerCanvas::paintMagnifier(QPainter& painter) const {
    const QPointF at = toWidget((*corners_)[chosen_]);
    const bool toTheLeft = at.x() > width() / 2.0;
    const QRectF frame(toTheLeft ? 8 : width() - magnifier - 8, 8, magnifier, magnifier);
    const PlanePoint& c = (*corners_)[chosen_];
    const double half = magnifier / 2 / (magnified * zoom());
    painter.save();
    painter.setClipRect(frame);
    painter.fillRect(frame, colours().band);
    painter.drawImage(frame, image(), QRectF(c.x - half, c.y - half, 2 * half, 2 * half));
    painter.setPen(QPen(Qt::white, 3));
    painter.drawLine(frame.center() - QPointF(14, 0), frame.center() + QPointF(14, 0));
    painter.drawLine(frame.center() - QPointF(0, 14), frame.center() + QPointF(0, 14));
    painter.setPen(QPen(Qt::black, 1));
    painter.drawLine(frame.center() - QPointF(14, 0), frame.center() + QPointF(14, 0));
    painter.drawLine(frame.center() - QPointF(0, 14), frame.center() + QPointF(0, 14));
    painter.restore();
    painter.setPen(QPen(colours().ink, 1.2));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(frame);
}

void CornerCanvas::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    if (image().isNull()) return;
    painter.drawImage(shownAt(), image());
    if (!corners_) return;
    QPolygonF outline;
    for (const PlanePoint& corner : *corners_) outline << toWidget(corner);
    for (const auto& [colour, thick] : {std::pair{QColor(Qt::white), 3.4}, {QColor(Qt::black), 1.4}}) {
        painter.setPen(QPen(colour, thick, thick < 2 ? Qt::DashLine : Qt::SolidLine));
        painter.drawPolygon(outline);
    }
    painter.setFont(textFont(0.9, QFont::DemiBold));
    for (std::size_t i = 0; i < 4; ++i) {
        const QPointF at = outline[static_cast<int>(i)];
        const bool chosen = i == chosen_ && (hasFocus() || dragged_);
        painter.setBrush(chosen ? QColor(Qt::black) : QColor(Qt::white));
        painter.setPen(QPen(chosen ? QColor(Qt::white) : QColor(Qt::black), 1.5));
        painter.drawEllipse(at, handle, handle);
        painter.drawText(QRectF(at.x() - handle, at.y() - handle, 2 * handle, 2 * handle), Qt::AlignCenter,
                         QString::number(i + 1));
    }
    if (dragged_ || hasFocus()) paintMagnifier(painter);
    if (hasFocus()) {
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(colours().ink, 1.5, Qt::DotLine));
        painter.drawRect(rect().adjusted(1, 1, -2, -2));
    }
}

} // namespace ibuki
