// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawn/picture.h"

#include "app/drawn/theme.h"

#include <QBuffer>
#include <QPixmap>
#include <QSvgGenerator>
#include <qcustomplot.h>

namespace ibuki {
namespace {

/// A plot that fills the widget, or is all of it.
QCustomPlot* plotIn(QWidget& drawn) { return qobject_cast<QCustomPlot*>(&drawn); }

void paint(QWidget& drawn, QPaintDevice& device) {
    if (QCustomPlot* plot = plotIn(drawn)) {
        QCPPainter painter(&device);
        painter.setMode(QCPPainter::pmVectorized);
        painter.setMode(QCPPainter::pmNoCaching);
        plot->toPainter(&painter, plot->width(), plot->height());
        return;
    }
    QPainter painter(&device);
    painter.fillRect(drawn.rect(), colours().sheet);
    drawn.render(&painter, {}, {}, QWidget::DrawChildren);
}

} // namespace

QByteArray svgOf(QWidget& drawn) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    QSvgGenerator generator;
    generator.setOutputDevice(&buffer);
    generator.setSize(drawn.size());
    generator.setViewBox(drawn.rect());
    generator.setTitle(drawn.accessibleName());
    paint(drawn, generator);
    return bytes;
}

QByteArray pngOf(QWidget& drawn) {
    constexpr int times = 2;
    QImage image(drawn.size() * times, QImage::Format_ARGB32_Premultiplied);
    image.setDevicePixelRatio(times);
    image.fill(colours().sheet);
    paint(drawn, image);
    QByteArray bytes;
    QBuffer buffer(&bytes);
    image.save(&buffer, "PNG");
    return bytes;
}

} // namespace ibuki
