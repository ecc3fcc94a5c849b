// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/chance_curve.h"

#include "app/drawn/theme.h"
#include "app/question/chance_lines.h"
#include "app/say.h"
#include "app/session/qtext.h"
#include "store/paper/sentence_parts.h"

#include <QPainter>
#include <QPainterPath>

namespace ibuki {
ChanceCurve::ChanceCurve(QWidget* parent) : DrawnItems(parent) {
    setAccessibleName(say("Chance over the difference and over the mounts"));
    setObjectName("Chance curves");
    setMinimumHeight(220);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void ChanceCurve::show(ChanceCurves curves, const ChanceCurveMarks& marks) {
    curves_ = std::move(curves);
    marks_ = marks;
    for (std::size_t i = 0; i < curves_.overMounts.size(); ++i)
        if (static_cast<int>(curves_.overMounts[i].at) == marks_.mounts) setFocused(static_cast<int>(i));
    update();
}

void ChanceCurve::clear() {
    curves_ = {};
    update();
}

QPointF ChanceCurve::Frame::at(double along, double chance) const {
    return {plot.left() + along * plot.width(), plot.bottom() - chance * plot.height()};
}

ChanceCurve::Frame ChanceCurve::differenceFrame() const {
    const double line = fontMetrics().height();
    const double left = fontMetrics().horizontalAdvance("100 %") + 12.0;
    return {QRectF(left, line + 8, width() - left - 16, height() / 2.0 - 2 * line - 26)};
}

ChanceCurve::Frame ChanceCurve::mountsFrame() const {
    Frame frame = differenceFrame();
    frame.plot.translate(0, height() / 2.0);
    return frame;
}

double ChanceCurve::alongMounts(double mounts) const {
    const double last = std::max(3.0, curves_.overMounts.back().at);
    return (mounts - 1) / (last - 1 + 0.5);
}

int ChanceCurve::itemAt(const QPointF& point) const {
    if (isEmpty()) return -1;
    const Frame frame = mountsFrame();
    if (point.y() < frame.plot.top() - 10 || point.y() > height()) return -1;
    int nearest = -1;
    double best = 20;
    for (std::size_t i = 0; i < curves_.overMounts.size(); ++i) {
        const double off = std::abs(frame.at(alongMounts(curves_.overMounts[i].at), 0).x() - point.x());
        if (off >= best) continue;
        best = off;
        nearest = static_cast<int>(i);
    }
    return nearest;
}

/// In the unit of the response, with the digits that it has elsewhere.
QString ChanceCurve::amount(double value) const {
    return qtext(amountText(value, marks_.unit.toStdString()));
}

QString ChanceCurve::tip(int item) const {
    if (item < 0 || item >= itemCount()) return {};
    const ChancePoint& point = curves_.overMounts[static_cast<std::size_t>(item)];
    return marks_.goal == Goal::difference
               ? say("%1 mounts of each: %2 to see a difference of %3")
                     .arg(point.at)
                     .arg(percent(point.chance))
                     .arg(amount(marks_.margin))
               : say("%1 mounts of each: %2 to show that equal ones are the same within %3")
                     .arg(point.at)
                     .arg(percent(point.chance))
                     .arg(amount(marks_.margin));
}

void ChanceCurve::openItem(int item) {
    if (item >= 0 && item < itemCount())
        emit mountsMeant(static_cast<int>(curves_.overMounts[static_cast<std::size_t>(item)].at));
}

void ChanceCurve::paintFrame(QPainter& painter, const Frame& frame, const QString& title) const {
    const Colours& c = colours();
    const double line = painter.fontMetrics().height();
    painter.setPen(c.quiet);
    painter.drawText(QRectF(0, frame.plot.top() - line - 8, width(), line), Qt::AlignLeft, title);
    for (const double chance : {0.0, 0.5, 1.0}) {
        const QPointF left = frame.at(0, chance);
        painter.setPen(QPen(c.line, 1, chance == 0 ? Qt::SolidLine : Qt::DotLine));
        painter.drawLine(left, frame.at(1, chance));
        painter.setPen(c.quiet);
        painter.drawText(QRectF(0, left.y() - line / 2, frame.plot.left() - 8, line),
                         Qt::AlignRight | Qt::AlignVCenter, percent(chance));
    }
    painter.setPen(QPen(c.ink, 1.2, Qt::DashLine)); // the chance wanted
    painter.drawLine(frame.at(0, marks_.wanted), frame.at(1, marks_.wanted));
    painter.setPen(c.ink);
    painter.drawText(
        QRectF(frame.plot.left(), frame.at(0, marks_.wanted).y() + 1, frame.plot.width() - 2, line),
        Qt::AlignRight, say("wanted: %1").arg(percent(marks_.wanted)));
}

void ChanceCurve::paintDifferences(QPainter& painter) const {
    const Colours& c = colours();
    const Frame frame = differenceFrame();
    const double most = curves_.overDifference.back().at;
    const double line = painter.fontMetrics().height();
    QColor shade = c.hotWash;
    shade.setAlphaF(0.5F);
    painter.fillRect(QRectF(frame.at(0, 1), frame.at(marks_.margin / most, 0)), shade);
    paintFrame(painter, frame,
               marks_.goal == Goal::difference
                   ? say("If the truth differs by …, the chance to tell it with %1 mounts of each")
                         .arg(marks_.mounts)
                   : say("If the truth differs by …, the chance to show them the same with %1 mounts of each")
                         .arg(marks_.mounts));
    QPainterPath path;
    for (std::size_t i = 0; i < curves_.overDifference.size(); ++i) {
        const QPointF at = frame.at(curves_.overDifference[i].at / most, curves_.overDifference[i].chance);
        i == 0 ? path.moveTo(at) : path.lineTo(at);
    }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(c.ink, 2));
    painter.drawPath(path);
    painter.setPen(c.quiet);
    for (int k = 0; k <= 3; ++k) {
        const QPointF foot = frame.at(k / 3.0, 0);
        const QRectF place(k == 3 ? foot.x() - 80 : foot.x() - 40, foot.y() + 4, k == 3 ? 92 : 80, line);
        painter.drawText(place, k == 3 ? Qt::AlignRight : Qt::AlignHCenter,
                         amount(k * marks_.margin) + (k == 1 ? say(" margin") : QString()));
    }
    const double planned = marks_.goal == Goal::difference ? marks_.margin : 0;
    const auto at = std::min_element(curves_.overDifference.begin(), curves_.overDifference.end(),
                                     [&](const ChancePoint& a, const ChancePoint& b) {
                                         return std::abs(a.at - planned) < std::abs(b.at - planned);
                                     });
    const QPointF dot = frame.at(at->at / most, at->chance);
    painter.setBrush(c.ink);
    painter.drawEllipse(dot, 5, 5);
    painter.setPen(c.ink);
    painter.drawText(QRectF(dot.x() + 10, dot.y() + 2, 80, line), Qt::AlignLeft, percent(at->chance));
}

/// The dot of so many mounts, and what stands under and beside it.
void ChanceCurve::paintNumber(QPainter& painter, const Frame& frame, std::size_t place) const {
    const Colours& c = colours();
    const double line = painter.fontMetrics().height();
    const int every = curves_.overMounts.size() > 14 ? 5 : 1;
    const ChancePoint& point = curves_.overMounts[place];
    const int n = static_cast<int>(point.at);
    const QPointF dot = frame.at(alongMounts(point.at), point.chance);
    const bool chosen = n == marks_.mounts;
    painter.setPen(QPen(c.ink, 1.2));
    painter.setBrush(chosen ? c.ink : c.sheet);
    painter.drawEllipse(dot, chosen ? 5 : 3.5, chosen ? 5 : 3.5);
    if (showsFocus(static_cast<int>(place)) || hovered() == static_cast<int>(place)) {
        painter.setPen(QPen(c.cold, 1.5, Qt::DotLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(dot, 9, 9);
    }
    const bool needed = marks_.needed && *marks_.needed == n;
    if (n % every != 0 && !chosen && !needed) return;
    painter.setPen(chosen || needed ? c.ink : c.quiet);
    painter.drawText(QRectF(dot.x() - 40, frame.plot.bottom() + 4, 80, line), Qt::AlignHCenter,
                     QString::number(n));
    if (chosen)
        painter.drawText(QRectF(dot.x() + 9, dot.y() + 2, 80, line), Qt::AlignLeft, percent(point.chance));
    if (needed) {
        painter.setPen(QPen(c.ink, 1, Qt::DotLine));
        painter.drawLine(frame.at(alongMounts(point.at), 0), dot + QPointF(0, 5));
    }
}

void ChanceCurve::paintMounts(QPainter& painter) const {
    const Colours& c = colours();
    const Frame frame = mountsFrame();
    paintFrame(painter, frame,
               marks_.goal == Goal::difference
                   ? say("The chance to tell %1, over the mounts of each").arg(amount(marks_.margin))
                   : say("The chance to show equal ones the same, over the mounts of each"));
    QPainterPath path;
    for (std::size_t i = 0; i < curves_.overMounts.size(); ++i) {
        const QPointF at = frame.at(alongMounts(curves_.overMounts[i].at), curves_.overMounts[i].chance);
        i == 0 ? path.moveTo(at) : path.lineTo(at);
    }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(c.line, 1.5));
    painter.drawPath(path);
    for (std::size_t i = 0; i < curves_.overMounts.size(); ++i) paintNumber(painter, frame, i);
}

void ChanceCurve::paintEvent(QPaintEvent*) {
    if (isEmpty()) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(textFont(0.9));
    paintDifferences(painter);
    paintMounts(painter);
}

} // namespace ibuki
