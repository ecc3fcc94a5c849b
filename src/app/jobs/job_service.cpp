// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/jobs/job_service.h"

#include <utility>

namespace ibuki {

JobService::Lane& JobService::lane(const QString& name) {
    Lane& lane = lanes_[name];
    if (lane.runner) return lane;
    lane.runner = new JobRunner(this);
    // After the result has gone to whoever wanted it.
    connect(
        lane.runner, &JobRunner::ended, this, [this, name] { next(name); }, Qt::QueuedConnection);
    connect(lane.runner, &JobRunner::cancelled, this, [this, name] {
        if (const auto reported = std::exchange(lanes_.at(name).calledOff, {})) reported();
    });
    return lane;
}

void JobService::queue(const QString& name, std::function<void(const std::stop_token&, const Progress&)> work,
                       std::function<void()> done, std::function<void(const InputError&)> failed,
                       std::function<void()> calledOff) {
    Lane& at = lane(name);
    at.waiting.push_back({std::move(work), std::move(done), std::move(failed), std::move(calledOff)});
    if (!at.runner->isRunning() && at.waiting.size() == 1) next(name);
}

void JobService::next(const QString& name) {
    Lane& lane = lanes_.at(name);
    if (lane.runner->isRunning() || lane.waiting.empty()) return;
    Queued job = std::move(lane.waiting.front());
    lane.waiting.pop_front();
    lane.calledOff = std::move(job.calledOff);
    lane.runner->start<int>(
        [work = std::move(job.work)](const std::stop_token& stop, const Progress& progress) {
            work(stop, progress);
            return 0;
        },
        [done = std::move(job.done)](int) { done(); }, std::move(job.failed));
}

void JobService::cancel(const QString& name) {
    const auto lane = lanes_.find(name);
    if (lane == lanes_.end()) return;
    lane->second.waiting.clear();
    lane->second.runner->cancel();
}

QStringList JobService::running() const {
    QStringList names;
    for (const auto& [name, lane] : lanes_)
        if (lane.runner->isRunning()) names << name;
    return names;
}

std::size_t JobService::waiting(const QString& name) const {
    const auto lane = lanes_.find(name);
    return lane == lanes_.end() ? 0 : lane->second.waiting.size();
}

bool JobService::isRunning(const QString& name) const {
    const auto lane = lanes_.find(name);
    return lane != lanes_.end() && lane->second.runner->isRunning();
}

} // namespace ibuki
