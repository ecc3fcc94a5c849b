// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/domain/run_reduction.h"
#include "store/log/log_batch.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QStackedWidget;
class QTableWidget;

namespace ibuki {

class TracePlot;

/// How one log was read, and what came of it: settings that can each be changed, columns with their roles,
/// the trace, the first rows as they stand in the file, troubles by line.
class LogReadingPanel : public QWidget {
    Q_OBJECT

public:
    explicit LogReadingPanel(QWidget* parent = nullptr);

    /// alignedRoom: the room probe laid beside the log; may be nullptr.
    void show(const ImportedLog& log, const LogSource& source, const Trace* withAmbient, Metric metric);

signals:
    /// The user stated something of how it is to be read.
    void readingWanted(const ibuki::LogOptions& options);

private:
    QWidget* makeSettings();
    QComboBox* addChoice(class QFormLayout* form, const QString& label, const QStringList& choices);
    void fillSettings();
    QComboBox* roleBox(int row);
    void fillColumns();
    void fillRows();
    void fillProblems();
    void stateSettings();
    void stateRole(int row, int choice);

    const LogSource* source_ = nullptr;
    const ImportedLog* log_ = nullptr;
    QComboBox* separator_ = nullptr;
    QComboBox* decimal_ = nullptr;
    QLineEdit* headerLine_ = nullptr;
    QComboBox* time_ = nullptr;
    QComboBox* timeUnit_ = nullptr;
    QComboBox* order_ = nullptr;
    QTableWidget* columns_;
    QStackedWidget* pages_;
    TracePlot* plot_;
    QTableWidget* rows_;
    QListWidget* problems_;
    QLabel* summary_;
};

} // namespace ibuki
