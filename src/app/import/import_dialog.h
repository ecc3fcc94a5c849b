// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "store/project/log_import.h"

#include <QDialog>

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;

namespace ibuki {

class ImportTable;
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
    QLayout* makeOrder();
    void arrange();
    void tellProblems(const std::vector<std::string>& problems);
    bool readTable(); ///< false with a notice when a time cannot be read

    Session& session_;
    LogBatch batch_;
    BatchRules rules_;
    std::vector<ImportRow> rows_;
    std::vector<KeepTask> keep_;
    LogReadingPanel* reading_;
    int shown_ = 0; ///< log of the reading panel
    ImportTable* table_;
    QComboBox* sort_ = nullptr;
    QLineEdit* words_ = nullptr;
    QCheckBox* onlyDoubtful_ = nullptr;
    QLabel* summary_ = nullptr;
    QLabel* problems_;
};

} // namespace ibuki
