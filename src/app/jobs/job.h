// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Work off the main thread. A job owns copies of its inputs, returns a plain value, is tied to the object
// that wants it, and ends in one of three ways: done, cancelled, failed. A newer job on the same runner
// outdates the older one: it is asked to stop, nobody waits for it, and its result is dropped.

#include "core/base/input_error.h"
#include "core/base/progress.h"

#include <QObject>
#include <QPointer>
#include <functional>
#include <map>
#include <memory>
#include <mutex>
#include <optional>
#include <stop_token>
#include <thread>
#include <vector>

namespace ibuki {

class JobRunner : public QObject {
    Q_OBJECT

public:
    explicit JobRunner(QObject* parent = nullptr);
    ~JobRunner() override; ///< asks the worker to stop and waits for it

    /// work(stop, progress) runs on the worker; then, on the main thread, done(result), or failed(error).
    /// Work that ends after cancel() calls neither; cancelled() is emitted instead.
    template <class Result>
    void start(std::function<Result(std::stop_token, const Progress&)> work, std::function<void(Result)> done,
               std::function<void(const InputError&)> failed) {
        const int ticket = begin();
        workers_[ticket] = std::jthread([this, ticket, work = std::move(work), done = std::move(done),
                                         failed = std::move(failed)](const std::stop_token& stop) {
            auto result = std::make_shared<std::optional<Result>>();
            std::optional<InputError> error;
            bool stopped = false;
            try {
                *result = work(stop, [this, ticket](double share) { report(ticket, share); });
            } catch (const InputError& thrown) {
                error = thrown;
            } catch (...) {
                error = failure(stopped);
            }
            if (stop.stop_requested()) stopped = true;
            post([this, ticket, result, error, stopped, done, failed] {
                if (!finish(ticket, stopped)) return;
                if (error)
                    failed(*error);
                else if (*result)
                    done(std::move(**result));
            });
        });
    }

    void cancel();
    bool isRunning() const { return running_; }
    int ticket() const { return ticket_; } ///< of the newest job

signals:
    void progressed(double share);
    void ended(); ///< in whichever way
    void cancelled();

private:
    int begin();
    /// Of the exception that is being handled: what failed, for whoever is told of it. Nothing and `stopped`
    /// when it says that the work was called off.
    static std::optional<InputError> failure(bool& stopped);
    void report(int ticket, double share);
    bool finish(int ticket, bool stopped); ///< true when the result counts
    /// From the worker: leave a message for the main thread. The messages change hands under our own mutex;
    /// Qt only rings the bell.
    void post(std::function<void()> message);
    Q_INVOKABLE void collect();

    int ticket_ = 0;
    bool running_ = false;
    std::mutex mutex_;
    std::vector<std::function<void()>> messages_; ///< guarded by mutex_
    std::map<int, std::jthread> workers_;         ///< by ticket, until their last message has come
};

} // namespace ibuki
