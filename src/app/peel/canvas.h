// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A picture shown as large as there is room, with places on it told in its own pixels; what the two canvases
// of a look share.

#include "core/look/picture.h"

#include <QImage>
#include <QWidget>

namespace ibuki {

QImage imageOf(const RgbPicture& picture);

class PictureCanvas : public QWidget {
    Q_OBJECT

public:
    explicit PictureCanvas(QWidget* parent = nullptr);

    QSize minimumSizeHint() const override { return {360, 260}; }

protected:
    void setImage(QImage image);
    const QImage& image() const { return image_; }
    QRectF shownAt() const; ///< where the picture stands
    double zoom() const;    ///< widget pixels a picture pixel
    QPointF toWidget(const PlanePoint& pixel) const;
    PlanePoint toPicture(const QPointF& at) const;
    /// How far an arrow key moves, in picture pixels: 1, 10 with Shift; nothing for another key.
    static bool arrow(const class QKeyEvent& event, double& dx, double& dy);

private:
    QImage image_;
};

} // namespace ibuki
