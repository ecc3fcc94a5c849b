// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A few threads that work through the same loops together, again and again, without being started each time.
// How a loop is parted does not change what it computes: no sum is formed across parts here.

#include <functional>
#include <memory>

namespace ibuki {

class ThreadTeam {
public:
    /// threads: 0 takes as many as the machine has cores, at most 8.
    explicit ThreadTeam(int threads = 0);
    ~ThreadTeam();
    ThreadTeam(const ThreadTeam&) = delete;
    ThreadTeam& operator=(const ThreadTeam&) = delete;

    int size() const;
    /// work(part, from, to) on parts of 0 … count, part below size(), and waits for all of them. `work` does
    /// not throw.
    void run(int count, const std::function<void(int part, int from, int to)>& work);

private:
    struct State;
    std::unique_ptr<State> state_;
};

} // namespace ibuki
