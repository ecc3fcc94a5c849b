// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/copying.h"

#include <QApplication>
#include <QClipboard>
#include <QKeyEvent>
#include <QListWidget>
#include <QTableWidget>

namespace ibuki {
namespace {

class CopyOnKey : public QObject {
public:
    CopyOnKey(QWidget& widget, std::function<QString()> text) : QObject(&widget), text_(std::move(text)) {
        widget.installEventFilter(this);
    }

protected:
    bool eventFilter(QObject* watched, QEvent* event) override {
        if (event->type() != QEvent::KeyPress || !static_cast<QKeyEvent*>(event)->matches(QKeySequence::Copy))
            return QObject::eventFilter(watched, event);
        if (const QString text = text_(); !text.isEmpty()) QApplication::clipboard()->setText(text);
        return true;
    }

private:
    std::function<QString()> text_;
};

} // namespace

void copyOnKey(QWidget& widget, std::function<QString()> text) { new CopyOnKey(widget, std::move(text)); }

void copyRowOnKey(QTableWidget& table) {
    copyOnKey(table, [&table] {
        QStringList cells;
        for (int column = 0; column < table.columnCount(); ++column) {
            const QTableWidgetItem* item = table.item(table.currentRow(), column);
            const QTableWidgetItem* head = table.horizontalHeaderItem(column);
            if (item) cells << (head ? head->text() + ": " + item->text() : item->text());
        }
        return cells.join("\t");
    });
}

void copyItemOnKey(QListWidget& list) {
    copyOnKey(list, [&list] { return list.currentItem() ? list.currentItem()->text() : QString(); });
}

} // namespace ibuki
