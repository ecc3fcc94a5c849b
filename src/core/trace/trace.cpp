// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/trace/trace.h"

#include "core/distributions/summary.h"

namespace ibuki {

std::vector<const Channel*> channelsOf(const Trace& trace, Role role) {
    std::vector<const Channel*> found;
    for (const Channel& channel : trace.channels)
        if (channel.role == role && !channel.values.empty()) found.push_back(&channel);
    return found;
}

const Channel* firstChannel(const Trace& trace, Role role) {
    for (const Channel& channel : trace.channels)
        if (channel.role == role && !channel.values.empty()) return &channel;
    return nullptr;
}

double medianIntervalS(const Trace& trace) {
    std::vector<double> steps;
    for (std::size_t i = 1; i < trace.timeS.size(); ++i) steps.push_back(trace.timeS[i] - trace.timeS[i - 1]);
    return steps.empty() ? 0.0 : median(steps);
}

} // namespace ibuki
