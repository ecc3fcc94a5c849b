// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/wrapped_items.h"

#include <QEvent>
#include <QListWidget>
#include <QScrollBar>
#include <QStyle>
#include <QTimer>

namespace ibuki {

WrappedItems::WrappedItems(QListWidget& list) : QStyledItemDelegate(&list), list_(list) {
    list.viewport()->installEventFilter(this);
}

QSize WrappedItems::sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const {
    QStyleOptionViewItem full = option;
    initStyleOption(&full, index);
    const int beside = list_.style()->pixelMetric(QStyle::PM_FocusFrameHMargin, nullptr, &list_) + 1;
    const int room = list_.viewport()->width() - 2 * list_.spacing() - 2 * beside;
    const QRect text = full.fontMetrics.boundingRect(QRect(0, 0, std::max(40, room), 1 << 20),
                                                     Qt::AlignLeft | Qt::TextWordWrap, full.text);
    return {std::max(40, room), text.height() + 2};
}

bool WrappedItems::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::Resize)
        QTimer::singleShot(0, &list_, [list = &list_] { list->doItemsLayout(); });
    return QStyledItemDelegate::eventFilter(watched, event);
}

void wrapItems(QListWidget& list) {
    list.setWordWrap(true);
    list.setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list.setResizeMode(QListView::Adjust);
    list.setTextElideMode(Qt::ElideNone);
    list.setStyleSheet("QListWidget::item { padding: 0; }"); // padding is not counted when lines are broken
    list.setItemDelegate(new WrappedItems(list));
}

} // namespace ibuki
