// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/physics/spread.h"

#include <QPainterPath>
#include <QWidget>

namespace ibuki {

/// A face with a pattern of paste on it, to scale: the pattern as it is drawn, how far it comes under the
/// plate, the bare part hatched, what goes over the edge marked.
class FaceDrawing : public QWidget {
    Q_OBJECT

public:
    explicit FaceDrawing(QWidget* parent = nullptr);

    struct Shown {
        SpreadInput input;
        Spread spread;
        double beadMm = 0; ///< width of the drawn dot or line
    };
    void show(std::optional<Shown> shown, const QString& emptyText);

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    void paintFace(QPainter& painter, double scale) const;
    /// The strokes grown by `radius` all round, in millimetres from the middle of the face.
    QPainterPath grown(double radiusMm) const;

    std::optional<Shown> shown_;
    QString emptyText_;
};

} // namespace ibuki
