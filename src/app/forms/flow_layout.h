// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLayout>

namespace ibuki {

/// Lays widgets out like words: one behind the other, broken into lines at the width there is.
class FlowLayout : public QLayout {
public:
    /// wordGap > 0: things beside each other, all as high as the tallest; 0: words of a sentence.
    explicit FlowLayout(int lineGap, QWidget* parent = nullptr, int wordGap = 0);
    ~FlowLayout() override;

    void addItem(QLayoutItem* item) override;
    int count() const override;
    QLayoutItem* itemAt(int index) const override;
    QLayoutItem* takeAt(int index) override;
    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override;
    QSize sizeHint() const override { return minimumSize(); }
    QSize minimumSize() const override;
    void setGeometry(const QRect& rect) override;

private:
    int lay(const QRect& rect, bool place) const; ///< returns the height used

    QList<QLayoutItem*> items_;
    int lineGap_;
    int wordGap_;
};

} // namespace ibuki
