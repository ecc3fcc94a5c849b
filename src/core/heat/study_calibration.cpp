// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/heat/calibration.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace ibuki {
namespace {

constexpr double usualPowerScaleU = 0.02 / 1.7320508075688772; ///< ± 2 %, evenly (methods B.1)
constexpr double assumedAnchorShare = 0.5; ///< of R″, a standard uncertainty: class ranges
constexpr double statedAnchorShare = 0.05;

double powerScaleU(const Document& document, Id<Configuration> configuration) {
    for (const Sensor* sensor : document.where(&Sensor::configuration, rigOf(document, configuration)))
        if ((sensor->role == Role::packagePower || sensor->role == Role::gpuPower) && sensor->accuracyShare)
            return *sensor->accuracyShare / std::sqrt(3.0);
    return usualPowerScaleU;
}

/// The configuration in which the most of the study's runs that count were measured.
std::optional<Id<Configuration>> mostUsed(const Document& document, const std::vector<TidyRow>& rows) {
    std::map<Id<Configuration>, int> uses;
    for (const TidyRow& row : rows)
        if (const Mount* mount = document.find(row.mountId); mount && !row.excluded && row.rthKPerW)
            ++uses[mount->configuration];
    const auto most = std::max_element(uses.begin(), uses.end(),
                                       [](const auto& a, const auto& b) { return a.second < b.second; });
    return most == uses.end() ? std::nullopt : std::optional(most->first);
}

class Gathering {
public:
    Gathering(const Document& document, const Question& question, const std::vector<TidyRow>& rows,
              Id<Load> load)
        : document_(document), question_(question), rows_(rows), load_(load) {}

    /// Mounts of levels and checks, fresh, not excluded, under the compared load, each the mean of its runs.
    void gather(Id<Configuration> configuration, CalibrationInput& input) {
        std::map<Id<Mount>, std::size_t> places;
        std::vector<int> runs;
        for (const TidyRow& row : rows_) {
            const Mount* mount = document_.find(row.mountId);
            const bool counts = mount && mount->configuration == configuration && !row.excluded
                                && row.rthKPerW && row.powerW && row.loadId == load_
                                && row.purpose == "fresh";
            if (!counts) continue;
            const auto [at, isNew] = places.try_emplace(row.mountId, input.mounts.size());
            if (isNew) {
                input.mounts.push_back({row.mountId, groupOf(row, *mount, input)});
                runs.push_back(0);
            }
            PathMount& to = input.mounts[at->second];
            to.limitBound = to.limitBound || row.limitBound;
            const double n = ++runs[at->second];
            to.kPerW += (*row.rthKPerW - to.kPerW) / n;
            to.powerW += (*row.powerW - to.powerW) / n;
            to.roomC += (row.roomC.value_or(0) - to.roomC) / n;
        }
    }

private:
    /// What the site held tells groups apart; levels of one material, by amount or torque, are told apart
    /// too.
    std::size_t groupOf(const TidyRow& row, const Mount& mount, CalibrationInput& input) {
        const Material* material = studiedMaterial(document_, question_, mount.id);
        const std::string& name = row.level.empty() && material ? material->name : row.level;
        for (std::size_t i = 0; i < input.groups.size(); ++i)
            if (input.groups[i].material == material && input.groups[i].name == name) return i;
        input.groups.push_back({name, material});
        return input.groups.size() - 1;
    }

    const Document& document_;
    const Question& question_;
    const std::vector<TidyRow>& rows_;
    Id<Load> load_;
};

} // namespace

StudyMeasurements measurementsOf(const Document& document, const Question& question,
                                 const std::vector<TidyRow>& rows, Id<Load> load,
                                 std::optional<Id<Configuration>> configuration,
                                 std::optional<std::size_t> anchor) {
    StudyMeasurements found;
    if (!configuration) configuration = mostUsed(document, rows);
    if (!configuration) {
        found.whyNot = Message{"heat-needs-power", {}};
        return found;
    }
    CalibrationInput input;
    input.bench = benchPath(document, *configuration, question.site, nullptr);
    found.whyNot = input.bench.whyNot;
    if (!found.whyNot && !input.bench.studied) found.whyNot = Message{"heat-site-beside-path", {}};
    if (!found.whyNot) Gathering(document, question, rows, load).gather(*configuration, input);
    if (!found.whyNot && input.mounts.empty()) found.whyNot = Message{"heat-needs-power", {}};
    if (found.whyNot) return found;
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
