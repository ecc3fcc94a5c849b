// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/start_page.h"

#include "app/drawn/theme.h"
#include "app/forms/widgets.h"
#include "app/jobs/job_service.h"
#include "app/say.h"
#include "app/session/amount_text.h"
#include "app/session/qtext.h"
#include "app/session/session.h"
#include "core/base/input_error.h"
#include "store/local_time.h"
#include "store/project/project.h"

#include <QAction>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QSettings>
#include <QTimer>
#include <QVBoxLayout>

namespace ibuki {

namespace {

constexpr const char* readingName = words::mark("Reading the projects used last");
constexpr qsizetype mostRecent = 5;

std::vector<RecentProject> read(const QStringList& paths, Instant now) {
    std::vector<RecentProject> projects;
    for (const QString& path : paths) {
        projects.push_back({path, {}});
        try {
            const Project project = Project::open(path.toStdString(), Access::readOnly, Decode::whenAsked);
            projects.back().summary = summaryOf(project.document(), now);
        } catch (const InputError&) { // it is listed as one that cannot be read
        }
    }
    return projects;
}

} // namespace

QString summaryLine(const ProjectSummary& summary) {
    QStringList words;
    if (!summary.bench.empty()) words << qtext(summary.bench);
    if (!summary.study.empty()) words << qtext(summary.study);
    QString line = words.isEmpty() ? say("no bench yet") : words.join(", ");
    const std::size_t all = summary.step.mounted + summary.step.planned;
    if (summary.isClosed)
        line += say(": closed");
    else if (all > 0)
        line += say(": %1 of %2 mounts made").arg(summary.step.mounted).arg(all);
    if (!summary.isClosed && summary.due) line += say(", next on %1").arg(dayText(*summary.due));
    if (const QString wanted = wantedText(summary.wanted); !wanted.isEmpty())
        line += QStringLiteral(", ") + wanted;
    return line;
}

QStringList StartPage::recent() { return QSettings().value("recentProjects").toStringList(); }

void StartPage::remember(const QString& path) {
    QStringList paths = recent();
    paths.removeAll(path);
    paths.prepend(path);
    QSettings().setValue("recentProjects", QStringList(paths.mid(0, mostRecent)));
}

void StartPage::forget(const QString& path) {
    QStringList paths = recent();
    paths.removeAll(path);
    QSettings().setValue("recentProjects", paths);
}

namespace {
int wayWidth(const QWidget& page) { return 20 * page.fontMetrics().averageCharWidth() + 56; }
} // namespace

StartPage::StartPage(const std::array<QAction*, 5>& ways, JobService& jobs, QWidget* parent)
    : QWidget(parent), jobs_(jobs), wanted_(new QLabel), recent_(new QWidget), lines_(new QVBoxLayout) {
    auto* layout = new QVBoxLayout(this);
    layout->addStretch(2);
    auto* name = new QLabel(say("Ibuki"));
    setTextFont(name, 3.2, QFont::DemiBold);
    name->setAlignment(Qt::AlignCenter);
    layout->addWidget(name);
    auto* what = quietLabel(say("Which interface material keeps the chip cooler, and how sure can you be?"));
    setTextFont(what, 1.2);
    what->setAlignment(Qt::AlignCenter);
    layout->addWidget(what);
    wanted_->setAlignment(Qt::AlignCenter);
    wanted_->setObjectName("Wanted this week");
    setTextFont(wanted_, 1.1, QFont::Medium);
    wanted_->hide();
    layout->addWidget(wanted_);
    layout->addSpacing(24);
    auto* row = new QHBoxLayout;
    row->addStretch(1);
    const std::array<QString, 5> about{say("a project for your own benches"),
                                       say("figures from what you have"), say("a project file, *.ibuki"),
                                       say("a ship's compute room, made up"),
                                       say("a simulated bench with a sealed truth")};
    for (std::size_t i = 0; i < ways.size(); ++i) {
        QAction* action = ways[i];
        auto* column = new QVBoxLayout;
        column->setContentsMargins(12, 18, 12, 18);
        auto* start = button(action->text().remove('&'), action->shortcut().toString(), i == 0);
        connect(start, &QPushButton::clicked, action, &QAction::trigger);
        column->addWidget(start);
        auto* note = quietLabel(about[i]);
        note->setAlignment(Qt::AlignCenter);
        column->addWidget(note);
        QFrame* frame = card(column);
        frame->setFixedWidth(wayWidth(*this));
        row->addWidget(frame);
    }
    row->addStretch(1);
    layout->addLayout(row);
    layout->addSpacing(18);
    auto* inside = new QVBoxLayout(recent_);
    inside->setContentsMargins(0, 0, 0, 0);
    inside->addWidget(cardTitle(say("Used last")));
    inside->addLayout(lines_);
    recent_->setFixedWidth(5 * wayWidth(*this) + 24);
    recent_->hide();
    layout->addWidget(recent_, 0, Qt::AlignHCenter);
    layout->addStretch(3);
}

void StartPage::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    readRecent();
}

void StartPage::readRecent() {
    const QStringList paths = recent();
    if (paths.isEmpty()) {
        recent_->hide();
        return;
    }
    jobs_.startNewest<std::vector<RecentProject>>(
        readingName, this,
        [paths, now = wallNow()](const std::stop_token&, const Progress&) { return read(paths, now); },
        [this](std::vector<RecentProject> projects) { list(projects); },
        [](const InputError&) {}); // what cannot be read is listed as such
}

void StartPage::list(const std::vector<RecentProject>& projects) {
    while (QLayoutItem* item = lines_->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    DueCount all;
    for (const RecentProject& project : projects)
        if (project.summary) {
            all.thisWeek += project.summary->wanted.thisWeek;
            all.overdue += project.summary->wanted.overdue;
        }
    const QString wanted = wantedText(all);
    wanted_->setText(wanted);
    wanted_->setVisible(!wanted.isEmpty());
    for (const RecentProject& project : projects) {
        auto* line = new QFrame;
        line->setProperty("card", true);
        auto* layout = new QHBoxLayout(line);
        layout->setContentsMargins(10, 6, 12, 6);
        auto* name = button(QFileInfo(project.path).completeBaseName(), project.path);
        name->setObjectName("Recent");
        auto* about =
            quietLabel(project.summary                   ? summaryLine(*project.summary)
                       : QFileInfo::exists(project.path) ? say("cannot be read; open it to hear why")
                                                         : say("is not there any more"));
        about->setToolTip(project.path);
        layout->addWidget(name);
        layout->addWidget(about, 1);
        if (QFileInfo::exists(project.path)) {
            connect(name, &QPushButton::clicked, this,
                    [this, path = project.path] { emit projectWanted(path); });
        } else {
            name->setEnabled(false);
            auto* drop = button(say("Take off the list"));
            connect(drop, &QPushButton::clicked, this, [this, path = project.path] {
                forget(path);
                QTimer::singleShot(0, this, &StartPage::readRecent); // the button is on the list itself
            });
            layout->addWidget(drop);
        }
        lines_->addWidget(line);
    }
    recent_->setVisible(!projects.empty());
}

} // namespace ibuki
