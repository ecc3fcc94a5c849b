// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/log_batch.h"
#include "app/shell/session.h"

#include <QDialog>

class QTableWidget;
class QLabel;

namespace ibuki {

/// One table for all logs brought in together: file, steady difference, level, mount, time; each proposal can
/// be changed. Accepting is one action.
class ImportDialog : public QDialog {
    Q_OBJECT

public:
    ImportDialog(Session& session, LogBatch batch, QWidget* parent = nullptr);

    void accept() override;
    const std::vector<ImportRow>& rows() const { return rows_; }

private:
    void fill();
    void addRow(int row);
    QWidget* levelChoice(int row);
    QWidget* mountChoice(int row);
    bool readTable(); ///< false with a notice when a time cannot be read

    Session& session_;
    LogBatch batch_;
    std::vector<ImportRow> rows_;
    QTableWidget* table_;
    QLabel* problems_;
};

} // namespace ibuki
