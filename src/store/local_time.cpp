// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/local_time.h"

namespace ibuki {

Instant localTime(const timespec& moment) {
    std::tm local{};
    ::localtime_r(&moment.tv_sec, &local);
    return {(static_cast<std::int64_t>(moment.tv_sec) + local.tm_gmtoff) * 1000 + moment.tv_nsec / 1'000'000};
}

Instant wallNow() {
    timespec now{};
    ::clock_gettime(CLOCK_REALTIME, &now);
    return localTime(now);
}

} // namespace ibuki
