// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFrame>

namespace ibuki {

/// One line that says how something is done, for whoever has not done it yet: it goes away for good once it
/// was done, or when it is put away.
class Tip : public QFrame {
    Q_OBJECT

public:
    /// id: stable, under which the settings remember it.
    Tip(const QString& id, const QString& text, QWidget* parent = nullptr);
    void done();

    static void showAllAgain(); ///< as on the first day; those of open views come back with them
    static void hideAll();

private:
    bool isDone() const;

    QString id_;
};

} // namespace ibuki
