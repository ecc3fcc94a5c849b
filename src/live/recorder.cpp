// SPDX-License-Identifier: GPL-3.0-or-later
#include "live/recorder.h"

#include "core/base/input_error.h"
#include "core/base/nan.h"
#include "live/load_process.h"
#include "live/reading_queue.h"
#include "live/typed_source.h"

#include <algorithm>
#include <cmath>
#include <condition_variable>
#include <deque>
#include <fmt/format.h>
#include <map>
#include <mutex>
#include <thread>

namespace ibuki {
namespace {

constexpr double saveEveryS = 0.4;
constexpr double lastMomentS = 0.3; ///< for a reading that is on its way when the time is over
constexpr std::size_t saveRows = ReadingQueue::saveRows; ///< in one commit
constexpr std::size_t mostKept = 4'000'000;              ///< numbers in memory while the disk is full
constexpr double retryS = 1;
constexpr double leastSilenceS = 5;
constexpr double silenceIntervals = 5;
constexpr double unknownSilenceS = 60; ///< of a source that gave one row only

double keptS(const Source& source) { return source.isTyped() ? TypedSource::keptS : LatestReadings::lastsS; }

/// A channel that says nothing for a while is lost; one that speaks again is back.
struct Hearing {
    std::size_t source = 0;
    double lastS = 0;   ///< of the row that had a number
    double steadyS = 0; ///< when that came
    bool lost = false;
};

/// A source and who reads it.
struct Reader {
    std::unique_ptr<Source> source;
    std::vector<std::size_t> places; ///< its channels → channel of the recording
    double startedS = 0;             ///< steady clock
    std::optional<double> lastS;     ///< of its last row, on the recording's clock
    double intervalS = 0;            ///< between its rows, as far as it was seen; 0: not known yet
    std::unique_ptr<QueueSink> sink;
    std::jthread thread;

    void sawRow(double time) {
        if (lastS && time > *lastS)
            intervalS = intervalS > 0 ? 0.9 * intervalS + 0.1 * (time - *lastS) : time - *lastS;
        lastS = time;
    }
};

} // namespace

struct Recorder::State {
    std::mutex readersMutex; ///< the list grows while loads are told to all
    std::vector<std::unique_ptr<Reader>> readers;
    RecordingJournal journal;
    std::function<void(RecorderEvent)> tell;
    ReadingQueue queue;
    std::vector<SourceChannel> channels; ///< columns made unique
    std::vector<Hearing> hearings;
    std::map<Role, int> ofRole;
    LatestReadings latest; ///< as far as it is stored
    std::vector<TimedRow> pending;
    double beganS = steadyNowS();
    std::optional<double> firstS;        ///< of the first row, on the recording's clock
    std::optional<double> primaryFirstS; ///< of the first source's first row
    double lastS = 0;                    ///< of the last row
    double lastOwnS = 0;                 ///< of the first source's last row
    std::unique_ptr<Driving> driving;
    bool full = false;
    bool ended = false;
    double retryAtS = 0;
    std::int64_t lost = 0;
    std::mutex requestsMutex;
    std::vector<std::unique_ptr<Source>> toAdd;
    std::vector<std::string> toDrop;

    State(std::vector<std::unique_ptr<Source>> from, RecordingJournal into,
          std::function<void(RecorderEvent)> to)
        : journal(std::move(into)), tell(std::move(to)) {
        for (auto& source : from) addReader(std::move(source));
    }

    ~State() { // also when a store failed: nobody waits for room in the queue
        queue.close();
        for (const auto& reader : readers) reader->thread.request_stop();
        readers.clear();
    }

    Reader& addReader(std::unique_ptr<Source> source) {
        auto reader = std::make_unique<Reader>();
        reader->source = std::move(source);
        const std::lock_guard lock(readersMutex);
        readers.push_back(std::move(reader));
        return *readers.back();
    }

    void start(std::size_t index) {
        Reader& reader = *readers[index];
        reader.startedS = steadyNowS();
        reader.sink = std::make_unique<QueueSink>(queue, index, driving.get(), keptS(*reader.source));
        reader.thread = std::jthread([source = reader.source.get(), sink = reader.sink.get()](
                                         const std::stop_token& stopped) { source->run(stopped, *sink); });
    }

    /// Sources that were asked for, or away, while it runs.
    void takeRequests() {
        std::unique_lock lock(requestsMutex);
        auto adding = std::exchange(toAdd, {});
        const auto dropping = std::exchange(toDrop, {});
        lock.unlock();
        for (auto& source : adding) {
            save(); // rows before are narrower
            Reader& reader = addReader(std::move(source));
            const auto added = reader.source->channels();
            if (driving) driving->add(readers.size() - 1, added, keptS(*reader.source));
            addChannels(readers.size() - 1, added, true);
            start(readers.size() - 1);
        }
        for (const std::string& spec : dropping)
            for (const auto& reader : readers)
                if (reader->source->spec() == spec) reader->thread.request_stop();
    }

    double sinceFirst(double timeS) const { return firstS ? timeS - *firstS : 0; }

    void flag(const char* code, Severity severity, Fields fields = {}) {
        tell(FlagRaised{makeFlag(severity, code, std::move(fields)), sinceFirst(lastS)});
    }

    void flag(const Flag& raised) { tell(FlagRaised{raised, sinceFirst(lastS)}); }

    RecordedChannel reported(std::size_t channel) const {
        return {channels[channel], readers[hearings[channel].source]->source->spec()};
    }

    /// At the opening told all together, by the one who opens.
    void addChannels(std::size_t source, const std::vector<SourceChannel>& added, bool later) {
        std::vector<ChannelInfo> stored;
        ChannelsOpened opened{{}, later};
        for (SourceChannel channel : added) {
            channel.column = unlikeOthers(channel.column, channels);
            stored.push_back({channel.column, channel.role, ofRole[channel.role]++, channel.unit});
            readers[source]->places.push_back(channels.size());
            latest.add(channel.role, keptS(*readers[source]->source));
            channels.push_back(std::move(channel));
            hearings.push_back({source, lastS, steadyNowS(), false});
            opened.channels.push_back(reported(channels.size() - 1));
        }
        if (stored.empty()) return;
        journal.addChannels(stored);
        if (later) tell(opened);
    }

    /// When a row of the source happened, on the recording's clock: the first source's own.
    double timeOf(const Arrived& arrived) const {
        if (arrived.source == 0) return arrived.reading.timeS;
        if (readers[0]->source->hasOwnClock()) return lastOwnS; // at its last row
        const Reader& reader = *readers[arrived.source];
        return reader.source->hasOwnClock() ? arrived.arrivedS - beganS
                                            : reader.startedS - beganS + arrived.reading.timeS;
    }

    void takeRow(const Arrived& arrived, std::optional<double> forS) {
        double time = timeOf(arrived);
        if (arrived.source == 0) {
            if (!primaryFirstS) primaryFirstS = time;
            if (forS && time - *primaryFirstS > *forS + 1e-9) {
                ended = true;
                return;
            }
            lastOwnS = time;
        }
        time = std::max(time, lastS);
        readers[arrived.source]->sawRow(time);
        if (!firstS) {
            firstS = time;
            for (Hearing& hearing : hearings) hearing.lastS = time;
        }
        lastS = time;
        TimedRow row{time, std::vector<double>(channels.size(), nan)};
        const auto& own = readers[arrived.source]->places;
        for (std::size_t i = 0; i < arrived.reading.values.size() && i < own.size(); ++i) {
            const double value = arrived.reading.values[i];
            row.values[own[i]] = value;
            if (std::isfinite(value)) heard(own[i], time);
        }
        if (full && pending.size() * (channels.size() + 1) > mostKept) {
            ++lost;
            return;
        }
        pending.push_back(std::move(row));
    }

    void heard(std::size_t channel, double time) {
        Hearing& hearing = hearings[channel];
        hearing.lastS = time;
        hearing.steadyS = steadyNowS();
        if (std::exchange(hearing.lost, false))
            flag("channel-back", Severity::info, {{"column", channels[channel].column}});
    }

    /// By the recording's clock, or by ours where that one stands still.
    void lookForLost() {
        if (!firstS) return;
        for (std::size_t i = 0; i < hearings.size(); ++i) {
            Hearing& hearing = hearings[i];
            const Reader& reader = *readers[hearing.source];
            if (reader.source->isTyped()) continue;
            const double interval = reader.intervalS;
            const double limit =
                interval > 0 ? std::max(leastSilenceS, silenceIntervals * interval) : unknownSilenceS;
            const double silence = std::max(lastS - hearing.lastS, steadyNowS() - hearing.steadyS);
            if (hearing.lost || silence <= limit) continue;
            hearing.lost = true;
            flag("channel-lost", Severity::warn, {{"column", channels[i].column}, {"seconds", silence}});
        }
    }

    void save() {
        if (pending.empty() || (full && steadyNowS() < retryAtS)) return;
        try {
            for (std::size_t from = 0; from < pending.size(); from += saveRows) { // one commit a block
                const auto begin = pending.begin() + static_cast<std::ptrdiff_t>(from);
                const auto end =
                    pending.begin() + static_cast<std::ptrdiff_t>(std::min(pending.size(), from + saveRows));
                journal.append({begin, end});
                saved_ = static_cast<std::size_t>(end - pending.begin());
            }
        } catch (const InputError& error) {
            pending.erase(pending.begin(),
                          pending.begin() + static_cast<std::ptrdiff_t>(std::exchange(saved_, 0)));
            if (error.code != "disk-full") throw;
            retryAtS = steadyNowS() + retryS;
            if (!std::exchange(full, true)) flag("disk-full.recording", Severity::warn);
            return;
        }
        saved_ = 0;
        if (std::exchange(full, false)) flag("disk-room", Severity::info);
        RowsSaved saved{journal.extent(), std::exchange(pending, {}), {}};
        for (TimedRow& row : saved.rows) {
            latest.take(0, row.values, row.timeS);
            saved.samples.push_back(latest.at(row.timeS));
            row.timeS -= *firstS;
            saved.samples.back().timeS = row.timeS;
        }
        tell(std::move(saved));
    }
    std::size_t saved_ = 0;

    void tellSteps(const Arrived& arrived) {
        for (const MonitorEvent& event : arrived.driven.watched) flag(event.flag);
        for (const StepEvent& event : arrived.driven.steps) {
            const StepOccurrence& step = driving->steps()[event.step];
            tell(StepChanged{step, event.state, event.timeS, event.predictedS});
            if (event.loadNotSeen) flag("load-not-seen", Severity::warn, {{"load", step.load}});
            const bool begun = event.state == StepState::begun;
            const bool held = event.state == StepState::paused || event.state == StepState::aborted;
            if (begun || held) runLoad(begun ? step.load : std::string());
            const bool last = event.state != StepState::paused && event.step + 1 == driving->steps().size();
            if (!begun && (last || event.state == StepState::aborted)) ended = true;
        }
        if (ended) runLoad({});
    }

    void runLoad(const std::string& load) {
        if (load == std::exchange(runningLoad, load)) return;
        stopLoad();
        if (load.empty()) return;
        const bool simulated = std::any_of(readers.begin(), readers.end(),
                                           [](const auto& reader) { return reader->source->takesLoad(); });
        if (const auto command = commands.find(load); command != commands.end())
            process = std::make_unique<LoadProcess>(command->second);
        else if (!simulated)
            flag("start-load", Severity::info, {{"load", load}});
    }
    std::string runningLoad;
    std::map<std::string, std::vector<std::string>> commands;
    std::unique_ptr<LoadProcess> process;
    std::vector<std::unique_ptr<LoadProcess>> ending; ///< told to end; waited for at the very end

    void stopLoad() {
        if (!process) return;
        process->stop();
        ending.push_back(std::move(process));
    }

    void take(const std::deque<Arrived>& arrived, std::optional<double> forS) {
        for (const Arrived& one : arrived) {
            if (ended) return;
            if (!one.added.empty()) {
                save(); // rows before are narrower
                addChannels(one.source, one.added, true);
            } else if (one.bad > 0) {
                flag("bad-rows", Severity::warn,
                     {{"count", one.bad}, {"source", readers[one.source]->source->spec()}});
            } else {
                if (one.isRow) takeRow(one, forS);
                tellSteps(one);
            }
        }
        lookForLost();
    }
};

Recorder::Recorder(std::vector<std::unique_ptr<Source>> sources, RecordingJournal journal,
                   std::function<void(RecorderEvent)> tell)
    : state_(std::make_unique<State>(std::move(sources), std::move(journal), std::move(tell))) {}

Recorder::~Recorder() = default;

void Recorder::conduct(Conduct conduct) {
    State& state = *state_;
    state.commands = std::move(conduct.commands);
    state.driving = std::make_unique<Driving>(std::move(conduct.steps), std::move(conduct.rules),
                                              [&state](std::optional<double> powerW) {
                                                  const std::lock_guard lock(state.readersMutex);
                                                  for (const auto& reader : state.readers)
                                                      reader->source->setLoad(powerW);
                                              });
    for (std::size_t i = 0; i < state.readers.size(); ++i) {
        const Source& source = *state.readers[i]->source;
        state.driving->add(i, source.channels(), keptS(source));
    }
}

void Recorder::say(Word word) {
    if (!state_->driving) return;
    Arrived arrived;
    arrived.driven = state_->driving->say(word);
    if (!arrived.driven.steps.empty()) state_->queue.put(std::move(arrived));
}

void Recorder::add(std::unique_ptr<Source> source) {
    const std::lock_guard lock(state_->requestsMutex);
    state_->toAdd.push_back(std::move(source));
}

void Recorder::drop(const std::string& spec) {
    const std::lock_guard lock(state_->requestsMutex);
    state_->toDrop.push_back(spec);
}

RunStatus Recorder::status() const { return state_->driving ? state_->driving->status() : RunStatus{}; }

RecorderResult Recorder::run(const std::stop_token& stop, std::optional<double> forS) {
    State& state = *state_;
    for (std::size_t i = 0; i < state.readers.size(); ++i)
        state.addChannels(i, state.readers[i]->source->channels(), false);
    ChannelsOpened opened;
    for (std::size_t i = 0; i < state.channels.size(); ++i) opened.channels.push_back(state.reported(i));
    state.tell(opened);
    state.beganS = steadyNowS();
    for (std::size_t i = 0; i < state.readers.size(); ++i) state.start(i);
    const bool steady = !state.readers.empty() && !state.readers[0]->source->hasOwnClock();
    while (!stop.stop_requested() && !state.ended) {
        double until = steadyNowS() + saveEveryS;
        if (steady && forS) until = std::min(until, state.beganS + *forS + 0.05);
        state.take(state.queue.takeAll(stop, until), forS);
        state.save();
        state.takeRequests();
        // A first source that says nothing any more does not keep the rest waiting for its clock.
        if (steady && forS && steadyNowS() - state.beganS > *forS + lastMomentS) state.ended = true;
    }
    state.stopLoad();
    for (const auto& reader : state.readers) reader->thread.request_stop();
    if (!state.ended) state.take(state.queue.takeAll(stop, steadyNowS()), forS); // what had arrived
    state.queue.close();
    for (const auto& reader : state.readers) reader->thread = {};
    state.retryAtS = 0;
    state.save();
    RecorderResult result{state.journal.extent(), state.lost, {}};
    if (state.full) result.lost += static_cast<std::int64_t>(state.pending.size());
    if (!state.readers.empty() && state.firstS && state.primaryFirstS)
        if (const auto start = state.readers[0]->source->start())
            result.start = Instant{start->ms + static_cast<std::int64_t>(1000 * *state.firstS)};
    return result;
}

} // namespace ibuki
