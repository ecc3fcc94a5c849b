// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/session.h"

#include "app/say.h"
#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/study.h"
#include "core/import/recorded.h"
#include "core/reduce/reduce.h"
#include "store/local_time.h"
#include "store/project/rows.h"
#include "store/project_file.h"

#include <QTimer>
#include <QUndoCommand>

namespace ibuki {

constexpr std::int64_t mostSamplesAtOnce = 20'000; ///< of a recording; its channels are read in some 20 ms
constexpr int firstPictureMs = 400;                ///< the window stands by then, or is not waited for longer
const QString traceName = QStringLiteral("channels of a recording");

/// One user action on the undo stack. The action itself has been applied before it is pushed.
class ProjectCommand : public QUndoCommand {
public:
    ProjectCommand(Session& session, ChangeSet set)
        : QUndoCommand(sayText(set.title)), session_(session), set_(std::move(set)) {}

    void redo() override {
        if (!applied_ && !session_.apply(set_, {}, Direction::redo)) setObsolete(true);
        applied_ = true;
    }
    void undo() override {
        if (!session_.apply(inverse(set_), {}, Direction::undo)) setObsolete(true);
        applied_ = false;
    }

private:
    Session& session_;
    ChangeSet set_;
    bool applied_ = true;
};

std::vector<RunReduction> reduceTasks(const Project& project, const std::vector<ReductionTask>& tasks,
                                      const std::stop_token& stop, const Progress& progress) {
    std::vector<RunReduction> fresh;
    for (const ReductionTask& task : tasks) {
        if (stop.stop_requested()) return {};
        fresh.push_back(RunReduction::with(
            task.reduction, task.run,
            reduceByEveryMetric(project.loadWithProbe(task.recording, task.probeShiftS), task.settings),
            task.settings));
        progress(static_cast<double>(fresh.size()) / static_cast<double>(tasks.size()));
    }
    return fresh;
}

Session::Session(QObject* parent) : QObject(parent), work_(jobs_.runner(QStringLiteral("reductions"))) {
    connect(&work_, &JobRunner::cancelled, this, &Session::documentChanged); // fields show what is stored
    connect(
        &work_, &JobRunner::ended, this,
        [this] {
            if (waitingFact_) record(std::exchange(waitingFact_, nullptr));
        },
        Qt::QueuedConnection); // after the result of the work has been put in place
}
Session::~Session() = default;

QString Session::path() const {
    return project_ ? QString::fromStdString(project_->path().string()) : QString();
}
const Document& Session::document() const { return project_ ? project_->document() : empty_; }
const Study* Session::study() const { return document().find(selection_.study); }
const Bench* Session::bench() const { return document().find(selection_.bench); }
const Mount* Session::mount() const { return document().find(selection_.mount); }

const Question* Session::question() const {
    const Question* chosen = document().find(selection_.question);
    if (chosen && chosen->study == selection_.study) return chosen;
    return selection_.study ? firstQuestion(document(), *selection_.study) : nullptr;
}

const Configuration* Session::configuration() const {
    return selection_.bench ? currentConfiguration(document(), *selection_.bench) : nullptr;
}

Instant Session::now() const { return std::max(wallNow(), newestMount(document())); }

void Session::take(Project project) {
    undo_.clear();
    ++changes_;
    waitingFact_ = nullptr;
    project_ = std::move(project);
    selection_ = valid({}, document());
    emit projectChanged();
    emit documentChanged();
    emit selectionChanged();
    finishRecordings();
}

void Session::finishRecordings() {
    const auto waiting = recordingsWithoutFigures(document());
    if (waiting.empty()) return;
    auto figures = std::make_shared<ChangeSet>();
    jobs_.queue(
        QStringLiteral("figures of a recording"),
        [path = project_->path(), document = document(), waiting, figures](const std::stop_token& stop,
                                                                           const Progress&) {
            const Project project = Project::open(path, Access::readOnly, Decode::whenAsked);
            Document before = document;
            for (Id<Recording> recording : waiting) {
                if (stop.stop_requested()) return;
                const Recording& stored = *before.find(recording);
                const Trace trace = project.loadTrace(recording);
                const ChangeSet one =
                    endRecording(before, recording, {stored.samples, stored.durationS, {}}, &trace);
                ibuki::apply(before, one);
                *figures = figures->empty() ? one : joined(*figures, one);
            }
        },
        [this, figures, before = changes_] {
            if (changes_ == before) acquire(*figures); // else the next opening makes up for it
        },
        [this](const InputError& error) { post(error); });
}

void Session::reduceBeside(const Message& title, std::vector<ReductionTask> tasks,
                           std::function<void(const std::vector<RunReduction>&)> done) {
    workTitle_ = title;
    work_.start<std::vector<RunReduction>>(
        [path = project_->path(), tasks = std::move(tasks)](const std::stop_token& stop,
                                                            const Progress& progress) {
            // A connection of its own: the window's belongs to the main thread.
            const Project project = Project::open(path, Access::readOnly, Decode::whenAsked);
            return reduceTasks(project, tasks, stop, progress);
        },
        std::move(done),
        [this](const InputError& error) {
            post(error);
            emit documentChanged(); // fields show again what is stored
        });
    emit workBegun(sayText(title));
}

bool Session::refuseHeld() {
    if (held_) refuse(say("A run is being recorded: end it before another project is opened."));
    return held_;
}

bool Session::openProject(const QString& path) {
    if (project_ && isOpenHere(path.toStdString())) return true; // by this name or another
    if (refuseHeld()) return false;
    try {
        take(Project::open(path.toStdString(), Access::readWrite, Decode::whenAsked));
        QTimer::singleShot(firstPictureMs, this, [this] {
            if (project_) decodeRest();
        });
        return true;
    } catch (const InputError& error) {
        refuse(error);
        return false;
    }
}

/// What nobody asked for yet, beside the window and after its first picture: a project with a damaged
/// reduction is told and closed as if it had been refused at once.
void Session::decodeRest() {
    jobs_.startNewest<int>(
        QStringLiteral("stored reductions"), this,
        [document = document()](const std::stop_token& stop, const Progress&) {
            decodeAll(document, stop);
            return 0;
        },
        [](int) {},
        [this, path = project_->path()](const InputError& error) {
            if (!project_ || project_->path() != path) return;
            const InputError told({path.string(), {}, {}}, error.message);
            if (held_) return post(told); // a run is being recorded into it: nothing of that is lost
            closeProject();
            refuse(told);
        });
}

bool Session::createProject(const QString& path) {
    if (refuseHeld()) return false;
    try {
        take(Project::create(path.toStdString()));
        return true;
    } catch (const InputError& error) {
        refuse(error);
        return false;
    }
}

void Session::closeProject() {
    jobs_.cancel(QStringLiteral("stored reductions"));
    undo_.clear();
    ++changes_;
    waitingFact_ = nullptr;
    project_.reset();
    selection_ = {};
    emit projectChanged();
    emit documentChanged();
    emit selectionChanged();
}

bool Session::saveCopy(const QString& path) {
    if (!project_) return false;
    try {
        project_->saveCopy(path.toStdString());
        return true;
    } catch (const InputError& error) {
        refuse(error);
        return false;
    }
}

bool Session::apply(const ChangeSet& set, const Acquired& acquired, Direction direction) {
    if (!project_) return false;
    try {
        project_->apply(set, acquired, direction);
    } catch (const InputError& error) {
        refuse(error);
        return false;
    }
    ++changes_;
    const Selection still = valid(selection_, document());
    const bool moved = still != selection_;
    selection_ = still;
    emit documentChanged();
    if (moved) emit selectionChanged();
    return true;
}

bool Session::perform(const ChangeSet& set, const Acquired& acquired) {
    if (set.empty()) return true;
    if (!apply(set, acquired, Direction::forward)) return false;
    undo_.push(new ProjectCommand(*this, set));
    if (refused_) emit refusalOver();
    refused_ = false;
    return true;
}

bool Session::acquire(const ChangeSet& set) { return set.empty() || apply(set, {}, Direction::forward); }

void Session::makeUndoable(const ChangeSet& acquired) {
    if (!acquired.empty()) undo_.push(new ProjectCommand(*this, acquired));
}

void Session::record(std::function<ChangeSet(const Document&)> fact) {
    if (work_.isRunning()) {
        waitingFact_ = std::move(fact);
        return;
    }
    const ChangeSet set = fact(document());
    if (!set.empty()) apply(set, {}, Direction::forward);
}

void Session::readTrace(Id<Recording> recording, const QObject* asker,
                        const std::function<void(Trace)>& ready) {
    const Recording* stored = document().find(recording);
    if (!project_ || !stored) return;
    jobs().cancel(traceName);
    const auto failed = [this](const InputError& error) { post(error); };
    if (stored->samples > mostSamplesAtOnce) {
        jobs().startNewest<Trace>(
            traceName, asker,
            [path = path().toStdString(), recording, shiftS = stored->probeShiftS](const std::stop_token&,
                                                                                   const Progress&) {
                return Project::open(path, Access::readOnly, Decode::whenAsked)
                    .loadWithProbe(recording, shiftS);
            },
            ready, failed);
        return;
    }
    try {
        ready(project_->loadWithProbe(recording, stored->probeShiftS));
    } catch (const InputError& error) {
        failed(error);
    }
}

std::string Session::file(const std::string& digest) {
    if (!project_) return {};
    try {
        return project_->loadFile(digest);
    } catch (const InputError& error) {
        post(error);
        return {};
    }
}

void Session::performReduced(Edit edit, std::vector<ReductionTask> tasks) {
    if (tasks.empty()) {
        perform(edit.finish());
        return;
    }
    if (work_.isRunning()) {
        post(say("{edit}: not done, because \"{other}\" is still at work. Wait for it or call it off, then "
                 "try again.",
                 {{"edit", edit.title()}, {"other", workTitle_}}));
        emit documentChanged(); // fields show again what is stored
        return;
    }
    auto waiting = std::make_shared<Edit>(std::move(edit));
    reduceBeside(waiting->title(), std::move(tasks),
                 [this, waiting, before = changes_](const std::vector<RunReduction>& fresh) {
                     if (changes_ != before) {
                         post(say("{edit}: not done, because the project changed meanwhile. Try again.",
                                  {{"edit", workTitle_}}));
                         emit documentChanged(); // fields show again what is stored
                         return;
                     }
                     for (const RunReduction& reduction : fresh) waiting->put(reduction);
                     if (!perform(waiting->finish())) emit documentChanged();
                 });
}

void Session::select(const Selection& selection) {
    const Selection next = valid(selection, document());
    if (next == selection_) return;
    selection_ = next;
    emit selectionChanged();
}

void Session::selectMount(Id<Mount> mount) {
    Selection next = selection_;
    next.mount = mount;
    next.slot.reset();
    next.followUp.reset();
    if (const Question* asked = question())
        if (const Material* material = materialAt(document(), mount, asked->site))
            next.material = material->id;
    select(next);
}

void Session::post(const QString& notice) {
    refused_ = false;
    emit noticePosted(notice);
}
void Session::refuse(const QString& why) {
    refused_ = true;
    emit refused(why);
}
void Session::refuse(const InputError& error) { refuse(saySentence(error)); }
void Session::post(const InputError& error) { post(saySentence(error)); }

} // namespace ibuki
