// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/gap_drawing.h"

#include "app/drawn/theme.h"
#include "app/forms/widgets.h"
#include "app/say.h"

#include <QPainter>
#include <algorithm>

namespace ibuki {

GapDrawing::GapDrawing(QWidget* parent) : QWidget(parent) {
    setMinimumHeight(170);
    setAccessibleName(say("Pads from the side"));
}

void GapDrawing::show(const GapReport& report) {
    report_ = report;
    update();
}

void GapDrawing::paintEvent(QPaintEvent*) {
    if (report_.lines.empty()) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Colours& c = colours();
    const double text = 1.3 * fontMetrics().height();
    double tallest = 0;
    for (const GapLine& line : report_.lines)
        tallest = std::max({tallest, line.pad.gapMm, line.pad.thicknessMm});
    // Room below for the chip and its name, above for the plate and for a pad that stands over it.
    const double body = 22;
    const double floor = height() - text - body;
    const double perMm = (floor - body - text) / (1.1 * tallest);
    const double column =
        std::min(340.0, static_cast<double>(width()) / static_cast<double>(report_.lines.size()));
    for (std::size_t i = 0; i < report_.lines.size(); ++i) {
        const GapLine& line = report_.lines[i];
        const double left = static_cast<double>(i) * column + 20;
        const double wide = std::min(200.0, column - 60);
        const double plate = floor - line.pad.gapMm * perMm;
        const double pressed = std::min(line.pad.gapMm, line.pad.thicknessMm);
        painter.setPen(QPen(c.ink, 1.2));
        painter.setBrush(c.body);
        painter.drawRect(QRectF(left, floor, wide, body));                  // the chip
        painter.drawRect(QRectF(left - 10, plate - body, wide + 20, body)); // the plate
        painter.setBrush(c.coldWash);
        painter.drawRect(QRectF(left, floor - pressed * perMm, wide, pressed * perMm));
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(line.state.fit == PadFit::good || line.state.fit == PadFit::fair ? c.ink : c.hot,
                            1.4, Qt::DashLine));
        painter.drawRect(
            QRectF(left + 4, floor - line.pad.thicknessMm * perMm, wide - 8, line.pad.thicknessMm * perMm));
        painter.setPen(c.quiet);
        painter.drawText(
            QRectF(left - 10, floor + body, column - 4, text), Qt::AlignLeft | Qt::AlignVCenter,
            say("%1: dashed as bought, %2 mm").arg(qtext(line.pad.site)).arg(line.pad.thicknessMm));
    }
}

} // namespace ibuki
