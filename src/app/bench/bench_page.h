// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/recording/run_sheet.h"

class QStackedWidget;

namespace ibuki {

class AfterRunBar;
class BenchView;
class CompactWindow;
class LivePanel;

/// The bench: the run that is under way, or the mount that is chosen. While one is recorded another tile may
/// be looked at; a bar leads back.
class BenchPage : public QWidget {
    Q_OBJECT

public:
    BenchPage(Session& session, LiveRun& run, QWidget* parent = nullptr);
    ~BenchPage() override;

    BenchView& view() { return *view_; }
    LivePanel& live() { return *live_; }
    void refresh();
    /// Opens the sheet by which a run begins; a run that is under way is shown instead.
    void record(RunFor whom);
    void showCompact();
    void addSource();  ///< to the run that is recorded
    void dropSource(); ///< of it

signals:
    void peelWanted(Id<Mount> mount); ///< the cooler comes off: what does the joint look like

private:
    void follow(); ///< what is chosen: the run's own tile, or another
    void judgeCheckUp(Id<Bench> bench);
    void runEnded();
    bool lookedAway() const;

    Session& session_;
    LiveRun& run_;
    QStackedWidget* pages_;
    BenchView* view_;
    LivePanel* live_;
    QPushButton* back_;
    AfterRunBar* after_;
    std::unique_ptr<CompactWindow> compact_;
    bool away_ = false; ///< another tile was chosen meanwhile
};

} // namespace ibuki
