// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Records the readings of sources into a project: sources read in threads of their own, one loop lays their
// rows in the order of time, stores them at least twice a second and tells what happens. A row is in the
// project before anybody is told of it.

#include "core/base/flag.h"
#include "live/driving.h"
#include "live/source.h"
#include "store/project/recording_journal.h"

#include <functional>
#include <map>
#include <memory>
#include <variant>
#include <vector>

namespace ibuki {

struct RecordedChannel {
    SourceChannel channel; ///< its column made unique among all sources
    std::string source;    ///< spec
};

struct ChannelsOpened {
    std::vector<RecordedChannel> channels; ///< at the opening, or those that came later
    bool later = false;
};
struct RowsSaved {
    LiveExtent extent;                ///< on the disk from here on
    std::vector<TimedRow> rows;       ///< those that came to it, at least one; times since the first row
    std::vector<BenchSample> samples; ///< what the channels said together of the bench at each of them
};
struct FlagRaised {
    Flag flag;
    double atS = 0; ///< since the first row
};
struct StepChanged {
    StepOccurrence step;
    StepState state = StepState::begun;
    double atS = 0; ///< since the first row
    std::optional<double> predictedS;
};
using RecorderEvent = std::variant<ChannelsOpened, RowsSaved, FlagRaised, StepChanged>;

/// What a recording goes through and by what it is watched.
struct Conduct {
    std::vector<StepOccurrence> steps; ///< it ends with the last of them; none: it ends by itself or never
    std::map<std::string, std::vector<std::string>>
        commands; ///< of loads by name, run while their load should; who gives them has the user's consent
    std::optional<MonitorRules> rules; ///< nothing: nothing is watched
};

struct RecorderResult {
    LiveExtent extent;
    std::int64_t lost = 0;        ///< rows for which there was no room
    std::optional<Instant> start; ///< of the first row, where the first source knows
};

class Recorder {
public:
    /// journal: of the open recording, without channels yet. tell: called from the thread that runs.
    Recorder(std::vector<std::unique_ptr<Source>> sources, RecordingJournal journal,
             std::function<void(RecorderEvent)> tell);
    ~Recorder();

    /// Before it runs. The first source that reads a chip drives it; what is simulated gets its loads.
    void conduct(Conduct conduct);

    // From any thread, while it runs.
    void say(Word word);
    void add(std::unique_ptr<Source> source); ///< at the end; its rows come as those of the others
    void drop(const std::string& spec);       ///< the source says nothing any more; its channels stay
    RunStatus status() const;                 ///< of a conducted recording, else empty

    /// Until it is asked to stop, or the first source's clock has gone so many seconds since its first row.
    /// Throws InputError for a store that fails otherwise than by being full.
    RecorderResult run(const std::stop_token& stop, std::optional<double> forS = std::nullopt);

private:
    struct State;
    std::unique_ptr<State> state_;
};

} // namespace ibuki
