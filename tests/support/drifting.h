// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The story's study with mounts that were left alone and read again: figures as they are given, without logs.

#include "core/domain/run_reduction.h"
#include "support/story.h"

namespace ibuki::story {

class AgedMounts {
public:
    static constexpr double powerW = 150;
    static constexpr double dayMs = 86'400'000;

    Asked asked = ask();
    Question question = *firstQuestion(asked.document, asked.study);
    Instant start = *parseInstant("2031-01-06T09:00");

    Document& document() { return asked.document; }
    const Level& level(std::size_t index) const { return *levelsOf(asked.document, question.id).at(index); }

    /// A mount of that level at a day since the start, with an application of a lot of its material.
    Id<Mount> mount(std::size_t levelIndex, double day, SlotKind kind = SlotKind::level) {
        Edit edit(document(), "mount");
        Mount mount;
        mount.configuration = currentConfiguration(document(), asked.bench)->id;
        mount.name = level(levelIndex).name + " " + std::to_string(++mounts_);
        mount.at = after(day);
        mount.order = mounts_;
        const Id<Mount> id = edit.add(mount);
        Application application;
        application.site = question.site;
        application.lot = lotOfLevel(edit, levelIndex);
        application.end = mount.at;
        MountApplication use;
        use.mount = id;
        use.application = edit.add(application);
        edit.add(use);
        Slot slot;
        slot.study = asked.study;
        slot.position = mounts_;
        slot.kind = kind;
        slot.level = level(levelIndex).id;
        slot.mount = id;
        edit.add(slot);
        apply(document(), edit.finish());
        return id;
    }
    /// A run whose window's middle lies so many hours after the mount was made.
    Id<Run> reading(Id<Mount> mount, double hours, double deltaK, double ambientC = 22,
                    double power = powerW) {
        Edit edit(document(), "reading");
        Recording recording;
        recording.bench = asked.bench;
        recording.fileName = "r" + std::to_string(++readings_) + ".csv";
        recording.sha256 = recording.fileName;
        const Instant made = *document().find(mount)->at;
        recording.start = Instant{made.ms + static_cast<std::int64_t>(hours * 3'600'000) - 1'500'000};
        recording.durationS = 2'400;
        Run run;
        run.mount = mount;
        run.recording = edit.add(recording);
        run.load = document().where(&Load::study, asked.study).front()->id;
        run.purpose = hours > 2 ? Purpose::check : Purpose::fresh;
        const Id<Run> added = edit.add(run);
        edit.add(RunReduction::with({}, added, reduction(deltaK, ambientC, power), {}));
        apply(document(), edit.finish());
        return added;
    }
    Instant after(double days) const { return {start.ms + static_cast<std::int64_t>(days * dayMs)}; }

private:
    Id<Lot> lotOfLevel(Edit& edit, std::size_t index) {
        const auto lots = document().where(&Lot::material, *level(index).material);
        if (!lots.empty()) return lots.front()->id;
        Lot lot;
        lot.material = *level(index).material;
        lot.name = level(index).name + ", tube";
        return edit.add(lot);
    }
    static Reduction reduction(double deltaK, double ambientC, double power) {
        Reduction made;
        made.samples = 240;
        made.durationS = 2'400;
        LoadReduction load;
        load.phases = {{"idle", 0, 300}, {"load", 300, 2'100}, {"cooldown", 2'100, 2'400}};
        load.window = Phase{"window", 1'200, 1'800};
        load.metrics[Metric::hottest] = {ambientC + deltaK, deltaK, 0.05};
        load.powerW = power;
        load.rthKPerW = deltaK / power;
        load.ambient.meanC = ambientC;
        load.ambient.source = AmbientSource::column;
        made.loads = {load};
        made.longest = 0;
        made.course = {
            {0, 300, 600, 2'100, 2'250, 2'400},
            {ambientC + 5, ambientC + 5, ambientC + deltaK, ambientC + deltaK, ambientC + 5, ambientC + 5},
            {10, power, power, power, 10, 10}};
        return made;
    }

    int mounts_ = 0;
    int readings_ = 0;
};

} // namespace ibuki::story
