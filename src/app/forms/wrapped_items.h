// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QStyledItemDelegate>

class QListWidget;

namespace ibuki {

/// Makes a list break long lines and gives every item the height that its text needs at the list's width, now
/// and whenever that changes.
void wrapItems(QListWidget& list);

/// How high an item is: its text, broken at the list's width.
class WrappedItems : public QStyledItemDelegate {
    Q_OBJECT

public:
    explicit WrappedItems(QListWidget& list);
    QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override;

protected:
    bool eventFilter(QObject* watched, QEvent* event) override; ///< another width of the list

private:
    QListWidget& list_;
};

} // namespace ibuki
