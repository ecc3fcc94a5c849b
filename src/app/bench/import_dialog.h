// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/log_batch.h"
#include "app/session/session.h"
#include "store/project/channel_keeper.h"

#include <QDialog>

class QTableWidget;
class QLabel;

namespace ibuki {

class LogReadingPanel;

/// One table for all logs brought in together: file, steady difference, level, mount, time; each proposal can
/// be changed. Below it how the chosen log was read, to be put right. Accepting is one action.
class ImportDialog : public QDialog {
    Q_OBJECT

public:
    ImportDialog(Session& session, LogBatch batch, BatchRules rules, QWidget* parent = nullptr);

    void accept() override;
    const std::vector<ImportRow>& rows() const { return rows_; }
    /// After accepting: the logs whose other channels are still to be kept.
    const std::vector<KeepTask>& toKeep() const { return keep_; }

private:
    void showReading();
    void readAgain(const LogOptions& options);
    void takeReading(int row, ReadLog read, std::optional<std::size_t> probe);
    void settleProbes(); ///< and brings in
    void bringIn();
    std::optional<std::size_t> probeFor(std::size_t log) const;
    void fill();
    void addRow(int row);
    QWidget* levelChoice(int row);
    QWidget* secondChoice(int row);
    void readLevels(int row);
    QWidget* mountChoice(int row);
    void addRemembered(ChangeSet& set) const;
    bool readTable(); ///< false with a notice when a time cannot be read

    Session& session_;
    LogBatch batch_;
    std::vector<std::optional<std::size_t>> reducedBeside_; ///< log → probe that its reduction has
    BatchRules rules_;
    std::vector<ImportRow> rows_;
    std::vector<KeepTask> keep_;
    LogReadingPanel* reading_;
    QTableWidget* table_;
    QLabel* problems_;
};

} // namespace ibuki
