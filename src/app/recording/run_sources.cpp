// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/recording/run_sources.h"

#include "app/session/session.h"
#include "core/ageing/joint_history.h"
#include "core/base/input_error.h"
#include "core/domain/bench.h"
#include "core/practice/practice.h"
#include "store/local_time.h"
#include "words/words.h"

#include <algorithm>
#include <filesystem>

namespace ibuki {

std::vector<std::string> sourcesOf(const Document& document, Id<Bench> bench) {
    auto sources = document.where(&BenchSource::bench, bench);
    std::sort(sources.begin(), sources.end(),
              [](const BenchSource* a, const BenchSource* b) { return a->position < b->position; });
    std::vector<std::string> specs;
    for (const BenchSource* source : sources) specs.push_back(source->spec);
    return specs;
}

std::string sourceTitle(const std::string& spec) {
    const std::size_t colon = spec.find(':');
    const std::string kind = spec.substr(0, colon);
    const std::string file = colon == std::string::npos
                                 ? std::string()
                                 : std::filesystem::path(spec.substr(colon + 1)).filename().string();
    if (spec == practiceSource) return words::say("The bench to practise on");
    if (kind == sensorsSpec)
        return file.empty() ? words::say("Sensors of this machine")
                            : words::say("Sensors under {file}", {{"file", file}});
    if (kind == followedSpec) return words::say("The log {file}, as it grows", {{"file", file}});
    if (kind == instrumentSpec) return words::say("The instrument of {file}", {{"file", file}});
    if (kind == simulatedSpec) return words::say("The simulated bench of {file}", {{"file", file}});
    return spec;
}

std::unique_ptr<Source> openRunSource(const Document& document, const std::string& spec, const RunFor& whom,
                                      const SourceOptions& options) {
    if (spec != practiceSource) return openSource(spec, options);
    const Slot* slot = document.find(whom.slot);
    MountClock worn;
    if (!slot && whom.mount) {
        const auto filled = document.where(&Slot::mount, whom.mount);
        if (!filled.empty()) slot = filled.front();
        const Instant now = wallNow();
        const MountHistory history = jointHistory(document, *whom.mount);
        worn = history.at(std::max(now, history.lastRecorded().value_or(now)));
    }
    const Practice* practice = slot ? practiceOf(document, slot->study) : nullptr;
    if (!practice) throw InputError("source-practice", {});
    SourceOptions seeded = options;
    seeded.seed = static_cast<std::uint64_t>(practice->seed) + static_cast<std::uint64_t>(document.nextId);
    return openSimulatedBench(spec, practiceMount(document, *practice, *slot, worn).bench, seeded);
}

std::vector<SourceReading> readOnce(const Document& document, const std::vector<std::string>& specs,
                                    const RunFor& whom) {
    std::vector<SourceReading> readings;
    for (const std::string& spec : specs) {
        SourceReading reading{spec, {}, {}, {}};
        try {
            const auto source = openRunSource(document, spec, whom, {});
            reading.values = source->readNow();
            reading.channels = source->channels();
        } catch (const InputError& error) {
            reading.trouble = words::sentence(error);
        }
        readings.push_back(std::move(reading));
    }
    return readings;
}

} // namespace ibuki
