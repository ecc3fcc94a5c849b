// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/jobs/job.h"

namespace ibuki {

JobRunner::JobRunner(QObject* parent) : QObject(parent) {}

JobRunner::~JobRunner() {
    cancel();
    workers_.clear(); // waits for all of them
}

int JobRunner::begin() {
    cancel();
    running_ = true;
    return ++ticket_;
}

void JobRunner::cancel() {
    for (auto& [ticket, worker] : workers_) worker.request_stop();
}

std::optional<InputError> JobRunner::failure(bool& stopped) {
    try {
        throw;
    } catch (const std::bad_alloc&) {
        return InputError("memory-short", {});
    } catch (const std::exception& error) { // of a library: what it says is all that is known
        return InputError("job-failed", {}, {{"reason", error.what()}});
    } catch (...) { // Cancelled
        stopped = true;
        return std::nullopt;
    }
}

void JobRunner::report(int ticket, double share) {
    post([this, ticket, share] {
        if (ticket == ticket_) emit progressed(share);
    });
}

void JobRunner::post(std::function<void()> message) {
    {
        const std::scoped_lock lock(mutex_);
        messages_.push_back(std::move(message));
    }
    QMetaObject::invokeMethod(this, "collect", Qt::QueuedConnection);
}

void JobRunner::collect() {
    std::vector<std::function<void()>> messages;
    {
        const std::scoped_lock lock(mutex_);
        messages.swap(messages_);
    }
    const QPointer<JobRunner> alive(this); // a message may end what owns us
    for (const auto& message : messages)
        if (alive) message();
}

bool JobRunner::finish(int ticket, bool stopped) {
    workers_.erase(ticket);              // this was its last message: it has nothing left to do
    if (ticket != ticket_) return false; // outdated by a newer job
    running_ = false;
    emit ended();
    if (stopped) emit cancelled();
    return !stopped;
}

} // namespace ibuki
