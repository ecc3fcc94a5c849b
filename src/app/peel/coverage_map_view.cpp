// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/peel/coverage_map_view.h"

#include "app/drawn/theme.h"
#include "app/say.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

QColor mixed(const QColor& a, const QColor& b, double share) {
    const auto part = [&](int x, int y) { return static_cast<int>(std::lround(x + (y - x) * share)); };
    return {part(a.red(), b.red()), part(a.green(), b.green()), part(a.blue(), b.blue())};
}

} // namespace

QImage thumbnailOf(const GreyPicture& mask, double pxPerMaskPx) {
    const int width = std::max(1, static_cast<int>(std::lround(mask.width * pxPerMaskPx)));
    const int height = std::max(1, static_cast<int>(std::lround(mask.height * pxPerMaskPx)));
    QImage made(width, height, QImage::Format_RGB32);
    const Colours& c = colours();
    for (int row = 0; row < height; ++row)
        for (int column = 0; column < width; ++column) {
            const int x = std::min(mask.width - 1, static_cast<int>((column + 0.5) / pxPerMaskPx));
            const int y = std::min(mask.height - 1, static_cast<int>((row + 0.5) / pxPerMaskPx));
            const std::uint8_t level =
                mask.grey[static_cast<std::size_t>(y) * static_cast<std::size_t>(mask.width)
                          + static_cast<std::size_t>(x)];
            const bool stripe = (row + column) % 6 == 0;
            made.setPixelColor(column, row,
                               level >= maskFromHere ? mixed(c.sheet, c.ink, 0.62)
                               : stripe              ? mixed(c.sheet, c.ink, 0.35)
                                                     : c.sheet);
        }
    return made;
}

CoverageMapView::CoverageMapView(QWidget* parent) : QWidget(parent) {
    setAccessibleName(say("Where the bench's joints are covered"));
    setObjectName("Coverage map");
}

void CoverageMapView::show(const CoverageMap& map, const Extent& face) {
    map_ = map;
    face_ = face;
    image_ = QImage();
    corners_ = cornerShares(CoverageMask{map.columns, map.rows, map.covered});
    update();
}

void CoverageMapView::paintEvent(QPaintEvent*) {
    if (map_.looks == 0) return;
    QPainter painter(this);
    const Colours& c = colours();
    const int line = QFontMetrics(textFont(smallText)).height();
    const QRectF room(6, line + 6, width() - 12.0, height() - 3.0 * line - 12);
    const double zoom = std::min(room.width() / map_.columns, room.height() / map_.rows);
    const QRectF at(room.center().x() - map_.columns * zoom / 2, room.top(), map_.columns * zoom,
                    map_.rows * zoom);
    QImage image(map_.columns, map_.rows, QImage::Format_RGB32);
    const auto share = [&](int column, int row) {
        const auto x = static_cast<std::size_t>(std::clamp(column, 0, map_.columns - 1));
        const auto y = static_cast<std::size_t>(std::clamp(row, 0, map_.rows - 1));
        return static_cast<double>(map_.covered[y * static_cast<std::size_t>(map_.columns) + x]);
    };
    for (int row = 0; row < map_.rows; ++row)
        for (int column = 0; column < map_.columns; ++column) {
            const double here = share(column, row);
            bool edge = false;
            for (const double level : {0.5, 0.9})
                edge = edge || (here >= level) != (share(column + 1, row) >= level)
                       || (here >= level) != (share(column, row + 1) >= level);
            image.setPixelColor(column, row, edge ? c.ink : mixed(c.sheet, c.ink, 0.08 + 0.55 * here));
        }
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    painter.drawImage(at, image);
    painter.setPen(QPen(c.ink, 1.2));
    painter.drawRect(at);
    painter.setFont(textFont(smallText));
    const auto corner = [&](std::size_t i) { return say("%1 %").arg(100 * corners_[i], 0, 'f', 0); };
    const QRectF above(at.left(), at.top() - line - 2, at.width(), line),
        below(at.left(), at.bottom() + 2, at.width(), line);
    painter.drawText(above, Qt::AlignLeft, corner(0));
    painter.drawText(above, Qt::AlignRight, corner(1));
    painter.drawText(below, Qt::AlignRight, corner(2));
    painter.drawText(below, Qt::AlignLeft, corner(3));
    painter.setPen(c.quiet);
    painter.drawText(QRectF(0, at.bottom() + 4 + line, width(), line), Qt::AlignHCenter,
                     say("dark: covered in every look; lines at 50 % and 90 %"));
}

} // namespace ibuki
