// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

class QAction;

namespace ibuki {

/// What the window shows without a project: New, Open, Demo.
class StartPage : public QWidget {
    Q_OBJECT

public:
    StartPage(QAction* create, QAction* open, QAction* demo, QWidget* parent = nullptr);
};

} // namespace ibuki
