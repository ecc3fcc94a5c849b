// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Work that outlives the view which asked for it: jobs by name, one after the other under one name, several
// names at once. It stands beside the session and ends with it. What a job yields, why it failed and
// that it was called off goes to the one who queued it.

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
    /// Calls off what is running under the name, and what waits behind it.
    void cancel(const QString& name);

    QStringList running() const;
    std::size_t waiting(const QString& name) const;
    /// Of a name under which something was queued; nullptr before.
    JobRunner* runner(const QString& name) const;

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
    void next(const QString& name);

    std::map<QString, Lane> lanes_;
};

} // namespace ibuki
