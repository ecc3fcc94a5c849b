// SPDX-License-Identifier: GPL-3.0-or-later
// Reading speed and peak memory of `ibuki-cli reduce` on a log of 60 MB and 200 columns that it makes itself,
// beside a plain scan for line ends of the same file (the limit of the memory). Build: ninja bench-reduce.

#include "core/base/random.h"

#include <algorithm>
#include <chrono>
#include <cstring>
#include <filesystem>
#include <fmt/format.h>
#include <fstream>
#include <iterator>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>
#include <vector>

namespace {

using Clock = std::chrono::steady_clock;

double secondsSince(Clock::time_point start) {
    return std::chrono::duration<double>(Clock::now() - start).count();
}

/// 12 columns with a role, 187 without, about 60 MB.
void makeLog(const std::filesystem::path& path) {
    ibuki::Random random(1);
    std::string text = "Time [s]";
    for (int i = 0; i < 8; ++i) text += fmt::format(",Core {} [°C]", i);
    text += ",Package [°C],Room [°C],Package Power [W],Fan [RPM]";
    for (int i = 0; i < 187; ++i) text += fmt::format(",Rail {} [V]", i);
    text += '\n';
    auto out = std::back_inserter(text);
    for (int row = 0; text.size() < 60'000'000; ++row) {
        const bool load = row > 3000 && row < 45'000;
        fmt::format_to(out, "{}", row);
        for (int i = 0; i < 9; ++i) fmt::format_to(out, ",{:.1f}", (load ? 65 : 30) + 0.4 * random.normal());
        fmt::format_to(out, ",{:.1f},{:.2f},1420", 22 + 0.05 * random.normal(),
                       (load ? 150 : 28) + random.normal());
        for (int i = 0; i < 187; ++i) fmt::format_to(out, ",{:.3f}", 12 + 0.01 * (i % 7));
        text += '\n';
    }
    std::ofstream(path, std::ios::binary) << text;
}

struct Measured {
    double seconds = 0;
    double peakMb = 0;
};

Measured runCommand(const std::filesystem::path& log) {
    const auto start = Clock::now();
    const pid_t child = ::fork();
    if (child == 0) {
        if (!std::freopen("/dev/null", "w", stdout)) ::_exit(1);
        ::execl(IBUKI_CLI, IBUKI_CLI, "reduce", log.c_str(), "--json", nullptr);
        ::_exit(127);
    }
    int status = 0;
    rusage usage{};
    ::wait4(child, &status, 0, &usage);
    if (status != 0) fmt::print(stderr, "ibuki-cli failed\n");
    return {secondsSince(start), static_cast<double>(usage.ru_maxrss) / 1024};
}

double scanLines(const std::filesystem::path& log) {
    std::ifstream file(log, std::ios::binary);
    std::string text((std::istreambuf_iterator<char>(file)), {});
    const auto start = Clock::now();
    std::size_t lines = 0;
    const char* at = text.data();
    const char* const end = at + text.size();
    while ((at = static_cast<const char*>(std::memchr(at, '\n', static_cast<std::size_t>(end - at))))) {
        ++lines;
        if (++at == end) break;
    }
    const double seconds = secondsSince(start);
    fmt::print("lines                {}\n", lines);
    return seconds;
}

} // namespace

int main() {
    const auto log = std::filesystem::temp_directory_path() / fmt::format("ibuki-bench-{}.csv", ::getpid());
    makeLog(log);
    const double mb = static_cast<double>(std::filesystem::file_size(log)) / 1e6;
    runCommand(log); // the file is in the cache from here on
    std::vector<Measured> runs;
    for (int i = 0; i < 5; ++i) runs.push_back(runCommand(log));
    const auto best =
        *std::min_element(runs.begin(), runs.end(), [](auto& a, auto& b) { return a.seconds < b.seconds; });
    const double scan = scanLines(log);
    fmt::print("log                  {:.1f} MB, 200 columns\n", mb);
    fmt::print("ibuki-cli reduce     {:.0f} MB/s ({:.3f} s, best of 5), peak resident {:.0f} MB of which the "
               "mapped file {:.0f} MB\n",
               mb / best.seconds, best.seconds, best.peakMb, mb);
    fmt::print("plain newline scan   {:.0f} MB/s\n", mb / scan);
    std::filesystem::remove(log);
}
