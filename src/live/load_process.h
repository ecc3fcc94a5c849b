// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A program of the user's own words that puts the machine under load. It runs without a shell, with the
// user's rights, in a group of its own, and ends with whoever started it: also when that one is killed. It is
// told to terminate first and killed two seconds later, with all it started.

#include <string>
#include <vector>

namespace ibuki {

class LoadProcess {
public:
    /// command: program and arguments. Throws InputError (load-command) when nothing can be started at all; a
    /// program that does not exist ends by itself at once.
    explicit LoadProcess(const std::vector<std::string>& command);
    ~LoadProcess(); ///< stops it and waits until it is gone
    LoadProcess(const LoadProcess&) = delete;
    LoadProcess& operator=(const LoadProcess&) = delete;

    /// Asks it to end; does not wait.
    void stop();

private:
    int life_ = -1;  ///< the guard lives as long as it is open
    int guard_ = -1; ///< process that watches over the program
};

} // namespace ibuki
