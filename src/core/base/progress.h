// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How long work tells what it has done, and how it ends when it was called off.

#include <functional>

namespace ibuki {

/// The share that is done, 0 to 1, from the thread that does it; safe to call from there.
using Progress = std::function<void(double)>;

/// Work that was called off; not an error.
struct Cancelled {};

} // namespace ibuki
