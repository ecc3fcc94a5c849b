// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/seen_path.h"

#include "core/base/input_error.h"
#include "core/base/kept.h"
#include "core/domain/material.h"
#include "core/domain/study.h"

#include <algorithm>
#include <map>
#include <memory>

namespace ibuki {
namespace {

SeenLayer layerOf(const PathPlace& place, const HeatPath& path, const HeatPathSteps& steps,
                  std::optional<std::size_t> studied) {
    SeenLayer layer{place.layer};
    layer.isStudied = place.interface && place.interface == studied;
    layer.isAssumed = place.isAssumed && !layer.isStudied;
    if (place.solid) {
        const SolidStep& step = steps.solids[*place.solid];
        layer.deltaK = step.deltaK;
        layer.kPerW = step.rKPerW + step.spreadingKPerW.value_or(0);
        layer.hotC = step.hotC;
        layer.coldC = step.coldC;
    } else if (place.interface) {
        const InterfaceStep& step = steps.interfaces[*place.interface];
        layer.deltaK = step.deltaK;
        layer.kPerW = step.rKPerW;
        layer.hotC = step.hotC;
        layer.coldC = step.coldC;
    } else {
        layer.deltaK = steps.coolerDeltaK;
        layer.kPerW = path.coolerKPerW;
        layer.hotC = path.ambientC + steps.coolerDeltaK;
        layer.coldC = path.ambientC;
    }
    return layer;
}

HeatPath pathWith(const StudyHeat& heat, double powerW, double ambientC) {
    HeatPath path = heat.measured.input->bench.path;
    path.coolerKPerW = heat.coolerKPerW;
    path.powerW = powerW;
    path.ambientC = ambientC;
    return path;
}

/// The path with the studied joint as it follows from these means.
SeenPath seen(const StudyHeat& heat, const PathMount& mean, int mounts) {
    const BenchPath& bench = heat.measured.input->bench;
    HeatPath path = pathWith(heat, mean.powerW, mean.ambientC);
    path.interfaces[*bench.studied].rMm2KPerW = solveResistance(path, *bench.studied, mean.kPerW);
    SeenPath found = computedPath(bench.places, bench.studied, path);
    found.mounts = mounts;
    found.anchorAssumed = heat.measured.anchorAssumed;
    return found;
}

/// By the mean of the mounts that count.
template <class Counts>
std::optional<SeenPath> meanPath(const StudyHeat& heat, std::optional<Id<Load>> load, MountRule rule,
                                 const Counts& counts) {
    if (heat.measured.reason) return std::nullopt;
    rule.checkMounts = true;
    rule.value = &RunRow::rthKPerW;
    PathMount mean;
    int mounts = 0;
    for (const MountFigure& figure : mountFigures(heat.rows, load, rule)) {
        if (!figure.powerW || !counts(figure)) continue;
        ++mounts;
        mean.kPerW += (figure.value - mean.kPerW) / mounts;
        mean.powerW += (*figure.powerW - mean.powerW) / mounts;
        mean.ambientC += (figure.ambientC.value_or(0) - mean.ambientC) / mounts;
    }
    return mounts > 0 ? std::optional(seen(heat, mean, mounts)) : std::nullopt;
}

/// By question and configuration; 0: the one of the most runs.
using StudyHeats = Kept<std::pair<Id<Question>, std::int64_t>, StudyHeat>;

} // namespace

SeenPath computedPath(const std::vector<PathPlace>& places, std::optional<std::size_t> studied,
                      const HeatPath& path) {
    const HeatPathSteps steps = chainSteps(path);
    SeenPath found;
    found.powerW = path.powerW;
    found.chipC = steps.junctionMeanC;
    found.ambientC = path.ambientC;
    if (studied) found.studiedMm2KPerW = path.interfaces[*studied].rMm2KPerW;
    bool hasCooler = false;
    for (const PathPlace& place : places) {
        const bool isCooler = place.kind == LayerKind::cooler && !hasCooler;
        hasCooler = hasCooler || isCooler;
        if (place.solid || place.interface || isCooler) // else the room itself
            found.layers.push_back(layerOf(place, path, steps, studied));
    }
    return found;
}

StudyHeat studyHeat(const Document& document, const Question& question,
                    std::optional<Id<Configuration>> configuration, std::optional<std::size_t> anchor) {
    StudyHeat heat;
    heat.rows = runRows(document, question);
    heat.load = comparedLoad(document, heat.rows, question);
    heat.measured = measurementsOf(document, question, heat.rows, heat.load, configuration, anchor);
    try {
        if (heat.measured.input) heat.coolerKPerW = calibratedCooler(*heat.measured.input);
    } catch (const InputError& error) {
        heat.measured.reason = error.message;
    }
    return heat;
}

const StudyHeat& studyHeat(const Document& document, const Question& question,
                           std::optional<Id<Configuration>> configuration) {
    const auto& heats =
        document.once<std::unique_ptr<StudyHeats>>([] { return std::make_unique<StudyHeats>(); });
    return (*heats)({question.id, configuration ? configuration->value : 0},
                    [&] { return studyHeat(document, question, configuration, std::nullopt); });
}

std::optional<SeenPath> pathOfMount(const StudyHeat& heat, Id<Mount> mount) {
    const auto own = [&](const MountFigure& figure) { return figure.mount == mount; };
    MountRule rule; // whatever there is of it
    rule.rejected = true;
    rule.onlyFresh = false;
    auto path = meanPath(heat, heat.load, rule, own);
    return path ? path : meanPath(heat, std::nullopt, rule, own);
}

std::optional<SeenPath> pathOfMaterial(const StudyHeat& heat, std::optional<Id<Material>> material) {
    if (heat.measured.reason) return std::nullopt;
    const CalibrationInput& input = *heat.measured.input;
    return meanPath(heat, heat.load, MountRule{}, [&](const MountFigure& figure) {
        const auto at = std::find_if(input.mounts.begin(), input.mounts.end(),
                                     [&](const PathMount& one) { return one.mount == figure.mount; });
        if (at == input.mounts.end()) return false;
        const Material* of = input.groups[at->group].material;
        return !material || (of && of->id == *material);
    });
}

std::optional<SeenPath> pathOfPlan(const StudyHeat& heat, const Material* material) {
    const auto all = pathOfMaterial(heat, std::nullopt);
    if (!all) return std::nullopt;
    const BenchPath& bench = heat.measured.input->bench;
    const auto mounted = material ? pathOfMaterial(heat, material->id) : std::nullopt;
    HeatPath path = pathWith(heat, all->powerW, all->ambientC);
    path.interfaces[*bench.studied].rMm2KPerW =
        mounted ? mounted->studiedMm2KPerW : resistanceOf(material).mm2KPerW;
    SeenPath found = computedPath(bench.places, bench.studied, path);
    found.mounts = mounted ? mounted->mounts : 0;
    found.anchorAssumed = heat.measured.anchorAssumed;
    for (SeenLayer& layer : found.layers)
        if (layer.isStudied) layer.isAssumed = !mounted && resistanceOf(material).isAssumed;
    return found;
}

} // namespace ibuki
