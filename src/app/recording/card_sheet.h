// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/domain/study.h"

#include <QDialog>

class QTextBrowser;

namespace ibuki {

/// The next mount as a card: read, print, or save as PDF, for a bench without a screen.
class CardSheet : public QDialog {
    Q_OBJECT

public:
    CardSheet(Session& session, Id<Slot> slot, QWidget* parent = nullptr);
    bool saveTo(const QString& path); ///< a PDF of one A4 page or more; false with a notice

private:
    void print();
    void save();

    Session& session_;
    QString html_;
    QTextBrowser* text_;
};

} // namespace ibuki
