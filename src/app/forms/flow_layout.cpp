// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/flow_layout.h"

#include <QWidget>

namespace ibuki {

FlowLayout::FlowLayout(int lineGap, QWidget* parent, int wordGap)
    : QLayout(parent), lineGap_(lineGap), wordGap_(wordGap) {
    setContentsMargins(0, 0, 0, 0);
    QSizePolicy policy = parent ? parent->sizePolicy() : QSizePolicy();
    policy.setHeightForWidth(true);
    if (parent) parent->setSizePolicy(policy);
}

FlowLayout::~FlowLayout() { qDeleteAll(items_); }

void FlowLayout::addItem(QLayoutItem* item) { items_ << item; }
int FlowLayout::count() const { return static_cast<int>(items_.size()); }
QLayoutItem* FlowLayout::itemAt(int index) const { return items_.value(index); }

QLayoutItem* FlowLayout::takeAt(int index) {
    return index >= 0 && index < items_.size() ? items_.takeAt(index) : nullptr;
}

int FlowLayout::heightForWidth(int width) const { return lay({0, 0, width, 0}, false); }

QSize FlowLayout::minimumSize() const {
    QSize size;
    for (const QLayoutItem* item : items_) size = size.expandedTo(item->minimumSize());
    return size;
}

void FlowLayout::setGeometry(const QRect& rect) {
    QLayout::setGeometry(rect);
    lay(rect, true);
}

int FlowLayout::lay(const QRect& rect, bool place) const {
    int x = rect.x();
    int y = rect.y();
    int lineHeight = 0;
    int tallest = 0;
    for (const QLayoutItem* item : items_)
        if (!item->isEmpty()) tallest = std::max(tallest, item->sizeHint().height());
    for (QLayoutItem* item : items_) {
        if (item->isEmpty()) continue; // hidden
        const QSize size(item->sizeHint().width(), wordGap_ > 0 ? tallest : item->sizeHint().height());
        if (x > rect.x() && x + size.width() > rect.right() + 1) {
            x = rect.x();
            y += lineHeight + lineGap_;
            lineHeight = 0;
        }
        if (place) item->setGeometry({QPoint(x, y), size});
        x += size.width() + wordGap_;
        lineHeight = std::max(lineHeight, size.height());
    }
    return y + lineHeight - rect.y();
}

} // namespace ibuki
