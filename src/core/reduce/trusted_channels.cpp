// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/trusted_channels.h"

#include "core/distributions/summary.h"

#include <algorithm>

namespace ibuki {

const Channel* powerChannel(const Trace& trace, Metric metric) {
    const Channel* package = firstChannel(trace, Role::packagePower);
    const Channel* graphics = firstChannel(trace, Role::gpuPower);
    if (isGraphicsMetric(metric) && graphics) return graphics;
    return package ? package : graphics;
}

std::vector<const Channel*> stuckSensors(const Trace& trace) {
    std::vector<const Channel*> stuck;
    for (Role role : {Role::core, Role::memory, Role::vrm}) {
        const auto fellows = channelsOf(trace, role);
        const bool moving = std::any_of(fellows.begin(), fellows.end(),
                                        [](const Channel* c) { return rangeOf(c->values) > 5; });
        for (const Channel* channel : fellows)
            if (moving && rangeOf(channel->values) == 0) stuck.push_back(channel);
    }
    return stuck;
}

} // namespace ibuki
