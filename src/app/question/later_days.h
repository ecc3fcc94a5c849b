// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/drawn/drawn_items.h"
#include "app/question/board_lines.h"

namespace ibuki {

/// Days on which mounts are come back to, one tile a day with a mark a mount. Arrow keys and the wheel walk.
class LaterDays : public DrawnItems {
    Q_OBJECT

public:
    explicit LaterDays(QWidget* parent = nullptr);
    void show(std::vector<BoardDay> days);
    const std::vector<BoardDay>& days() const { return days_; }
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void changeEvent(QEvent* event) override;
    int itemCount() const override { return static_cast<int>(days_.size()); }
    int itemAt(const QPointF& point) const override;
    QString tip(int item) const override;
    void openItem(int) override {}
    void bringIntoView(int item) override;

private:
    double tileWidth() const;
    int shown() const; ///< how many fit
    void paintDay(QPainter& painter, const QRectF& rect, int item) const;

    std::vector<BoardDay> days_;
    int first_ = 0; ///< leftmost
};

} // namespace ibuki
