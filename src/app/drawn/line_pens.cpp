// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawn/line_pens.h"

#include "app/drawn/theme.h"

#include <algorithm>
#include <array>
#include <qcustomplot.h>

namespace ibuki {

QPen linePen(std::size_t place) {
    const Colours& c = colours();
    const std::array colour{c.hot, c.cold, c.ink};
    constexpr std::array dash{Qt::SolidLine, Qt::DashLine, Qt::DotLine};
    return {QBrush(colour[place % colour.size()]), 2, dash[place / colour.size() % dash.size()]};
}

namespace {

/// From the top down, each below those that it would cover.
void spreadNames(const QCustomPlot& plot) {
    struct Placed {
        QCPItemText* name;
        QRectF area; ///< px
    };
    const QFontMetricsF metrics(textFont(0.95, QFont::Medium));
    std::vector<Placed> names;
    for (int i = 0; i < plot.itemCount(); ++i)
        if (auto* text = qobject_cast<QCPItemText*>(plot.item(i));
            text && text->property("line ends at y").isValid()) {
            const double x = plot.xAxis->coordToPixel(text->position->coords().x());
            const double y = plot.yAxis->coordToPixel(text->property("line ends at y").toDouble());
            names.push_back(
                {text,
                 {x, y - metrics.height() / 2, metrics.horizontalAdvance(text->text()), metrics.height()}});
        }
    std::sort(names.begin(), names.end(),
              [](const Placed& a, const Placed& b) { return a.area.top() < b.area.top(); });
    for (std::size_t i = 0; i < names.size(); ++i) {
        for (std::size_t k = 0; k < i; ++k)
            if (names[i].area.intersects(names[k].area)) names[i].area.moveTop(names[k].area.bottom());
        names[i].name->position->setCoords(names[i].name->position->coords().x(),
                                           plot.yAxis->pixelToCoord(names[i].area.center().y()));
    }
}

} // namespace

void nameLine(QCustomPlot& plot, const QString& name, const QColor& colour, double x, double y) {
    auto* text = new QCPItemText(&plot);
    text->setText(QStringLiteral("  ") + name);
    text->setFont(textFont(0.95, QFont::Medium));
    text->setColor(colour);
    text->setPositionAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    text->position->setCoords(x, y);
    text->setProperty("line ends at y", y);
}

void leaveRoomForNames(QCustomPlot& plot) {
    constexpr double share = 0.25;
    const QCPRange range = plot.xAxis->range();
    plot.xAxis->setRange(range.lower - 0.02 * range.size(), range.upper + share * range.size());
}

void keepNamesApart(QCustomPlot& plot) {
    QObject::connect(&plot, &QCustomPlot::afterLayout, &plot, [&plot] { spreadNames(plot); });
}

} // namespace ibuki
