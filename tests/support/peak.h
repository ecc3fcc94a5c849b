// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The most memory that the process has had resident, MB.

#include <sys/resource.h>

namespace ibuki::story {

inline long peakMB() {
    rusage usage{};
    ::getrusage(RUSAGE_SELF, &usage);
    return usage.ru_maxrss / 1024;
}

} // namespace ibuki::story
