// SPDX-License-Identifier: GPL-3.0-or-later
#include "live/typed_source.h"

#include "core/base/nan.h"

#include <algorithm>
#include <utility>

namespace ibuki {

TypedSource::TypedSource(std::string spec, SourceChannel channel)
    : spec_(std::move(spec)), channel_(std::move(channel)) {}

void TypedSource::type(double value) {
    {
        const std::lock_guard lock(mutex_);
        typed_.emplace_back(steadyNowS(), value);
    }
    some_.notify_all();
}

std::vector<double> TypedSource::readNow() {
    const std::lock_guard lock(mutex_);
    return {typed_.empty() ? nan : typed_.back().second};
}

void TypedSource::run(const std::stop_token& stop, SourceSink& sink) {
    const double begin = steadyNowS();
    std::unique_lock lock(mutex_);
    while (some_.wait(lock, stop, [this] { return !typed_.empty(); })) {
        const auto taken = std::exchange(typed_, {});
        lock.unlock();
        for (const auto& [at, value] : taken) sink.take(TimedRow{std::max(0.0, at - begin), {value}});
        lock.lock();
    }
}

} // namespace ibuki
