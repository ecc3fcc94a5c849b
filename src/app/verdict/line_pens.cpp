// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/line_pens.h"

#include "app/drawn/theme.h"

#include <array>
#include <qcustomplot.h>

namespace ibuki {

QPen linePen(std::size_t place) {
    const Colours& c = colours();
    const std::array colour{c.hot, c.cold, c.ink};
    constexpr std::array dash{Qt::SolidLine, Qt::DashLine, Qt::DotLine};
    return {QBrush(colour[place % colour.size()]), 2, dash[place / colour.size() % dash.size()]};
}

void nameLine(QCustomPlot& plot, const QString& name, const QColor& colour, double x, double y) {
    auto* text = new QCPItemText(&plot);
    text->setText(QStringLiteral("  ") + name);
    text->setFont(textFont(0.95, QFont::Medium));
    text->setColor(colour);
    text->setPositionAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    text->position->setCoords(x, y);
}

} // namespace ibuki
