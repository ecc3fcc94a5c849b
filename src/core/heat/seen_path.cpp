// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/seen_path.h"

#include "core/base/input_error.h"
#include "core/domain/lookup.h"

#include <algorithm>

namespace ibuki {
namespace {

/// What a study measured, with the cooler that follows from it.
struct Calibrated {
    std::vector<TidyRow> rows;
    StudyMeasurements measured;
    double coolerKPerW = 0;
};

std::optional<Calibrated> calibrated(const Document& document, const Question& question,
                                     std::optional<Id<Configuration>> configuration) {
    Calibrated found;
    found.rows = tidyTable(document, question);
    const Id<Load> load = comparedLoad(document, found.rows, question);
    found.measured = measurementsOf(document, question, found.rows, load, configuration);
    if (!found.measured.input) return std::nullopt;
    try {
        found.coolerKPerW = calibratedCooler(*found.measured.input);
    } catch (const InputError&) {
        return std::nullopt; // said where the path is opened
    }
    return found;
}

/// The path with the studied joint as it follows from these means.
SeenPath seen(const Calibrated& calibrated, const PathMount& mean, int mounts) {
    const BenchPath& bench = calibrated.measured.input->bench;
    HeatPath path = bench.path;
    path.coolerKPerW = calibrated.coolerKPerW;
    path.powerW = mean.powerW;
    path.ambientC = mean.roomC;
    SeenPath found;
    found.mounts = mounts;
    found.anchorAssumed = calibrated.measured.anchorAssumed;
    found.studiedMm2KPerW = solveResistance(path, *bench.studied, mean.kPerW);
    path.interfaces[*bench.studied].rMm2KPerW = found.studiedMm2KPerW;
    const HeatPathSteps steps = chainSteps(path);
    found.powerW = mean.powerW;
    found.chipC = steps.junctionMeanC;
    found.roomC = mean.roomC;
    bool hasCooler = false;
    for (const PathPlace& place : bench.places) {
        SeenLayer layer{place.layer};
        layer.isAssumed = place.isAssumed && !(place.interface && place.interface == bench.studied);
        layer.isStudied = place.interface && place.interface == bench.studied;
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
        } else if (place.kind == LayerKind::cooler && !hasCooler) {
            hasCooler = true;
            layer.deltaK = steps.coolerDeltaK;
            layer.kPerW = path.coolerKPerW;
            layer.hotC = mean.roomC + steps.coolerDeltaK;
            layer.coldC = mean.roomC;
        } else {
            continue; // the room itself
        }
        found.layers.push_back(layer);
    }
    return found;
}

/// Mean of the runs that `counts`, mounts weighted alike is not needed for a look.
template <class Counts> std::optional<SeenPath> meanPath(const Calibrated& calibrated, const Counts& counts) {
    PathMount mean;
    int rows = 0;
    std::vector<Id<Mount>> mounts;
    for (const TidyRow& row : calibrated.rows) {
        if (!row.rthKPerW || !row.powerW || !counts(row)) continue;
        ++rows;
        mean.kPerW += (*row.rthKPerW - mean.kPerW) / rows;
        mean.powerW += (*row.powerW - mean.powerW) / rows;
        mean.roomC += (row.roomC.value_or(0) - mean.roomC) / rows;
        if (std::find(mounts.begin(), mounts.end(), row.mountId) == mounts.end())
            mounts.push_back(row.mountId);
    }
    if (rows == 0) return std::nullopt;
    return seen(calibrated, mean, static_cast<int>(mounts.size()));
}

} // namespace

std::optional<SeenPath> pathOfMount(const Document& document, const Question& question, const Mount& mount) {
    const auto found = calibrated(document, question, mount.configuration);
    if (!found) return std::nullopt;
    const Id<Load> load = comparedLoad(document, found->rows, question);
    auto path =
        meanPath(*found, [&](const TidyRow& row) { return row.mountId == mount.id && row.loadId == load; });
    return path ? path : meanPath(*found, [&](const TidyRow& row) { return row.mountId == mount.id; });
}

std::optional<SeenPath> pathOfMaterial(const Document& document, const Question& question,
                                       std::optional<Id<Material>> material) {
    const auto found = calibrated(document, question, std::nullopt);
    if (!found) return std::nullopt;
    const auto& mounts = found->measured.input->mounts;
    return meanPath(*found, [&](const TidyRow& row) {
        if (std::none_of(mounts.begin(), mounts.end(),
                         [&](const auto& one) { return one.mount == row.mountId; }))
            return false;
        const Material* of = materialAt(document, row.mountId, question.site);
        return !row.excluded && (!material || (of && of->id == *material));
    });
}

} // namespace ibuki
