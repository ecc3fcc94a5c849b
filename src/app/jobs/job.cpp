// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/jobs/job.h"

namespace ibuki {

JobRunner::JobRunner(QObject* parent) : QObject(parent) {}

JobRunner::~JobRunner() {
    worker_.request_stop();
    if (worker_.joinable()) worker_.join();
}

int JobRunner::begin() {
    worker_.request_stop();
    if (worker_.joinable()) worker_.join();
    running_ = true;
    return ++ticket_;
}

void JobRunner::cancel() { worker_.request_stop(); }

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
    if (ticket != ticket_) return false; // outdated by a newer job
    running_ = false;
    emit ended();
    if (stopped) emit cancelled();
    return !stopped;
}

} // namespace ibuki
