// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/lookup.h"

#include "core/base/input_error.h"
#include "core/domain/joint_inspection.h"
#include "core/domain/plan.h"
#include "core/domain/run_reduction.h"

#include <algorithm>

namespace ibuki {
namespace {

template <class E> std::vector<const E*> byPosition(std::vector<const E*> entities) {
    std::stable_sort(entities.begin(), entities.end(),
                     [](const E* a, const E* b) { return a->position < b->position; });
    return entities;
}

} // namespace

const Configuration* currentConfiguration(const Document& document, Id<Bench> bench) {
    const Configuration* newest = nullptr;
    for (const Configuration* one : document.where(&Configuration::bench, bench))
        if (!one->variantOf) newest = one;
    return newest;
}

Id<Configuration> rigOf(const Document& document, Id<Configuration> configuration) {
    const Configuration* one = document.find(configuration);
    return one && one->variantOf ? *one->variantOf : configuration;
}

const Configuration* configurationFor(const Document& document, Id<Bench> bench, const Level* level,
                                      const Level* second) {
    for (const Level* asked : {level, second})
        if (asked)
            if (const Configuration* stated = document.find(asked->configuration)) return stated;
    return currentConfiguration(document, bench);
}

std::vector<const Layer*> layersOf(const Document& document, Id<Configuration> configuration) {
    return byPosition(document.where(&Layer::configuration, configuration));
}

const Bench* benchOf(const Document& document, const Mount& mount) {
    const Configuration* configuration = document.find(mount.configuration);
    return configuration ? document.find(configuration->bench) : nullptr;
}

std::vector<const Mount*> mountsOf(const Document& document, Id<Bench> bench) {
    std::vector<const Mount*> mounts;
    for (const Configuration* one : document.where(&Configuration::bench, bench)) {
        const auto here = document.where(&Mount::configuration, one->id);
        mounts.insert(mounts.end(), here.begin(), here.end());
    }
    const auto byOrder = [](const Mount* a, const Mount* b) {
        return std::pair(a->order, a->id) < std::pair(b->order, b->id);
    };
    // Made in their order most often, which is quicker seen than sorted.
    if (!std::is_sorted(mounts.begin(), mounts.end(), byOrder))
        std::sort(mounts.begin(), mounts.end(), byOrder);
    return mounts;
}

namespace {

struct NewestMount {
    Instant at;
};

} // namespace

Instant newestMount(const Document& document) {
    return document
        .once<NewestMount>([&] {
            NewestMount newest;
            for (const auto& [id, mount] : document.all<Mount>())
                if (mount.at) newest.at = std::max(newest.at, *mount.at);
            return newest;
        })
        .at;
}

std::vector<const Slot*> slotsOf(const Document& document, Id<Study> study) {
    return byPosition(document.where(&Slot::study, study));
}

const Slot* slotOf(const Document& document, Id<Study> study, Id<Mount> mount) {
    for (const Slot* slot : document.where(&Slot::mount, mount))
        if (slot->study == study) return slot;
    return nullptr;
}

namespace {

/// The question that the levels belong to.
Id<Question> ownerOf(const Document& document, Id<Question> question) {
    const Question* asked = document.find(question);
    return asked && asked->levelsFrom ? *asked->levelsFrom : question;
}

std::vector<const Level*> levelsOfFactor(const Document& document, Id<Question> question, bool second) {
    auto levels = byPosition(document.where(&Level::question, ownerOf(document, question)));
    std::erase_if(levels, [&](const Level* level) { return level->ofSecond != second; });
    return levels;
}

} // namespace

std::vector<const Level*> levelsOf(const Document& document, Id<Question> question) {
    return levelsOfFactor(document, question, false);
}

std::vector<const Level*> secondLevelsOf(const Document& document, Id<Question> question) {
    return levelsOfFactor(document, question, true);
}

const Level* levelIn(const Document& document, const Question& question, const Slot& slot) {
    const Id<Question> owner = ownerOf(document, question.id);
    const Level* own = document.find(slot.level);
    if (own && own->question == owner) return own;
    for (const SlotLevel* stated : document.where(&SlotLevel::slot, slot.id))
        if (stated->question == owner) return document.find(stated->level);
    const Material* material = slot.mount ? materialAt(document, *slot.mount, question.site) : nullptr;
    if (!material) return nullptr;
    for (const Level* level : levelsOf(document, question.id))
        if (level->material == material->id) return level;
    return nullptr;
}

std::vector<const Load*> loadsOf(const Document& document, Id<Study> study) {
    auto loads = byPosition(document.where(&Load::study, study));
    std::erase_if(loads, [](const Load* load) { return !load->planned; });
    return loads;
}

Id<Load> loadIdentity(const Load& load) { return load.sameAs.value_or(load.id); }

std::optional<Id<Load>> earlierLoad(const Document& document, Id<Study> study, const std::string& name) {
    const Study* here = document.find(study);
    if (!here) return std::nullopt;
    for (const Study* other : document.where(&Study::bench, here->bench))
        if (other->id != study)
            for (const Load* load : document.where(&Load::study, other->id))
                if (load->name == name) return loadIdentity(*load);
    return std::nullopt;
}

const Plan* planOf(const Document& document, Id<Study> study) {
    const auto plans = document.where(&Plan::study, study);
    return plans.empty() ? nullptr : plans.front();
}

const Level* referenceLevelOf(const Document& document, const Question& question) {
    return document.find(question.referenceLevel);
}

const Question* firstQuestion(const Document& document, Id<Study> study) {
    const auto all = document.where(&Question::study, study);
    return all.empty() ? nullptr : all.front();
}

bool shareMount(const Level* a, const Level* b) {
    return a && b && a->id != b->id && a->withoutRemount && b->withoutRemount && a->question == b->question;
}

const Application* applicationAt(const Document& document, Id<Mount> mount, Id<Site> site) {
    for (const MountApplication* use : document.where(&MountApplication::mount, mount)) {
        const Application* application = document.find(use->application);
        if (application && application->site == site) return application;
    }
    return nullptr;
}

const Material* materialAt(const Document& document, Id<Mount> mount, Id<Site> site) {
    const Application* application = applicationAt(document, mount, site);
    const Lot* lot = application ? document.find(application->lot) : nullptr;
    return lot ? document.find(lot->material) : nullptr;
}

const Material* studiedMaterial(const Document& document, const Question& question, Id<Mount> mount) {
    if (const Material* applied = materialAt(document, mount, question.site)) return applied;
    const Slot* slot = slotOf(document, question.study, mount);
    const Level* level = slot ? levelIn(document, question, *slot) : nullptr;
    return level ? document.find(level->material) : nullptr;
}

const Reduction* reductionOf(const Document& document, Id<Run> run) {
    const auto stored = document.where(&RunReduction::run, run);
    if (stored.empty()) return nullptr;
    try {
        return &*stored.front()->reduction;
    } catch (const InputError&) {
        return nullptr; // damaged: told by whoever opened the project, who reads all of them
    }
}

std::vector<const Run*> runsOf(const Document& document, Id<Mount> mount) {
    auto runs = document.where(&Run::mount, mount);
    std::erase_if(runs, [&](const Run* run) {
        const Recording* recording = document.find(run->recording);
        return !recording || recording->withdrawn;
    });
    return runs;
}

std::vector<const Material*> levelMaterials(const Document& document, const Question& question) {
    std::vector<const Material*> materials;
    for (const Level* level : levelsOf(document, question.id))
        if (const Material* material = document.find(level->material);
            material && std::find(materials.begin(), materials.end(), material) == materials.end())
            materials.push_back(material);
    return materials;
}

std::optional<Instant> appliedAt(const Document& document, Id<Mount> mount) {
    std::optional<Instant> applied;
    for (const MountApplication* use : document.where(&MountApplication::mount, mount)) {
        const Application* application = document.find(use->application);
        if (!application) continue;
        const auto end = application->end ? application->end : application->start;
        if (end && (!applied || *end > *applied)) applied = end;
    }
    return applied;
}

const Material* materialOf(const Document& document, Id<Mount> mount) {
    for (const Slot* slot : document.where(&Slot::mount, std::optional(mount)))
        if (const Question* question = firstQuestion(document, slot->study))
            if (const Material* material = studiedMaterial(document, *question, mount)) return material;
    for (const MountApplication* use : document.where(&MountApplication::mount, mount))
        if (const Application* application = document.find(use->application))
            if (const Lot* lot = document.find(application->lot)) return document.find(lot->material);
    return nullptr;
}

std::optional<Instant> openedAt(const Document& document, const Mount& mount) {
    if (mount.opened) return mount.opened;
    std::optional<Instant> opened;
    for (const JointInspection* look : document.where(&JointInspection::mount, mount.id))
        if (look->at && (!opened || *look->at < *opened)) opened = look->at;
    const Bench* bench = benchOf(document, mount);
    if (!bench) return opened;
    const auto mounts = mountsOf(document, bench->id);
    const auto own = std::find(mounts.begin(), mounts.end(), &mount);
    for (auto next = own; next != mounts.end(); ++next) { // one of the same moment tells nothing
        if (next == own || !(*next)->at || (mount.at && *(*next)->at <= *mount.at)) continue;
        return !opened || *(*next)->at < *opened ? (*next)->at : opened;
    }
    return opened;
}

} // namespace ibuki
