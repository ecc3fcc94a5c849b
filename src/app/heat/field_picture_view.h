// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/physics/field_values.h"

#include <QImage>
#include <QWidget>
#include <optional>

namespace ibuki {

/// A face of the conduction field to scale: the hotter, the darker, lines of one temperature with their
/// figures, the hottest place marked.
class FieldPictureView : public QWidget {
    Q_OBJECT

public:
    explicit FieldPictureView(QWidget* parent = nullptr);

    void show(const FieldFace& face);
    void clear();
    QSize minimumSizeHint() const override { return {320, 260}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    void paintScale(QPainter& painter, const QRectF& bar) const;

    std::optional<FieldFace> face_;
    QImage image_;
    std::vector<Contour> contours_;
    double lowestC_ = 0, highestC_ = 0;
};

} // namespace ibuki
