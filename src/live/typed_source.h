// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Readings that somebody takes with his own eyes and types: a room thermometer without a cable, a meter at
// the wall, a sound-level meter. Each is a row at the time at which it was typed.

#include "live/source.h"

#include <condition_variable>
#include <mutex>

namespace ibuki {

class TypedSource : public Source {
public:
    static constexpr double keptS = 3'600; ///< how long a typed reading counts as what is there now

    /// One channel; column with its unit: "Room, by hand [°C]".
    TypedSource(std::string spec, SourceChannel channel);

    const std::string& spec() const override { return spec_; }
    std::vector<SourceChannel> channels() const override { return {channel_}; }
    std::vector<double> readNow() override;
    void run(const std::stop_token& stop, SourceSink& sink) override;
    double intervalS() const override { return 0; }
    bool isTyped() const override { return true; }

    /// From any thread; in the channel's unit. What is typed before it runs is the first row.
    void type(double value);

private:
    std::string spec_;
    SourceChannel channel_;
    std::mutex mutex_;
    std::condition_variable_any some_;
    std::vector<std::pair<double, double>> typed_; ///< steady time, value
};

} // namespace ibuki
