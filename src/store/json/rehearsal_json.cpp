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

template <class Choice> using Names = std::vector<std::pair<const char*, Choice>>;

template <class Choice>
void takeWord(JsonFields& fields, const char* name, Choice& choice, const Names<Choice>& words) {
    std::string word;
    fields.take(name, word);
    if (word.empty()) return;
    const auto at =
        std::find_if(words.begin(), words.end(), [&](const auto& one) { return word == one.first; });
    if (at == words.end()) fields.refuse("json-field.word", name);
    choice = at->second;
}

RehearsedMaterial materialFrom(const nlohmann::json& json, const std::string& file) {
    JsonFields fields(json, file, rehearseFields);
    RehearsedMaterial material;
    std::optional<double> delta;
    fields.take("name", material.name);
    fields.take("delta_K", delta);
    fields.take("mount_sd_K", material.mountSdK);
    fields.finish();
    if (material.name.empty()) fields.refuse("json-field.missing", "name");
    if (!delta) fields.refuse("json-field.missing", "delta_K");
    material.deltaK = *delta;
    return material;
}

RehearsedPractice practiceFrom(const nlohmann::json& json, const std::string& file) {
    JsonFields fields(json, file, rehearseFields);
    RehearsedPractice practice;
    std::optional<double> evening;
    practice.mounts = 0;
    fields.take("name", practice.name);
    fields.take("mounts", practice.mounts);
    fields.take("runs", practice.runs);
    fields.take("mounts_per_evening", evening);
    takeWord<RehearsedOrder>(fields, "order", practice.order,
                             {{"as-listed", RehearsedOrder::asListed},
                              {"random", RehearsedOrder::random},
                              {"blocks", RehearsedOrder::blocks}});
    takeWord<RehearsedSummary>(fields, "summary", practice.summary,
                               {{"mean", RehearsedSummary::mean},
                                {"median", RehearsedSummary::median},
                                {"best", RehearsedSummary::best}});
    takeWord<RehearsedJudge>(fields, "judge", practice.judge,
                             {{"verdict", RehearsedJudge::verdict}, {"rank", RehearsedJudge::rank}});
    takeWord<RehearsedModel>(fields, "model", practice.model,
                             {{"plain", RehearsedModel::plain}, {"blocks", RehearsedModel::blocks}});
    fields.take("subtracts_room", practice.subtractsRoom);
    fields.take("at_limit", practice.atLimit);
    fields.finish();
    if (practice.mounts == 0) fields.refuse("json-field.missing", "mounts");
    if (evening) {
        if (*evening != std::trunc(*evening) || !(*evening >= 1 && *evening < 1e6))
            fields.refuse("json-field.wrong-kind", "mounts_per_evening");
        practice.mountsPerEvening = static_cast<int>(*evening);
    }
    return practice;
}

} // namespace

RehearsalScenario rehearsalFromJson(const nlohmann::json& json, const std::string& fileName) {
    JsonFields fields(json, fileName, rehearseFields);
    RehearsalScenario scenario;
    nlohmann::json materials = nlohmann::json::array(), practices = nlohmann::json::array();
    std::optional<double> mountSd;
    fields.take("materials", materials);
    fields.take("mount_sd_K", mountSd);
    fields.take("run_sd_K", scenario.runSdK);
    fields.take("evening_sd_K", scenario.eveningSdK);
    fields.take("drift_K_per_mount", scenario.driftKPerMount);
    fields.take("room_sd_K", scenario.roomSdK);
    fields.take("limit_delta_K", scenario.limitDeltaK);
    fields.take("margin_K", scenario.marginK);
    fields.take("confidence", scenario.confidence);
    fields.take("practices", practices);
    fields.finish();
    if (!materials.is_array()) fields.refuse("json-field.wrong-kind", "materials");
    if (!practices.is_array()) fields.refuse("json-field.wrong-kind", "practices");
    for (const auto& one : materials) {
        scenario.materials.push_back(materialFrom(one, fileName));
        if (!mountSd && !scenario.materials.back().mountSdK)
            fields.refuse("json-field.missing", "mount_sd_K");
    }
    scenario.mountSdK = mountSd.value_or(0);
    for (const auto& one : practices) scenario.practices.push_back(practiceFrom(one, fileName));
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
