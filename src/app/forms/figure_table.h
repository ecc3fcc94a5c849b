// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A table of figures that is read, chosen from and copied, never typed into.

#include <QString>
#include <QStringList>
#include <vector>

class QTableWidget;

namespace ibuki {

QTableWidget* figureTable(const QString& name, const QStringList& head);

/// Rows of as many cells as the head has; the current row stays.
void fillTable(QTableWidget& table, const std::vector<QStringList>& rows);

} // namespace ibuki
