// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QDialog>

class QAction;
class QLineEdit;
class QListWidget;

namespace ibuki {

/// Every action of the window with its key; typing narrows the list, Enter does it.
class CommandPalette : public QDialog {
    Q_OBJECT

public:
    explicit CommandPalette(const QList<QAction*>& actions, QWidget* parent = nullptr);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void narrow(const QString& words);
    void doCurrent();

    QList<QAction*> actions_;
    QLineEdit* words_;
    QListWidget* list_;
};

} // namespace ibuki
