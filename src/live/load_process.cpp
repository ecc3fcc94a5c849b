// SPDX-License-Identifier: GPL-3.0-or-later
#include "live/load_process.h"

#include "core/base/input_error.h"

#include <cerrno>
#include <csignal>
#include <cstring>
#include <fcntl.h>
#include <poll.h>
#include <sys/wait.h>
#include <unistd.h>

namespace ibuki {
namespace {

constexpr int pollMs = 50;
constexpr int graceMs = 2'000; ///< between terminate and kill

// What follows runs in forked processes of a program with threads: nothing but system calls.

[[noreturn]] void becomeProgram(char* const* command) {
    ::setpgid(0, 0);
    const int nothing = ::open("/dev/null", O_RDWR);
    ::dup2(nothing, STDIN_FILENO);
    ::dup2(STDERR_FILENO, STDOUT_FILENO); // ours tells events
    ::execvp(command[0], command);
    ::_exit(127);
}

bool waitForGroup(pid_t program, int ms) {
    for (int waited = 0; waited <= ms; waited += pollMs) {
        while (::waitpid(-1, nullptr, WNOHANG) > 0) {
        }
        if (::kill(-program, 0) != 0 && errno == ESRCH) return true; // nobody of the group is left
        ::poll(nullptr, 0, pollMs);
    }
    return false;
}

/// Waits until whoever started it closes the line or is gone; then ends the program with its group.
[[noreturn]] void watchOver(int life, char* const* command) {
    ::setsid(); // signals of the terminal are for the one who records
    for (int signal = 1; signal < 32; ++signal) ::signal(signal, SIG_DFL);
    sigset_t none;
    sigemptyset(&none);
    ::sigprocmask(SIG_SETMASK, &none, nullptr);
    ::dup2(life, 3);
    ::close_range(4, ~0U, 0); // the project's lock among them
    const pid_t program = ::fork();
    if (program == 0) {
        ::close(3);
        becomeProgram(command);
    }
    if (program < 0) ::_exit(126);
    ::setpgid(program, program); // whoever is first
    for (;;) {
        pollfd line{3, POLLIN, 0};
        if (::poll(&line, 1, -1) > 0 && (line.revents & (POLLIN | POLLHUP | POLLERR)) != 0) break;
    }
    ::kill(-program, SIGTERM);
    if (!waitForGroup(program, graceMs)) {
        ::kill(-program, SIGKILL);
        waitForGroup(program, graceMs);
    }
    ::_exit(0);
}

} // namespace

LoadProcess::LoadProcess(const std::vector<std::string>& command) {
    std::vector<std::string> words = command;
    std::vector<char*> arguments;
    for (std::string& word : words) arguments.push_back(word.data());
    arguments.push_back(nullptr);
    int line[2];
    if (words.empty() || ::pipe2(line, O_CLOEXEC) != 0)
        throw InputError("load-command", {}, {{"reason", std::strerror(errno)}});
    guard_ = ::fork();
    if (guard_ == 0) {
        ::close(line[1]);
        watchOver(line[0], arguments.data());
    }
    const int error = errno;
    ::close(line[0]);
    life_ = line[1];
    if (guard_ >= 0) return;
    ::close(life_);
    throw InputError("load-command", {}, {{"reason", std::strerror(error)}});
}

void LoadProcess::stop() {
    if (life_ >= 0) ::close(life_);
    life_ = -1;
}

LoadProcess::~LoadProcess() {
    stop();
    while (guard_ > 0 && ::waitpid(guard_, nullptr, 0) < 0 && errno == EINTR) {
    }
}

} // namespace ibuki
