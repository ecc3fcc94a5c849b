// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/study_rehearsal.h"

#include "core/distributions/summary.h"
#include "core/domain/lookup.h"
#include "core/evidence/check_mounts.h"
#include "core/evidence/scatter.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double typicalAmbientSdK = 0.8; ///< between mounts over some evenings, where none was measured
constexpr double typicalEveningSdK = 0.3; ///< of what an evening does to all its mounts, over the room
constexpr double typicalDeltaK = 45;

/// Of the room at the mounts of the bench's study so far; nothing before three of them.
std::optional<double> ambientScatter(const std::vector<RunRow>& rows) {
    std::vector<double> rooms;
    for (const RunRow& row : rows)
        if (row.ambientC && !row.excluded) rooms.push_back(*row.ambientC);
    if (rooms.size() < 3) return std::nullopt;
    const double middle = mean(rooms);
    double squares = 0;
    for (const double room : rooms) squares += (room - middle) * (room - middle);
    return std::sqrt(squares / static_cast<double>(rooms.size() - 1));
}

std::vector<RehearsedPractice> practices(int mounts, int perEvening, bool takesBlocksOut) {
    RehearsedPractice plan;
    plan.name = "plan";
    plan.mounts = mounts;
    plan.order = RehearsedOrder::blocks;
    plan.mountsPerEvening = perEvening;
    if (takesBlocksOut) plan.model = RehearsedModel::blocks;
    RehearsedPractice one = plan;
    one.name = "one";
    one.mounts = 1;
    one.order = RehearsedOrder::random;
    one.judge = RehearsedJudge::rank;
    one.model = RehearsedModel::plain;
    RehearsedPractice best = one;
    best.name = "best";
    best.mounts = 3;
    best.order = RehearsedOrder::asListed;
    best.summary = RehearsedSummary::best;
    RehearsedPractice listed = best;
    listed.name = "listed";
    listed.summary = RehearsedSummary::mean;
    RehearsedPractice room = listed;
    room.name = "room";
    room.subtractsAmbient = false;
    RehearsedPractice limit = listed;
    limit.name = "limit";
    limit.atLimit = true;
    return {plan, one, best, listed, room, limit};
}

} // namespace

StudyRehearsal studyRehearsal(const Document& document, const Question& question, const Plan& plan,
                              double trueDifferenceK, const PowerAnalysis* analysis) {
    StudyRehearsal found;
    RehearsalScenario& scenario = found.scenario;
    for (const Level* level : levelsOf(document, question.id)) {
        const double worse = scenario.materials.empty() ? 0 : trueDifferenceK;
        // By its id: two levels may bear one name.
        scenario.materials.push_back({std::to_string(level->id.value), typicalDeltaK + worse});
    }
    // Everything is drawn in kelvin: a question judged by K/W as what it is at the power of its load.
    const double kelvin = kelvinPerUnit(document, question);
    const double mountSdK = kelvin * expectedScatter(document, question, &plan).sd;
    const Evidence evidence = measuredEvidence(document, question);
    const auto room = ambientScatter(evidence.rows);
    const CheckEvidence checks = checkEvidence(question, evidence);
    scenario.mountSdK = mountSdK;
    scenario.eveningSdK = typicalEveningSdK;
    scenario.ambientSdK = room.value_or(typicalAmbientSdK);
    scenario.marginK = kelvin * question.margin.value;
    scenario.confidence = question.confidence;
    scenario.limitDeltaK =
        typicalDeltaK
        - 6 * std::hypot(mountSdK, typicalEveningSdK); // whatever is mounted drives the chip into it
    if (checks.health && drifts(*checks.health)) scenario.driftKPerMount = kelvin * checks.health->slope;
    int perEvening = 3;
    if (analysis && analysis->mountsToCome > 0) {
        perEvening = 1;
        for (const Evening& evening : analysis->schedule.evenings)
            perEvening = std::max(perEvening, evening.mounts);
        const double mounts = analysis->mountsToCome;
        found.hoursPerMount = analysis->schedule.benchMinutes / 60 / mounts;
        double grams = 0;
        for (const MaterialNeed& need : analysis->needs)
            if (need.known && need.unit == ContentUnit::gram) grams += need.amount;
        if (grams > 0) found.gramsPerMount = grams / mounts;
    }
    scenario.practices = practices(plan.mountsPerLevel, perEvening, question.blocks.has_value());
    found.basis = {{"rehearsal-scatter", {{"sd", mountSdK}}},
                   {room ? "rehearsal-room.measured" : "rehearsal-room", {{"sd", scenario.ambientSdK}}},
                   {"rehearsal-evening", {{"sd", scenario.eveningSdK}}},
                   {"rehearsal-drift", {{"drift", scenario.driftKPerMount}}}};
    return found;
}

RehearsalScenario overMounts(const RehearsalScenario& scenario, int most) {
    RehearsalScenario found = scenario;
    found.practices.clear();
    for (int mounts = 1; mounts <= most; ++mounts) {
        found.practices.push_back(scenario.practices.front());
        found.practices.back().mounts = mounts;
    }
    return found;
}

} // namespace ibuki
