// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/response.h"

#include "core/domain/lookup.h"
#include "core/domain/plan.h"
#include "core/domain/run_reduction.h"

namespace ibuki {

const LoadReduction* loadOf(const Reduction& reduction, const Run& run) {
    if (run.loadIndex < 0) return reduction.main();
    const auto index = static_cast<std::size_t>(run.loadIndex);
    return index < reduction.loads.size() ? &reduction.loads[index] : nullptr;
}

std::optional<double> responseOf(const LoadReduction& load, const Question& question) {
    const auto value = load.metrics.find(question.metric);
    if (value == load.metrics.end()) return std::nullopt;
    std::optional<double> delta = value->second.deltaK;
    if (load.extrapolated && load.metric == question.metric) delta = load.steady.asymptoteK;
    if (question.reference == ReferenceTemperature::coolant) {
        const auto coolant = load.metrics.find(Metric::coolant);
        if (coolant == load.metrics.end()) return std::nullopt;
        const double risen = delta && value->second.deltaK ? *delta - *value->second.deltaK : 0.0;
        delta = value->second.temperatureC + risen - coolant->second.temperatureC;
    }
    if (!delta || question.normalisation == Normalisation::raw) return delta;
    if (!load.powerW || *load.powerW <= 0) return std::nullopt;
    const double perWatt = *delta / *load.powerW;
    if (question.normalisation == Normalisation::perWatt) return perWatt;
    if (!question.nominalPower) return std::nullopt;
    return perWatt * question.nominalPower->value;
}

std::string_view responseUnit(const Question& question) {
    return question.normalisation == Normalisation::perWatt ? "K/W" : "K";
}

std::string responseTitle(const Question& question) {
    std::string title(metricTitle(question.metric));
    title += question.reference == ReferenceTemperature::room ? " over room" : " over coolant";
    if (question.normalisation == Normalisation::perWatt) title += ", per watt";
    if (question.normalisation == Normalisation::atNominalPower) title += ", at nominal power";
    return title;
}

void obey(ReduceSettings& settings, const Document& document, Id<Study> study) {
    for (const ReductionRules* rules : document.where(&ReductionRules::study, study)) {
        settings.windowMinS = rules->windowMinS;
        settings.windowMaxS = rules->windowMaxS;
        settings.guardS = rules->guardS;
        settings.slopeLimitKPerH = rules->slopeLimitKPerH;
        settings.unidentifiedSlopeLimitKPerH = rules->slopeLimitKPerH / 2;
        settings.remainingLimitK = rules->remainingLimitK;
        settings.phases.minPowerStepW = rules->minPowerStepW;
        settings.phases.holdS = rules->holdS;
        settings.limitShare = rules->limitShare;
    }
}

ReduceSettings settingsFor(const Configuration* configuration, const Question* question) {
    ReduceSettings settings;
    if (question) {
        settings.metric = question->metric;
        if (question->nominalPower) settings.nominalPowerW = question->nominalPower->value;
    }
    if (configuration && configuration->temperatureLimit)
        settings.limitC = configuration->temperatureLimit->value;
    return settings;
}

ReduceSettings settingsFor(const Document& document, const Run& run, const Question* question) {
    const Mount* mount = document.find(run.mount);
    ReduceSettings settings = settingsFor(mount ? document.find(mount->configuration) : nullptr, question);
    if (run.enteredAmbient)
        settings.ambient =
            EnteredAmbient{run.enteredAmbient->value, run.enteredAmbientU ? run.enteredAmbientU->value : 0.0};
    settings.hand = {run.loadIndex, run.loadStartS, run.loadEndS, run.windowStartS, run.windowEndS};
    settings.useAsymptote = run.useAsymptote;
    const Configuration* configuration = mount ? document.find(mount->configuration) : nullptr;
    if (configuration)
        for (const Sensor* sensor :
             document.where(&Sensor::configuration, rigOf(document, configuration->id)))
            if (sensor->role == Role::ambient && sensor->lagS) settings.probeLagS = sensor->lagS;
    if (question) obey(settings, document, question->study);
    return settings;
}

} // namespace ibuki
