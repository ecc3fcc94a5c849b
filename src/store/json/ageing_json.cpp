// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/json/ageing_json.h"

#include "store/json/message_json.h"
#include "store/json/optional_json.h"

namespace ibuki {
namespace {

using Json = nlohmann::ordered_json;

constexpr double confidence = 0.95;

Json parametersJson(const AgeingFit& fit) {
    Json json{{"start_K", fit.start}};
    switch (fit.model) {
    case AgeingModel::constant:
        break;
    case AgeingModel::linear:
        json["b_K_per_h"] = fit.scale;
        break;
    case AgeingModel::squareRoot:
        json["b_K_per_sqrt_h"] = fit.scale;
        break;
    case AgeingModel::logarithmic:
        json["a_K"] = fit.scale;
        break;
    case AgeingModel::exponential:
    case AgeingModel::hyperbolic:
        json["D_K"] = fit.scale;
        break;
    }
    if (fit.tau) json["tau_h"] = *fit.tau;
    return json;
}

Json changesJson(const AgeingCourse& course) {
    Json json = Json::array();
    for (const double t : course.times)
        json.push_back({{"hours", t},
                        {"change_K", course.changeAt(t)},
                        {"ci_K", orNull(course.changeIntervalAt(t, confidence))}});
    return json;
}

Json modelsJson(const AgeingTime& time) {
    Json json = Json::array();
    for (const auto& one : time.models)
        json.push_back(
            {{"model", ageingModelName(one.model)}, {"hours", orNull(one.at)}, {"weight", one.weight}});
    return json;
}

} // namespace

Json ageingJson(const std::string& name, const AgeingCourse& course,
                const std::optional<AgeingTime>& threshold) {
    const AgeingFit* fit = course.fit();
    Json json{{"name", name},
              {"model", fit ? Json(ageingModelName(fit->model)) : Json(nullptr)},
              {"parameters", fit ? parametersJson(*fit) : Json(nullptr)}};
    auto& aicc = json["aicc"] = Json::object();
    for (const AgeingFit& one : course.fits) aicc[std::string(ageingModelName(one.model))] = orNull(one.aicc);
    json["change_at_K"] = fit ? changesJson(course) : Json::array();
    json["hours_to_threshold"] = threshold ? orNull(threshold->at) : Json(nullptr);
    json["hours_to_threshold_ci"] = threshold ? orNull(threshold->interval) : Json(nullptr);
    json["not_before_h"] = threshold ? orNull(threshold->notBefore) : Json(nullptr);
    json["threshold_by_model"] = threshold ? modelsJson(*threshold) : Json::array();
    json["no_change_p"] = course.noChangeP;
    json["mounts"] = course.mounts;
    json["mounts_differ"] = course.slopesDiffer;
    json["residual_sd_K"] = fit ? Json(fit->residualSd) : Json(nullptr);
    json["mount_sd_K"] = fit ? Json(fit->mountSd) : Json(nullptr);
    json["flags"] = storedJson(course.flags);
    return reported(std::move(json));
}

} // namespace ibuki
