// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Small pieces that every view is built from.

#include "app/session/qtext.h"

#include <QFrame>
#include <QLabel>
#include <QPushButton>
#include <QString>
#include <string_view>

class QDialog;
class QFormLayout;
class QLayout;
class QScrollArea;
class QStackedWidget;
class QTableWidgetItem;

namespace ibuki {

QFrame* card(QLayout* inside);
QLabel* cardTitle(const QString& text);
QLabel* quietLabel(const QString& text = {}); ///< wraps
/// A labelled row; the field takes the label as its accessible and object name.
void addFormRow(QFormLayout* form, const QString& label, QWidget* field);

/// Opens a dialog that goes away by itself when it is closed.
void openDialog(QDialog* dialog);

QScrollArea* scrolled(QLayout* inside);
QScrollArea* scrolledWidget(QWidget* widget);

QTableWidgetItem* fixedItem(const QString& text); ///< can be chosen, not changed

/// A row of buttons, one a page, of which one is down. Returns the row.
QWidget* pageSwitch(QStackedWidget* pages, const QStringList& names);

/// A button with an accessible name and, when given, its key in the tool tip.
QPushButton* button(const QString& text, const QString& toolTip = {}, bool main = false);

} // namespace ibuki
