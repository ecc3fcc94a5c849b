// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/check_mounts.h"

#include "core/base/input_error.h"

#include <algorithm>
#include <set>

namespace ibuki {
namespace {

/// Under the compared load, in the order of the bench's record.
std::vector<MountFigure> checksOf(const Evidence& evidence) {
    MountRule rule;
    rule.levels = false;
    rule.checkMounts = true;
    rule.atLimit = false;
    rule.onlyFresh = false;
    return mountFigures(evidence.rows, evidence.load, rule);
}

/// Compared mounts made after the last check mount that was still inside the limits.
std::vector<Id<Mount>> touchedBy(const BenchHealth& health, const Evidence& evidence) {
    double since = health.points.front().order;
    for (const HealthPoint& point : health.points) {
        if (point.out) break;
        since = point.order;
    }
    std::vector<Id<Mount>> touched;
    std::set<Id<Mount>> known;
    for (const RunRow& row : evidence.rows)
        if (row.kind == SlotKind::level && !row.excluded && row.order > since
            && known.insert(row.mountId).second)
            touched.push_back(row.mountId);
    return touched;
}

} // namespace

bool drifts(const BenchHealth& health) { return !health.slopeInterval.contains(0); }

CheckEvidence checkEvidence(const Question& question, const Evidence& evidence) {
    CheckEvidence found;
    std::vector<CheckValue> values;
    for (const MountFigure& check : checksOf(evidence)) {
        found.mounts.push_back(check.mount);
        values.push_back({static_cast<double>(check.order), check.value});
    }
    try {
        found.health = judgeHealth(values);
    } catch (const InputError& error) {
        found.reason = error.message;
        return found;
    }
    if (found.health->moved) found.touched = touchedBy(*found.health, evidence);
    if (!(found.health->moved || drifts(*found.health)) || question.secondFactor || !evidence.comparison)
        return found;
    CompareOptions options = evidence.comparison->options;
    options.drift = true;
    options.spread = SpreadModel::pooled;
    options.assumed.reset();
    try {
        found.corrected =
            compare(comparedRuns(evidence.rows, evidence.load, evidence.design, question), options);
    } catch (const InputError&) { // too few mounts to tell the order from the levels
    }
    return found;
}

} // namespace ibuki
