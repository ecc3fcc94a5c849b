// SPDX-License-Identifier: GPL-3.0-or-later
#include "live/reading_queue.h"

#include <utility>

namespace ibuki {

void ReadingQueue::put(Arrived arrived) {
    std::unique_lock lock(mutex_);
    room_.wait(lock, [this] { return closed_ || waiting_.size() < mostQueued; });
    if (closed_) return;
    waiting_.push_back(std::move(arrived));
    lock.unlock();
    some_.notify_one();
}

std::deque<Arrived> ReadingQueue::takeAll(const std::stop_token& stop, double untilS) {
    std::unique_lock lock(mutex_);
    some_.wait_until(lock, stop, steadyPoint(untilS), [this] { return waiting_.size() >= saveRows; });
    std::deque<Arrived> taken = std::exchange(waiting_, {});
    lock.unlock();
    room_.notify_all();
    return taken;
}

void ReadingQueue::close() {
    const std::lock_guard lock(mutex_);
    closed_ = true;
    room_.notify_all();
}

Arrived QueueSink::now() const {
    Arrived arrived;
    arrived.source = source_;
    arrived.arrivedS = steadyNowS();
    return arrived;
}

void QueueSink::take(TimedRow reading) {
    Arrived arrived = now();
    arrived.isRow = true;
    arrived.reading = std::move(reading);
    if (driving_) arrived.driven = driving_->take(source_, arrived.arrivedS, arrived.reading);
    queue_.put(std::move(arrived));
}

void QueueSink::add(std::vector<SourceChannel> channels) {
    Arrived arrived = now();
    if (driving_) driving_->add(source_, channels, keptS_);
    arrived.added = std::move(channels);
    queue_.put(std::move(arrived));
}

void QueueSink::badRows(std::int64_t count) {
    Arrived arrived = now();
    arrived.bad = count;
    queue_.put(std::move(arrived));
}

} // namespace ibuki
