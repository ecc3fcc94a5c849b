// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/found_loads.h"

#include "core/domain/lookup.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace ibuki {
namespace {

/// Behind those that are there; the same step as one of that name in an earlier study.
Id<Load> addLoad(Edit& edit, Id<Study> study, Load load) {
    int last = 0;
    for (const Load* other : edit.document().where(&Load::study, study))
        last = std::max(last, other->position);
    load.study = study;
    load.position = last + 1;
    load.sameAs = earlierLoad(edit.document(), study, load.name);
    return edit.add(load);
}

/// A load of the study that was found in a log but is not one of the planned ones, by its name.
Id<Load> foundLoad(Edit& edit, Id<Study> study, const std::string& name) {
    for (const Load* load : edit.document().where(&Load::study, study))
        if (!load->planned && load->name == name) return load->id;
    Load found;
    found.name = name;
    found.planned = false;
    return addLoad(edit, study, found);
}

/// The study's planned load that the power fits best, within 15 %; else the power itself says which.
Id<Load> loadFor(Edit& edit, Id<Study> study, const LoadReduction& found, std::size_t among) {
    const auto planned = loadsOf(edit.document(), study);
    const Load* best = nullptr;
    double nearest = 0.15;
    for (const Load* load : planned) {
        if (!load->target || !found.powerW || load->target->value <= 0) continue;
        const double off = std::abs(*found.powerW / load->target->value - 1);
        if (off >= nearest) continue;
        nearest = off;
        best = load;
    }
    if (best) return best->id;
    if (among > 1 && found.powerW) return foundLoad(edit, study, fmt::format("{:.0f} W", *found.powerW));
    return planned.empty() ? foundLoad(edit, study, "sustained load") : planned.front()->id;
}

} // namespace

std::vector<Id<Load>> loadsFor(Edit& edit, Id<Study> study, const Reduction& reduction) {
    std::vector<Id<Load>> steps;
    for (std::size_t i = 0; i < reduction.loads.size(); ++i) {
        const auto& power = reduction.loads[i].powerW;
        std::optional<Id<Load>> before;
        for (std::size_t k = 0; k < i && power && !before; ++k) {
            const auto& earlier = reduction.loads[k].powerW;
            if (earlier && std::abs(*power / *earlier - 1) <= 0.03) before = steps[k];
        }
        steps.push_back(before ? *before : loadFor(edit, study, reduction.loads[i], reduction.loads.size()));
    }
    return steps;
}

Id<Load> loadChosen(Edit& edit, Id<Study> study, const RunChoice& choice) {
    if (choice.load) return *choice.load;
    const auto tokens = nameTokens(choice.newLoad);
    for (const Load* load : edit.document().where(&Load::study, study))
        if (nameTokens(load->name) == tokens) return load->id;
    Load load;
    load.name = choice.newLoad;
    if (choice.newLoadW) load.target = Watt{*choice.newLoadW};
    load.planned = choice.isNewStep;
    return addLoad(edit, study, load);
}

Id<Load> loadOfSilentLog(Edit& edit, Id<Study> study) { return loadFor(edit, study, {}, 0); }

} // namespace ibuki
