// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/practice/practice.h"

#include "core/base/random.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/setup/bench_template.h"
#include "core/setup/study_setup.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double neededG = 0.14; ///< docs/methods.md, "Dose and spread": 30 × 30 mm at 40 µm with half more
constexpr double typicalTorqueNm = 0.6;
constexpr double torqueExponent = 0.166; ///< bond line by pressure ("Bond line")
constexpr double baseKPerW = 0.012;
constexpr double warmerAmbientK = 3.5;

struct Sample {
    const char* name;
    MaterialClass kind;
    double aboveBestK; ///< at the load
    double mountSdK;
};

struct Script {
    std::vector<Sample> materials;
    double powerW = 150;
    bool shuffled = true; ///< which material is which is drawn
    SimulatedBench bench;
    const char* cooler;
};

Script scriptOf(Scenario scenario) {
    using enum MaterialClass;
    Script script;
    switch (scenario) {
    case Scenario::threePastes:
        script.materials = {
            {"Tern 11", paste, 0, 0.35}, {"Plover 4", paste, 0.4, 0.35}, {"Dunlin C", paste, 2.2, 0.45}};
        script.cooler = "practice-tower";
        break;
    case Scenario::mutedLoop:
        script.materials = {
            {"Tern 11", paste, 0, 0.3}, {"Heron HV", paste, 1.3, 0.3}, {"Plover 4", paste, 1.6, 0.35}};
        script.powerW = 180;
        script.bench.layers = {{0.26, 0.057}, {7.7, 0.060}, {115, 0.035}, {1'833, 0.10}};
        script.bench.coolantLayer = 3;
        script.bench.limitC = 77; // reached on a warm day
        script.bench.ambientDriftKPerH = 0.9;
        script.bench.ambientSwingK = 0.4;
        script.cooler = "practice-loop";
        break;
    case Scenario::filmAndSheet:
        script.materials = {{"Plover 4", paste, 0.9, 0.45},
                            {"Driftwood 52", phaseChange, 0, 0.25},
                            {"Slate 25", sheet, 3.4, 0.7}};
        script.shuffled = false;
        script.powerW = 170;
        script.bench.leakage = Leakage{12, 60, 0.02};
        script.bench.fan = SimulatedFan{};
        script.bench.fan->leastDuty = 0.6; // held low, and let go when it is hot
        script.bench.fan->fromC = 72;
        script.bench.dropoutsPerH = 2;
        script.cooler = "practice-plate";
        break;
    }
    return script;
}

/// How far each material lies above the best: the script's, moved a little, and dealt by the seed.
std::vector<Sample> dealt(const Script& script, int seed) {
    Random random(static_cast<std::uint64_t>(seed) * 2'654'435'761U + 17);
    std::vector<Sample> materials = script.materials;
    if (script.shuffled)
        for (std::size_t i = materials.size(); i > 1; --i) {
            const auto other =
                std::min(i - 1, static_cast<std::size_t>(random.uniform() * static_cast<double>(i)));
            std::swap(materials[i - 1].aboveBestK, materials[other].aboveBestK);
            std::swap(materials[i - 1].mountSdK, materials[other].mountSdK);
        }
    for (Sample& one : materials) one.aboveBestK += 0.3 * (random.uniform() - 0.5);
    return materials;
}

SimulatedBench benchOf(const Script& script, int seed) {
    SimulatedBench bench = script.bench;
    bench.coreSeed = static_cast<std::uint64_t>(seed) + 3;
    bench.coreSpreadK = 0.8;
    return bench;
}

} // namespace

namespace {

/// A paste's sealed pace: some are pumped out by cycles, some dry out, some stay.
void age(SimulatedBench& bench, const Practice& practice, const SealedLevel& sealed, const MountClock& worn) {
    Random random(static_cast<std::uint64_t>(practice.seed) * 7'919U
                  + static_cast<std::uint64_t>(sealed.level.value));
    const double which = random.uniform();
    if (which < 0.4)
        bench.pumpOut = SimulatedPumpOut{0.4 + 0.6 * random.uniform(), 120, worn.cycles};
    else if (which < 0.7)
        bench.dryOut =
            SimulatedDryOut{0.0001 * (0.5 + random.uniform()), worn.hours.value_or(worn.loadHours)};
}

} // namespace

Message purposeOf(Scenario scenario) {
    switch (scenario) {
    case Scenario::threePastes:
        return {"scenario-three-pastes", {}};
    case Scenario::mutedLoop:
        return {"scenario-loop", {}};
    case Scenario::filmAndSheet:
        return {"scenario-film", {}};
    }
    return {};
}

Id<Study> addPractice(Edit& edit, const NewPractice& wanted, Instant now) {
    const Script script = scriptOf(wanted.scenario);
    const Id<Bench> bench =
        addBench(edit, BenchTemplate::liddedChip, wanted.wording({"practice-bench", {}}), wanted.wording);
    Configuration configuration = *currentConfiguration(edit.document(), bench);
    configuration.cooler = wanted.wording({script.cooler, {}});
    configuration.fan = script.bench.fan ? FanSetting::automatic : FanSetting::fixed;
    configuration.temperatureLimit = Celsius{script.bench.limitC.value_or(95)};
    edit.put(configuration);
    BenchSource source;
    source.bench = bench;
    source.position = 1;
    source.spec = practiceSource;
    edit.add(source);
    NewStudy study;
    study.bench = bench;
    study.name = wanted.wording({"practice-study", {{"scenario", Term{word(wanted.scenario)}}}});
    study.wording = wanted.wording;
    for (const Sample& sample : script.materials) {
        Material material;
        material.name = sample.name;
        material.kind = sample.kind;
        if (sample.kind == MaterialClass::phaseChange) material.melts = Celsius{52};
        const Id<Material> id = edit.add(material);
        study.materials.push_back(id);
        Lot lot;
        lot.material = id;
        lot.name = wanted.wording({"practice-lot", {{"material", std::string(sample.name)}}});
        if (sample.kind == MaterialClass::paste) {
            lot.content = 4;
            lot.contentUnit = ContentUnit::gram;
        }
        edit.add(lot);
    }
    const Id<Study> id = addStudy(edit, study, now);
    for (const Load* load : loadsOf(edit.document(), id)) {
        Load stated = *load;
        stated.target = Watt{script.powerW};
        edit.put(stated);
        break;
    }
    Practice practice;
    practice.study = id;
    practice.scenario = wanted.scenario;
    practice.seed = wanted.seed;
    practice.speed = wanted.speed;
    practice.materials = study.materials;
    edit.add(practice);
    return id;
}

const Practice* practiceOf(const Document& document, Id<Study> study) {
    const auto all = document.where(&Practice::study, study);
    return all.empty() ? nullptr : all.front();
}

std::vector<SealedLevel> sealedTruth(const Document& document, const Practice& practice) {
    const Script script = scriptOf(practice.scenario);
    const auto materials = dealt(script, practice.seed);
    const Question* question = firstQuestion(document, practice.study);
    std::vector<SealedLevel> truth;
    if (!question) return truth;
    for (const Level* level : levelsOf(document, question->id)) {
        if (!level->material) continue;
        const auto place = static_cast<std::size_t>(
            std::find(practice.materials.begin(), practice.materials.end(), *level->material)
            - practice.materials.begin());
        if (place >= std::min(practice.materials.size(), materials.size())) continue; // of nobody's scenario
        const Sample* at = &materials[place];
        SimulatedBench bench = benchOf(script, practice.seed);
        bench.interfaceKPerW = baseKPerW + at->aboveBestK / script.powerW;
        truth.push_back({level->id, level->name, bench.interfaceKPerW, at->mountSdK,
                         BenchSimulation(bench, 1, 1).trueDeltaK(script.powerW)});
    }
    return truth;
}

PracticeMount practiceMount(const Document& document, const Practice& practice, const Slot& slot,
                            const MountClock& worn) {
    const Script script = scriptOf(practice.scenario);
    const auto truth = sealedTruth(document, practice);
    PracticeMount mount{benchOf(script, practice.seed), Mishap::none, 1};
    if (truth.empty()) return mount;
    const auto of = std::find_if(truth.begin(), truth.end(),
                                 [&](const SealedLevel& one) { return slot.level == one.level; });
    const SealedLevel& sealed = of == truth.end() ? truth.front() : *of;
    const Level* level = document.find(sealed.level);
    const Material* material = level ? document.find(level->material) : nullptr;
    const MaterialClass kind = material ? material->kind : MaterialClass::paste;
    const Plan* plan = planOf(document, practice.study);
    Random random(static_cast<std::uint64_t>(practice.seed) * 1'000'003U
                  + static_cast<std::uint64_t>(slot.id.value));
    // Drawn in one order whatever is stated, so that stating something changes nothing else.
    const double scatter = random.normal();
    const double feltG = neededG * (0.45 + 1.0 * random.uniform());
    const double feltNm = 0.25 + 0.6 * random.uniform();
    const double chance = random.uniform();
    const double slip = random.uniform();
    double kPerW = sealed.interfaceKPerW + scatter * sealed.mountSdK / script.powerW;
    if (kind == MaterialClass::paste) {
        const auto stated = level && level->amount ? level->amount : plan ? plan->amount : std::nullopt;
        mount.coveredShare = std::min(1.0, (stated ? stated->value : feltG) / neededG);
        kPerW *= 1 + 1.4 * std::max(0.0, 0.9 - mount.coveredShare);
    }
    const auto torque = level && level->torque ? level->torque : plan ? plan->torque : std::nullopt;
    kPerW *= std::pow((torque ? torque->value : feltNm) / typicalTorqueNm, -torqueExponent);
    if (kind == MaterialClass::sheet && slip < 0.2) {
        mount.mishap = Mishap::slippedSheet;
        kPerW += 5 / script.powerW;
    } else if (chance < 0.1 && !script.bench.fan) {
        mount.mishap = Mishap::fanMoved;
        mount.bench.fanRpm *= 0.8;
        mount.bench.layers.back().toNextKPerW *= 1.08;
    } else if (chance > 0.9) {
        mount.mishap = Mishap::warmAmbient;
        mount.bench.ambientC += warmerAmbientK;
        mount.bench.ambientDriftKPerH += 2.5;
    }
    if (kind == MaterialClass::phaseChange) {
        SimulatedWetting wetting;
        wetting.unwettedKPerW = 4 / script.powerW;
        wetting.meltC = 52;
        wetting.wetted = 1 - std::exp(-worn.loadHours * 3'600 / wetting.tauS);
        mount.bench.wetting = wetting;
    }
    if (kind == MaterialClass::paste) age(mount.bench, practice, sealed, worn);
    mount.bench.interfaceKPerW = std::max(0.002, kPerW);
    return mount;
}

std::optional<PhotographScene> practicePhotograph(const Document& document, const Practice& practice,
                                                  Id<Mount> mount, const Site& site, LookSide side) {
    const Slot* slot = slotOf(document, practice.study, mount);
    MadeUpLook look;
    look.side = side;
    look.seed = static_cast<std::uint64_t>(practice.seed) * 1009 + static_cast<std::uint64_t>(mount.value);
    if (slot) look.coveredShare = practiceMount(document, practice, *slot).coveredShare;
    return madeUpScene(document, mount, site, look);
}

} // namespace ibuki
