// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/check_mounts.h"

#include "core/base/input_error.h"
#include "core/domain/words.h"

#include <algorithm>
#include <set>

namespace ibuki {
namespace {

struct Check {
    Id<Mount> mount;
    double order = 0;
    double sum = 0;
    int runs = 0;
};

/// Under the compared load; runs of one mount are averaged.
std::vector<Check> checksOf(const Evidence& evidence) {
    std::vector<Check> checks;
    for (const TidyRow& row : evidence.rows) { // in the order of the bench's record
        if (row.kind != SlotKind::checkMount || row.excluded || !row.response || row.limitBound
            || row.loadId != evidence.load)
            continue;
        if (checks.empty() || checks.back().mount != row.mountId)
            checks.push_back({row.mountId, static_cast<double>(row.order), 0, 0});
        checks.back().sum += *row.response;
        ++checks.back().runs;
    }
    return checks;
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
    for (const TidyRow& row : evidence.rows)
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
    for (const Check& check : checksOf(evidence)) {
        found.mounts.push_back(check.mount);
        values.push_back({check.order, check.sum / check.runs});
    }
    try {
        found.health = judgeHealth(values);
    } catch (const InputError& error) {
        found.whyNot = error.message;
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
