// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/import/import_order.h"
#include "core/import/import_rows.h"

#include <QTableWidget>

namespace ibuki {

class Session;

/// A row a log, each proposal to be changed: file, steady difference, level, mount, time. The load, and
/// whether it is a later look, follow from these; behind them stands what to look at. Row i is log i,
/// wherever it stands; headings of days come behind them. Several rows are chosen with Shift or Ctrl: Space
/// takes or leaves them all, Ctrl+D fills what the topmost says into the others.
class ImportTable : public QTableWidget {
    Q_OBJECT

public:
    enum Column { take, file, figure, level, second, mount, load, time, doubt, columnCount };

    /// logs and rows belong to who shows the table and outlive it.
    ImportTable(Session& session, const std::vector<ImportedLog>& logs, std::vector<ImportRow>& rows,
                QWidget* parent = nullptr);

    void fill();
    void showRow(int row); ///< anew, from the rows
    void arrange(ImportSort sort, const ImportFilter& filter);
    std::vector<ImportLine> lines() const;
    int currentLog() const; ///< −1: a heading, or nothing
    void fillDown();        ///< refused with a notice while fewer than two rows are chosen
    void chooseLoads();     ///< anew, for all rows: one mount's runs tell each other's loads
    /// Into the rows; why not when a time cannot be read, which is then the current cell.
    std::optional<QString> read();

signals:
    void linesChanged(); ///< what is taken, or a level

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    QWidget* levelChoice(int row);
    QWidget* secondChoice(int row);
    QWidget* mountChoice(int row);
    void readLevels(int row);
    void readMount(int row);
    void levelChanged(int row);
    void mountChanged(int row);
    std::vector<int> chosenLogs() const; ///< as they stand on the screen
    void takeChosen();
    int logCount() const { return static_cast<int>(rows_.size()); }

    Session& session_;
    const std::vector<ImportedLog>& logs_;
    std::vector<ImportRow>& rows_;
};

} // namespace ibuki
