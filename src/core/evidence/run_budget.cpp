// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/run_budget.h"

#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/evidence/response.h"
#include "core/evidence/scatter.h"

#include <cmath>

namespace ibuki {
namespace {

/// The sensor whose channel the metric is made from.
const Sensor* sensorFor(const std::vector<const Sensor*>& sensors, std::initializer_list<Role> roles) {
    for (Role role : roles)
        for (const Sensor* sensor : sensors)
            if (sensor->role == role) return sensor;
    return nullptr;
}

/// Metrics of one channel bear its name; the others are made from the cores.
Role roleOf(Metric metric) { return roleFromName(metricName(metric)).value_or(Role::core); }

std::optional<double> plain(const std::optional<Kelvin>& value) {
    return value ? std::optional(value->value) : std::nullopt;
}

/// Slope of the room over the window from what is stored: its range over the window's length.
double ambientSlope(const LoadReduction& load) {
    if (!load.window || !load.ambient.minC || !load.ambient.maxC) return 0;
    const double length = load.window->endS - load.window->startS;
    return length > 0 ? (*load.ambient.maxC - *load.ambient.minC) / length : 0;
}

} // namespace

RunBudget budgetOf(const Document& document, const Run& run, const Question& question) {
    RunBudget result;
    const Reduction* reduction = reductionOf(document, run.id);
    const LoadReduction* load = reduction ? loadOf(*reduction, run, question.metric) : nullptr;
    const Mount* mount = document.find(run.mount);
    if (!load || !mount || !load->metrics.contains(question.metric)) return result;
    const MetricValue& value = load->metrics.at(question.metric);
    if (!value.deltaK) return result;
    const auto sensors = document.where(&Sensor::configuration, rigOf(document, mount->configuration));
    BudgetInput input;
    input.deltaK = countedDeltaK(*load, question.metric).value_or(*value.deltaK);
    if (const auto scatter = ownScatter(document, question); scatter && scatter->df && *scatter->df > 0) {
        input.mountSdK = scatter->sd;
        input.mountDf = *scatter->df;
        input.mounts = 1; // what this mount says of its material
    }
    input.runSeK = value.seK;
    if (load->extrapolated && load->steady.asymptoteIntervalK)
        input.extrapolationU =
            (load->steady.asymptoteIntervalK->hi - load->steady.asymptoteIntervalK->lo) / (2 * 1.96);
    const Sensor* chip = sensorFor(sensors, {roleOf(question.metric), Role::core, Role::package});
    const Sensor* room = sensorFor(sensors, {Role::ambient});
    const Sensor* power =
        sensorFor(sensors, {isGraphicsMetric(question.metric) ? Role::gpuPower : Role::packagePower});
    const auto need = [&](const std::optional<double>& figure, const char* code) {
        if (!figure) result.missing.push_back({code, {}});
        return figure;
    };
    input.chipAccuracyK = need(chip ? plain(chip->accuracy) : std::nullopt, "not-stated.chip-accuracy");
    input.chipResolutionK = need(chip ? plain(chip->resolution) : std::nullopt, "not-stated.chip-steps");
    if (run.enteredAmbient) {
        input.ambientEnteredU = run.enteredAmbientU ? run.enteredAmbientU->value : 0;
    } else {
        input.ambientAccuracyK =
            need(room ? plain(room->accuracy) : std::nullopt, "not-stated.room-accuracy");
        input.ambientResolutionK =
            need(room ? plain(room->resolution) : std::nullopt, "not-stated.room-steps");
    }
    const Configuration* configuration = document.find(mount->configuration);
    input.ambientGradientK = need(configuration ? plain(configuration->ambientGradient) : std::nullopt,
                                  "not-stated.room-gradient");
    input.probeClockU = load->ambient.probeShiftUncertaintyS;
    input.ambientSlopeKPerS = ambientSlope(*load);
    if (question.normalisation != Normalisation::raw)
        input.powerShare = need(power ? power->accuracyShare : std::nullopt, "not-stated.power-accuracy");
    result.budget = uncertaintyBudget(input);
    return result;
}

std::string_view cancelsWord(Cancels cancels) {
    switch (cancels) {
    case Cancels::no:
        return "no";
    case Cancels::partly:
        return "partly";
    case Cancels::averagesOut:
        return "averages out";
    case Cancels::yes:
        return "yes";
    }
    return "";
}

} // namespace ibuki
