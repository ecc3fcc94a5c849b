// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/response.h"

#include "core/domain/lookup.h"
#include "core/domain/plan.h"
#include "core/domain/run_reduction.h"
#include "core/domain/words.h"

namespace ibuki {

const LoadReduction* loadOf(const Reduction& reduction, const Run& run, Metric metric) {
    return judgedBy(reduction, metric).load(run.loadIndex);
}

std::optional<double> responseOf(const LoadReduction& load, const Question& question) {
    const auto value = load.metrics.find(question.metric);
    std::optional<double> delta = countedDeltaK(load, question.metric);
    std::optional<double> perWatt = countedRthKPerW(load, question.metric);
    if (question.reference == ReferenceTemperature::coolant) {
        const auto coolant = load.metrics.find(Metric::coolant);
        if (value == load.metrics.end() || coolant == load.metrics.end()) return std::nullopt;
        if (!value->second.temperatureC || !coolant->second.temperatureC) return std::nullopt;
        const double risen = delta && value->second.deltaK ? *delta - *value->second.deltaK : 0.0;
        delta = *value->second.temperatureC + risen - *coolant->second.temperatureC;
        perWatt = load.powerW && *load.powerW > 0 ? std::optional(*delta / *load.powerW) : std::nullopt;
    }
    if (question.normalisation == Normalisation::raw) return delta;
    if (question.normalisation == Normalisation::perWatt || !perWatt) return perWatt;
    if (!question.nominalPower) return std::nullopt;
    return *perWatt * question.nominalPower->value;
}

Question asFixed(const Question& question) {
    Question fixed = question;
    fixed.metric = question.fixedMetric.value_or(question.metric);
    fixed.reference = question.fixedReference.value_or(question.reference);
    fixed.normalisation = question.fixedNormalisation.value_or(question.normalisation);
    return fixed;
}

bool isResponseChanged(const Question& question) { return asFixed(question) != question; }

std::string_view responseUnit(const Question& question) {
    return question.normalisation == Normalisation::perWatt ? "K/W" : "K";
}

Message responseTitle(const Question& question) {
    const char* code = question.normalisation == Normalisation::perWatt          ? "response.per-watt"
                       : question.normalisation == Normalisation::atNominalPower ? "response.nominal"
                                                                                 : "response";
    return {code,
            {{"metric", Term{metricTitle(question.metric)}}, {"reference", Term{word(question.reference)}}}};
}

void applyRules(ReduceSettings& settings, const Document& document, Id<Study> study) {
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

ReduceSettings settingsFor(const Configuration* configuration) {
    ReduceSettings settings;
    if (configuration && configuration->temperatureLimit)
        settings.limitC = configuration->temperatureLimit->value;
    return settings;
}

ReduceSettings settingsFor(const Document& document, const Run& run, const Question* question) {
    const Mount* mount = document.find(run.mount);
    ReduceSettings settings = settingsFor(mount ? document.find(mount->configuration) : nullptr);
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
    if (question) applyRules(settings, document, question->study);
    return settings;
}

} // namespace ibuki
