// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Ctrl+C on what has the focus.

#include <QString>
#include <functional>

class QListWidget;
class QTableWidget;
class QWidget;

namespace ibuki {

/// The text goes to the clipboard; nothing when it is empty.
void copyOnKey(QWidget& widget, std::function<QString()> text);
void copyRowOnKey(QTableWidget& table); ///< the row under the hand, cells apart by tabs, each with its head
void copyItemOnKey(QListWidget& list);

} // namespace ibuki
