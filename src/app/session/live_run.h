// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The run that is being recorded, as the window sees it: its hands, its recorder in a thread of its own, what
// was stored so far as curves, and what follows when it ends. It goes on whatever the window shows.

#include "app/session/session.h"
#include "core/import/recorded.h"
#include "core/series/stretch_means.h"
#include "live/recorder.h"

#include <QElapsedTimer>
#include <QPointer>
#include <mutex>
#include <set>
#include <thread>
#include <tuple>

namespace ibuki {

class TypedSource;

/// What a run is made of.
struct RunPlan {
    RecordingWish wish;
    std::optional<Id<Study>> study; ///< whose protocol it goes through
    Conduct conduct;                ///< of its commands only those that there is consent for are started
    std::vector<StepOccurrence> manualWork; ///< before anything is recorded
    std::vector<std::unique_ptr<Source>> sources;
    EarlierRises earlier; ///< drawn behind
    bool checkUp = false; ///< of the bench itself
};

enum class RunStage { none, manualWork, recording, judging };

struct LiveMark {
    double atS = 0; ///< since the first row
    MarkKind kind = MarkKind::remark;
    Message message;
};

class LiveRun : public QObject {
    Q_OBJECT

public:
    explicit LiveRun(Session& session, QObject* parent = nullptr);
    ~LiveRun() override; ///< ends the recording in order

    RunStage stage() const { return stage_; }
    bool isOn() const { return stage_ != RunStage::none; }
    /// Begins with the hands, or at once. False with a refusal when it cannot.
    bool begin(RunPlan plan);

    /// The user saw the whole command and agreed that it is started for the study; kept nowhere but here.
    void consent(Id<Study> study, const std::vector<std::string>& command);
    bool hasConsent(Id<Study> study, const std::vector<std::string>& command) const;

    void moveOn(); ///< hands are done
    void skip(const QString& reason);
    void pause(); ///< or goes on
    void abort(); ///< what was recorded stays
    void startOver();
    void remark(const QString& text);
    void moment(); ///< a mark without words
    /// A reading taken by eye: into the recording, from now on.
    void type(Role role, double value);
    void addSource(std::unique_ptr<Source> source);
    void dropSource(const std::string& spec); ///< its channels stay, and say nothing any more
    std::vector<std::string> sources() const; ///< of the channels that there are

    const RunStatus& status() const { return status_; }
    const BenchSample& sample() const { return sample_; } ///< of what is stored
    const LiveExtent& extent() const { return extent_; }
    const std::vector<RecordedChannel>& channels() const { return channels_; }
    const StretchMeans& curve(std::size_t channel) const { return curves_.at(channel); }
    const StretchMeans& rise() const { return rise_; } ///< over the room
    const std::vector<LiveMark>& marks() const { return marks_; }
    const EarlierRises& earlier() const { return plan_.earlier; }
    const std::vector<StepOccurrence>& steps() const { return steps_; }
    std::optional<double> loadBeganS() const { return loadBeganS_; } ///< of the load that runs, or ran last
    const std::string& title() const { return title_; }
    double handSeconds() const;                                        ///< since the step of the hands began
    const std::vector<Message>& warnings() const { return warnings_; } ///< that hold now
    bool mustStop() const { return mustStop_; }                        ///< the load was stopped by the watch
    std::optional<Id<Mount>> mount() const { return mount_; }
    Id<Recording> recording() const { return begun_.recording; } ///< the last one
    bool isCheckUp() const { return plan_.checkUp; }
    /// The load that the user is to start by his own hand now; empty: none.
    const std::string& askedLoad() const { return askedLoad_; }

signals:
    void changed(); ///< as often as rows are stored, and when the hands move on
    void stepped(); ///< a step began or ended: a tone is due
    void warned();  ///< something would spoil the run
    void ended();   ///< figures are there, or there are none

private:
    using Event = RecorderEvent;
    void record();
    void take();
    void take(const ChannelsOpened& opened);
    void take(const RowsSaved& saved);
    void take(const FlagRaised& raised);
    void take(const StepChanged& changed);
    void finish();
    void judge();
    void over(const ChangeSet& all);
    void mark(MarkKind kind, Message message, double atS);
    double nowS() const { return extent_.durationS; }

    Session& session_;
    RunStage stage_ = RunStage::none;
    RunPlan plan_;
    std::string title_;
    std::vector<StepOccurrence> steps_; ///< hands before the rest
    std::optional<Conductor> manualWork_;
    QElapsedTimer handClock_;
    std::unique_ptr<Recorder> recorder_;
    std::jthread thread_;
    static StretchMeans drawnCurve() { return {0.05, 1'200}; } ///< bounds as fine as a screen

    std::mutex mutex_; ///< of what the recorder's thread hands over
    std::vector<Event> arrived_;
    bool posted_ = false;
    std::optional<RecorderResult> result_;
    std::optional<InputError> failed_;
    RecordingBegun begun_;
    ChangeSet acquired_;
    std::optional<Id<Mount>> mount_;
    RunStatus status_;
    BenchSample sample_;
    LiveExtent extent_;
    std::vector<RecordedChannel> channels_;
    std::vector<StretchMeans> curves_;
    StretchMeans rise_ = drawnCurve();
    std::vector<LiveMark> marks_;
    std::vector<Message> warnings_;
    std::optional<double> loadBeganS_;
    std::string running_;
    bool mustStop_ = false;
    std::string askedLoad_;
    std::set<std::tuple<QString, std::int64_t, std::vector<std::string>>>
        consents_;                                     ///< project, study, words
    std::vector<std::pair<Role, TypedSource*>> typed_; ///< of the recorder
};

} // namespace ibuki
