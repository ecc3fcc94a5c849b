// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/inspect/void_penalty.h"

#include "core/base/input_error.h"
#include "core/distributions/summary.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace ibuki {

std::optional<FellowResidual> fellowResidual(const Document& document, const Question& question,
                                             Id<Mount> mount) {
    const std::vector<RunRow> rows = runRows(document, question);
    const Id<Load> load = comparedLoad(document, rows, question);
    MountRule fellowRule;
    fellowRule.value = &RunRow::deltaK;
    MountRule ownRule = fellowRule; // also of one that was rejected
    ownRule.rejected = true;
    ownRule.onlyFresh = false;
    const auto ownFigures = mountFigures(rows, load, ownRule);
    const auto own = std::find_if(ownFigures.begin(), ownFigures.end(),
                                  [&](const MountFigure& one) { return one.mount == mount; });
    if (own == ownFigures.end() || !own->cell) return std::nullopt;
    std::map<std::size_t, std::vector<double>> cells; // K of the other mounts
    for (const MountFigure& one : mountFigures(rows, load, fellowRule))
        if (one.cell && one.mount != mount) cells[*one.cell].push_back(one.value);
    const std::vector<double>& fellows = cells[*own->cell];
    if (fellows.empty()) return std::nullopt;
    double squares = 0, df = 0;
    for (const auto& [at, means] : cells) {
        if (means.size() < 2) continue;
        const double sd = sampleSd(means).value_or(0);
        squares += sd * sd * static_cast<double>(means.size() - 1);
        df += static_cast<double>(means.size() - 1);
    }
    FellowResidual residual{own->value - mean(fellows), static_cast<int>(fellows.size()), {}};
    if (df > 0) residual.sdK = std::sqrt(squares / df * (1 + 1 / static_cast<double>(fellows.size())));
    return residual;
}

std::optional<CostPaths> costPaths(const Document& document, const Question& question, const Mount& mount,
                                   const GreyPicture& mask) {
    const StudyHeat& heat = studyHeat(document, question, mount.configuration);
    if (heat.measured.reason || !heat.measured.input) return std::nullopt;
    const CalibrationInput& input = *heat.measured.input;
    const auto own = pathOfMount(heat, mount.id);
    const auto all = pathOfMaterial(heat, std::nullopt);
    if (!all) return std::nullopt;
    const Calibration calibration = calibrate(input);
    // The joint of its fellows: the mount's own has what is bare in it already.
    std::optional<std::size_t> group;
    for (const PathMount& one : input.mounts)
        if (one.mount == mount.id) group = one.group;
    double sum = 0;
    int count = 0;
    for (const CalibratedMount& one : calibration.mounts) {
        if (one.mount == mount.id || (group && one.group != *group)) continue;
        sum += one.mm2KPerW;
        ++count;
    }
    const double joint = count > 0 ? std::max(0.1, sum / count) : std::max(0.1, all->studiedMm2KPerW);
    CostPaths paths;
    paths.whole = calibratedPath(calibration, joint, own ? own->powerW : all->powerW,
                                 own ? own->ambientC : all->ambientC);
    paths.seen = paths.whole;
    paths.seen.interfaces[*input.bench.studied].mask = coverageMaskOf(mask);
    return paths;
}

VoidPenalty voidPenalty(const CostPaths& paths, const FieldOptions& options) {
    const ConductionField whole = solveField(paths.whole, options);
    VoidPenalty cost;
    cost.cancelled = whole.cancelled;
    if (cost.cancelled) return cost;
    const ConductionField seen = solveField(paths.seen, options);
    cost.cancelled = seen.cancelled;
    cost.meanK = seen.powered.meanC - whole.powered.meanC;
    cost.maxK = seen.powered.maxC - whole.powered.maxC;
    return cost;
}

CostReading readCost(const VoidPenalty& cost, const std::optional<FellowResidual>& residual) {
    if (!residual || !residual->sdK) return CostReading::unknown;
    const double scatter = 2 * *residual->sdK;
    if (std::abs(residual->aboveK) <= scatter)
        return cost.meanK > scatter ? CostReading::notSeen : CostReading::nothingToExplain;
    if (residual->aboveK < 0)
        return cost.meanK > scatter ? CostReading::notSeen : CostReading::nothingToExplain;
    return residual->aboveK - cost.meanK > scatter ? CostReading::tooLittle : CostReading::explains;
}

} // namespace ibuki
