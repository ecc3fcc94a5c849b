// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/drawn/drawn_items.h"
#include "app/shelf/shelf_items.h"

namespace ibuki {

/// The drawn shelf: tubes, syringes and sheets on boards, each filled as far as something is left. Arrow keys
/// walk in both directions, Enter or a click chooses; Space or Control and a click sets a second one beside
/// it.
class ShelfBoard : public DrawnItems {
    Q_OBJECT

public:
    explicit ShelfBoard(QWidget* parent = nullptr);

    /// The items in the order shown.
    void show(std::vector<ShelfItem> items);
    void mark(std::optional<std::size_t> chosen, std::optional<std::size_t> beside);
    const std::vector<ShelfItem>& items() const { return items_; }

signals:
    void chosen(int item);
    void setBeside(int item);
    void wantsVisible(const QRect& area);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    int itemCount() const override { return static_cast<int>(items_.size()); }
    int itemAt(const QPointF& point) const override;
    QString tip(int item) const override;
    void openItem(int item) override;
    std::optional<int> stepped(const QKeyEvent& event) const override;
    void bringIntoView(int item) override;

private:
    ShelfLayout layout() const;
    void paintItem(QPainter& painter, const QRectF& rect, int index) const;

    std::vector<ShelfItem> items_;
    std::optional<std::size_t> chosen_;
    std::optional<std::size_t> beside_;
};

} // namespace ibuki
