// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/setup/next_step.h"
#include "store/log/log_batch.h"
#include "store/project/channel_keeper.h"

#include <QWidget>

class QLabel;
class QPushButton;
class QTableWidget;

namespace ibuki {

class NextStepBar;
class PlannedPanel;
class RunBar;
class TracePlot;
struct MetricLine;

/// The selected mount: its steady difference readable from afar, the trace, the reduced figures and flags.
/// Logs are brought in here, by dialog or by dropping them anywhere on the window.
class BenchView : public QWidget {
    Q_OBJECT

public:
    explicit BenchView(Session& session, QWidget* parent = nullptr);
    void refresh();
    static QString logFilter(); ///< of a file dialog
    void chooseLogs();
    void bringIn(const QStringList& files);

signals:
    void benchSheetWanted();
    void recordWanted(Id<Mount> mount);
    void slotRecordWanted(Id<Slot> slot);
    void followUpRecordWanted(Id<FollowUp> later);
    void stepTaken(StudyNeeds needs); ///< of what a study without a mount chosen waits for

private:
    QWidget* makeHead();
    QLayout* makeNumber();
    QLayout* makeButtons();
    QWidget* makeFigures();
    const Run* shownRun() const;
    void showRun(const Mount& mount, const Run& run, const Reduction& reduction);
    void showEmpty();
    void showTrace(const Run& run);
    void drawTrace();
    void fillMetrics(const std::vector<MetricLine>& lines);
    void keepChannels(std::vector<KeepTask> tasks);
    bool makeStudyOf(const LogBatch& batch);
    void logsRead(LogBatch batch, const BatchRules& rules);

    Session& session_;
    QLabel* big_ = nullptr;
    QLabel* unit_ = nullptr;
    QLabel* title_ = nullptr;
    QLabel* line_ = nullptr;
    QLabel* flags_ = nullptr;
    QWidget* figures_ = nullptr;
    QTableWidget* metrics_ = nullptr;
    TracePlot* plot_ = nullptr;
    QLabel* noCurve_ = nullptr; ///< in the place of the plot
    QLabel* empty_ = nullptr;
    NextStepBar* nextStep_ = nullptr;
    QWidget* plannedCard_ = nullptr;
    PlannedPanel* planned_ = nullptr;
    QPushButton* reject_ = nullptr;
    QPushButton* room_ = nullptr;
    QPushButton* time_ = nullptr;
    QPushButton* application_ = nullptr;
    QPushButton* cautions_ = nullptr;
    QPushButton* record_ = nullptr;
    QPushButton* readings_ = nullptr;
    RunBar* bar_ = nullptr;
    std::optional<Id<Run>> chosenRun_; ///< of the shown mount; another mount shows its first
    std::optional<std::pair<Recording, Trace>> shownTrace_; ///< the last one read, so that a refresh is quick
};

} // namespace ibuki
