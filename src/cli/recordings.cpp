// SPDX-License-Identifier: GPL-3.0-or-later
// Verbs around recordings: a project to record into, what can be read here, what was recorded.

#include "cli/verb.h"
#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/setup/bench_template.h"
#include "live/source.h"
#include "store/atomic_file.h"
#include "store/json/json_text.h"
#include "store/log/log_writer.h"
#include "store/project/channel_keeper.h"
#include "store/project/project.h"
#include "words/words.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <filesystem>
#include <fmt/format.h>
#include <fmt/ostream.h>
#include <memory>
#include <nlohmann/json.hpp>

namespace ibuki {
namespace {

using Json = nlohmann::ordered_json;

/// "lidded-chip" of the template's name.
std::string dashed(std::string_view name) {
    std::string word(name);
    std::replace(word.begin(), word.end(), ' ', '-');
    return word;
}

std::vector<std::string> templateWords() {
    std::vector<std::string> all;
    for (const BenchTemplateInfo& info : benchTemplates) all.push_back(dashed(info.name));
    return all;
}

BenchTemplate templateOf(const std::string& word) {
    for (const BenchTemplateInfo& info : benchTemplates)
        if (dashed(info.name) == word) return info.which;
    return BenchTemplate::liddedChip;
}

struct ListedRecording {
    Id<Recording> id;
    std::string name;
    std::string bench;
    std::optional<std::string> mount;
    std::optional<Instant> start;
    LiveExtent extent;
    std::string state;
};

std::optional<std::string> mountOf(const Document& document, Id<Recording> recording) {
    for (const Run* run : document.where(&Run::recording, recording))
        if (const Mount* mount = document.find(run->mount)) return mount->name;
    return std::nullopt;
}

ListedRecording listed(const Project& project, const Recording& recording) {
    ListedRecording one;
    const Bench* bench = project.document().find(recording.bench);
    one.id = recording.id;
    one.name = recording.fileName;
    one.bench = bench ? bench->name : std::string();
    one.mount = mountOf(project.document(), recording.id);
    one.start = recording.start;
    const bool open = recording.state == RecordingState::open;
    one.extent =
        open ? project.liveExtentOf(recording.id) : LiveExtent{recording.samples, recording.durationS};
    const bool grows = open && project.isWrittenElsewhere();
    one.state = recording.withdrawn ? "withdrawn"
                : open              ? (grows ? "open" : "interrupted")
                                    : std::string(word(recording.state));
    return one;
}

Json toJson(const ListedRecording& one) {
    return {{"recording", one.id.value},
            {"name", one.name},
            {"bench", one.bench},
            {"mount", one.mount ? Json(*one.mount) : Json(nullptr)},
            {"start", one.start ? Json(isoText(*one.start)) : Json(nullptr)},
            {"samples", one.extent.samples},
            {"duration_s", one.extent.durationS},
            {"state", one.state}};
}

/// Channels without a role of a log that was brought in stand beside the others.
void addKept(Trace& trace, const Project& project, Id<Recording> recording) {
    for (Channel& channel : trace.channels)
        if (channel.values.empty() && channel.words.empty())
            if (auto kept = loadKeptChannel(project.path(), recording, channel.column)) {
                kept->role = channel.role;
                kept->fileUnit = channel.fileUnit;
                channel = std::move(*kept);
            }
}

struct ListArguments {
    std::string project;
    bool json = false;
};

struct TraceArguments {
    std::string project;
    std::string recording;
    std::string output;
};

struct SensorArguments {
    std::vector<std::string> sources;
    bool json = false;
};

struct NewArguments {
    std::string project;
    std::string bench;
    std::string which = "lidded-chip";
};

void printSensors(std::ostream& out, const std::vector<std::unique_ptr<Source>>& sources, bool json) {
    Json all = Json::array();
    for (const auto& source : sources) {
        const auto channels = source->channels();
        const auto values = source->readNow();
        Json reported = Json::array();
        if (!json) fmt::print(out, "{}\n", source->spec());
        for (std::size_t i = 0; i < channels.size(); ++i) {
            const double value = i < values.size() ? values[i] : std::nan("");
            const bool read = std::isfinite(value);
            const auto& channel = channels[i];
            if (json)
                reported.push_back(
                    {{"column", channel.column},
                     {"role", roleName(channel.role)},
                     {"unit", unitName(channel.unit)},
                     {"resolution", channel.resolution ? Json(*channel.resolution) : Json(nullptr)},
                     {"reading", read ? Json(value) : Json(nullptr)}});
            else
                fmt::print(out, "  {}  {}  {}\n", channel.column, roleName(channel.role),
                           read ? fmt::format("{:g}", value) : std::string("–"));
        }
        all.push_back({{"source", source->spec()}, {"channels", reported}});
    }
    if (json) out << jsonText(Json{{"sources", all}});
}

} // namespace

VerbBody addNew(Options options) {
    auto arguments = std::make_shared<NewArguments>();
    options.add("PROJECT", arguments->project, words::say("Project file to make")).required();
    options.add("--bench", arguments->bench, words::say("Name of its bench")).required();
    options.add("--template", arguments->which, words::say("Layers that the bench begins with"))
        .oneOf(templateWords())
        .tellDefault();
    options.example("ibuki-cli new kittiwake.ibuki --bench node-2 --template lidded-chip");
    return [arguments](std::ostream& out) {
        if (arguments->bench.find_first_not_of(" \t") == std::string::npos)
            throw UsageError(words::say("--bench: a bench needs a name"));
        Project project = Project::create(arguments->project);
        Edit edit(project.document(), Message{"edit-new-bench", {{"bench", arguments->bench}}});
        addBench(edit, templateOf(arguments->which), arguments->bench,
                 [](const Message& message) { return words::text(message); });
        project.apply(edit.finish());
        fmt::print(out, "{}\n", arguments->project);
    };
}

VerbBody addSensors(Options options) {
    auto arguments = std::make_shared<SensorArguments>();
    options
        .add("--source", arguments->sources,
             words::say("sim:BENCH.json, hwmon, hwmon:ROOT, follow:FILE or instrument:CONFIG.json"))
        .repeated();
    options.addJson(arguments->json);
    options.example("ibuki-cli sensors --source hwmon");
    return [arguments](std::ostream& out) {
        if (arguments->sources.empty()) arguments->sources.emplace_back("hwmon");
        std::vector<std::unique_ptr<Source>> sources;
        for (const std::string& spec : arguments->sources) sources.push_back(openSource(spec, {}));
        printSensors(out, sources, arguments->json);
    };
}

VerbBody addRecordings(Options options) {
    auto arguments = std::make_shared<ListArguments>();
    options.add("PROJECT", arguments->project, words::say("Project file")).required();
    options.addJson(arguments->json);
    options.example("ibuki-cli recordings kittiwake.ibuki");
    return [arguments](std::ostream& out) {
        const Project project = Project::open(arguments->project, Access::readOnly);
        Json all = Json::array();
        for (const auto& [id, recording] : project.document().all<Recording>()) {
            const ListedRecording one = listed(project, recording);
            if (arguments->json)
                all.push_back(toJson(one));
            else
                fmt::print(
                    out, "{}  {}  {}\n", one.id.value, one.name,
                    words::say("{samples} rows, {seconds:.1f} s, {state}", {{"samples", one.extent.samples},
                                                                            {"seconds", one.extent.durationS},
                                                                            {"state", Term{one.state}}}));
        }
        if (arguments->json) out << jsonText(all);
    };
}

VerbBody addTrace(Options options) {
    auto arguments = std::make_shared<TraceArguments>();
    options.add("PROJECT", arguments->project, words::say("Project file")).required();
    options.add("RECORDING", arguments->recording, words::say("Its number")).required();
    options.add("-o,--output", arguments->output, words::say("Log to write")).required();
    options.example("ibuki-cli trace kittiwake.ibuki 12 -o run.csv");
    return [arguments](std::ostream& out) {
        refuseInputAsTarget(arguments->output, {arguments->project});
        const Project project = Project::open(arguments->project, Access::readOnly);
        std::int64_t number = 0;
        const std::string& text = arguments->recording;
        const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), number);
        const bool whole = error == std::errc{} && end == text.data() + text.size();
        const Recording* recording = whole ? project.document().find(Id<Recording>{number}) : nullptr;
        if (!recording)
            throw InputError("trace-recording", {arguments->project, {}, {}}, {{"recording", text}});
        if (recording->state == RecordingState::figures)
            throw InputError("trace-recording.figures", {arguments->project, {}, {}}, {{"recording", text}});
        Trace trace = project.loadTrace(recording->id);
        addKept(trace, project, recording->id);
        writeFileAtomically(arguments->output, exactLogText(trace));
        fmt::print(out, "{}\n", arguments->output);
    };
}

} // namespace ibuki
