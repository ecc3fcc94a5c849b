// SPDX-License-Identifier: GPL-3.0-or-later
#include "live/tone.h"

#include <algorithm>
#include <alsa/asoundlib.h>
#include <cmath>
#include <memory>
#include <mutex>
#include <numbers>

namespace ibuki {
namespace {

constexpr double toneS = 0.16;
constexpr double pauseS = 0.07;
constexpr double fadeS = 0.012;
constexpr unsigned int latencyUs = 200'000;

struct Sound {
    std::vector<double> tonesHz;
    double loudness = 0; ///< share of full scale
};

Sound soundOf(Tone tone) {
    return tone == Tone::warning ? Sound{{880, 880, 880}, 0.8} : Sound{{523.25, 659.25}, 0.35};
}

void keepQuiet(const char*, int, const char*, int, const char*, ...) {} // no device is no error here

} // namespace

std::vector<std::int16_t> toneSamples(Tone tone) {
    const Sound sound = soundOf(tone);
    const auto length = static_cast<std::size_t>(toneS * toneRateHz);
    const auto pause = static_cast<std::size_t>(pauseS * toneRateHz);
    std::vector<std::int16_t> samples;
    for (const double hz : sound.tonesHz) {
        for (std::size_t i = 0; i < length; ++i) {
            const double t = static_cast<double>(i) / toneRateHz;
            const double fade = std::min({1.0, t / fadeS, (toneS - t) / fadeS});
            const double value = sound.loudness * fade * std::sin(2 * std::numbers::pi * hz * t);
            samples.push_back(static_cast<std::int16_t>(std::lround(32767 * value)));
        }
        samples.insert(samples.end(), pause, 0);
    }
    return samples;
}

bool playTone(Tone tone) {
    static std::mutex device; // one after the other
    const std::lock_guard lock(device);
    snd_lib_error_set_handler(keepQuiet);
    snd_pcm_t* opened = nullptr;
    if (snd_pcm_open(&opened, "default", SND_PCM_STREAM_PLAYBACK, 0) < 0) return false;
    const std::unique_ptr<snd_pcm_t, decltype(&snd_pcm_close)> pcm(opened, snd_pcm_close);
    if (snd_pcm_set_params(pcm.get(), SND_PCM_FORMAT_S16, SND_PCM_ACCESS_RW_INTERLEAVED, 1, toneRateHz, 1,
                           latencyUs)
        < 0)
        return false;
    const auto samples = toneSamples(tone);
    std::size_t written = 0;
    while (written < samples.size()) {
        const auto now = snd_pcm_writei(pcm.get(), samples.data() + written, samples.size() - written);
        if (now < 0 && snd_pcm_recover(pcm.get(), static_cast<int>(now), 1) < 0) return false;
        written += now > 0 ? static_cast<std::size_t>(now) : 0;
    }
    snd_pcm_drain(pcm.get());
    return true;
}

} // namespace ibuki
