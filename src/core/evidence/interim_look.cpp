// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/interim_look.h"

#include "core/domain/lookup.h"
#include "core/domain/plan.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace ibuki {

bool hasUnplannedLook(const Document& document, Id<Study> study) {
    const auto looks = document.where(&InterimLook::study, study);
    return std::any_of(looks.begin(), looks.end(),
                       [](const InterimLook* look) { return look->extended && !look->declared; });
}

double nominalAlpha(double alpha, int looks) {
    static constexpr std::array<double, 4> pocock{0.05, 0.0294, 0.0221, 0.0182};
    if (looks <= 1) return alpha;
    if (std::abs(alpha - 0.05) < 1e-9 && looks <= 4) return pocock.at(static_cast<std::size_t>(looks) - 1);
    return alpha / looks;
}

int plannedLooks(const Document& document, Id<Study> study) {
    const Plan* plan = planOf(document, study);
    return plan ? plan->plannedLooks : 1;
}

} // namespace ibuki
