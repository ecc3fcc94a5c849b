// SPDX-License-Identifier: GPL-3.0-or-later
#include "live/recorder.h"

#include "core/base/input_error.h"
#include "core/base/nan.h"
#include "live/driving.h"
#include "live/load_process.h"

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
constexpr double lastMomentS = 0.3;         ///< for a reading that is on its way when the time is over
constexpr std::size_t saveRows = 2'000;     ///< or so many rows
constexpr std::size_t mostQueued = 20'000;  ///< rows; sources wait then
constexpr std::size_t mostKept = 4'000'000; ///< numbers in memory while the disk is full
constexpr double retryS = 1;
constexpr double leastSilenceS = 5;
constexpr double silenceIntervals = 5;
constexpr double unknownSilenceS = 60; ///< of a source that gave one row only

struct Arrived {
    std::size_t source = 0;
    double arrivedS = 0; ///< steady clock
    Reading reading;
    std::vector<SourceChannel> added;
    std::int64_t bad = 0;
    std::vector<StepEvent> steps; ///< that this reading made happen
};

/// What the sources' threads hand to the loop.
class Queue {
public:
    void put(Arrived arrived) {
        std::unique_lock lock(mutex_);
        room_.wait(lock, [this] { return closed_ || waiting_.size() < mostQueued; });
        if (closed_) return;
        waiting_.push_back(std::move(arrived));
        lock.unlock();
        some_.notify_one();
    }
    std::deque<Arrived> takeAll(const std::stop_token& stop, double untilS) {
        std::unique_lock lock(mutex_);
        some_.wait_until(lock, stop, steadyPoint(untilS), [this] { return waiting_.size() >= saveRows; });
        std::deque<Arrived> taken = std::exchange(waiting_, {});
        lock.unlock();
        room_.notify_all();
        return taken;
    }
    void close() {
        const std::lock_guard lock(mutex_);
        closed_ = true;
        room_.notify_all();
    }

private:
    std::mutex mutex_;
    std::condition_variable_any some_;
    std::condition_variable room_;
    std::deque<Arrived> waiting_;
    bool closed_ = false;
};

class QueueSink : public SourceSink {
public:
    QueueSink(Queue& queue, std::size_t source, Driving* driving)
        : queue_(queue), source_(source), driving_(driving) {}
    void take(Reading reading) override {
        Arrived arrived = now();
        arrived.reading = std::move(reading);
        if (driving_) arrived.steps = driving_->take(source_, arrived.arrivedS, arrived.reading);
        queue_.put(std::move(arrived));
    }
    void add(std::vector<SourceChannel> channels) override {
        Arrived arrived = now();
        if (driving_) driving_->add(source_, channels);
        arrived.added = std::move(channels);
        queue_.put(std::move(arrived));
    }
    void badRows(std::int64_t count) override {
        Arrived arrived = now();
        arrived.bad = count;
        queue_.put(std::move(arrived));
    }

private:
    Arrived now() const {
        Arrived arrived;
        arrived.source = source_;
        arrived.arrivedS = steadyNowS();
        return arrived;
    }

    Queue& queue_;
    std::size_t source_;
    Driving* driving_;
};

/// A channel that says nothing for a while is lost; one that speaks again is back.
struct Hearing {
    std::size_t source = 0;
    double lastS = 0;   ///< of the row that had a number
    double steadyS = 0; ///< when that came
    bool lost = false;
};

/// How often a source gives rows, as far as it was seen.
struct Pace {
    std::optional<double> lastS; ///< on the recording's clock
    double intervalS = 0;        ///< 0: not known yet
};

} // namespace

struct Recorder::State {
    std::vector<std::unique_ptr<Source>> sources;
    RecordingJournal journal;
    std::function<void(const RecorderEvent&)> tell;
    Queue queue;
    std::vector<std::vector<std::size_t>> places; ///< source → its channels → channel of the recording
    std::vector<SourceChannel> channels;          ///< columns made unique
    std::vector<Hearing> hearings;
    std::map<Role, int> ofRole;
    std::vector<LiveRow> pending;
    double beganS = steadyNowS();
    std::optional<double> firstS;        ///< of the first row, on the recording's clock
    std::optional<double> primaryFirstS; ///< of the first source's first row
    double lastS = 0;                    ///< of the last row
    double lastOwnS = 0;                 ///< of the first source's last row
    std::vector<Pace> paces;             ///< of the sources
    std::unique_ptr<Driving> driving;
    bool full = false;
    bool ended = false;
    double retryAtS = 0;
    std::int64_t lost = 0;

    State(std::vector<std::unique_ptr<Source>> from, RecordingJournal into,
          std::function<void(const RecorderEvent&)> to)
        : sources(std::move(from)),
          journal(std::move(into)),
          tell(std::move(to)),
          places(sources.size()),
          paces(sources.size()) {}

    double sinceFirst(double timeS) const { return firstS ? timeS - *firstS : 0; }

    void flag(const char* code, Severity severity, Fields fields = {}) {
        tell(FlagRaised{makeFlag(severity, code, std::move(fields)), sinceFirst(lastS)});
    }

    RecordedChannel told(std::size_t channel) const {
        return {channels[channel], sources[hearings[channel].source]->spec()};
    }

    /// At the opening told all together, by the one who opens.
    void addChannels(std::size_t source, const std::vector<SourceChannel>& added, bool later) {
        std::vector<LiveChannel> stored;
        ChannelsOpened opened{{}, later};
        for (SourceChannel channel : added) {
            channel.column = unlikeOthers(channel.column, channels);
            stored.push_back({channel.column, channel.role, ofRole[channel.role]++, channel.unit});
            places[source].push_back(channels.size());
            channels.push_back(std::move(channel));
            hearings.push_back({source, lastS, steadyNowS(), false});
            opened.channels.push_back(told(channels.size() - 1));
        }
        if (stored.empty()) return;
        journal.addChannels(stored);
        if (later) tell(opened);
    }

    /// When a row of the source happened, on the recording's clock: the first source's own.
    double timeOf(const Arrived& arrived) const {
        if (arrived.source == 0) return arrived.reading.timeS;
        if (sources[0]->hasOwnClock()) return lastOwnS; // at its last row
        return sources[arrived.source]->hasOwnClock() ? arrived.arrivedS - beganS : arrived.reading.timeS;
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
        Pace& pace = paces[arrived.source];
        if (pace.lastS && time > *pace.lastS)
            pace.intervalS =
                pace.intervalS > 0 ? 0.9 * pace.intervalS + 0.1 * (time - *pace.lastS) : time - *pace.lastS;
        pace.lastS = time;
        if (!firstS) {
            firstS = time;
            for (Hearing& hearing : hearings) hearing.lastS = time;
        }
        lastS = time;
        LiveRow row{time, std::vector<double>(channels.size(), nan)};
        const auto& own = places[arrived.source];
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
            const double interval = paces[hearing.source].intervalS;
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
        pending.clear();
        if (std::exchange(full, false)) flag("disk-room", Severity::info);
        tell(RowsSaved{journal.extent()});
    }
    std::size_t saved_ = 0;

    void tellSteps(const Arrived& arrived) {
        for (const StepEvent& event : arrived.steps) {
            const ConductedStep& step = driving->steps()[event.step];
            tell(StepChanged{step, event.state, event.timeS, event.predictedS});
            const bool simulated = std::any_of(sources.begin(), sources.end(),
                                               [](const auto& source) { return source->takesLoad(); });
            if (event.state == StepState::begun && step.load != std::exchange(runningLoad, step.load)) {
                stopLoad();
                if (const auto command = commands.find(step.load); command != commands.end())
                    process = std::make_unique<LoadProcess>(command->second);
                else if (!step.load.empty() && !simulated)
                    flag("start-load", Severity::info, {{"load", step.load}});
            }
            if (event.state != StepState::begun && event.step + 1 == driving->steps().size()) {
                ended = true;
                stopLoad();
            }
        }
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
                     {{"count", one.bad}, {"source", sources[one.source]->spec()}});
            } else {
                takeRow(one, forS);
                tellSteps(one);
            }
        }
        lookForLost();
    }
};

Recorder::Recorder(std::vector<std::unique_ptr<Source>> sources, RecordingJournal journal,
                   std::function<void(const RecorderEvent&)> tell)
    : state_(std::make_unique<State>(std::move(sources), std::move(journal), std::move(tell))) {}

Recorder::~Recorder() = default;

void Recorder::conduct(std::vector<ConductedStep> steps,
                       std::map<std::string, std::vector<std::string>> commands) {
    state_->commands = std::move(commands);
    state_->driving = std::make_unique<Driving>(std::move(steps), [this](std::optional<double> powerW) {
        for (const auto& source : state_->sources) source->setLoad(powerW);
    });
    for (std::size_t i = 0; i < state_->sources.size(); ++i)
        state_->driving->add(i, state_->sources[i]->channels());
}

RecorderResult Recorder::run(const std::stop_token& stop, std::optional<double> forS) {
    State& state = *state_;
    for (std::size_t i = 0; i < state.sources.size(); ++i)
        state.addChannels(i, state.sources[i]->channels(), false);
    ChannelsOpened opened;
    for (std::size_t i = 0; i < state.channels.size(); ++i) opened.channels.push_back(state.told(i));
    state.tell(opened);
    state.beganS = steadyNowS();
    std::vector<std::unique_ptr<QueueSink>> sinks;
    std::vector<std::jthread> threads;
    for (std::size_t i = 0; i < state.sources.size(); ++i) {
        sinks.push_back(std::make_unique<QueueSink>(state.queue, i, state.driving.get()));
        threads.emplace_back([source = state.sources[i].get(), sink = sinks.back().get()](
                                 const std::stop_token& stopped) { source->run(stopped, *sink); });
    }
    const bool steady = !state.sources.empty() && !state.sources[0]->hasOwnClock();
    while (!stop.stop_requested() && !state.ended) {
        double until = steadyNowS() + saveEveryS;
        if (steady && forS) until = std::min(until, state.beganS + *forS + 0.05);
        state.take(state.queue.takeAll(stop, until), forS);
        state.save();
        // A first source that says nothing any more does not keep the rest waiting for its clock.
        if (steady && forS && steadyNowS() - state.beganS > *forS + lastMomentS) state.ended = true;
    }
    state.stopLoad();
    for (std::jthread& thread : threads) thread.request_stop();
    if (!state.ended) state.take(state.queue.takeAll(stop, steadyNowS()), forS); // what had arrived
    state.queue.close();
    threads.clear();
    state.retryAtS = 0;
    state.save();
    RecorderResult result{state.journal.extent(), state.lost, {}};
    if (state.full) result.lost += static_cast<std::int64_t>(state.pending.size());
    if (!state.sources.empty() && state.firstS && state.primaryFirstS)
        if (const auto start = state.sources[0]->start())
            result.start = Instant{start->ms + static_cast<std::int64_t>(1000 * *state.firstS)};
    return result;
}

} // namespace ibuki
