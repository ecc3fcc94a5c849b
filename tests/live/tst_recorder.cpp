// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/nan.h"
#include "core/setup/bench_template.h"
#include "live/recorder.h"
#include "live/typed_source.h"
#include "store/project/project.h"
#include "support/live.h"
#include "support/test_class.h"

#include <QTemporaryDir>
#include <cmath>

using namespace ibuki;
namespace fs = std::filesystem;

namespace {

/// Gives what it is told to, one row after the other.
class Scripted : public Source {
public:
    std::string name = "scripted";
    std::vector<SourceChannel> opened{{"Core 0 [°C]", Role::core, Unit::celsius, {}, {}}};
    bool ownClock = true;
    std::function<void(const std::stop_token&, SourceSink&)> script;

    const std::string& spec() const override { return name; }
    std::vector<SourceChannel> channels() const override { return opened; }
    std::vector<double> readNow() override { return {}; }
    void run(const std::stop_token& stop, SourceSink& sink) override {
        script(stop, sink);
        while (waitUntil(stop, steadyNowS() + 1)) {
        }
    }
    bool hasOwnClock() const override { return ownClock; }
    double intervalS() const override { return 1; }
};

} // namespace

class TestRecorder : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    int count_ = 0;

    struct Outcome {
        RecorderResult result;
        Trace trace;
        std::vector<std::string> flags;
        std::vector<std::string> columns;
        std::int64_t saved = 0;
    };

    struct Opened {
        Project project;
        fs::path path;
        Id<Recording> recording;
    };
    /// A project with a recording that is open.
    Opened opened() {
        const fs::path path = folder_.filePath(QString("%1.ibuki").arg(++count_)).toStdString();
        Project project = Project::create(path);
        Edit edit(project.document(), "begin");
        Recording recording;
        recording.bench = addBench(edit, BenchTemplate::liddedChip, "node-2");
        recording.state = RecordingState::open;
        const Id<Recording> id = edit.add(recording);
        project.apply(edit.finish());
        return {std::move(project), path, id};
    }

    Outcome recorded(std::vector<std::unique_ptr<Source>> sources, std::optional<double> forS,
                     double stopAfterS = 30) {
        Opened at = opened();
        Project& project = at.project;
        const fs::path path = at.path;
        const Id<Recording> id = at.recording;
        Outcome outcome;
        Recorder recorder(std::move(sources), RecordingJournal(path, id), [&](const RecorderEvent& event) {
            if (const auto* opened = std::get_if<ChannelsOpened>(&event))
                for (const auto& one : opened->channels) outcome.columns.push_back(one.channel.column);
            if (const auto* flag = std::get_if<FlagRaised>(&event)) outcome.flags.push_back(flag->flag.code);
            if (const auto* saved = std::get_if<RowsSaved>(&event)) {
                outcome.saved = saved->extent.samples;
                // Nobody is told of a row that is not in the project.
                QCOMPARE(static_cast<std::int64_t>(project.loadTrace(id).samples()), outcome.saved);
            }
        });
        std::stop_source stop;
        const std::jthread watch([&stop, stopAfterS](const std::stop_token& done) {
            if (waitUntil(done, steadyNowS() + stopAfterS)) stop.request_stop();
        });
        outcome.result = recorder.run(stop.get_token(), forS);
        outcome.trace = project.loadTrace(id);
        return outcome;
    }
    static std::vector<std::unique_ptr<Source>> one(std::unique_ptr<Source> source) {
        std::vector<std::unique_ptr<Source>> sources;
        sources.push_back(std::move(source));
        return sources;
    }

private slots:
    void whatWasSentIsWhatIsStored() {
        auto source = std::make_unique<Scripted>();
        source->script = [](const std::stop_token&, SourceSink& sink) {
            for (int i = 0; i <= 12'000; ++i)
                sink.take({0.1 * i, {i % 50 == 0 ? ibuki::nan : 40 + 1e-3 * i}});
        };
        const Outcome outcome = recorded(one(std::move(source)), 1'199.95);
        QCOMPARE(outcome.result.extent.samples, std::int64_t{12'000}); // to 1199.9 s, no row more
        QCOMPARE(outcome.saved, std::int64_t{12'000});
        QCOMPARE(outcome.result.lost, std::int64_t{0});
        for (int i = 0; i < 12'000; ++i) {
            QCOMPARE(outcome.trace.timeS[static_cast<std::size_t>(i)], 0.1 * i);
            const double value = outcome.trace.channels[0].values[static_cast<std::size_t>(i)];
            QVERIFY(i % 50 == 0 ? std::isnan(value) : value == 40 + 1e-3 * i);
        }
    }
    void namesOfTwoSourcesStayApart() {
        auto first = std::make_unique<Scripted>();
        auto second = std::make_unique<Scripted>();
        first->script = [](const std::stop_token&, SourceSink& sink) {
            for (int i = 0; i < 20; ++i) {
                sink.take({static_cast<double>(i), {40}});
                waitUntil({}, steadyNowS() + 0.02);
            }
            sink.take({100, {40}});
        };
        second->script = [](const std::stop_token&, SourceSink& sink) {
            waitUntil({}, steadyNowS() + 0.1);
            sink.take({0, {50}});
        };
        std::vector<std::unique_ptr<Source>> sources;
        sources.push_back(std::move(first));
        sources.push_back(std::move(second));
        const Outcome outcome = recorded(std::move(sources), 50);
        QCOMPARE(outcome.columns, (std::vector<std::string>{"Core 0 [°C]", "Core 0 (2) [°C]"}));
        QCOMPARE(outcome.trace.channels[1].index, 1);
        QCOMPARE(outcome.result.extent.samples, std::int64_t{21});
        int others = 0;
        for (std::size_t i = 0; i < outcome.trace.samples(); ++i) { // each reading is a row of its own
            const bool own = std::isfinite(outcome.trace.channels[0].values[i]);
            const bool other = std::isfinite(outcome.trace.channels[1].values[i]);
            QVERIFY(own != other);
            others += other ? 1 : 0;
        }
        QCOMPARE(others, 1);
    }
    void aChannelIsLostAndComesBack() {
        auto source = std::make_unique<Scripted>();
        source->opened.push_back({"Room [°C]", Role::ambient, Unit::celsius, {}, {}});
        source->script = [](const std::stop_token&, SourceSink& sink) {
            for (int i = 0; i < 40; ++i) {
                sink.take({static_cast<double>(i), {40, i < 10 || i > 30 ? 21 : ibuki::nan}});
                waitUntil({}, steadyNowS() + 0.015);
            }
            sink.take({100, {40, 21}});
        };
        const Outcome outcome = recorded(one(std::move(source)), 60);
        QCOMPARE(outcome.flags, (std::vector<std::string>{"channel-lost", "channel-back"}));
    }
    void channelsComeLaterAndBadRowsAreTold() {
        auto source = std::make_unique<Scripted>();
        source->script = [](const std::stop_token&, SourceSink& sink) {
            sink.take({0, {40}});
            sink.take({1, {41}});
            sink.badRows(3);
            sink.add({{"Room [°C]", Role::ambient, Unit::celsius, {}, {}}});
            sink.take({2, {42, 21}});
            sink.take({99, {}});
        };
        const Outcome outcome = recorded(one(std::move(source)), 50);
        QCOMPARE(outcome.flags, (std::vector<std::string>{"bad-rows"}));
        QCOMPARE(outcome.columns.size(), std::size_t{2});
        QCOMPARE(outcome.trace.samples(), std::size_t{3});
        QVERIFY(std::isnan(outcome.trace.channels[1].values[0]));
        QCOMPARE(outcome.trace.channels[1].values[2], 21.0);
    }
    void stoppingKeepsWhatHadArrived() {
        auto source = std::make_unique<Scripted>();
        source->script = [](const std::stop_token& stop, SourceSink& sink) {
            for (int i = 0; !stop.stop_requested(); ++i) {
                sink.take({static_cast<double>(i), {40}});
                waitUntil(stop, steadyNowS() + 0.005);
            }
        };
        const Outcome outcome = recorded(one(std::move(source)), std::nullopt, 0.6);
        QVERIFY(outcome.result.extent.samples > 20);
        QCOMPARE(static_cast<std::int64_t>(outcome.trace.samples()), outcome.result.extent.samples);
    }
    // Words of the user and sources that come and go, from another thread, while readings come in.
    void aRunIsSpokenToWhileItIsRecorded() {
        Opened at = opened();
        Project& project = at.project;
        const fs::path path = at.path;
        const Id<Recording> id = at.recording;
        std::vector<std::string> steps;
        std::vector<std::string> columns;
        std::mutex mutex;
        std::vector<std::unique_ptr<Source>> sources;
        SourceOptions options;
        options.speed = 400;
        sources.push_back(openSimulatedBench("sim", SimulatedBench{}, options));
        Recorder recorder(std::move(sources), RecordingJournal(path, id), [&](const RecorderEvent& event) {
            const std::lock_guard lock(mutex);
            if (const auto* step = std::get_if<StepChanged>(&event))
                steps.push_back(std::string(stepStateWord(step->state)));
            if (const auto* opened = std::get_if<ChannelsOpened>(&event))
                for (const auto& one : opened->channels) columns.push_back(one.channel.column);
        });
        MonitorRules rules;
        rules.limitC = 95;
        recorder.conduct({{{StepKind::idle, {}, {}, 600}, {StepKind::soak, "load", 150, 600}}, {}, rules});
        const auto reported = [&](const char* state) {
            for (int i = 0; i < 800; ++i) {
                {
                    const std::lock_guard lock(mutex);
                    if (!steps.empty() && steps.back() == state) return true;
                }
                if (!waitUntil({}, steadyNowS() + 0.01)) return false;
            }
            return false;
        };
        std::vector<bool> happened;
        std::jthread user([&] {
            happened.push_back(reported("begun"));
            recorder.say(Word::skip);
            happened.push_back(reported("begun"));
            auto typed = std::make_unique<TypedSource>(
                "typed", SourceChannel{"Wall, by hand [W]", Role::wallPower, Unit::watt, {}, {}});
            TypedSource* hand = typed.get();
            typed->type(211);
            recorder.add(std::move(typed));
            waitUntil({}, steadyNowS() + 0.6);
            hand->type(213);
            recorder.say(Word::pause);
            happened.push_back(reported("paused"));
            happened.push_back(recorder.status().paused);
            waitUntil({}, steadyNowS() + 0.4);
            recorder.say(Word::resume);
            happened.push_back(reported("begun"));
            recorder.drop("typed");
            waitUntil({}, steadyNowS() + 0.4);
            happened.push_back(recorder.status().sample.powerW.value_or(0) > 100);
            recorder.say(Word::abort);
        });
        const RecorderResult result = recorder.run({});
        user.join();
        QCOMPARE(happened, std::vector<bool>(6, true));
        QCOMPARE(steps,
                 (std::vector<std::string>{"begun", "skipped", "begun", "paused", "begun", "aborted"}));
        QCOMPARE(columns.back(), std::string("Wall, by hand [W]"));
        const Trace trace = project.loadTrace(id);
        QCOMPARE(static_cast<std::int64_t>(trace.samples()), result.extent.samples);
        std::vector<double> wall;
        for (double value : firstChannel(trace, Role::wallPower)->values)
            if (std::isfinite(value)) wall.push_back(value);
        QCOMPARE(wall, (std::vector<double>{211, 213}));
    }
    void overTheLimitTheLoadEndsByItself() {
        Opened at = opened();
        Project& project = at.project;
        const fs::path path = at.path;
        const Id<Recording> id = at.recording;
        std::vector<std::string> flags;
        std::vector<std::unique_ptr<Source>> sources;
        SourceOptions options;
        options.speed = 0;
        sources.push_back(openSimulatedBench("sim", SimulatedBench{}, options));
        Recorder recorder(std::move(sources), RecordingJournal(path, id), [&](const RecorderEvent& event) {
            if (const auto* flag = std::get_if<FlagRaised>(&event)) flags.push_back(flag->flag.code);
        });
        MonitorRules rules;
        rules.stopAboveC = 55;
        recorder.conduct({{{StepKind::soak, "load", 180, 600}}, {}, rules});
        const RecorderResult result = recorder.run({});
        QCOMPARE(flags, (std::vector<std::string>{"watch-over"}));
        QVERIFY2(result.extent.durationS < 120, std::to_string(result.extent.durationS).c_str());
        const Trace trace = project.loadTrace(id);
        double highest = 0;
        for (double value : firstChannel(trace, Role::package)->values) highest = std::max(highest, value);
        QVERIFY2(highest < 60, std::to_string(highest).c_str()); // two seconds above 55 °C
    }
};

IBUKI_TEST(TestRecorder)
#include "tst_recorder.moc"
