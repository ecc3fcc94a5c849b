// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/map_guard.h"

#include <array>
#include <atomic>
#include <csignal>
#include <cstdint>
#include <mutex>
#include <sys/mman.h>
#include <unistd.h>

namespace ibuki {
namespace {

/// Read by the handler, hence plain atomics; begin is written last and cleared first.
struct Guarded {
    std::atomic<std::uintptr_t> begin = 0;
    std::atomic<std::size_t> bytes = 0;
    std::atomic<bool> cut = false;
};

std::array<Guarded, 64> maps;
std::mutex guarding;
long pageBytes = 4096;
struct sigaction before {};

void onBusError(int signal, siginfo_t* info, void* context) {
    auto* const address = static_cast<char*>(info->si_addr);
    const auto at = reinterpret_cast<std::uintptr_t>(address);
    for (Guarded& map : maps) {
        const std::uintptr_t begin = map.begin.load(std::memory_order_acquire);
        if (begin == 0 || at < begin || at >= begin + map.bytes.load(std::memory_order_relaxed)) continue;
        char* const page = address - at % static_cast<std::uintptr_t>(pageBytes);
        if (::mmap(page, static_cast<std::size_t>(pageBytes), PROT_READ,
                   MAP_PRIVATE | MAP_ANONYMOUS | MAP_FIXED, -1, 0)
            == MAP_FAILED)
            break;
        map.cut.store(true, std::memory_order_relaxed);
        return;
    }
    if ((before.sa_flags & SA_SIGINFO) != 0 && before.sa_sigaction)
        return before.sa_sigaction(signal, info, context);
    std::signal(signal, SIG_DFL); // the fault happens again, and ends the program
}

void installHandler() {
    static const bool once = [] {
        pageBytes = ::sysconf(_SC_PAGESIZE);
        struct sigaction action {};
        action.sa_sigaction = onBusError;
        action.sa_flags = SA_SIGINFO | SA_NODEFER;
        ::sigemptyset(&action.sa_mask);
        return ::sigaction(SIGBUS, &action, &before) == 0;
    }();
    (void)once;
}

Guarded& mapAt(int place) { return maps[static_cast<std::size_t>(place)]; }

} // namespace

int guardMap(const char* begin, std::size_t bytes) {
    installHandler();
    const std::lock_guard lock(guarding);
    for (std::size_t i = 0; i < maps.size(); ++i) {
        if (maps[i].begin.load() != 0) continue;
        maps[i].cut.store(false);
        maps[i].bytes.store(bytes);
        maps[i].begin.store(reinterpret_cast<std::uintptr_t>(begin), std::memory_order_release);
        return static_cast<int>(i);
    }
    return -1;
}

bool mapWasCut(int place) { return mapAt(place).cut.load(); }

void releaseMap(int place) {
    const std::lock_guard lock(guarding);
    mapAt(place).begin.store(0, std::memory_order_release);
}

} // namespace ibuki
