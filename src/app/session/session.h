// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The open project as the window sees it: the document, the undo stack, the shared selection and the notice
// line. Every change goes through perform(); views never write.

#include "app/jobs/job_service.h"
#include "app/session/selection.h"
#include "core/base/input_error.h"
#include "core/domain/study.h"
#include "core/evidence/reduction_task.h"
#include "store/project/project.h"

#include <QObject>
#include <QUndoStack>
#include <memory>

namespace ibuki {

/// Makes the reductions of the tasks anew, in their order; empty when it was asked to stop.
std::vector<RunReduction> reduceTasks(const Project& project, const std::vector<ReductionTask>& tasks,
                                      const std::stop_token& stop, const Progress& progress);

class Session : public QObject {
    Q_OBJECT

public:
    explicit Session(QObject* parent = nullptr);
    ~Session() override;

    bool isOpen() const { return project_.has_value(); }
    QString path() const;
    const Document& document() const; ///< empty when nothing is open
    const Selection& selection() const { return selection_; }
    QUndoStack& undoStack() { return undo_; }

    const Study* study() const;
    const Question* question() const; ///< of the selected study
    const Bench* bench() const;
    const Configuration* configuration() const; ///< of the selected bench
    const Mount* mount() const;

    /// The time on the wall, or the newest mount's where that lies later (a project from another clock).
    Instant now() const;

    /// Counts what was done to the document: a view may keep what it worked out until this moves.
    int revision() const { return changes_; }

    /// Both answer false and post a notice when it cannot be done; the project open before stays open.
    bool openProject(const QString& path);
    bool createProject(const QString& path);
    void closeProject();
    bool saveCopy(const QString& path);

    /// Applies one user action and puts it on the undo stack; false with a notice when it failed.
    bool perform(const ChangeSet& set, const Acquired& acquired = {});

    /// Writes down at once what happens outside, such as that a recording began; not on the undo stack. False
    /// with a notice when it failed.
    bool acquire(const ChangeSet& set);
    /// Puts on the undo stack, as one action, what was acquired before: a recording from its begin to its
    /// figures.
    void makeUndoable(const ChangeSet& acquired);

    /// Writes down a fact that nobody can take back, such as that the verdict was seen; not on the undo
    /// stack. While a reduction is at work it waits, so that it does not outdate it.
    void record(std::function<ChangeSet(const Document&)> fact);

    /// Channels of a recording with those of its probe: at once when it is short, else from beside the
    /// window. Whoever asks later takes the place of who waits. ready is not called, and there is a notice,
    /// when they cannot be read.
    void readTrace(Id<Recording> recording, const QObject* asker, const std::function<void(Trace)>& ready);

    /// A file that values refer to by its digest; empty with a notice when it cannot be read.
    std::string file(const std::string& digest);

    /// Performs `edit` together with the reductions that follow from it, which are made off the main thread;
    /// work() tells how far it is and can be called off. A change made meanwhile outdates it: nothing of it
    /// is done, with a notice. While one is at work another is refused, with a notice.
    void performReduced(Edit edit, std::vector<ReductionTask> tasks);
    JobRunner& work() { return work_; }
    /// Where all work off the main thread runs; it goes on whatever the window shows.
    JobService& jobs() { return jobs_; }
    /// An error of what the user asked for just now: told in the sheet that is open, else as a notice.
    void refuse(const InputError& error);

    /// While a run is recorded, no other project is opened and this one is not closed: told, and refused.
    void hold(bool held) { held_ = held; }
    bool isHeld() const { return held_; }

    void select(const Selection& selection);
    void selectMount(Id<Mount> mount);
    void post(const QString& notice); ///< one sentence for the notice line
    void post(const InputError& error);
    /// A notice about input that was not taken. It is over once a change succeeds.
    void refuse(const QString& why);

signals:
    void projectChanged(); ///< another project, or none
    void documentChanged();
    void selectionChanged();
    void noticePosted(const QString& notice);
    void refused(const QString& why); ///< to be told where the input was given
    void refusalOver();
    void workBegun(const QString& title);

private:
    friend class ProjectCommand;
    bool apply(const ChangeSet& set, const Acquired& acquired, Direction direction);
    void take(Project project);
    /// Figures of recordings that ended before they had any.
    void decodeRest();
    void finishRecordings();
    /// Makes the reductions off the main thread, through a connection of its own, and hands them to `done`.
    void reduceBeside(const Message& title, std::vector<ReductionTask> tasks,
                      std::function<void(const std::vector<RunReduction>&)> done);

    std::optional<Project> project_;
    Document empty_;
    Selection selection_;
    QUndoStack undo_;
    bool refuseHeld();
    bool held_ = false;
    bool refused_ = false; ///< the latest notice was a refusal
    int changes_ = 0;      ///< counts what was done to the document
    std::function<ChangeSet(const Document&)> waitingFact_;
    Message workTitle_; ///< of what work_ is doing, or did last
    JobService jobs_;
    JobRunner& work_; ///< of jobs_: reductions that an edit waits for
};

} // namespace ibuki
