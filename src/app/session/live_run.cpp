// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/live_run.h"

#include "app/say.h"
#include "core/domain/words.h"
#include "live/typed_source.h"

#include <algorithm>

namespace ibuki {
namespace {

const std::string typedSpec = QStringLiteral("typed:").toStdString();
const QString judgingName = QStringLiteral("figures of a recording");

std::vector<StepOccurrence> together(const std::vector<StepOccurrence>& a,
                                     const std::vector<StepOccurrence>& b) {
    std::vector<StepOccurrence> all = a;
    all.insert(all.end(), b.begin(), b.end());
    return all;
}

SourceChannel typedChannel(Role role) {
    switch (role) {
    case Role::wallPower:
        return {words::say("Wall power, by hand [W]"), role, Unit::watt, {}, {}};
    case Role::noise:
        return {words::say("Noise, by hand [dB]"), role, Unit::decibel, {}, {}};
    case Role::coolant:
        return {words::say("Coolant, by hand [°C]"), role, Unit::celsius, {}, {}};
    default:
        return {words::say("Room, by hand [°C]"), Role::ambient, Unit::celsius, {}, {}};
    }
}

} // namespace

LiveRun::LiveRun(Session& session, QObject* parent) : QObject(parent), session_(session) {}

LiveRun::~LiveRun() {
    if (stage_ != RunStage::recording) return;
    thread_.request_stop();
    thread_.join();
    finish();
}

double LiveRun::handSeconds() const {
    return handClock_.isValid() ? static_cast<double>(handClock_.elapsed()) / 1000 : 0;
}

bool LiveRun::begin(RunPlan plan) {
    if (isOn()) {
        session_.refuse(say("A run is under way already."));
        return false;
    }
    if (session_.work().isRunning()) {
        session_.refuse(say("Runs are being judged anew: begin once that is done."));
        return false;
    }
    plan_ = std::move(plan);
    std::erase_if(plan_.conduct.commands,
                  [this](const auto& one) { return !plan_.study || !hasConsent(*plan_.study, one.second); });
    steps_ = together(plan_.manualWork, plan_.conduct.steps);
    status_ = {};
    sample_ = {};
    extent_ = {};
    channels_.clear();
    curves_.clear();
    rise_ = drawnCurve();
    marks_.clear();
    warnings_.clear();
    askedLoad_.clear();
    typed_.clear();
    loadBeganS_.reset();
    running_.clear();
    mustStop_ = false;
    mount_ = plan_.wish.mount;
    const Mount* again = session_.document().find(plan_.wish.mount);
    title_ = again ? again->name : plan_.wish.name;
    result_.reset();
    failed_.reset();
    if (plan_.manualWork.empty()) {
        record();
        return stage_ == RunStage::recording;
    }
    stage_ = RunStage::manualWork;
    plan_.wish.manualWorkBegan = session_.now();
    manualWork_.emplace(plan_.manualWork);
    manualWork_->take({0, {}, {}});
    handClock_.start();
    status_.count = steps_.size();
    status_.step = plan_.manualWork.front();
    emit changed();
    return true;
}

void LiveRun::consent(Id<Study> study, const std::vector<std::string>& command) {
    consents_.emplace(session_.path(), study.value, command);
}

bool LiveRun::hasConsent(Id<Study> study, const std::vector<std::string>& command) const {
    return consents_.contains({session_.path(), study.value, command});
}

void LiveRun::moveOn() {
    if (stage_ == RunStage::recording && recorder_) {
        recorder_->say(Word::manualWorkDone);
        return;
    }
    if (stage_ != RunStage::manualWork) return;
    const double now = handSeconds();
    manualWork_->confirm(now);
    handClock_.restart();
    emit stepped();
    if (manualWork_->finished()) {
        record();
    } else {
        status_.place = manualWork_->place();
        status_.step = *manualWork_->current();
        emit changed();
    }
}

/// The mount is made now: the hands are done.
void LiveRun::record() {
    plan_.wish.at = session_.now();
    try {
        begun_ = beginRecording(session_.document(), plan_.wish);
        if (!session_.acquire(begun_.set)) throw InputError("record-slot", {});
        RecordingJournal journal(session_.path().toStdString(), begun_.recording);
        recorder_ = std::make_unique<Recorder>(std::move(plan_.sources), std::move(journal),
                                               [this](RecorderEvent event) {
                                                   const std::lock_guard lock(mutex_);
                                                   arrived_.push_back(std::move(event));
                                                   if (std::exchange(posted_, true)) return;
                                                   QMetaObject::invokeMethod(
                                                       this, [this] { take(); }, Qt::QueuedConnection);
                                               });
    } catch (const InputError& error) {
        stage_ = RunStage::none;
        session_.refuse(error);
        emit changed();
        return;
    }
    session_.hold(true);
    acquired_ = begun_.set;
    mount_ = begun_.mount;
    if (const Mount* made = session_.document().find(mount_)) title_ = made->name;
    manualWork_.reset();
    if (!plan_.conduct.steps.empty() || plan_.conduct.rules) recorder_->conduct(std::move(plan_.conduct));
    stage_ = RunStage::recording;
    thread_ = std::jthread([this](const std::stop_token& stop) {
        std::optional<RecorderResult> result;
        std::optional<InputError> failed;
        try {
            result = recorder_->run(stop);
        } catch (const InputError& error) {
            failed = error;
        }
        const std::lock_guard lock(mutex_);
        result_ = result ? result : std::optional(RecorderResult{});
        failed_ = failed;
        QMetaObject::invokeMethod(
            this, [this] { take(); }, Qt::QueuedConnection);
    });
    if (mount_) session_.selectMount(*mount_);
    emit changed();
}

void LiveRun::take() {
    std::vector<Event> events;
    bool over = false;
    {
        const std::lock_guard lock(mutex_);
        events = std::exchange(arrived_, {});
        posted_ = false;
        over = result_.has_value();
    }
    for (const Event& event : events) std::visit([this](const auto& one) { take(one); }, event);
    if (stage_ != RunStage::recording) return;
    status_ = recorder_->status();
    if (status_.loadBeganS)
        loadBeganS_ = status_.loadBeganS; // a load that is waited for begins when it is seen
    status_.place += plan_.manualWork.size();
    status_.count = steps_.size();
    emit changed();
    if (over) {
        thread_.join();
        finish();
    }
}

void LiveRun::take(const ChannelsOpened& opened) {
    for (const RecordedChannel& channel : opened.channels) {
        channels_.push_back(channel);
        curves_.push_back(drawnCurve());
    }
}

void LiveRun::take(const RowsSaved& saved) {
    extent_ = saved.extent;
    for (const TimedRow& row : saved.rows)
        for (std::size_t i = 0; i < std::min(row.values.size(), curves_.size()); ++i)
            curves_[i].take(row.timeS, row.values[i]);
    for (const BenchSample& now : saved.samples)
        if (now.chipC && now.ambientC) rise_.take(now.timeS, *now.chipC - *now.ambientC);
    sample_ = saved.samples.back();
}

void LiveRun::take(const FlagRaised& raised) {
    const Severity severity = raised.flag.severity;
    const MarkKind kind = severity == Severity::reject ? MarkKind::stop
                          : severity == Severity::warn ? MarkKind::warning
                                                       : MarkKind::info;
    mustStop_ = mustStop_ || kind == MarkKind::stop;
    const Message& message = raised.flag.message;
    if (message.code == "start-load") askedLoad_ = std::get<std::string>(message.fields.front().value);
    if (message.code == "watch-ended")
        std::erase_if(warnings_, [&](const Message& one) {
            const auto* of = std::get_if<std::vector<Message>>(&message.fields.front().value);
            return of && of->front().code == one.code;
        });
    else if (kind != MarkKind::info && message.code.starts_with("watch-"))
        warnings_.push_back(message);
    mark(kind, raised.flag.message, raised.atS);
    if (kind != MarkKind::info) emit warned();
}

void LiveRun::take(const StepChanged& changed) {
    if (changed.state == StepState::begun && changed.step.load != askedLoad_) askedLoad_.clear();
    if (changed.state == StepState::begun && changed.step.load != running_) {
        running_ = changed.step.load;
        if (!running_.empty()) loadBeganS_ = changed.atS;
    }
    mark(MarkKind::step,
         {"run-step",
          {{"step", Term{word(changed.step.kind)}}, {"state", Term{stepStateWord(changed.state)}}}},
         changed.atS);
    emit stepped();
}

void LiveRun::mark(MarkKind kind, Message message, double atS) {
    marks_.push_back({atS, kind, message});
    Edit edit(session_.document(), Message{"edit-record-mark", {}});
    RecordingMark mark;
    mark.recording = begun_.recording;
    mark.atS = atS;
    mark.kind = kind;
    mark.message = std::move(message);
    edit.add(mark);
    session_.acquire(edit.finish());
}

void LiveRun::skip(const QString& reason) {
    if (stage_ == RunStage::manualWork) {
        moveOn();
        return;
    }
    if (stage_ != RunStage::recording) return;
    if (!reason.trimmed().isEmpty()) mark(MarkKind::remark, said(reason.trimmed().toStdString()), nowS());
    recorder_->say(Word::skip);
}

void LiveRun::pause() {
    if (stage_ == RunStage::recording) recorder_->say(status_.paused ? Word::resume : Word::pause);
}

void LiveRun::startOver() {
    if (stage_ == RunStage::recording) recorder_->say(Word::startOver);
}

void LiveRun::abort() {
    if (stage_ == RunStage::manualWork) {
        manualWork_.reset();
        stage_ = RunStage::none;
        emit changed();
        emit ended();
        return;
    }
    if (stage_ != RunStage::recording) return;
    recorder_->say(Word::abort);
    thread_.request_stop();
}

void LiveRun::remark(const QString& text) {
    if (stage_ != RunStage::recording || text.trimmed().isEmpty()) return;
    mark(MarkKind::remark, said(text.trimmed().toStdString()), nowS());
    emit changed();
}

void LiveRun::moment() {
    if (stage_ != RunStage::recording) return;
    mark(MarkKind::remark, {"run-moment", {}}, nowS());
    emit changed();
}

void LiveRun::type(Role role, double value) {
    if (stage_ != RunStage::recording) return;
    for (const auto& [of, source] : typed_)
        if (of == role) {
            source->type(value);
            return;
        }
    auto source = std::make_unique<TypedSource>(typedSpec + std::string(roleName(role)), typedChannel(role));
    source->type(value);
    typed_.emplace_back(role, source.get());
    recorder_->add(std::move(source));
}

void LiveRun::addSource(std::unique_ptr<Source> source) {
    if (stage_ == RunStage::recording) recorder_->add(std::move(source));
}

void LiveRun::dropSource(const std::string& spec) {
    if (stage_ == RunStage::recording) recorder_->drop(spec);
}

std::vector<std::string> LiveRun::sources() const {
    std::vector<std::string> specs;
    for (const RecordedChannel& channel : channels_)
        if (std::find(specs.begin(), specs.end(), channel.source) == specs.end())
            specs.push_back(channel.source);
    return specs;
}

/// The recording is closed at once; its figures follow beside the window.
void LiveRun::finish() {
    const RecorderResult result = *std::exchange(result_, std::nullopt);
    const auto failed = std::exchange(failed_, std::nullopt);
    recorder_.reset();
    typed_.clear();
    stage_ = RunStage::judging;
    const LiveExtent extent = failed ? extent_ : result.extent;
    extent_ = extent;
    const ChangeSet closed = endRecording(session_.document(), begun_.recording,
                                          {extent.samples, extent.durationS, result.start}, nullptr);
    session_.acquire(closed);
    acquired_ = joined(acquired_, closed);
    if (failed) session_.post(*failed);
    judge();
}

void LiveRun::over(const ChangeSet& all) {
    stage_ = RunStage::none;
    session_.hold(false);
    session_.makeUndoable(all);
    emit changed();
    emit ended();
}

void LiveRun::judge() {
    auto figures = std::make_shared<ChangeSet>();
    const QPointer<LiveRun> alive(this);
    const auto done = [this, alive, figures, revision = session_.revision()] {
        if (!alive) return;
        if (session_.revision() != revision) { // somebody wrote meanwhile: from there again
            judge();
            return;
        }
        session_.acquire(*figures);
        over(joined(acquired_, *figures));
    };
    const auto gone = [this, alive] {
        if (alive) over(acquired_);
    };
    session_.jobs().queue(
        judgingName,
        [path = session_.path().toStdString(), document = session_.document(), recording = begun_.recording,
         extent = extent_, figures](const std::stop_token&, const Progress&) {
            const Project project = Project::open(path, Access::readOnly, Decode::whenAsked);
            const Trace trace = project.loadTrace(recording);
            *figures = endRecording(document, recording, {extent.samples, extent.durationS, {}}, &trace);
        },
        done,
        [this, alive, gone](const InputError& error) {
            if (alive) session_.post(error);
            gone();
        },
        gone);
}

} // namespace ibuki
