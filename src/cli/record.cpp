// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/verb.h"
#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/import/import_rows.h"
#include "core/import/recorded.h"
#include "core/plan/mount_brief.h"
#include "core/setup/run_setup.h"
#include "live/recorder.h"
#include "store/json/run_protocol_json.h"
#include "store/local_time.h"
#include "store/project/earlier_rises.h"
#include "store/project/project.h"
#include "words/words.h"

#include <charconv>
#include <csignal>
#include <ctime>
#include <fmt/format.h>
#include <fmt/ostream.h>
#include <memory>
#include <nlohmann/json.hpp>
#include <thread>

namespace ibuki {
namespace {

using Json = nlohmann::ordered_json;

struct RecordArguments {
    std::string project;
    std::string bench;
    std::optional<std::string> mount;
    std::optional<std::string> next;
    std::optional<std::string> protocol;
    bool loose = false;
    std::vector<std::string> sources;
    SourceOptions options;
    std::string speed = "1";
    std::optional<double> forS;
    bool startLoad = false;
    bool json = false;
};

/// Interrupt, terminate and hang-up ask to stop instead of ending the program; a reader who goes away ends
/// nothing. As it was before once this is gone.
class Signals {
public:
    explicit Signals(std::stop_source& stop) {
        sigemptyset(&caught_);
        for (int signal : {SIGINT, SIGTERM, SIGHUP}) sigaddset(&caught_, signal);
        pthread_sigmask(SIG_BLOCK, &caught_, &before_);
        pipeBefore_ = std::signal(SIGPIPE, SIG_IGN);
        waiting_ = std::jthread([this, &stop](const std::stop_token& ended) {
            const timespec moment{0, 100'000'000};
            while (!ended.stop_requested())
                if (sigtimedwait(&caught_, nullptr, &moment) > 0) stop.request_stop();
        });
    }
    ~Signals() {
        waiting_ = {};
        std::signal(SIGPIPE, pipeBefore_);
        pthread_sigmask(SIG_SETMASK, &before_, nullptr);
    }
    Signals(const Signals&) = delete;
    Signals& operator=(const Signals&) = delete;

private:
    sigset_t caught_{};
    sigset_t before_{};
    void (*pipeBefore_)(int) = SIG_DFL;
    std::jthread waiting_;
};

double speedFrom(const std::string& text) {
    if (text == "max") return 0;
    double speed = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), speed);
    if (error != std::errc{} || end != text.data() + text.size() || !(speed > 0 && speed <= 1e6))
        throw UsageError(words::say("--speed: a number above 0, or max"));
    return speed;
}

void checkUsage(RecordArguments& arguments) {
    if (arguments.mount.has_value() + arguments.next.has_value() + arguments.loose != 1)
        throw UsageError(words::say("record needs one of --mount, --next, --loose"));
    if (!(arguments.options.everyS > 0 && arguments.options.everyS <= 86'400))
        throw UsageError(words::say("--every: seconds above 0"));
    if (arguments.forS && !(*arguments.forS > 0)) throw UsageError(words::say("--for: seconds above 0"));
    arguments.options.speed = speedFrom(arguments.speed);
    if (arguments.startLoad && !arguments.protocol && !arguments.next)
        throw UsageError(words::say("--start-load needs --protocol or --next: the command stands there"));
}

template <class E> const E* named(const Document& document, const std::string& name) {
    for (const auto& [id, entity] : document.all<E>())
        if (entity.name == name) return document.find(id);
    return nullptr;
}

const Study* studyNamed(const Document& document, Id<Bench> bench, const std::string& name) {
    for (const Study* study : document.where(&Study::bench, bench))
        if (study->name == name) return study;
    return nullptr;
}

/// The mount of that name on the bench.
const Mount* mountNamed(const Document& document, Id<Bench> bench, const std::string& name) {
    for (const Mount* mount : mountsOf(document, bench))
        if (mount->name == name) return mount;
    return nullptr;
}

/// The steps of a file. Its commands start only by the user's own word.
Conduct conductOf(const RunProtocol& protocol, bool startLoad) {
    std::vector<const Load*> loads;
    for (const Load& load : protocol.loads) loads.push_back(&load);
    Conduct conduct;
    conduct.steps = conductedSteps(protocol.steps, loads);
    for (std::size_t i = 0; startLoad && i < protocol.loads.size(); ++i)
        if (!protocol.commands[i].empty()) conduct.commands[protocol.loads[i].name] = protocol.commands[i];
    return conduct;
}

/// The study's next mount, or the one that is named, or none.
RecordingWish wishOf(const Document& document, const RecordArguments& arguments) {
    RecordingWish wish;
    wish.bench = named<Bench>(document, arguments.bench)->id;
    wish.sources = arguments.sources;
    wish.at = wallNow();
    if (arguments.mount) {
        const Mount* mount = mountNamed(document, wish.bench, *arguments.mount);
        if (!mount)
            throw InputError("record-mount", {arguments.project, {}, {}}, {{"mount", *arguments.mount}});
        wish.mount = mount->id;
    }
    if (arguments.next) {
        const Study* study = studyNamed(document, wish.bench, *arguments.next);
        if (!study)
            throw InputError("record-study", {arguments.project, {}, {}}, {{"study", *arguments.next}});
        const auto open = openSlots(document, study->id);
        if (open.empty()) throw InputError("record-nothing-planned", {}, {{"study", study->name}});
        wish.slot = open.front()->id;
        wish.name = words::text(briefOf(document, *open.front(), wish.at).title);
    }
    return wish;
}

/// What a run of the study's next mount goes through, and what it is watched by.
Conduct conductOf(const Project& project, const Slot& slot, bool startLoad) {
    const Document& document = project.document();
    const Id<Study> study = slot.study;
    Conduct conduct;
    conduct.steps = runSteps(document, study);
    for (const Load* load : loadsOf(document, study))
        if (startLoad && !load->command.empty()) conduct.commands[load->name] = load->command;
    conduct.rules = monitorRules(document, study);
    if (const Question* question = firstQuestion(document, study))
        conduct.rules->earlier = earlierRises(project, study, slot.id, question->metric);
    return conduct;
}

/// Its rows are there; a figure follows where it belongs to a mount and a load can be told.
void end(Project& project, Id<Recording> recording, const RecorderResult& result) {
    const RecordedExtent extent{result.extent.samples, result.extent.durationS, result.start};
    const Trace trace = project.loadTrace(recording);
    project.apply(endRecording(project.document(), recording, extent, &trace));
}

/// Events as lines of JSON, or the few that a person wants to know.
class Teller {
public:
    Teller(std::ostream& out, bool json, Id<Recording> recording)
        : out_(out), json_(json), recording_(recording) {}

    void operator()(const RecorderEvent& event) {
        std::visit([this](const auto& one) { tell(one); }, event);
    }
    void closed(const RecorderResult& result) {
        if (json_)
            line({{"event", "closed"},
                  {"samples", result.extent.samples},
                  {"duration_s", result.extent.durationS},
                  {"lost", result.lost}});
        else
            say(words::say("Recording {recording}: {samples} rows in {seconds:.1f} s",
                           {{"recording", recording_.value},
                            {"samples", result.extent.samples},
                            {"seconds", result.extent.durationS}}));
    }

private:
    void tell(const ChannelsOpened& opened) {
        Json channels = Json::array();
        for (const RecordedChannel& one : opened.channels)
            channels.push_back({{"column", one.channel.column},
                                {"role", roleName(one.channel.role)},
                                {"unit", unitName(one.channel.unit)},
                                {"source", one.source}});
        if (json_)
            line({{"event", opened.later ? "channels" : "opened"},
                  {"recording", recording_.value},
                  {"channels", channels}});
        else if (!opened.later)
            say(words::sayMany("Recording {recording}: {count} channel",
                               "Recording {recording}: {count} channels",
                               static_cast<long>(opened.channels.size()), {{"recording", recording_.value}}));
    }
    void tell(const RowsSaved& saved) {
        if (json_)
            line({{"event", "saved"}, {"samples", saved.extent.samples}, {"t_s", saved.extent.durationS}});
    }
    void tell(const FlagRaised& raised) {
        if (json_)
            line({{"event", "flag"},
                  {"code", raised.flag.code},
                  {"severity", severityName(raised.flag.severity)},
                  {"message", words::text(raised.flag.message)},
                  {"t_s", raised.atS}});
        else
            say(words::text(raised.flag.message));
    }
    void tell(const StepChanged& changed) {
        const std::string& load = changed.step.load;
        if (json_)
            line({{"event", "step"},
                  {"kind", word(changed.step.kind)},
                  {"load", load.empty() ? Json(nullptr) : Json(load)},
                  {"state", stepStateWord(changed.state)},
                  {"t_s", changed.atS},
                  {"predicted_s", changed.predictedS ? Json(*changed.predictedS) : Json(nullptr)}});
        else
            say(words::say("{step}: {state}", {{"step", Term{word(changed.step.kind)}},
                                               {"state", Term{stepStateWord(changed.state)}}}));
    }
    void line(const Json& json) { say(json.dump(-1, ' ', false, Json::error_handler_t::replace)); }
    /// A reader who is gone ends nothing.
    void say(const std::string& text) {
        out_ << text << '\n' << std::flush;
        out_.clear();
    }

    std::ostream& out_;
    bool json_;
    Id<Recording> recording_;
};

void record(const RecordArguments& arguments, std::ostream& out) {
    std::stop_source stop;
    const Signals signals(stop);
    Project project = Project::open(arguments.project);
    if (!named<Bench>(project.document(), arguments.bench))
        throw InputError("record-bench", {arguments.project, {}, {}}, {{"bench", arguments.bench}});
    const RecordingWish wish = wishOf(project.document(), arguments);
    std::vector<std::unique_ptr<Source>> sources;
    std::optional<Conduct> conduct;
    if (const Slot* slot = project.document().find(wish.slot))
        conduct = conductOf(project, *slot, arguments.startLoad);
    if (arguments.protocol) conduct = conductOf(readRunProtocol(*arguments.protocol), arguments.startLoad);
    for (const std::string& spec : arguments.sources)
        sources.push_back(openSource(spec, arguments.options)); // before anything is stored
    const RecordingBegun begun = beginRecording(project.document(), wish);
    project.apply(begun.set);
    Teller tell(out, arguments.json, begun.recording);
    Recorder recorder(std::move(sources), RecordingJournal(project.path(), begun.recording),
                      [&tell](const RecorderEvent& event) { tell(event); });
    if (conduct) recorder.conduct(std::move(*conduct));
    const RecorderResult result = recorder.run(stop.get_token(), arguments.forS);
    end(project, begun.recording, result);
    tell.closed(result);
}

} // namespace

VerbBody addRecord(Options options) {
    auto arguments = std::make_shared<RecordArguments>();
    options.add("PROJECT", arguments->project, words::say("Project file")).required();
    options.add("--bench", arguments->bench, words::say("Name of the bench")).required();
    options.add("--mount", arguments->mount, words::say("Name of the mount that it belongs to"));
    options.add("--next", arguments->next, words::say("Study whose next mount it is"));
    options.addFlag("--loose", arguments->loose, words::say("It belongs to no mount"));
    options
        .add("--source", arguments->sources,
             words::say("sim:BENCH.json, hwmon, hwmon:ROOT, follow:FILE or instrument:CONFIG.json"))
        .required()
        .repeated();
    options.add("--protocol", arguments->protocol, words::say("Steps to go through (JSON)"));
    options.addFlag("--from-start", arguments->options.fromStart,
                    words::say("Of a followed log, the rows that are there already too"));
    options.add("--every", arguments->options.everyS, words::say("Seconds between readings")).tellDefault();
    options.add("--for", arguments->forS, words::say("Seconds on the first source's clock"));
    options.add("--speed", arguments->speed, words::say("Of simulated time: a factor, or max")).tellDefault();
    options.add("--seed", arguments->options.seed, words::say("Of the simulated bench"));
    options.addFlag("--start-load", arguments->startLoad, words::say("Start the protocol's load command"));
    options.addFlag("--json", arguments->json, words::say("Print one JSON object a line"));
    options.example("ibuki-cli record kittiwake.ibuki --bench node-2 --loose --source hwmon --for 3600");
    return [arguments](std::ostream& out) {
        checkUsage(*arguments);
        record(*arguments, out);
    };
}

} // namespace ibuki
