// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/inspect/coverage_cost.h"

#include "core/base/input_error.h"
#include "core/stats/summary.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace ibuki {

std::optional<FellowResidual> fellowResidual(const Document& document, const Question& question,
                                             Id<Mount> mount) {
    const std::vector<TidyRow> rows = tidyTable(document, question);
    const Id<Load> load = comparedLoad(document, rows, question);
    std::map<std::size_t, std::map<Id<Mount>, std::vector<double>>> cells; // K of each mount's runs
    std::vector<double> own;
    std::optional<std::size_t> cell;
    for (const TidyRow& row : rows) {
        if (row.loadId != load || !row.deltaK || !row.cell) continue;
        if (row.mountId == mount) { // also of one that was rejected
            own.push_back(*row.deltaK);
            cell = row.cell;
        } else if (enters(row)) {
            cells[*row.cell][row.mountId].push_back(*row.deltaK);
        }
    }
    if (own.empty() || !cell || cells[*cell].empty()) return std::nullopt;
    double squares = 0, df = 0;
    std::vector<double> fellows;
    for (const auto& [at, mounts] : cells) {
        std::vector<double> means;
        for (const auto& [id, values] : mounts) means.push_back(mean(values));
        if (at == *cell) fellows = means;
        if (means.size() < 2) continue;
        const double sd = sampleSd(means).value_or(0);
        squares += sd * sd * static_cast<double>(means.size() - 1);
        df += static_cast<double>(means.size() - 1);
    }
    FellowResidual residual{mean(own) - mean(fellows), static_cast<int>(fellows.size()), {}};
    if (df > 0) residual.sdK = std::sqrt(squares / df * (1 + 1 / static_cast<double>(fellows.size())));
    return residual;
}

std::optional<CostPaths> costPaths(const Document& document, const Question& question, const Mount& mount,
                                   const GreyPicture& mask) {
    const StudyHeat& heat = studyHeat(document, question, mount.configuration);
    if (heat.measured.whyNot || !heat.measured.input) return std::nullopt;
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
    paths.whole =
        calibratedPath(calibration, joint, own ? own->powerW : all->powerW, own ? own->roomC : all->roomC);
    paths.seen = paths.whole;
    paths.seen.interfaces[*input.bench.studied].mask = coverageMaskOf(mask);
    return paths;
}

CoverageCost coverageCost(const CostPaths& paths, const FieldOptions& options) {
    const ConductionField whole = solveField(paths.whole, options);
    CoverageCost cost;
    cost.cancelled = whole.cancelled;
    if (cost.cancelled) return cost;
    const ConductionField seen = solveField(paths.seen, options);
    cost.cancelled = seen.cancelled;
    cost.meanK = seen.powered.meanC - whole.powered.meanC;
    cost.maxK = seen.powered.maxC - whole.powered.maxC;
    return cost;
}

CostReading readCost(const CoverageCost& cost, const std::optional<FellowResidual>& residual) {
    if (!residual || !residual->sdK) return CostReading::unknown;
    const double scatter = 2 * *residual->sdK;
    if (std::abs(residual->aboveK) <= scatter)
        return cost.meanK > scatter ? CostReading::notSeen : CostReading::nothingToExplain;
    if (residual->aboveK < 0)
        return cost.meanK > scatter ? CostReading::notSeen : CostReading::nothingToExplain;
    return residual->aboveK - cost.meanK > scatter ? CostReading::tooLittle : CostReading::explains;
}

} // namespace ibuki
