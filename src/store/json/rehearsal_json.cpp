// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/json/rehearsal_json.h"

#include "store/json/json_fields.h"
#include "store/json/optional_json.h"

#include <algorithm>
#include <array>

namespace ibuki {
namespace {

using Json = nlohmann::ordered_json;

constexpr JsonFieldErrors rehearseFields{"docs/cli.md, \"rehearse\""};

constexpr std::size_t mostMaterials = 10'000;
constexpr NumberRange counted{1, 1e6, false};

RehearsedMaterial materialFrom(JsonFields fields) {
    RehearsedMaterial material;
    fields.take("name", material.name);
    if (material.name.empty()) fields.refuse("json-field.missing", "name");
    material.deltaK = fields.needNumber("delta_K");
    fields.take("mount_sd_K", material.mountSdK, notNegative);
    fields.finish();
    return material;
}

template <class Choice>
void wordOf(JsonFields& fields, const char* name, Choice& choice,
            const std::vector<std::pair<std::string, Choice>>& words) {
    if (const auto found = fields.takeWord<Choice>(name, words)) choice = *found;
}

RehearsedPractice practiceFrom(JsonFields fields) {
    RehearsedPractice practice;
    practice.mounts = 0;
    fields.take("name", practice.name);
    fields.take("mounts", practice.mounts, counted);
    fields.take("runs", practice.runs, counted);
    int evening = 0;
    fields.take("mounts_per_evening", evening, counted);
    wordOf<RehearsedOrder>(fields, "order", practice.order,
                           {{"as-listed", RehearsedOrder::asListed},
                            {"random", RehearsedOrder::random},
                            {"blocks", RehearsedOrder::blocks}});
    wordOf<RehearsedSummary>(fields, "summary", practice.summary,
                             {{"mean", RehearsedSummary::mean},
                              {"median", RehearsedSummary::median},
                              {"best", RehearsedSummary::best}});
    wordOf<RehearsedJudge>(fields, "judge", practice.judge,
                           {{"verdict", RehearsedJudge::verdict}, {"rank", RehearsedJudge::rank}});
    wordOf<RehearsedModel>(fields, "model", practice.model,
                           {{"plain", RehearsedModel::plain}, {"blocks", RehearsedModel::blocks}});
    fields.take("subtracts_room", practice.subtractsAmbient);
    fields.take("at_limit", practice.atLimit);
    fields.finish();
    if (practice.mounts == 0) fields.refuse("json-field.missing", "mounts");
    if (evening > 0) practice.mountsPerEvening = evening;
    return practice;
}

} // namespace

RehearsalScenario rehearsalFromJson(const nlohmann::json& json, const std::string& fileName) {
    JsonFields fields(json, fileName, rehearseFields);
    RehearsalScenario scenario;
    std::optional<double> mountSd;
    fields.take("mount_sd_K", mountSd, notNegative);
    fields.take("run_sd_K", scenario.runSdK, notNegative);
    fields.take("evening_sd_K", scenario.eveningSdK, notNegative);
    fields.take("drift_K_per_mount", scenario.driftKPerMount);
    fields.take("room_sd_K", scenario.ambientSdK, notNegative);
    fields.take("limit_delta_K", scenario.limitDeltaK);
    fields.take("margin_K", scenario.marginK, aboveZero);
    fields.take("confidence", scenario.confidence);
    fields.each("materials", mostMaterials, [&](const auto& one, const std::string& at) {
        const JsonFields own(one, fileName, rehearseFields, at);
        scenario.materials.push_back(materialFrom(own));
        if (!mountSd && !scenario.materials.back().mountSdK) own.refuse("json-field.missing", "mount_sd_K");
    });
    scenario.mountSdK = mountSd.value_or(0);
    fields.each("practices", mostMaterials, [&](const auto& one, const std::string& at) {
        scenario.practices.push_back(practiceFrom({one, fileName, rehearseFields, at}));
    });
    fields.finish();
    return scenario;
}

Json toJson(const Rehearsal& rehearsal, const RehearsalScenario& scenario) {
    Json practices = Json::array();
    for (std::size_t i = 0; i < rehearsal.practices.size(); ++i) {
        const RehearsedOutcome& outcome = rehearsal.practices[i];
        const bool isVerdict = scenario.practices[i].judge == RehearsedJudge::verdict;
        const auto judged = [&](double share) { return isVerdict ? Json(share) : Json(nullptr); };
        Json pairs = Json::array();
        for (const RehearsedPair& pair : outcome.pairs)
            pairs.push_back({{"a", scenario.materials[pair.a].name},
                             {"b", scenario.materials[pair.b].name},
                             {"true_difference_K", pair.trueDifferenceK},
                             {"different", judged(pair.different)},
                             {"wrong_way", judged(pair.wrongWay)},
                             {"equivalent", judged(pair.equivalent)}});
        practices.push_back({{"name", scenario.practices[i].name},
                             {"right_best", outcome.rightBest},
                             {"wrong_best", outcome.wrongBest},
                             {"no_call", outcome.noCall},
                             {"any_false_different", orNull(outcome.anyFalseDifferent)},
                             {"pairs", pairs},
                             {"family_coverage", orNull(outcome.familyCoverage)},
                             {"total_mounts", outcome.totalMounts}});
    }
    return {{"campaigns", rehearsal.campaigns}, {"practices", practices}};
}

} // namespace ibuki
