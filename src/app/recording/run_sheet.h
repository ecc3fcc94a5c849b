// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/recording/run_sources.h"
#include "app/session/live_run.h"

#include <QDialog>

class QCheckBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;

namespace ibuki {

class NumberField;

/// What a run begins with: where its readings come from, whether the hands come first, and which command
/// makes the load. A command is shown whole and starts only when that was agreed to here, for this study and
/// this session of the program: nothing that a project file holds can start one.
class RunSheet : public QDialog {
    Q_OBJECT

public:
    RunSheet(Session& session, LiveRun& run, RunFor whom, QWidget* parent = nullptr);

    void accept() override;

private:
    struct LoadRow {
        Id<Load> load;
        QLineEdit* command = nullptr;
        QLabel* shown = nullptr;
        QCheckBox* agreed = nullptr;
    };

    QWidget* makeSources();
    QWidget* makeHow();
    void addLoadRows(QLayout* layout);
    void conduct(RunPlan& plan, Id<Study> of);
    void conductCheckUp(RunPlan& plan);
    void openSources(RunPlan plan, const SourceOptions& options);
    void keepCommand(const LoadRow& row);
    void showCommand(const LoadRow& row);
    void addSource(const std::string& spec);
    void removeSource();
    void listSources();
    void lookAtSources();
    void leaveOutSilent(const std::vector<SourceReading>& readings);
    void loadEarlier();
    std::optional<Id<Study>> study() const;
    std::vector<std::string> specs() const; ///< those that are ticked, in order

    Session& session_;
    LiveRun& run_;
    RunFor whom_;
    QListWidget* sources_ = nullptr;
    QLabel* reads_ = nullptr;
    QCheckBox* manualWork_ = nullptr;
    QCheckBox* protocol_ = nullptr;
    NumberField* every_ = nullptr;
    NumberField* speed_ = nullptr;
    QPushButton* begin_ = nullptr;
    std::vector<LoadRow> loads_;
    EarlierRises earlier_;
};

} // namespace ibuki
