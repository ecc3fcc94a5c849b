// SPDX-License-Identifier: GPL-3.0-or-later
// Makes the demo project: simulates a log a mount, writes it as a logger would, reads it back as a user's
// import does, and puts everything into one project file. ibuki-make-demo SOURCE.json TARGET.ibuki
// [LOG-FOLDER]

#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/words.h"
#include "core/evidence/response.h"
#include "core/import/import.h"
#include "core/plan/step_times.h"
#include "core/setup/bench_template.h"
#include "core/setup/plan_setup.h"
#include "core/setup/study_setup.h"
#include "core/shelf/shelf.h"
#include "more_studies.h"
#include "sample_log.h"
#include "sample_looks.h"
#include "store/json/simulate_json.h"
#include "store/project/packing.h"
#include "store/project/project.h"
#include "words/words.h"

#include <algorithm>
#include <filesystem>
#include <fmt/format.h>
#include <iostream>

namespace ibuki {
namespace {

using nlohmann::json;

constexpr int mostLooks = 40;

std::optional<Instant> dateIn(const json& object, const char* name) {
    return object.contains(name) ? parseInstant(object[name].get<std::string>()) : std::nullopt;
}

template <class T> std::optional<T> valueIn(const json& object, const char* name) {
    if (!object.contains(name)) return std::nullopt;
    return T{object[name].get<double>()};
}

YesNo answer(const json& object, const char* name) {
    if (!object.contains(name)) return YesNo::notStated;
    return object[name].get<bool>() ? YesNo::yes : YesNo::no;
}

void addShelf(Edit& edit, const json& source, std::vector<Id<Material>>& levels) {
    for (const json& entry : source["materials"]) {
        Material material;
        material.name = entry["name"];
        material.kind =
            fromWord<MaterialClass>(entry["class"].get<std::string>()).value_or(MaterialClass::unknown);
        material.claimedConductivity = valueIn<WattPerMetreKelvin>(entry, "claimed_W_per_mK");
        if (entry.contains("density_g_per_ml"))
            material.densityGPerMl = entry["density_g_per_ml"].get<double>();
        material.thickness = valueIn<Millimetre>(entry, "thickness_mm");
        material.melts = valueIn<Celsius>(entry, "melts_C");
        material.conductsElectricity = answer(entry, "conducts");
        material.containsGallium = answer(entry, "gallium");
        material.reusable = answer(entry, "reusable");
        if (entry.contains("bond_line_um"))
            material.bondLine = Micrometre{entry["bond_line_um"].get<double>()};
        if (entry.contains("yield_Pa")) material.yieldPa = entry["yield_Pa"].get<double>();
        if (entry.contains("modulus_MPa")) material.modulusMPa = entry["modulus_MPa"].get<double>();
        if (entry.contains("reapply_years")) material.reapplyYears = entry["reapply_years"].get<double>();
        if (entry.contains("stated_mm2K_per_W"))
            material.statedMm2KPerW = entry["stated_mm2K_per_W"].get<double>();
        material.conditioning = entry.value("conditioning", "");
        material.note = entry.value("note", "");
        const Id<Material> id = edit.add(material);
        if (entry.value("compared", true)) levels.push_back(id);
        for (const json& tube : entry["lots"]) {
            Lot lot;
            lot.material = id;
            lot.name = tube["name"];
            lot.supplier = tube.value("supplier", "");
            lot.condition = fromWord<LotCondition>(tube.value("condition", "not stated"))
                                .value_or(LotCondition::notStated);
            lot.storage = tube.value("storage", "");
            lot.sheetWidth = valueIn<Millimetre>(tube, "sheet_width_mm");
            lot.sheetLength = valueIn<Millimetre>(tube, "sheet_length_mm");
            lot.bought = dateIn(tube, "bought");
            lot.opened = dateIn(tube, "opened");
            lot.expires = dateIn(tube, "expires");
            lot.content = tube["content"].get<double>();
            lot.remaining = tube["remaining"].get<double>();
            lot.contentUnit =
                fromWord<ContentUnit>(tube["unit"].get<std::string>()).value_or(ContentUnit::gram);
            lot.price = tube["price"].get<double>();
            lot.currency = tube["currency"];
            const Id<Lot> lotId = edit.add(lot);
            for (const json& rest : tube.value("offcuts", json::array())) {
                Offcut offcut;
                offcut.lot = lotId;
                offcut.width = Millimetre{rest[0].get<double>()};
                offcut.length = Millimetre{rest[1].get<double>()};
                edit.add(offcut);
            }
        }
    }
}

/// How well the sensors of the bench read, by role: accuracy, step, share of the reading.
void describeSensors(Edit& edit, Id<Configuration> configuration, const json& source) {
    std::vector<Sensor> sensors;
    for (const Sensor* sensor : edit.document().where(&Sensor::configuration, configuration))
        sensors.push_back(*sensor);
    for (Sensor& sensor : sensors) {
        const std::string role(roleName(sensor.role));
        if (!source.contains(role)) continue;
        const json& known = source[role];
        if (known.contains("accuracy_K")) sensor.accuracy = Kelvin{known["accuracy_K"].get<double>()};
        if (known.contains("step_K")) sensor.resolution = Kelvin{known["step_K"].get<double>()};
        if (known.contains("accuracy_share")) sensor.accuracyShare = known["accuracy_share"].get<double>();
        edit.put(sensor);
    }
}

void describeBench(Edit& edit, Id<Bench> bench, const json& source) {
    Configuration configuration = *currentConfiguration(edit.document(), bench);
    configuration.cooler = source["cooler"];
    configuration.fanNote = source["fan_note"];
    configuration.temperatureLimit = Celsius{source["limit_C"].get<double>()};
    configuration.ambientGradient = Kelvin{source["room_gradient_K"].get<double>()};
    edit.put(configuration);
    describeSensors(edit, configuration.id, source["sensors"]);
    std::vector<Layer> layers;
    for (const Layer* layer : layersOf(edit.document(), configuration.id)) layers.push_back(*layer);
    const auto sized = [&](LayerKind kind, const json& mm) {
        for (Layer& layer : layers) {
            if (layer.kind != kind) continue;
            layer.width = Millimetre{mm[0].get<double>()};
            layer.length = Millimetre{mm[1].get<double>()};
            layer.thickness = Millimetre{mm[2].get<double>()};
            edit.put(layer);
        }
    };
    sized(LayerKind::chip, source["die_mm"]);
    sized(LayerKind::lid, source["lid_mm"]);
    sized(LayerKind::plate, source["plate_mm"]);
    std::vector<Site> sites;
    for (const Site* site : edit.document().where(&Site::configuration, configuration.id))
        sites.push_back(*site);
    for (Site& site : sites) {
        const json& face = site.kind == SiteKind::dieLid ? source["die_mm"] : source["lid_mm"];
        site.width = Millimetre{face[0].get<double>()};
        site.length = Millimetre{face[1].get<double>()};
        if (site.kind != SiteKind::dieLid) {
            site.contactsNear = YesNo::no;
            site.aluminiumNear = YesNo::no;
        }
        edit.put(site);
    }
}

/// A workstation's card whose pads are still to be cut; nothing was measured on it.
void describeCard(Edit& edit, const json& source) {
    const Id<Bench> bench = addBench(edit, BenchTemplate::graphicsCard, source["name"]);
    Configuration configuration = *currentConfiguration(edit.document(), bench);
    configuration.cooler = source["cooler"];
    configuration.mountForce = Newton{source["mount_force_N"].get<double>()};
    configuration.plateThickness = Millimetre{source["plate_mm"][0].get<double>()};
    configuration.plateRadius = Millimetre{source["plate_mm"][1].get<double>()};
    edit.put(configuration);
    std::vector<Site> sites;
    for (const Site* site : edit.document().where(&Site::configuration, configuration.id))
        sites.push_back(*site);
    for (Site& site : sites) {
        const std::string kind(word(site.kind));
        if (!source["sites"].contains(kind)) continue;
        const json& size = source["sites"][kind];
        site.width = Millimetre{size["mm"][0].get<double>()};
        site.length = Millimetre{size["mm"][1].get<double>()};
        if (size.contains("gap_mm")) site.gap = Millimetre{size["gap_mm"].get<double>()};
        site.alike = size.value("alike", site.alike);
        edit.put(site);
    }
}

struct Prepared {
    std::vector<ImportedLog> logs;
    std::vector<ImportRow> rows;
};

Prepared recordMounts(const Document& document, const json& source, Id<Study> study,
                      const std::filesystem::path& logFolder) {
    const Question& question = *firstQuestion(document, study);
    const auto levels = levelsOf(document, question.id);
    SimulatedBench bench = benchFromJson(source["simulated"], "sample");
    SimulatedProtocol protocol = protocolFromJson(source["protocol"], "sample");
    Random scatter(20310304);
    Prepared prepared;
    std::map<std::string, int> counts;
    std::uint64_t seed = 100;
    for (const json& entry : source["mounts"]) {
        const std::string name = entry["level"];
        const auto material = std::find_if(source["materials"].begin(), source["materials"].end(),
                                           [&](const json& m) { return m["name"] == name; });
        bench.interfaceKPerW =
            std::max(0.001, (*material)["interface_K_per_W"].get<double>()
                                + source["mount_sd_K_per_W"].get<double>() * scatter.normal()
                                + entry.value("extra_K_per_W", 0.0));
        bench.ambientC = entry["room_C"];
        protocol.start = dateIn(entry, "at");
        const SlotKind kind = fromWord<SlotKind>(entry.value("kind", "level")).value();
        const std::string label = kind == SlotKind::checkMount ? "Check" : name;
        const int number = ++counts[label];
        ImportedLog log = sampleLog(bench, protocol, ++seed, label, number, logFolder);
        ImportRow row;
        row.kind = kind;
        for (const Level* level : levels)
            if (level->name == name) row.level = level->id;
        row.mountName = fmt::format("{} {}", label, number);
        row.at = log.trace.start;
        prepared.logs.push_back(std::move(log));
        prepared.rows.push_back(std::move(row));
    }
    return prepared;
}

/// What the hands noticed: amounts and ratings of the applications, material by material.
void addHandling(Edit& edit, const json& source) {
    std::vector<Application> applications;
    for (const auto& [id, application] : edit.document().all<Application>())
        applications.push_back(application);
    std::map<Id<Lot>, double> taken;
    for (Application& application : applications) {
        const Lot* lot = edit.document().find(application.lot);
        const Material* material = lot ? edit.document().find(lot->material) : nullptr;
        if (!material) continue;
        for (const json& entry : source["materials"]) {
            if (entry["name"] != material->name) continue;
            if (entry.contains("usual_amount_g"))
                application.amount = Gram{entry["usual_amount_g"].get<double>()};
            if (entry.contains("usual_area_mm2"))
                application.area = SquareMillimetre{entry["usual_area_mm2"].get<double>()};
            if (entry.contains("ratings")) {
                const json& rated = entry["ratings"];
                application.spreads = rated[0].get<int>();
                application.staysPut = rated[1].get<int>();
                application.comesOff = rated[2].get<int>();
                application.cleansUp = rated[3].get<int>();
            }
        }
        taken[lot->id] += takenBy(application, *lot, *material).value_or(0);
        edit.put(application);
    }
    for (const auto& [id, amount] : taken) { // the shelf was weighed after the last mount
        Lot lot = *edit.document().find(id);
        lot.takenBefore = amount;
        edit.put(lot);
    }
}

ChangeSet afterwards(const Document& document, const json& source, Id<Study> study) {
    Edit edit(document, "Reject a mount and plan the next evening");
    std::vector<Mount> mounts;
    for (const auto& [id, mount] : document.all<Mount>()) mounts.push_back(mount);
    for (std::size_t i = 0; i < source["mounts"].size(); ++i) {
        const json& entry = source["mounts"][i];
        Mount mount = *std::find_if(mounts.begin(), mounts.end(),
                                    [&](const Mount& m) { return m.at == dateIn(entry, "at"); });
        mount.torque = NewtonMetre{0.6};
        mount.note = entry.value("note", "");
        mount.rejected = entry.contains("rejected");
        mount.reason = entry.value("rejected", "");
        edit.put(mount);
    }
    addHandling(edit, source);
    Plan plan = planFor(edit.document(), study);
    const json& wanted = source["plan"];
    plan.mountsPerLevel = wanted["mounts_per_level"].get<int>();
    plan.checkMounts = wanted["check_mounts"].get<int>();
    plan.start = dateIn(wanted, "start");
    plan.torque = NewtonMetre{0.6};
    plan.pattern = fromWord<ApplicationPattern>(wanted["pattern"].get<std::string>()).value();
    for (const auto& [id, material] : document.all<Material>())
        if (material.name == wanted["check_with"]) plan.checkWith = id;
    layPlan(edit, *firstQuestion(edit.document(), study), plan, *plan.start);
    return edit.finish();
}

/// A second study that is only planned: one paste, seen again after hours and days.
void askForBreakIn(Edit& edit, Id<Bench> bench, const json& source,
                   const std::vector<Id<Material>>& materials) {
    const Instant start = *dateIn(source, "start");
    const Id<Study> study = addStudy(
        edit, {StudyTemplate::breakIn, bench, source["name"].get<std::string>(), {materials.front()}}, start);
    usePreset(edit, study, ProtocolPreset::liquid);
    const Question question = *firstQuestion(edit.document(), study);
    layPlan(edit, question, planFor(edit.document(), study), start);
    layFollowUps(edit, planFor(edit.document(), study));
}

/// What somebody else published of two of the study's materials.
ExternalResult externalResult(const json& source, Id<Question> question,
                              const std::map<std::string, Id<Material>>& named) {
    ExternalResult read;
    read.question = question;
    read.first = named.at(source["first"]);
    read.second = named.at(source["second"]);
    read.source = source["source"];
    read.difference = Kelvin{source["difference_K"].get<double>()};
    read.power = Watt{source["power_W"].get<double>()};
    read.chipMm2 = source["chip_mm2"].get<double>();
    read.lid = fromWord<LidState>(source["lid"].get<std::string>()).value();
    read.mounts = source["mounts"].get<int>();
    return read;
}

void makeDemo(const std::string& sourcePath, const std::filesystem::path& target,
              const std::filesystem::path& logFolder) {
    const json source = readJsonFile(sourcePath);
    const std::filesystem::path building = target.string() + ".building";
    std::filesystem::remove(building);
    if (!logFolder.empty()) std::filesystem::create_directories(logFolder);
    {
        Project project = Project::create(building);
        Edit shelf(project.document(), "Fill the shelf");
        std::vector<Id<Material>> materials;
        addShelf(shelf, source, materials);
        project.apply(shelf.finish());

        std::map<std::string, Id<Material>> named;
        for (const auto& [id, material] : project.document().all<Material>()) named[material.name] = id;
        addMoreStudies(project, source["more_studies"], named, logFolder);
        addMoreStudies(project, source["left_alone"], named, logFolder);

        Edit rig(project.document(), "Describe node-2");
        const Id<Bench> bench = addBench(rig, BenchTemplate::liddedChip, source["bench"]["name"]);
        describeBench(rig, bench, source["bench"]);
        project.apply(rig.finish());
        Edit card(project.document(), "Describe the workstation's card");
        describeCard(card, source["card"]);
        project.apply(card.finish());

        Edit later(project.document(), "Ask whether it breaks in");
        askForBreakIn(later, bench, source["break_in"], materials);
        project.apply(later.finish());

        Edit question(project.document(), "Ask");
        const Id<Study> study = addStudy(
            question,
            {StudyTemplate::rankMaterials, bench, source["study"]["name"].get<std::string>(), materials},
            *dateIn(source["mounts"][0], "at"));
        Study described = *question.document().find(study);
        described.heldConstant = source["study"]["held_constant"];
        question.put(described);
        Load load = *question.document().where(&Load::study, study).front();
        load.name = source["study"]["load"];
        load.target = Watt{source["study"]["power_W"].get<double>()};
        load.durationS = source["protocol"]["load_s"].get<double>();
        question.put(load);
        Question asked = *firstQuestion(question.document(), study);
        asked.margin = Kelvin{source["study"]["margin_K"].get<double>()};
        asked.nominalPower = load.target;
        question.put(asked);
        question.add(externalResult(source["read_elsewhere"], asked.id, named));
        project.apply(question.finish());

        const Prepared prepared = recordMounts(project.document(), source, study, logFolder);
        const ImportChanges changes = importChanges(project.document(), study, prepared.logs, prepared.rows);
        Acquired acquired;
        for (const auto& [index, id] : changes.recordings)
            acquired.recordings.push_back({id, prepared.logs[index].trace});
        project.apply(changes.set, acquired);
        project.apply(afterwards(project.document(), source, study));
        addLooks(project, study, mostLooks);
        project.saveCopy(target);
    }
    std::filesystem::remove(building);
}

} // namespace
} // namespace ibuki

int main(int argc, char** argv) {
    if (argc < 3 || argc > 4) {
        std::cerr << "usage: ibuki-make-demo SOURCE.json TARGET.ibuki [LOG-FOLDER]\n";
        return 2;
    }
    try {
        ibuki::makeDemo(argv[1], argv[2], argc > 3 ? argv[3] : "");
        return 0;
    } catch (const ibuki::InputError& error) {
        std::cerr << ibuki::words::sentence(error) << "\n";
        return 1;
    }
}
