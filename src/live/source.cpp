// SPDX-License-Identifier: GPL-3.0-or-later
#include "live/source.h"

#include "core/base/input_error.h"
#include "core/simulate/simulated_bench.h"
#include "store/json/simulate_json.h"

#include <algorithm>
#include <atomic>
#include <chrono>
#include <condition_variable>
#include <fmt/format.h>
#include <mutex>

namespace ibuki {
namespace {

class SimulatedSource : public Source {
public:
    SimulatedSource(std::string spec, const SimulatedBench& bench, const SourceOptions& options)
        : spec_(std::move(spec)),
          bench_(bench),
          options_(options),
          simulation_(bench, options.everyS, options.seed) {}

    const std::string& spec() const override { return spec_; }
    bool hasOwnClock() const override { return true; }
    double intervalS() const override { return options_.everyS; }
    bool takesLoad() const override { return true; }
    void setLoad(std::optional<double> powerW) override { loadW_ = powerW.value_or(noLoad); }

    std::vector<SourceChannel> channels() const override {
        std::vector<SourceChannel> channels;
        for (const Channel& channel : simulation_.channels()) {
            SourceChannel reported{channel.column, channel.role, channel.fileUnit, {}, {}};
            if (channel.role == Role::core || channel.role == Role::package)
                reported.resolution = bench_.sensorStepK;
            if (channel.role == Role::ambient) reported.resolution = bench_.ambientStepK;
            if (reported.resolution && !(*reported.resolution > 0)) reported.resolution.reset();
            channels.push_back(std::move(reported));
        }
        return channels;
    }

    std::vector<double> readNow() override {
        return BenchSimulation(bench_, options_.everyS, options_.seed).next(std::nullopt);
    }

    void run(const std::stop_token& stop, SourceSink& sink) override {
        const double begin = steadyNowS();
        for (std::int64_t i = 0; !stop.stop_requested(); ++i) {
            const double time = static_cast<double>(i) * options_.everyS;
            if (options_.speed > 0 && !waitUntil(stop, begin + time / options_.speed)) return;
            const double load = loadW_;
            sink.take({time, simulation_.next(load == noLoad ? std::nullopt : std::optional(load))});
        }
    }

private:
    std::string spec_;
    SimulatedBench bench_;
    SourceOptions options_;
    BenchSimulation simulation_;
    static constexpr double noLoad = -1;
    std::atomic<double> loadW_ = noLoad;
};

} // namespace

double steadyNowS() {
    return std::chrono::duration<double>(std::chrono::steady_clock::now().time_since_epoch()).count();
}

std::chrono::steady_clock::time_point steadyPoint(double steadyS) {
    return std::chrono::steady_clock::time_point(
        std::chrono::duration_cast<std::chrono::steady_clock::duration>(
            std::chrono::duration<double>(steadyS)));
}

bool waitUntil(const std::stop_token& stop, double steadyS) {
    std::mutex mutex;
    std::condition_variable_any woken;
    std::unique_lock lock(mutex);
    const auto until =
        std::chrono::steady_clock::time_point(std::chrono::duration_cast<std::chrono::steady_clock::duration>(
            std::chrono::duration<double>(steadyS)));
    woken.wait_until(lock, stop, until, [] { return false; });
    return !stop.stop_requested();
}

std::string unlikeOthers(const std::string& column, const std::vector<SourceChannel>& others) {
    const auto used = [&](const std::string& name) {
        return std::any_of(others.begin(), others.end(),
                           [&](const SourceChannel& other) { return other.column == name; });
    };
    if (!used(column)) return column;
    const std::size_t unit = column.rfind(" [");
    const std::string tail = unit == std::string::npos ? std::string() : column.substr(unit);
    for (int number = 2;; ++number) {
        std::string name = fmt::format("{} ({}){}", column.substr(0, unit), number, tail);
        if (!used(name)) return name;
    }
}

std::unique_ptr<Source> openSimulatedBench(const std::string& spec, const std::string& file,
                                           const SourceOptions& options) {
    return openSimulatedBench(spec, benchFromJson(readJsonFile(file), file), options);
}

std::unique_ptr<Source> openSimulatedBench(const std::string& spec, const SimulatedBench& bench,
                                           const SourceOptions& options) {
    return std::make_unique<SimulatedSource>(spec, bench, options);
}

std::unique_ptr<Source> openSource(const std::string& spec, const SourceOptions& options) {
    const std::size_t colon = spec.find(':');
    const std::string kind = spec.substr(0, colon);
    const std::string rest = colon == std::string::npos ? std::string() : spec.substr(colon + 1);
    if (kind == sensorsSpec) return openSensorTree(spec, rest.empty() ? "/sys" : rest, options);
    if (!rest.empty() && kind == simulatedSpec) return openSimulatedBench(spec, rest, options);
    if (!rest.empty() && kind == followedSpec) return openFollowedLog(spec, rest, options);
    if (!rest.empty() && kind == instrumentSpec) return openLineInstrument(spec, rest, options);
    throw InputError("source-unknown", {}, {{"source", spec}});
}

} // namespace ibuki
