// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

namespace ibuki {

/// A widget that draws things a user can hover, walk along with the arrow keys and open with Enter or a
/// click: strip, tape, ladder, shelf. A subclass says which things there are, where they lie, what they tell
/// and what opening one does; it paints hovered() and focused() its own way.
class DrawnItems : public QWidget {
    Q_OBJECT

public:
    explicit DrawnItems(QWidget* parent = nullptr);

    int hovered() const { return hovered_; } ///< −1: none
    int focused() const { return focused_; }

signals:
    void focusedChanged(int item);

protected:
    virtual int itemCount() const = 0;
    virtual int itemAt(const QPointF& point) const = 0; ///< −1: none
    virtual QString tip(int item) const = 0;
    virtual void openItem(int item) = 0;
    /// The item after the key; nothing when the key does not walk. Left and right along all items by default.
    virtual std::optional<int> stepped(const QKeyEvent& event) const;
    virtual void bringIntoView(int item);

    void setFocused(int item); ///< kept within the items; reads the item out to assistive tools
    bool showsFocus(int item) const { return hasFocus() && item == focused_; }

    bool event(QEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    int hovered_ = -1;
    int focused_ = 0;
};

} // namespace ibuki
