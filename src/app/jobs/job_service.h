// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Work that outlives the view which asked for it: jobs by name, one after the other under one name, several
// names at once. It stands beside the session and ends with it. What a job yields, why it failed and
// that it was called off goes to the one who asked for it.

#include "app/jobs/job.h"

#include <QString>
#include <QStringList>
#include <deque>
#include <map>

namespace ibuki {

class JobService : public QObject {
    Q_OBJECT

public:
    explicit JobService(QObject* parent = nullptr) : QObject(parent) {}

    /// Runs the work once those of the same name before it have ended. failed: told why, on the main thread;
    /// calledOff: that it was.
    void queue(const QString& name, std::function<void(const std::stop_token&, const Progress&)> work,
               std::function<void()> done, std::function<void(const InputError&)> failed,
               std::function<void()> calledOff = {});
    /// Runs the work at once; what still runs under the name is outdated, and what waited there is dropped.
    /// The job is called off, and nobody is told, once the asker is gone.
    template <class Result>
    void startNewest(const QString& name, const QObject* asker,
                     std::function<Result(const std::stop_token&, const Progress&)> work,
                     std::function<void(Result)> done, std::function<void(const InputError&)> failed) {
        Lane& at = lane(name);
        at.waiting.clear();
        at.calledOff = {};
        const QPointer<const QObject> alive(asker);
        at.runner->start<Result>(
            std::move(work),
            [alive, done = std::move(done)](Result result) {
                if (alive) done(std::move(result));
            },
            [alive, failed = std::move(failed)](const InputError& error) {
                if (alive) failed(error);
            });
        connect(asker, &QObject::destroyed, at.runner, [runner = at.runner, ticket = at.runner->ticket()] {
            if (runner->ticket() == ticket) runner->cancel();
        });
    }
    /// Calls off what is running under the name, and what waits behind it.
    void cancel(const QString& name);

    QStringList running() const;
    std::size_t waiting(const QString& name) const;
    bool isRunning(const QString& name) const;
    /// Who runs what has this name, now and later.
    JobRunner& runner(const QString& name) { return *lane(name).runner; }

private:
    struct Queued {
        std::function<void(const std::stop_token&, const Progress&)> work;
        std::function<void()> done;
        std::function<void(const InputError&)> failed;
        std::function<void()> calledOff;
    };
    struct Lane {
        JobRunner* runner = nullptr;
        std::deque<Queued> waiting;
        std::function<void()> calledOff; ///< of what is running
    };
    Lane& lane(const QString& name);
    void next(const QString& name);

    std::map<QString, Lane> lanes_;
};

} // namespace ibuki
