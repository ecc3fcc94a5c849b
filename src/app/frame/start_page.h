// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/setup/project_summary.h"

#include <QWidget>
#include <array>

class QAction;
class QLabel;
class QVBoxLayout;

namespace ibuki {

class JobService;

/// A project of the list: where it is and what it is about, as its file tells it.
struct RecentProject {
    QString path;
    std::optional<ProjectSummary> summary; ///< nothing: it is not there, or cannot be read
};

/// "node-2, Three pastes: 4 of 9 mounts made, next on Fri 2031-03-07".
QString summaryLine(const ProjectSummary& summary);

/// What the window shows without a project: New, Look at logs, Open, Demo, and the projects used last, read
/// beside the window. Refreshes when it is shown.
class StartPage : public QWidget {
    Q_OBJECT

public:
    /// ways: the actions of New, Look at logs, Open, Demo and Practise, in that order.
    StartPage(const std::array<QAction*, 5>& ways, JobService& jobs, QWidget* parent = nullptr);

    /// The paths of the projects used last, the newest first; keeps them in the user's settings.
    static QStringList recent();
    static void remember(const QString& path);
    static void forget(const QString& path);

signals:
    void projectWanted(const QString& path);

protected:
    void showEvent(QShowEvent* event) override;

private:
    void readRecent();
    void list(const std::vector<RecentProject>& projects);

    JobService& jobs_;
    QLabel* wanted_; ///< over all projects used last
    QWidget* recent_;
    QVBoxLayout* lines_;
};

} // namespace ibuki
