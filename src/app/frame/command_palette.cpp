// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/command_palette.h"

#include "app/say.h"

#include <QAction>
#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QVBoxLayout>

namespace ibuki {

CommandPalette::CommandPalette(const QList<QAction*>& actions, QWidget* parent)
    : QDialog(parent), actions_(actions), words_(new QLineEdit), list_(new QListWidget) {
    setWindowTitle(say("Find or do"));
    resize(520, 380);
    auto* layout = new QVBoxLayout(this);
    words_->setPlaceholderText(say("what do you want to do"));
    words_->setAccessibleName(say("What do you want to do"));
    list_->setAccessibleName(say("Actions"));
    layout->addWidget(words_);
    layout->addWidget(list_, 1);
    words_->installEventFilter(this);
    connect(words_, &QLineEdit::textChanged, this, &CommandPalette::narrow);
    connect(words_, &QLineEdit::returnPressed, this, &CommandPalette::doCurrent);
    connect(list_, &QListWidget::itemActivated, this, &CommandPalette::doCurrent);
    narrow({});
}

void CommandPalette::narrow(const QString& words) {
    list_->clear();
    for (qsizetype i = 0; i < actions_.size(); ++i) {
        const QAction* action = actions_[i];
        const QString text = action->text().remove('&');
        if (!action->isEnabled() || text.isEmpty()) continue;
        bool fits = true;
        for (const QString& word : words.split(' ', Qt::SkipEmptyParts))
            fits = fits && text.contains(word, Qt::CaseInsensitive);
        if (!fits) continue;
        const QString key = action->shortcut().toString(QKeySequence::NativeText);
        auto* item = new QListWidgetItem(key.isEmpty() ? text : text + "    " + key, list_);
        item->setData(Qt::UserRole, static_cast<int>(i));
    }
    list_->setCurrentRow(0);
}

void CommandPalette::doCurrent() {
    const QListWidgetItem* item = list_->currentItem();
    if (!item) return;
    QAction* action = actions_[item->data(Qt::UserRole).toInt()];
    accept();
    action->trigger();
}

bool CommandPalette::eventFilter(QObject* watched, QEvent* event) {
    if (watched == words_ && event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Down || key == Qt::Key_Up) {
            const int row = list_->currentRow() + (key == Qt::Key_Down ? 1 : -1);
            list_->setCurrentRow(std::clamp(row, 0, std::max(0, list_->count() - 1)));
            return true;
        }
    }
    return QDialog::eventFilter(watched, event);
}

} // namespace ibuki
