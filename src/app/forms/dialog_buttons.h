// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The row at the foot of every dialog.

#include <QString>

class QDialog;
class QPushButton;
class QWidget;

namespace ibuki {

/// Accept, named for what it does and found as "accept", and Leave.
QWidget* dialogButtons(QDialog* dialog, const QString& acceptText);

/// For sheets whose every change is done at once.
QPushButton* closeButton(QDialog* dialog);

} // namespace ibuki
