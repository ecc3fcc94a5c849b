// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Simulations walk the same paths under sanitizers as without them, but fewer times: rates are judged in the
// release build.

namespace ibuki::test {

#ifdef IBUKI_SANITIZED
inline constexpr bool sanitized = true;
#else
inline constexpr bool sanitized = false;
#endif

constexpr int trials(int full) { return sanitized ? (full + 5) / 6 : full; }

} // namespace ibuki::test
