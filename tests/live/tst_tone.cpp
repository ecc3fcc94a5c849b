// SPDX-License-Identifier: GPL-3.0-or-later
#include "live/tone.h"

#include "support/test_class.h"

#include <cmath>
#include <complex>
#include <numbers>

using namespace ibuki;

/// How much of one frequency the samples hold, as a share of full scale (one term of a Fourier sum).
static double held(const std::vector<std::int16_t>& samples, std::size_t from, std::size_t count, double hz) {
    std::complex<double> sum;
    for (std::size_t i = 0; i < count; ++i)
        sum += std::polar(samples[from + i] / 32767.0,
                          -2 * std::numbers::pi * hz * static_cast<double>(i) / toneRateHz);
    return 2 * std::abs(sum) / static_cast<double>(count);
}

class TestTone : public QObject {
    Q_OBJECT
private slots:
    void aWarningIsLouderAndTonesDoNotCrack() {
        const auto loudest = [](Tone tone) {
            int most = 0;
            for (const std::int16_t sample : toneSamples(tone)) most = std::max(most, std::abs(int{sample}));
            return most / 32767.0;
        };
        QVERIFY(std::abs(loudest(Tone::warning) - 0.8) < 0.005);
        QVERIFY(std::abs(loudest(Tone::step) - 0.35) < 0.005);
        for (const Tone tone : {Tone::step, Tone::warning}) {
            const auto samples = toneSamples(tone);
            int jump = 0; // of a full sine of its loudness at its frequency, at most
            for (std::size_t i = 1; i < samples.size(); ++i)
                jump = std::max(jump, std::abs(samples[i] - samples[i - 1]));
            QVERIFY(jump < 32767 * 0.8 * 2 * std::numbers::pi * 880 / toneRateHz * 1.05);
            QCOMPARE(samples.front(), 0);
            QCOMPARE(samples.back(), 0);
        }
    }
    void aStepGoesUpwards() {
        const auto samples = toneSamples(Tone::step);
        const std::size_t half = samples.size() / 2;
        const std::size_t middle = 4'000;
        QVERIFY(held(samples, 1'000, middle, 523.25) > 0.3);
        QVERIFY(held(samples, 1'000, middle, 659.25) < 0.05);
        QVERIFY(held(samples, half + 1'000, middle, 659.25) > 0.3);
        QVERIFY(held(samples, half + 1'000, middle, 523.25) < 0.05);
    }
    void withoutADeviceItSaysSo() {
        qputenv("ALSA_CONFIG_PATH", "/dev/null"); // no device is configured
        QVERIFY(!playTone(Tone::warning));
        qunsetenv("ALSA_CONFIG_PATH");
    }
};

IBUKI_TEST(TestTone)
#include "tst_tone.moc"
