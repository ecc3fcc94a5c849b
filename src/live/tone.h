// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Tones for somebody who stands at the bench with his back to the screen.

#include <cstdint>
#include <vector>

namespace ibuki {

/// step: two soft tones upwards, something goes on. warning: three loud ones, look at the bench.
enum class Tone { step, warning };

constexpr int toneRateHz = 44'100;

/// One channel, full scale 32767; every tone begins and ends at nothing, so that none of them cracks.
std::vector<std::int16_t> toneSamples(Tone tone);

/// By the system's default sound device; returns when it has been heard. False: there is none.
bool playTone(Tone tone);

} // namespace ibuki
