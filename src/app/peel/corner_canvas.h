// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/peel/canvas.h"

#include <QTimer>
#include <optional>

namespace ibuki {

/// The photograph with the face's corners: dragged, or chosen with 1 to 4 and moved with the arrow keys; a
/// magnifier shows the corner that is moved.
class CornerCanvas : public PictureCanvas {
    Q_OBJECT

public:
    explicit CornerCanvas(QWidget* parent = nullptr);

    void show(const RgbPicture& photograph, const std::optional<FaceCorners>& corners);
    void clear();
    const std::optional<FaceCorners>& corners() const { return corners_; }

signals:
    void cornersMoved(const ibuki::FaceCorners& corners); ///< once a move has ended

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void move(std::size_t corner, const PlanePoint& to);
    void tell();
    void paintMagnifier(QPainter& painter) const;
    void place(); ///< corners in the middle, where none were found

    std::optional<FaceCorners> corners_;
    std::size_t chosen_ = 0;
    bool dragged_ = false;
    QTimer rest_; ///< arrow keys: told when they rest
};

} // namespace ibuki
