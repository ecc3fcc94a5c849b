// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A mapped file that another program cuts off ends the reader with SIGBUS. Inside a guarded map the missing
// page is replaced by zeros instead, and it is noted that this happened. Faults elsewhere end the program as
// ever.

#include <cstddef>

namespace ibuki {

/// Place of the map among the guarded ones; −1 when there are too many (it is read unguarded then).
int guardMap(const char* begin, std::size_t bytes);
bool mapWasCut(int place);
void releaseMap(int place);

} // namespace ibuki
