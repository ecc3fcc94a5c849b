// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/entered_reading.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

struct ColumnKind {
    Role role;
    SideResponse kind;
};
constexpr ColumnKind columnKinds[] = {{Role::score, SideResponse::score},
                                      {Role::noise, SideResponse::noise},
                                      {Role::wallPower, SideResponse::wallPower}};

std::optional<double> meanBetween(const Trace& trace, const Channel& channel, const Phase& phase) {
    double sum = 0;
    int count = 0;
    for (std::size_t i = 0; i < std::min(trace.timeS.size(), channel.values.size()); ++i) {
        const bool inside = trace.timeS[i] >= phase.startS && trace.timeS[i] <= phase.endS;
        if (!inside || !std::isfinite(channel.values[i])) continue;
        sum += channel.values[i];
        ++count;
    }
    return count > 0 ? std::optional(sum / count) : std::nullopt;
}

std::optional<Phase> stretchOf(const LoadReduction& load) {
    return load.window ? load.window : loadPhase(load);
}

} // namespace

void addColumnReadings(Edit& edit, const Run& run, const Trace& trace, const LoadReduction& load) {
    const auto stretch = stretchOf(load);
    if (!stretch) return;
    for (const auto& [role, kind] : columnKinds) {
        const Channel* channel = firstChannel(trace, role);
        const auto mean = channel ? meanBetween(trace, *channel, *stretch) : std::nullopt;
        if (!mean) continue;
        EnteredReading reading;
        reading.run = run.id;
        reading.kind = kind;
        reading.unit = typicalOf(kind).unit;
        reading.better = typicalOf(kind).better;
        reading.value = *mean;
        edit.add(reading);
    }
}

} // namespace ibuki
