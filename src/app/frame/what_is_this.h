// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "store/paper/methods.h"

#include <QObject>
#include <QPoint>
#include <QPointer>
#include <QTimer>
#include <optional>

class QWidget;

namespace ibuki {

/// F1, and a press that is held, on a figure anywhere in the program: what it is. F1 takes the figure under
/// the pointer when that says itself what it is, else what has the focus.
class WhatIsThis : public QObject {
    Q_OBJECT

public:
    explicit WhatIsThis(QObject* parent);

    /// Opens the sheet for the widget, or for the first topic when it stands for none.
    void openFor(QWidget* widget);

signals:
    void asked();

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void hold(QWidget* widget, const QPoint& at);
    static QWidget* meant(QWidget* focused);

    QTimer held_;
    QPointer<QWidget> pressed_;
    QPoint at_;
};

} // namespace ibuki
