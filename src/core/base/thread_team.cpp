// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/thread_team.h"

#include <algorithm>
#include <barrier>
#include <thread>
#include <vector>

namespace ibuki {

struct ThreadTeam::State {
    explicit State(int threads) : size(threads), begin(threads), end(threads) {}

    void part(int index) const {
        const int from = static_cast<int>(static_cast<long>(count) * index / size);
        const int to = static_cast<int>(static_cast<long>(count) * (index + 1) / size);
        if (from < to) (*work)(index, from, to);
    }

    int size;
    std::barrier<> begin, end;
    const std::function<void(int, int, int)>* work = nullptr; ///< nothing: go home
    int count = 0;
    std::vector<std::jthread> helpers;
};

ThreadTeam::ThreadTeam(int threads) {
    const int cores = static_cast<int>(std::thread::hardware_concurrency());
    const int wanted = threads > 0 ? threads : std::clamp(cores, 1, 8);
    state_ = std::make_unique<State>(wanted);
    for (int i = 1; i < wanted; ++i)
        state_->helpers.emplace_back([state = state_.get(), i] {
            for (;;) {
                state->begin.arrive_and_wait();
                if (!state->work) return;
                state->part(i);
                state->end.arrive_and_wait();
            }
        });
}

ThreadTeam::~ThreadTeam() {
    state_->work = nullptr;
    state_->begin.arrive_and_wait();
}

int ThreadTeam::size() const { return state_->size; }

void ThreadTeam::run(int count, const std::function<void(int part, int from, int to)>& work) {
    state_->work = &work;
    state_->count = count;
    state_->begin.arrive_and_wait();
    state_->part(0);
    state_->end.arrive_and_wait();
}

} // namespace ibuki
