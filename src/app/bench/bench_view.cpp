// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/bench_view.h"

#include "app/drawn/theme.h"
#include "app/forms/ask.h"
#include "app/forms/caution_panel.h"
#include "app/forms/next_step_bar.h"
#include "app/forms/tip.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/import/import_dialog.h"
#include "app/jobs/job_progress.h"
#include "app/recording/after_run_bar.h"
#include "app/recording/planned_panel.h"
#include "app/run/mount_actions.h"
#include "app/run/run_bar.h"
#include "app/run/run_lines.h"
#include "app/run/trace_plot.h"
#include "app/say.h"
#include "app/session/amount_text.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/evidence/response.h"
#include "core/evidence/run_rows.h"
#include "core/import/header_roles.h"
#include "core/import/log_study.h"
#include "core/plan/mount_brief.h"
#include "core/setup/study_setup.h"
#include "store/paper/sentences.h"
#include "words/words.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QTableWidget>
#include <QVBoxLayout>

namespace ibuki {
namespace {

constexpr const char* keepingName = words::mark("Keeping the other channels");
constexpr const char* readingName = words::mark("Reading logs");

} // namespace

BenchView::BenchView(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(makeHead());
    figures_ = new QWidget;
    auto* below = new QHBoxLayout(figures_);
    below->setContentsMargins(0, 0, 0, 0);
    plot_ = new TracePlot;
    plot_->setMovable(true);
    bar_ = new RunBar(session);
    connect(plot_, &TracePlot::bordersMoved, bar_, &RunBar::moveBorders);
    connect(plot_, &TracePlot::probeMoved, bar_, [this](double shiftS) { bar_->putProbeShift(shiftS); });
    connect(bar_, &RunBar::runChosen, this, [this](qlonglong id) {
        chosenRun_ = Id<Run>{id};
        refresh();
    });
    auto* plotLayout = new QVBoxLayout;
    plotLayout->setContentsMargins(10, 10, 10, 6);
    auto* tip = new Tip(QStringLiteral("borders"),
                        say("The borders of load and window can be dragged, or moved with the arrow keys; "
                            "\"As found\" puts them back."));
    connect(plot_, &TracePlot::bordersMoved, tip, &Tip::done);
    plotLayout->addWidget(tip);
    explain(plot_, Topic::trace);
    explain(this, Topic::delta);
    plotLayout->addWidget(plot_, 1);
    noCurve_ = quietLabel(say("Figures as stated, without a log: there is no curve."));
    noCurve_->setAlignment(Qt::AlignCenter);
    plotLayout->addWidget(noCurve_, 1);
    plotLayout->addWidget(bar_);
    below->addWidget(card(plotLayout), 3);
    below->addWidget(makeFigures(), 2);
    layout->addWidget(figures_, 1);
    nextStep_ = new NextStepBar(session);
    connect(nextStep_, &NextStepBar::stepTaken, this, &BenchView::stepTaken);
    layout->addWidget(nextStep_);
    empty_ = quietLabel();
    empty_->setAlignment(Qt::AlignCenter);
    layout->addWidget(empty_, 1);
    planned_ = new PlannedPanel(session);
    auto* plannedLayout = new QVBoxLayout;
    plannedLayout->setContentsMargins(0, 0, 0, 0);
    plannedLayout->addWidget(planned_);
    plannedCard_ = card(plannedLayout);
    layout->addWidget(plannedCard_, 1);
    refresh();
}

QWidget* BenchView::makeHead() {
    auto* layout = new QHBoxLayout;
    layout->setContentsMargins(22, 8, 18, 8);
    layout->addLayout(makeNumber());
    layout->addSpacing(18);
    auto* words = new QVBoxLayout;
    title_ = cardTitle({});
    line_ = new QLabel;
    line_->setWordWrap(true);
    flags_ = new QLabel;
    flags_->setWordWrap(true);
    words->addStretch(1);
    for (QLabel* label : {title_, line_, flags_}) words->addWidget(label);
    words->addStretch(1);
    layout->addLayout(words, 1);
    layout->addLayout(makeButtons());
    return card(layout);
}

QLayout* BenchView::makeNumber() {
    big_ = new QLabel;
    setTextFont(big_, 5.2, QFont::DemiBold);
    big_->setAccessibleName(say("Steady difference"));
    big_->setObjectName("Steady difference");
    unit_ = new QLabel;
    setTextFont(unit_, 1.2);
    unit_->setProperty("quiet", true);
    // The unit stands under the number: beside it, larger text leaves no room for the words.
    auto* number = new QVBoxLayout;
    number->setSpacing(0);
    number->addStretch(1);
    number->addWidget(big_);
    number->addWidget(unit_);
    number->addStretch(1);
    return number;
}

QLayout* BenchView::makeButtons() {
    auto* buttons = new QVBoxLayout;
    auto* bring = button(say("Bring in logs…"),
                         say("%1. Or drop the files on the window.").arg(QStringLiteral("Ctrl+I")));
    connect(bring, &QPushButton::clicked, this, &BenchView::chooseLogs);
    record_ = button(say("Record…"), say("A run of what is chosen, from this bench's own readings"), true);
    connect(record_, &QPushButton::clicked, this, [this] {
        if (const FollowUp* later = session_.document().find(session_.selection().followUp))
            emit followUpRecordWanted(later->id);
        else if (const Slot* slot = session_.document().find(session_.selection().slot))
            emit slotRecordWanted(slot->id);
        else if (const Mount* mount = session_.mount())
            emit recordWanted(mount->id);
    });
    readings_ = button(say("Readings…"), say("Score, frame rate, noise: what no sensor gave"));
    connect(readings_, &QPushButton::clicked, this, [this] {
        if (const Mount* mount = session_.mount()) openReadings(session_, mount->id, this);
    });
    auto* sheet = button(say("Bench sheet…"), say("Cooler, fan, limit, sensors"));
    connect(sheet, &QPushButton::clicked, this, &BenchView::benchSheetWanted);
    reject_ = button(say("Reject mount…"));
    connect(reject_, &QPushButton::clicked, this, [this] { ibuki::rejectMount(session_, this); });
    room_ = button(say("Enter room…"), say("Room temperature read by hand, for a log without one"));
    connect(room_, &QPushButton::clicked, this, [this] { ibuki::enterAmbient(session_, this); });
    time_ = button(say("Set time…"), say("When this mount was made"));
    connect(time_, &QPushButton::clicked, this, [this] { ibuki::setMountTime(session_, this); });
    application_ = button(say("Application…"), say("Which lot, how much, in which pattern, how it handled"));
    connect(application_, &QPushButton::clicked, this, [this] { ibuki::openApplication(session_, this); });
    cautions_ = button(say("Cautions…"), say("What to heed with this mount, and who has read it"));
    connect(cautions_, &QPushButton::clicked, this, [this] { ibuki::openCautions(session_, this); });
    auto* first = new QHBoxLayout;
    auto* second = new QHBoxLayout;
    auto* third = new QHBoxLayout;
    first->addWidget(record_);
    first->addWidget(bring);
    buttons->addLayout(first);
    second->addWidget(application_);
    second->addWidget(readings_);
    second->addWidget(cautions_);
    third->addWidget(reject_);
    third->addWidget(room_);
    third->addWidget(time_);
    third->addWidget(sheet);
    buttons->addLayout(second);
    buttons->addLayout(third);
    return buttons;
}

const Run* BenchView::shownRun() const {
    const Mount* mount = session_.mount();
    if (!mount) return nullptr;
    const auto runs = runsOf(session_.document(), mount->id);
    for (const Run* run : runs)
        if (run->id == chosenRun_) return run;
    return runs.empty() ? nullptr : runs.front();
}

QWidget* BenchView::makeFigures() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(14, 10, 14, 10);
    layout->addWidget(cardTitle(say("Over the steady window")));
    metrics_ = new QTableWidget(0, 4);
    metrics_->setAccessibleName(say("Reduced figures"));
    metrics_->setHorizontalHeaderLabels({"", "°C", say("K over room"), "± K"});
    metrics_->setEditTriggers(QTableWidget::NoEditTriggers);
    metrics_->setTabKeyNavigation(false);
    metrics_->setShowGrid(false);
    metrics_->setWordWrap(true);
    metrics_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    metrics_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    metrics_->verticalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    metrics_->verticalHeader()->hide();
    layout->addWidget(metrics_, 1);
    return card(layout);
}

void BenchView::refresh() {
    plot_->restyle();
    const Mount* mount = session_.mount();
    const Run* run = shownRun();
    const Reduction* reduction = run ? reductionOf(session_.document(), run->id) : nullptr;
    for (QPushButton* action : {reject_, room_, time_}) action->setEnabled(mount != nullptr);
    cautions_->setEnabled(mount != nullptr);
    readings_->setEnabled(run != nullptr);
    record_->setEnabled(mount != nullptr || session_.document().find(session_.selection().followUp) != nullptr
                        || session_.document().find(session_.selection().slot) != nullptr);
    application_->setEnabled(mount != nullptr && session_.question() != nullptr);
    const bool planned = PlannedPanel::has(session_);
    figures_->setVisible(reduction && !planned);
    empty_->setVisible(!reduction && !planned);
    plannedCard_->setVisible(planned);
    if (mount || planned)
        nextStep_->hide();
    else
        nextStep_->refresh();
    if (planned) planned_->refresh();
    if (mount && run && reduction)
        showRun(*mount, *run, *reduction);
    else
        showEmpty();
}

void BenchView::showEmpty() {
    big_->setText("–");
    QPalette palette = big_->palette();
    palette.setColor(QPalette::WindowText, colours().quiet);
    big_->setPalette(palette);
    unit_->clear();
    flags_->clear();
    const Slot* planned = session_.document().find(session_.selection().slot);
    const Level* level = planned ? session_.document().find(planned->level) : nullptr;
    title_->setText(planned ? say("Planned: ")
                                  + sayText(briefOf(session_.document(), *planned, session_.now()).title)
                    : session_.mount() ? qtext(session_.mount()->name)
                                       : say("No mount chosen"));
    line_->setText(planned ? say("Mount it and record it here, or bring its log in.")
                           : say("Choose a tile on the tape."));
    const Question* question = session_.question();
    QStringList words;
    for (const Shortage& shortage : question&& level
                                        ? shortagesOf(session_.document(), *question, session_.now())
                                        : std::vector<Shortage>{})
        if (level && shortage.material == level->material)
            words << shortageText(session_.document(), shortage);
    flags_->setText(words.join("\n"));
    flags_->setVisible(!words.isEmpty());
    empty_->setText(!session_.study()
                        ? say("A study comes first: see Question.")
                        : say("Drop sensor logs here, many at once. Each becomes a mount with its "
                              "steady difference over the room."));
}

void BenchView::showRun(const Mount& mount, const Run& run, const Reduction& reduction) {
    const Question* question = session_.question();
    const Question asked = question ? *question : Question{};
    const LoadReduction* load = loadOf(reduction, run, asked.metric);
    const RunLines reported = runLines(mount, reduction, load, asked);
    big_->setText(reported.figure);
    QPalette hot = big_->palette();
    hot.setColor(QPalette::WindowText, mount.rejected ? colours().quiet : colours().hot);
    big_->setPalette(hot);
    unit_->setText(reported.unit);
    title_->setText(reported.title);
    line_->setText(reported.conditions.join("  ·  "));
    QStringList words = reported.doubts;
    if (hasUnlikeTwin(session_.document(), run))
        words << "▸ " + sayText(makeFlag(Severity::warn, "loads-unlike").message);
    words << graveCautions(session_.document(), cautionSubject(session_, mount), session_.now());
    if (!mount.note.empty()) words << qtext(mount.note);
    flags_->setText(words.join("\n"));
    flags_->setVisible(!words.isEmpty());
    bar_->show(run, load);
    reject_->setText(mount.rejected ? say("Take back") : say("Reject mount…"));
    fillMetrics(reported.metrics);
    showTrace(run);
}

void BenchView::showTrace(const Run& run) {
    const Recording recording = *session_.document().find(run.recording);
    const bool hasCurve = recording.state != RecordingState::figures;
    plot_->setVisible(hasCurve);
    noCurve_->setVisible(!hasCurve);
    if (!hasCurve) return shownTrace_.reset();
    if (shownTrace_ && shownTrace_->first == recording) {
        drawTrace();
        return;
    }
    shownTrace_.reset(); // another log, or another clock of its probe
    plot_->clear();
    session_.readTrace(recording.id, this, [this, recording](Trace trace) {
        shownTrace_.emplace(recording, std::move(trace));
        drawTrace();
    });
}

/// Of the run that is shown, if what was read is its log.
void BenchView::drawTrace() {
    const Run* run = shownRun();
    const Reduction* reduction = run ? reductionOf(session_.document(), run->id) : nullptr;
    if (!reduction || !shownTrace_ || shownTrace_->first.id != run->recording) return;
    const Question* question = session_.question();
    plot_->show(shownTrace_->second, *reduction, (question ? *question : Question{}).metric,
                run->loadIndex < 0 ? std::nullopt : std::optional(static_cast<std::size_t>(run->loadIndex)));
}

void BenchView::fillMetrics(const std::vector<MetricLine>& lines) {
    metrics_->setRowCount(static_cast<int>(lines.size()));
    int row = 0;
    for (const MetricLine& line : lines) {
        metrics_->setItem(row, 0, new QTableWidgetItem(line.name));
        int column = 1;
        for (const QString& value : {line.temperature, line.difference, line.uncertainty}) {
            auto* item = new QTableWidgetItem(value);
            item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            metrics_->setItem(row, column++, item);
        }
        ++row;
    }
}

QString BenchView::logFilter() {
    return say("Logs (*.csv *.txt *.tsv *.log *.dat *.json *.jsonl *.ndjson);;All files (*)");
}

void BenchView::chooseLogs() {
    askFiles(this, {FileWish::Kind::openMany, say("Bring in logs"), {}, logFilter()},
             [this](const QStringList& files) { bringIn(files); });
}

void BenchView::bringIn(const QStringList& files) {
    std::vector<std::string> paths;
    for (const QString& file : files) paths.push_back(file.toStdString());
    const BatchRules rules =
        batchRules(session_.document(), session_.configuration(),
                   session_.study() ? std::optional(session_.study()->id) : std::nullopt);
    auto read = std::make_shared<LogBatch>();
    session_.jobs().queue(
        readingName,
        [paths, rules, read](const std::stop_token& stop, const Progress& progress) {
            *read = readLogBatch(paths, rules, stop, progress);
        },
        [view = QPointer<BenchView>(this), rules, read] {
            if (view) view->logsRead(std::move(*read), rules);
        },
        [session = QPointer<Session>(&session_)](const InputError& error) {
            if (session) session->post(error);
        },
        [session = QPointer<Session>(&session_)] {
            if (session) session->post(say("Bringing in logs was called off. Nothing was changed."));
        });
    showProgress(session_.jobs().runner(readingName), say(readingName), this);
}

/// Channels without a role go into the project while the user goes on, whatever the window shows by then; the
/// figures are there already.
void BenchView::keepChannels(std::vector<KeepTask> tasks) {
    if (tasks.empty()) return;
    session_.jobs().queue(
        keepingName,
        [project = session_.path().toStdString(), tasks = std::move(tasks)](const std::stop_token& stop,
                                                                            const Progress& progress) {
            int kept = 0;
            for (KeepTask task : tasks) {
                task.options.stop = stop;
                task.options.progress = [&](double share) {
                    progress((kept + share) / static_cast<double>(tasks.size()));
                };
                keepOtherChannels(project, task);
                ++kept;
            }
        },
        [] {},
        [session = QPointer<Session>(&session_)](const InputError& error) {
            if (session) session->post(error);
        },
        [session = QPointer<Session>(&session_)] {
            if (session)
                session->post(say("The other channels were not all kept. The figures do not need them."));
        });
    showProgress(session_.jobs().runner(keepingName), say(keepingName), window(), true);
}

/// Logs for which nobody asked a question are compared by what their files are called.
bool BenchView::makeStudyOf(const LogBatch& batch) {
    Edit edit(session_.document(), titled("A study of logs"));
    const auto bench = session_.bench() ? std::optional(session_.bench()->id) : std::nullopt;
    const std::string name = proposedName(session_.document(), say("Logs brought in").toStdString(), {});
    const LogStudyWish wish{bench, say("bench 1").toStdString(), name, words::text, session_.now()};
    const LogStudy made = addStudyOfLogs(edit, wish, batch.logs,
                                         statedByNames(batch.logs, knownNames(session_.document(), {})));
    if (!session_.perform(edit.finish())) return false;
    Selection selection;
    selection.bench = made.bench;
    selection.study = made.study;
    session_.select(selection);
    return true;
}

void BenchView::logsRead(LogBatch batch, const BatchRules& rules) {
    if (batch.logs.empty()) {
        session_.post(batch.refused.empty() ? say("There was no log among the files.")
                                            : saySentence(batch.refused.front()));
        return;
    }
    if (!session_.study() && !makeStudyOf(batch)) return;
    auto* dialog = new ImportDialog(session_, std::move(batch), rules, this);
    connect(dialog, &QDialog::accepted, this, [this, dialog] {
        keepChannels(dialog->toKeep());
        const auto mounts = session_.bench() ? mountsOf(session_.document(), session_.bench()->id)
                                             : std::vector<const Mount*>{};
        if (!mounts.empty()) session_.selectMount(mounts.back()->id);
    });
    openDialog(dialog);
}

} // namespace ibuki
