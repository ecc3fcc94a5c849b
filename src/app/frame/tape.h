// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/drawn/drawn_items.h"
#include "app/frame/tape_layout.h"
#include "app/session/selection.h"
#include "core/domain/plan.h"

class QScrollBar;

namespace ibuki {

class Session;

/// The bench's record along the bottom of the window. Arrow keys walk, Enter or a click selects a tile
/// everywhere; the wheel moves along.
class Tape : public DrawnItems {
    Q_OBJECT

public:
    explicit Tape(Session& session, QWidget* parent = nullptr);

    void refresh();
    const std::vector<TapeTile>& tiles() const;
    QSize sizeHint() const override;
    void openNext(); ///< what to do next, if anything is planned
    void showEnd();  ///< scrolls to what to do next

signals:
    void mountOpened(Id<Mount> mount);
    void peelOpened(Id<Mount> mount); ///< its last part: what the joint looked like
    void slotOpened(Id<Slot> slot);
    void followUpOpened(Id<FollowUp> followUp);
    void draftOpened(); ///< a tile of a plan that is not on the tape yet

protected:
    void paintEvent(QPaintEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override; ///< Space opens what to do next, P a look at the joint
    void mousePressEvent(QMouseEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void changeEvent(QEvent* event) override;
    int itemCount() const override { return static_cast<int>(tiles_.size()); }
    int itemAt(const QPointF& point) const override;
    QString tip(int item) const override;
    void openItem(int item) override;
    void bringIntoView(int item) override;

private:
    /// The tile as it is scrolled.
    QRectF placeOf(int item) const;
    double dayHeight() const;
    void paintPeel(QPainter& painter, const QRectF& rect, const TapeTile& tile) const;
    void paintFrame(QPainter& painter, const QRectF& rect, int index, bool planned) const;
    void paintTile(QPainter& painter, const QRectF& rect, int index) const;
    bool isSelected(const TapeTile& tile) const;
    const TapeTile& tileAt(int index) const; ///< described
    void lay();                              ///< layout_ and the scroll bar, for these tiles in this size

    Session& session_;
    mutable std::vector<TapeTile> tiles_; ///< mounts are described when they are first seen
    QScrollBar* scroll_;
    TapeLayout layout_; ///< as if not scrolled
    Selection shown_;   ///< when the tape was last refreshed
};

} // namespace ibuki
