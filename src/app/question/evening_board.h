// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/drawn/drawn_items.h"
#include "app/question/board_layout.h"

class QScrollBar;

namespace ibuki {

/// The plan drawn: a lane a level, evenings across, each mount a bar to scale of its steps. Items are the
/// mounts, made and planned: arrow keys walk along them; Alt with an arrow key or a drag moves a planned one.
/// + and − and Ctrl with the wheel change the scale.
class EveningBoard : public DrawnItems {
    Q_OBJECT

public:
    explicit EveningBoard(QWidget* parent = nullptr);

    void show(BoardLines lines);
    const BoardLines& lines() const { return lines_; }

    /// The chosen mount among the planned ones; nothing when a made one is chosen or there is none.
    std::optional<std::size_t> chosenBar() const;
    std::optional<Id<Slot>> chosenSlot() const; ///< of any mount that has one
    QRect chosenRect() const;                   ///< empty when nothing is on the board
    void chooseBar(std::size_t bar);
    void chooseSlot(Id<Slot> slot); ///< stays where it is when the slot is not on the board
    QSize sizeHint() const override;
    QScrollBar* scrollBar() { return scroll_; } ///< along the evenings; who shows the board places it

signals:
    void moveMeant(std::size_t from, std::size_t to); ///< places among the planned mounts
    void movePreviewed(std::size_t from, std::size_t to);
    void previewEnded();

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void changeEvent(QEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    int itemCount() const override { return static_cast<int>(lines_.past.size() + lines_.bars.size()); }
    int itemAt(const QPointF& point) const override;
    QString tip(int item) const override;
    void openItem(int) override {}
    void bringIntoView(int item) override;

private:
    struct Drag {
        std::size_t from = 0;
        std::size_t to = 0;
        double pressedX = 0;
        bool moving = false;
    };
    std::optional<std::size_t> barOf(int item) const;
    QRectF placeOf(int item) const; ///< as it is scrolled
    void lay();
    void changeScale(double times);
    void moveBar(std::size_t bar, std::ptrdiff_t by);
    void paintEvenings(QPainter& painter) const;
    void paintPast(QPainter& painter) const;
    void paintBar(QPainter& painter, std::size_t bar) const;
    void paintLanes(QPainter& painter) const;
    void paintFocus(QPainter& painter, int item) const;

    BoardLines lines_;
    BoardSizes sizes_;
    BoardLayout layout_;
    QScrollBar* scroll_;
    double zoom_ = 1;
    std::optional<Drag> drag_;
};

/// What the three looks of a step mean.
class BoardLegend : public QWidget {
    Q_OBJECT

public:
    explicit BoardLegend(QWidget* parent = nullptr);
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent* event) override;
};

} // namespace ibuki
