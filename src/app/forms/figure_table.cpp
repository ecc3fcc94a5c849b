// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/figure_table.h"

#include "app/forms/copying.h"
#include "app/forms/widgets.h"

#include <QHeaderView>
#include <QSignalBlocker>
#include <QTableWidget>

namespace ibuki {

QTableWidget* figureTable(const QString& name, const QStringList& head) {
    auto* table = new QTableWidget;
    table->setAccessibleName(name);
    table->setObjectName(name);
    table->setColumnCount(static_cast<int>(head.size()));
    table->setHorizontalHeaderLabels(head);
    table->setEditTriggers(QTableWidget::NoEditTriggers);
    table->setSelectionBehavior(QTableWidget::SelectRows);
    table->setSelectionMode(QTableWidget::SingleSelection);
    table->setTabKeyNavigation(false);
    table->verticalHeader()->hide();
    table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table->horizontalHeader()->setStretchLastSection(true);
    copyRowOnKey(*table);
    return table;
}

void fillTable(QTableWidget& table, const std::vector<QStringList>& rows) {
    const QSignalBlocker quiet(&table);
    const int row = table.currentRow();
    table.setRowCount(static_cast<int>(rows.size()));
    for (int r = 0; r < table.rowCount(); ++r)
        for (int c = 0; c < table.columnCount(); ++c)
            table.setItem(r, c, fixedItem(rows[static_cast<std::size_t>(r)].value(c)));
    table.setCurrentCell(std::min(row, table.rowCount() - 1), 0);
}

} // namespace ibuki
