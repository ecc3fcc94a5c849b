// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/face_drawing.h"

#include "app/drawn/theme.h"
#include "app/say.h"

#include <QPainter>
#include <QPainterPathStroker>
#include <algorithm>

namespace ibuki {

FaceDrawing::FaceDrawing(QWidget* parent) : QWidget(parent) {
    setMinimumSize(260, 240);
    setAccessibleName(say("Paste on the face"));
}

void FaceDrawing::show(std::optional<Shown> shown, const QString& emptyText) {
    shown_ = std::move(shown);
    emptyText_ = emptyText;
    setAccessibleDescription(
        shown_ ? say("%1 % of the face covered").arg(100 * shown_->spread.coverage, 0, 'f', 1) : emptyText);
    update();
}

QPainterPath FaceDrawing::grown(double radiusMm) const {
    QPainterPath all;
    all.setFillRule(Qt::WindingFill);
    for (const Stroke& stroke : shown_->input.strokes) {
        const QPointF from(stroke.from.x, stroke.from.y);
        const QPointF to(stroke.to.x, stroke.to.y);
        QPainterPath one;
        if (from == to) {
            one.addEllipse(from, radiusMm, radiusMm);
        } else {
            QPainterPath line(from);
            line.lineTo(to);
            QPainterPathStroker stroker;
            stroker.setWidth(2 * radiusMm);
            stroker.setCapStyle(Qt::RoundCap);
            stroker.setCurveThreshold(0.01);
            one = stroker.createStroke(line);
        }
        all = all.united(one);
    }
    return all;
}

/// In millimetres from the face's middle; scale: pixels a millimetre.
void FaceDrawing::paintFace(QPainter& painter, double scale) const {
    const Colours& c = colours();
    const SpreadInput& input = shown_->input;
    const QRectF face(-input.widthMm / 2, -input.lengthMm / 2, input.widthMm, input.lengthMm);
    QPainterPath facePath;
    facePath.addRect(face);
    const QPainterPath wet = input.strokes.empty() ? facePath : grown(shown_->spread.offsetMm);
    const auto pen = [&](const QColor& colour, double pixels, Qt::PenStyle style = Qt::SolidLine) {
        QPen made(colour, pixels, style);
        made.setCosmetic(true);
        return made;
    };
    painter.fillPath(facePath, c.sheet);
    QBrush hatch(c.quiet, Qt::BDiagPattern);
    hatch.setTransform(QTransform::fromScale(1 / scale, 1 / scale));
    painter.fillPath(facePath.subtracted(wet), hatch);
    painter.fillPath(wet.intersected(facePath), c.body);
    const QPainterPath over = wet.subtracted(facePath);
    QColor wash = c.hot;
    wash.setAlpha(70);
    painter.fillPath(over, wash);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(pen(c.hot, 1, Qt::DotLine));
    painter.drawPath(over);
    painter.setPen(pen(c.ink, 2));
    painter.drawRect(face);
    if (!input.strokes.empty()) { // as it is drawn, before the plate comes down
        painter.setPen(pen(c.ink, 1, Qt::DashLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawPath(grown(shown_->beadMm / 2));
    }
}

void FaceDrawing::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Colours& c = colours();
    if (!shown_) {
        painter.setPen(c.quiet);
        painter.drawText(rect().adjusted(20, 20, -20, -20), Qt::AlignCenter | Qt::TextWordWrap, emptyText_);
        return;
    }
    const SpreadInput& input = shown_->input;
    // Room for what goes over the edge, up to a quarter of the face on each side.
    const double reach = 0.22 * std::max(input.widthMm, input.lengthMm);
    const double caption = 2.0 * fontMetrics().height();
    const double scale =
        std::min(width() / (input.widthMm + 2 * reach), (height() - caption) / (input.lengthMm + 2 * reach));
    painter.save();
    painter.translate(width() / 2.0, (height() - caption) / 2.0);
    painter.scale(scale, scale);
    paintFace(painter, scale);
    painter.restore();
    painter.setPen(c.quiet);
    painter.setFont(textFont(0.9));
    const QString words = say("%1 × %2 mm, to scale.  dashed: as drawn   filled: under the plate   "
                              "hatched: bare   dotted: over the edge")
                              .arg(input.widthMm)
                              .arg(input.lengthMm);
    painter.drawText(QRectF(4, height() - caption, width() - 8, caption), Qt::AlignCenter | Qt::TextWordWrap,
                     words);
}

} // namespace ibuki
