// SPDX-License-Identifier: GPL-3.0-or-later
#include "more_studies.h"

#include "core/base/random.h"
#include "core/domain/ageing.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/import/entered_reading.h"
#include "core/import/import.h"
#include "core/setup/bench_template.h"
#include "core/setup/study_setup.h"
#include "sample_log.h"
#include "store/json/simulate_json.h"

#include <algorithm>
#include <fmt/format.h>

namespace ibuki {
namespace {

using nlohmann::json;

Id<Bench> describe(Edit& edit, const json& source) {
    const auto of = [&](const BenchTemplateInfo& info) {
        return info.name == source["template"].get<std::string>();
    };
    const auto& all = benchTemplates;
    const Id<Bench> bench = addBench(edit, std::find_if(all.begin(), all.end(), of)->which, source["name"]);
    Configuration configuration = *currentConfiguration(edit.document(), bench);
    configuration.cooler = source["cooler"];
    configuration.fanNote = source.value("fan_note", "");
    if (source.contains("limit_C")) configuration.temperatureLimit = Celsius{source["limit_C"].get<double>()};
    edit.put(configuration);
    if (!source.contains("face_mm")) return bench;
    std::vector<Site> sites;
    for (const Site* site : edit.document().where(&Site::configuration, configuration.id))
        sites.push_back(*site);
    for (Site& site : sites) {
        site.width = Millimetre{source["face_mm"][0].get<double>()};
        site.length = Millimetre{source["face_mm"][1].get<double>()};
        edit.put(site);
    }
    return bench;
}

Id<Study> ask(Edit& edit, Id<Bench> bench, const json& source, const json& mounts,
              const std::map<std::string, Id<Material>>& materials) {
    std::vector<Id<Material>> compared;
    for (const json& name : source["materials"]) compared.push_back(materials.at(name.get<std::string>()));
    const auto kind = fromWord<StudyTemplate>(source["template"].get<std::string>()).value();
    const Id<Study> id = addStudy(edit, {kind, bench, source["name"].get<std::string>(), compared},
                                  *parseInstant(mounts[0]["at"].get<std::string>()));
    Load load = *edit.document().where(&Load::study, id).front();
    const json powers = source.value("powers_W", json::array({source["power_W"]}));
    for (std::size_t i = 0; i < powers.size(); ++i) {
        load.position = static_cast<int>(i);
        load.target = Watt{powers[i].get<double>()};
        load.name = fmt::format("sustained {:.0f} W", load.target->value);
        if (i == 0)
            edit.put(load);
        else
            edit.add(load);
    }
    Question question = *firstQuestion(edit.document(), id);
    question.margin = Kelvin{source.value("margin_K", 1.0)};
    edit.put(question);
    std::vector<Level> seconds;
    for (const Level* level : secondLevelsOf(edit.document(), question.id)) seconds.push_back(*level);
    for (std::size_t i = 0; i < seconds.size(); ++i) {
        seconds[i].name = source["second"][i];
        edit.put(seconds[i]);
    }
    return id;
}

std::optional<Id<Level>> levelNamed(const std::vector<const Level*>& levels, const json& name) {
    for (const Level* level : levels)
        if (level->name == name) return level->id;
    return std::nullopt;
}

/// The n-th load of each mount, as logs with their rows; the first makes the mounts.
struct Round {
    std::vector<ImportedLog> logs;
    std::vector<ImportRow> rows;
};

class Mounts {
public:
    Mounts(const Document& document, Id<Study> study, const json& source) : source_(source) {
        const Question& question = *firstQuestion(document, study);
        levels_ = levelsOf(document, question.id);
        seconds_ = secondLevelsOf(document, question.id);
    }

    Round round(const Document& document, std::size_t place, const std::filesystem::path& folder) {
        Round round;
        std::map<std::string, int> counts;
        for (std::size_t i = 0; i < source_["mounts"].size(); ++i) {
            const json& entry = source_["mounts"][i];
            const json powers =
                entry.contains("checks_h")
                    ? json(json::array_t(entry["checks_h"].size(), source_["study"]["power_W"]))
                    : entry.value("powers_W", json::array({source_["study"]["power_W"]}));
            const auto kind = fromWord<SlotKind>(entry.value("kind", "level")).value();
            const std::string label =
                kind == SlotKind::checkMount ? "Check" : entry["level"].get<std::string>();
            const int number = ++counts[label];
            if (place >= powers.size()) continue;
            round.logs.push_back(log(entry, powers[place], i, place, label, number, folder));
            ImportRow row;
            row.kind = kind;
            row.level = levelNamed(levels_, entry["level"]);
            if (entry.contains("second")) row.second = levelNamed(seconds_, entry["second"]);
            row.mountName = fmt::format("{} {}", label, number);
            row.at = round.logs.back().trace.start;
            for (const auto& [id, mount] : document.all<Mount>())
                if (place > 0 && mount.at == parseInstant(entry["at"].get<std::string>())) row.mount = id;
            round.rows.push_back(row);
        }
        return round;
    }

private:
    ImportedLog log(const json& entry, double powerW, std::size_t mount, std::size_t place,
                    const std::string& label, int number, const std::filesystem::path& folder) const {
        SimulatedBench bench = benchFromJson(source_["simulated"], "sample");
        SimulatedProtocol protocol = protocolFromJson(source_["protocol"], "sample");
        bench.interfaceKPerW = entry["interface_K_per_W"];
        bench.ambientC = entry["room_C"];
        if (entry.contains("cooler_K_per_W")) bench.layers.back().toNextKPerW = entry["cooler_K_per_W"];
        protocol.powerW = powerW;
        protocol.start = *parseInstant(entry["at"].get<std::string>());
        if (entry.contains("checks_h"))
            age(entry, place, mount, bench, *protocol.start);
        else
            protocol.start->ms += static_cast<std::int64_t>(place) * 40 * 60'000;
        return sampleLog(bench, protocol, 7'000 + 10 * mount + place,
                         source_["bench"]["name"].get<std::string>() + "_" + label,
                         number * 10 + static_cast<int>(place), folder);
    }

    /// The joint as it is after that check's hours and the cycles of its use until then.
    void age(const json& entry, std::size_t place, std::size_t mount, SimulatedBench& bench,
             Instant& start) const {
        const double hours = entry["checks_h"][place];
        start.ms += static_cast<std::int64_t>(hours * 3'600'000);
        Random random(31 * mount + place + 1);
        bench.ambientC += 0.8 * random.normal();
        const json wear = source_["wear"].value(entry["level"].get<std::string>(), json::object());
        const double cycles = hours / 24 * entry.value("cycles_per_day", 0.0) + static_cast<double>(place);
        if (wear.contains("pump_out"))
            bench.pumpOut =
                SimulatedPumpOut{wear["pump_out"]["amplitude"], wear["pump_out"]["cycles"], cycles};
        if (wear.contains("dry_out"))
            bench.dryOut = SimulatedDryOut{wear["dry_out"]["K_per_W_per_sqrt_h"], hours};
        if (wear.contains("wetting")) // a film that nears its end by cycles above its melt
            bench.interfaceKPerW += wear["wetting"]["unwetted_K_per_W"].get<double>()
                                    * std::exp(-cycles / wear["wetting"]["cycles"].get<double>());
    }

    const json& source_;
    std::vector<const Level*> levels_;
    std::vector<const Level*> seconds_;
};

/// Later runs are checks, and how it is used between them.
void leaveAlone(Edit& edit, Id<Mount> mount, const json& entry) {
    for (const Run* run : runsOf(edit.document(), mount)) {
        Run check = *run;
        check.purpose = Purpose::check;
        const Recording* recording = edit.document().find(run->recording);
        if (recording->start != parseInstant(entry["at"].get<std::string>())) edit.put(check);
    }
    if (entry.contains("outcome")) {
        MountOutcome outcome;
        outcome.mount = mount;
        outcome.kind = fromWord<OutcomeKind>(entry["outcome"]["kind"].get<std::string>()).value();
        outcome.happened = entry["outcome"]["happened"];
        edit.add(outcome);
    }
    if (!entry.contains("cycles_per_day")) return;
    MountUse use;
    use.mount = mount;
    use.cyclesPerDay = entry["cycles_per_day"];
    use.hoursPerDay = entry["hours_per_day"];
    if (entry.contains("hottest_C")) use.hottest = Celsius{entry["hottest_C"].get<double>()};
    use.note = entry.value("use", "");
    edit.add(use);
}

/// Readings that no sensor gave, and who mounted.
ChangeSet typed(const Document& document, const json& mounts) {
    Edit edit(document, "Type what was read");
    for (const json& entry : mounts)
        for (const auto& [id, there] : document.all<Mount>()) {
            if (there.at != parseInstant(entry["at"].get<std::string>())) continue;
            Mount mount = there;
            mount.mountedBy = entry.value("by", "");
            if (mount != there) edit.put(mount);
            if (entry.contains("checks_h")) leaveAlone(edit, id, entry);
            const json readings = entry.value("readings", json::object());
            for (const auto& [name, value] : readings.items()) {
                EnteredReading reading;
                reading.run = runsOf(document, id).front()->id;
                reading.kind = fromWord<SideResponse>(name).value();
                reading.unit = typicalOf(reading.kind).unit;
                reading.better = typicalOf(reading.kind).better;
                reading.value = value;
                edit.add(reading);
            }
        }
    return edit.finish();
}

void addOne(Project& project, const json& source, const std::map<std::string, Id<Material>>& materials,
            const std::filesystem::path& logFolder) {
    Edit edit(project.document(), "Ask on another bench");
    const Id<Bench> bench = describe(edit, source["bench"]);
    const Id<Study> study = ask(edit, bench, source["study"], source["mounts"], materials);
    project.apply(edit.finish());
    for (std::size_t place = 0;; ++place) {
        const Document document = project.document();
        const Round round = Mounts(document, study, source).round(document, place, logFolder);
        if (round.logs.empty()) break;
        const ImportChanges changes = importChanges(document, study, round.logs, round.rows);
        Acquired acquired;
        for (const auto& [index, id] : changes.recordings)
            acquired.recordings.push_back({id, round.logs[index].trace});
        project.apply(changes.set, acquired);
    }
    project.apply(typed(project.document(), source["mounts"]));
}

} // namespace

void addMoreStudies(Project& project, const json& studies,
                    const std::map<std::string, Id<Material>>& materials,
                    const std::filesystem::path& logFolder) {
    for (const json& source : studies) addOne(project, source, materials, logFolder);
}

} // namespace ibuki
