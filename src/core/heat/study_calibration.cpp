// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/heat/calibration.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace ibuki {
namespace {

constexpr double typicalPowerScaleU = 0.02 / 1.7320508075688772; ///< ± 2 %, evenly (methods B.1)
constexpr double assumedAnchorShare = 0.5; ///< of R″, a standard uncertainty: class ranges
constexpr double statedAnchorShare = 0.05;

double powerScaleU(const Document& document, Id<Configuration> configuration) {
    for (const Sensor* sensor : document.where(&Sensor::configuration, rigOf(document, configuration)))
        if ((sensor->role == Role::packagePower || sensor->role == Role::gpuPower) && sensor->accuracyShare)
            return *sensor->accuracyShare / std::sqrt(3.0);
    return typicalPowerScaleU;
}

/// The configuration in which the most of the study's runs that count were measured.
std::optional<Id<Configuration>> mostUsed(const Document& document, const std::vector<RunRow>& rows) {
    std::map<Id<Configuration>, int> uses;
    for (const RunRow& row : rows)
        if (const Mount* mount = document.find(row.mountId); mount && !row.excluded && row.rthKPerW)
            ++uses[mount->configuration];
    const auto most = std::max_element(uses.begin(), uses.end(),
                                       [](const auto& a, const auto& b) { return a.second < b.second; });
    return most == uses.end() ? std::nullopt : std::optional(most->first);
}

class Gathering {
public:
    Gathering(const Document& document, const std::vector<RunRow>& rows, Id<Load> load)
        : document_(document), rows_(rows), load_(load) {}

    /// Mounts of levels and checks, fresh, not excluded, under the compared load, each the mean of its runs.
    void gather(Id<Configuration> configuration, CalibrationInput& input) {
        MountRule rule;
        rule.checkMounts = true;
        rule.value = &RunRow::rthKPerW;
        for (const MountFigure& figure : mountFigures(rows_, load_, rule)) {
            const Mount* mount = document_.find(figure.mount);
            if (!mount || mount->configuration != configuration || !figure.powerW) continue;
            input.mounts.push_back({figure.mount, groupOf(figure, input), figure.value, *figure.powerW,
                                    figure.ambientC.value_or(0), figure.censored});
        }
    }

private:
    /// Levels are told apart, also those of one material; a check mount joins the first level of its
    /// material.
    std::size_t groupOf(const MountFigure& figure, CalibrationInput& input) {
        const auto of = [&](std::size_t i) {
            return figure.level ? levels_[i] == figure.level
                                : input.groups[i].material && figure.material == input.groups[i].material->id;
        };
        for (std::size_t i = 0; i < input.groups.size(); ++i)
            if (of(i)) return i;
        const Level* level = document_.find(figure.level);
        const Material* material = document_.find(figure.material);
        input.groups.push_back({level ? level->name : material ? material->name : std::string(), material});
        levels_.push_back(figure.level);
        return input.groups.size() - 1;
    }

    const Document& document_;
    const std::vector<RunRow>& rows_;
    Id<Load> load_;
    std::vector<std::optional<Id<Level>>> levels_; ///< beside the groups
};

} // namespace

StudyMeasurements measurementsOf(const Document& document, const Question& question,
                                 const std::vector<RunRow>& rows, Id<Load> load,
                                 std::optional<Id<Configuration>> configuration,
                                 std::optional<std::size_t> anchor) {
    StudyMeasurements found;
    if (!configuration) configuration = mostUsed(document, rows);
    if (!configuration) {
        found.reason = Message{"heat-needs-power", {}};
        return found;
    }
    CalibrationInput input;
    input.bench = benchPath(document, *configuration, question.site, nullptr);
    found.reason = input.bench.reason;
    if (!found.reason && !input.bench.studied) found.reason = Message{"heat-site-beside-path", {}};
    if (!found.reason) Gathering(document, rows, load).gather(*configuration, input);
    if (!found.reason && input.mounts.empty()) found.reason = Message{"heat-needs-power", {}};
    if (found.reason) return found;
    const auto stated = std::find_if(input.groups.begin(), input.groups.end(), [](const PathGroup& group) {
        return group.material && group.material->statedMm2KPerW;
    });
    if (stated != input.groups.end()) input.anchor = static_cast<std::size_t>(stated - input.groups.begin());
    if (anchor && *anchor < input.groups.size()) input.anchor = *anchor;
    const MaterialResistance r = resistanceOf(input.groups[input.anchor].material);
    found.anchorAssumed = r.isAssumed;
    input.anchorMm2KPerW = r.mm2KPerW;
    input.anchorU = (r.isAssumed ? assumedAnchorShare : statedAnchorShare) * r.mm2KPerW;
    input.powerScaleU = powerScaleU(document, *configuration);
    input.confidence = question.confidence;
    found.input = std::move(input);
    return found;
}

} // namespace ibuki
