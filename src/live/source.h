// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Where readings come from while they are made: the simulated bench, the sensors of this machine, a log that
// another program writes, an instrument that answers. Every source reads in a thread of its own and hands
// rows on; what could not be read is NaN, never the last value.

#include "core/quantity/instant.h"
#include "core/simulate/simulated_bench.h"
#include "core/trace/role.h"
#include "core/trace/timed_row.h"

#include <chrono>
#include <cstdint>
#include <memory>
#include <optional>
#include <stop_token>
#include <string>
#include <vector>

namespace ibuki {

struct SourceChannel {
    std::string column;
    Role role = Role::ignore;
    Unit unit = Unit::none;           ///< canonical: °C, W, MHz, rpm
    std::optional<double> resolution; ///< in unit, where the source knows it
    std::optional<double> accuracy;   ///< ±, in unit
    bool operator==(const SourceChannel&) const = default;
};

/// Who takes the readings. All calls come from the source's thread.
class SourceSink {
public:
    virtual ~SourceSink() = default;
    virtual void take(TimedRow reading) = 0;                   ///< may wait until there is room
    virtual void add(std::vector<SourceChannel> channels) = 0; ///< that appeared later, at the end
    virtual void badRows(std::int64_t count) = 0;              ///< that made no sense, since the last call
};

class Source {
public:
    virtual ~Source() = default;
    virtual const std::string& spec() const = 0; ///< as the user named it
    /// At the opening; more may be added while it runs.
    virtual std::vector<SourceChannel> channels() const = 0;
    /// One reading now, for a list of sensors. NaN for what cannot be read.
    virtual std::vector<double> readNow() = 0;
    /// Until it is asked to stop.
    virtual void run(const std::stop_token& stop, SourceSink& sink) = 0;
    /// Its times are its own; else they are seconds of the steady clock since it began to run.
    virtual bool hasOwnClock() const { return false; }
    /// When its time zero was, where its own clock has a date.
    virtual std::optional<Instant> start() const { return std::nullopt; }
    /// A load acts on what is simulated; nothing: idle. From any thread.
    virtual void setLoad(std::optional<double> /*powerW*/) {}
    virtual bool takesLoad() const { return false; }
    virtual double intervalS() const = 0; ///< between readings, as far as it is known; 0: not
    /// Its readings are typed now and then: silence is no loss.
    virtual bool isTyped() const { return false; }
};

struct SourceOptions {
    double everyS = 1;      ///< of sources that are asked
    double speed = 1;       ///< of simulated time; 0: as fast as it goes
    std::uint64_t seed = 1; ///< of what is simulated
    bool fromStart = false; ///< a followed log gives the rows that are there already
};

// Kinds of source, as a spec begins.
inline constexpr const char* simulatedSpec = "sim";
inline constexpr const char* sensorsSpec = "hwmon";
inline constexpr const char* followedSpec = "follow";
inline constexpr const char* instrumentSpec = "instrument";

/// "sim:BENCH.json", "hwmon", "hwmon:ROOT", "follow:FILE", "instrument:CONFIG.json". Throws InputError
/// (source-unknown; source-empty, source-mute, file-missing, … of what cannot be opened).
std::unique_ptr<Source> openSource(const std::string& spec, const SourceOptions& options);

std::unique_ptr<Source> openSimulatedBench(const std::string& spec, const std::string& file,
                                           const SourceOptions& options);
std::unique_ptr<Source> openSimulatedBench(const std::string& spec, const SimulatedBench& bench,
                                           const SourceOptions& options);
std::unique_ptr<Source> openSensorTree(const std::string& spec, const std::string& root,
                                       const SourceOptions& options);
std::unique_ptr<Source> openFollowedLog(const std::string& spec, const std::string& file,
                                        const SourceOptions& options);
std::unique_ptr<Source> openLineInstrument(const std::string& spec, const std::string& config,
                                           const SourceOptions& options);

/// Waits until then, or until it is asked to stop; false then.
bool waitUntil(const std::stop_token& stop, double steadyS);
double steadyNowS(); ///< of the clock that never goes back
std::chrono::steady_clock::time_point steadyPoint(double steadyS);

/// The column, or with a number that makes it unlike the others: "Core 0 (2) [°C]".
std::string unlikeOthers(const std::string& column, const std::vector<SourceChannel>& others);

} // namespace ibuki
