// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/peel/mask_canvas.h"

#include "app/drawn/theme.h"
#include "app/say.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double leastBrushMm = 0.2, mostBrushMm = 12;

/// What lies over the face at a place: stripes where it is bare, dots where it is thin, an edge between.
QRgb overAt(const GreyPicture& mask, const GreyPicture& seeds, int column, int row) {
    const auto at = [&](int x, int y) {
        return mask.grey[static_cast<std::size_t>(std::clamp(y, 0, mask.height - 1))
                             * static_cast<std::size_t>(mask.width)
                         + static_cast<std::size_t>(std::clamp(x, 0, mask.width - 1))];
    };
    const std::uint8_t seed = seeds.grey[static_cast<std::size_t>(row) * static_cast<std::size_t>(mask.width)
                                         + static_cast<std::size_t>(column)];
    if (seed == maskCovered) return qRgba(40, 90, 200, 235);
    if (seed == maskBare) return qRgba(240, 200, 40, 235);
    const bool covered = at(column, row) >= maskFromHere;
    if (covered) {
        const bool edge = at(column - 1, row) < maskFromHere || at(column + 1, row) < maskFromHere
                          || at(column, row - 1) < maskFromHere || at(column, row + 1) < maskFromHere;
        return edge ? qRgba(255, 255, 255, 255) : 0;
    }
    if (at(column, row) == maskThin)
        return (column % 5 == 0 && row % 5 == 0) ? qRgba(0, 0, 0, 255) : qRgba(255, 255, 255, 50);
    const int stripe = (column + row) % 14;
    return stripe == 0 ? qRgba(0, 0, 0, 255) : stripe == 1 ? qRgba(255, 255, 255, 255) : 0;
}

} // namespace

MaskCanvas::MaskCanvas(QWidget* parent) : PictureCanvas(parent) {
    setAccessibleName(say("Face with its mask"));
    setObjectName("Mask");
    setToolTip(say("Paint with the mouse, or with the arrow keys and Space; [ and ] change the brush, Enter "
                   "closes a polygon"));
}

void MaskCanvas::show(const FacePicture& face, const GreyPicture& mask, const Extent& size) {
    size_ = size;
    polygon_.clear();
    const QImage whole = imageOf(face.picture);
    const QImage inside = whole.copy(face.margin, face.margin, face.faceWidth(), face.faceHeight());
    pxPerMm_ = face.pxPerMm;
    setImage(mask.width == inside.width()
                 ? inside
                 : inside.scaled(mask.width, mask.height, Qt::IgnoreAspectRatio, Qt::SmoothTransformation));
    at_ = {mask.width / 2.0, mask.height / 2.0};
    pxPerMm_ = mask.width / size.widthMm;
    setMask(mask);
}

void MaskCanvas::setMask(const GreyPicture& mask) {
    mask_ = mask;
    seeds_ = {mask.width, mask.height, std::vector<std::uint8_t>(mask.grey.size(), seedNone)};
    hasSeeds_ = false;
    over_ = QImage(mask.width, mask.height, QImage::Format_ARGB32);
    drawOver({0, 0, mask.width, mask.height});
}

void MaskCanvas::clear() {
    mask_ = {};
    over_ = {};
    setImage({});
}

void MaskCanvas::setTool(MaskTool tool) {
    tool_ = tool;
    polygon_.clear();
    update();
}

void MaskCanvas::setBrushMm(double diameter) {
    brushMm_ = std::clamp(diameter, leastBrushMm, mostBrushMm);
    emit brushChanged();
    update();
}

std::uint8_t MaskCanvas::level() const {
    switch (tool_) {
    case MaskTool::film:
    case MaskTool::polygonFilm:
    case MaskTool::fillFilm:
    case MaskTool::seedFilm:
        return maskCovered;
    default:
        return maskBare;
    }
}

void MaskCanvas::drawOver(const MaskPart& part) {
    const int left = std::max(0, part.left - 1), top = std::max(0, part.top - 1);
    const int right = std::min(mask_.width, part.left + part.width + 1);
    const int bottom = std::min(mask_.height, part.top + part.height + 1);
    for (int row = top; row < bottom; ++row) {
        auto* line = reinterpret_cast<QRgb*>(over_.scanLine(row));
        for (int column = left; column < right; ++column) line[column] = overAt(mask_, seeds_, column, row);
    }
    const double z = zoom();
    update(QRectF(toWidget({double(left), double(top)}), QSizeF((right - left) * z, (bottom - top) * z))
               .toAlignedRect()
               .adjusted(-40, -40, 40, 40));
}

void MaskCanvas::use(const PlanePoint& from, const PlanePoint& to) {
    if (isSeed()) {
        drawOver(brush(seeds_, from, to, radiusPx(), level()));
        hasSeeds_ = true;
    } else if (tool_ == MaskTool::film || tool_ == MaskTool::bare) {
        drawOver(brush(mask_, from, to, radiusPx(), level()));
    }
}

/// What a press does of those tools that are no brush.
bool MaskCanvas::pinPoint() {
    if (isPolygon()) {
        polygon_.push_back(at_);
        update();
        return true;
    }
    if (tool_ != MaskTool::fillFilm && tool_ != MaskTool::fillBare) return false;
    drawOver(fillRegion(mask_, at_, level()));
    emit maskEdited();
    return true;
}

void MaskCanvas::endStroke() {
    if (isSeed())
        emit seedsPainted();
    else
        emit maskEdited();
}

void MaskCanvas::closePolygon() {
    if (polygon_.size() < 3) return;
    drawOver(fillPolygon(mask_, polygon_, level()));
    polygon_.clear();
    update();
    emit maskEdited();
}

void MaskCanvas::mousePressEvent(QMouseEvent* event) {
    if (mask_.grey.empty() || event->button() != Qt::LeftButton) return;
    at_ = toPicture(event->position());
    if (pinPoint()) return;
    painting_ = true;
    use(at_, at_);
}

void MaskCanvas::mouseMoveEvent(QMouseEvent* event) {
    const PlanePoint before = at_;
    at_ = toPicture(event->position());
    if (painting_)
        use(before, at_);
    else
        update();
}

void MaskCanvas::mouseReleaseEvent(QMouseEvent*) {
    if (std::exchange(painting_, false)) endStroke();
}

void MaskCanvas::mouseDoubleClickEvent(QMouseEvent*) {
    if (isPolygon()) closePolygon();
}

void MaskCanvas::wheelEvent(QWheelEvent* event) {
    setBrushMm(brushMm_ * std::pow(1.15, event->angleDelta().y() / 120.0));
}

void MaskCanvas::keyPressEvent(QKeyEvent* event) {
    if (mask_.grey.empty()) return PictureCanvas::keyPressEvent(event);
    double dx = 0, dy = 0;
    if (arrow(*event, dx, dy)) {
        at_ = {std::clamp(at_.x + 2 * dx, 0.0, double(mask_.width)),
               std::clamp(at_.y + 2 * dy, 0.0, double(mask_.height))};
        update();
    } else if (event->key() == Qt::Key_Space) {
        if (pinPoint()) return;
        use(at_, at_);
        endStroke();
    } else if (event->key() == Qt::Key_BracketLeft) {
        setBrushMm(brushMm_ / 1.25);
    } else if (event->key() == Qt::Key_BracketRight) {
        setBrushMm(brushMm_ * 1.25);
    } else if (isPolygon() && (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter)) {
        closePolygon();
    } else if (isPolygon() && event->key() == Qt::Key_Backspace && !polygon_.empty()) {
        polygon_.pop_back();
        update();
    } else {
        PictureCanvas::keyPressEvent(event);
    }
}

void MaskCanvas::paintRuler(QPainter& painter) const {
    double mm = 1;
    for (const double next : {2.0, 5.0, 10.0, 20.0, 50.0})
        if (next < 0.4 * size_.widthMm) mm = next;
    const double length = mm * pxPerMm_ * zoom();
    const QRectF at = shownAt();
    const QPointF from(at.left() + 10, at.bottom() - 12);
    for (const auto& [colour, thick] : {std::pair{QColor(Qt::white), 4.0}, {QColor(Qt::black), 1.6}}) {
        painter.setPen(QPen(colour, thick));
        painter.drawLine(from, from + QPointF(length, 0));
        painter.drawLine(from - QPointF(0, 5), from + QPointF(0, 5));
        painter.drawLine(from + QPointF(length, -5), from + QPointF(length, 5));
    }
    QPainterPath text;
    text.addText(from + QPointF(6, -7), textFont(0.9, QFont::DemiBold), say("%1 mm").arg(mm));
    painter.setPen(QPen(Qt::white, 3));
    painter.drawPath(text);
    painter.fillPath(text, Qt::black);
}

void MaskCanvas::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    if (image().isNull()) return;
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    painter.drawImage(shownAt(), image());
    painter.drawImage(shownAt(), over_);
    painter.setPen(QPen(colours().ink, 1.2));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(shownAt());
    if (!polygon_.empty()) {
        QPolygonF outline;
        for (const PlanePoint& p : polygon_) outline << toWidget(p);
        painter.setPen(QPen(Qt::white, 3));
        painter.drawPolyline(outline);
        painter.setPen(QPen(Qt::black, 1.4, Qt::DashLine));
        painter.drawPolyline(outline);
    }
    if (hasFocus() || underMouse()) {
        const double r = isPolygon() ? 4 : radiusPx() * zoom();
        for (const auto& [colour, thick] : {std::pair{QColor(Qt::white), 3.0}, {QColor(Qt::black), 1.2}}) {
            painter.setPen(QPen(colour, thick));
            painter.drawEllipse(toWidget(at_), r, r);
        }
    }
    paintRuler(painter);
    if (hasFocus()) {
        painter.setPen(QPen(colours().ink, 1.5, Qt::DotLine));
        painter.drawRect(rect().adjusted(1, 1, -2, -2));
    }
}

} // namespace ibuki
