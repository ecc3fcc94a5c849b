// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the threads of the sources hand to the loop that records.

#include "live/driving.h"
#include "live/source.h"

#include <condition_variable>
#include <deque>
#include <mutex>

namespace ibuki {

struct Arrived {
    std::size_t source = 0;
    double arrivedS = 0; ///< steady clock
    TimedRow reading;    ///< without a time and values where it is something else that arrived
    std::vector<SourceChannel> added;
    std::int64_t bad = 0;
    Driven driven; ///< what this reading, or a word of the user, made happen
    bool isRow = false;
};

class ReadingQueue {
public:
    static constexpr std::size_t saveRows = 2'000;    ///< so many do not wait for their time
    static constexpr std::size_t mostQueued = 20'000; ///< rows; sources wait then

    void put(Arrived arrived);
    /// Waits until then, until it is asked to stop, or until there are many.
    std::deque<Arrived> takeAll(const std::stop_token& stop, double untilS);
    void close(); ///< nobody waits for room any more

private:
    std::mutex mutex_;
    std::condition_variable_any some_;
    std::condition_variable room_;
    std::deque<Arrived> waiting_;
    bool closed_ = false;
};

/// Of one source. driving may be nullptr; keptS: how long its readings count.
class QueueSink : public SourceSink {
public:
    QueueSink(ReadingQueue& queue, std::size_t source, Driving* driving, double keptS)
        : queue_(queue), source_(source), driving_(driving), keptS_(keptS) {}
    void take(TimedRow reading) override;
    void add(std::vector<SourceChannel> channels) override;
    void badRows(std::int64_t count) override;

private:
    Arrived now() const;

    ReadingQueue& queue_;
    std::size_t source_;
    Driving* driving_;
    double keptS_;
};

} // namespace ibuki
