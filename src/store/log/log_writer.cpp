// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/log_writer.h"

#include <cmath>
#include <fmt/format.h>
#include <iterator>

namespace ibuki {
namespace {

int decimalsOf(const Channel& channel) {
    switch (channel.fileUnit) {
    case Unit::watt:
        return 2;
    case Unit::rpm:
        return 0;
    default:
        return 1;
    }
}

} // namespace

std::string logText(const Trace& trace) {
    std::string text = trace.start ? "Timestamp" : "Time [s]";
    for (const Channel& channel : trace.channels) text += "," + channel.column;
    text += '\n';
    auto out = std::back_inserter(text);
    for (std::size_t i = 0; i < trace.samples(); ++i) {
        if (trace.start)
            text += isoText({trace.start->ms + std::llround(trace.timeS[i] * 1000)});
        else
            fmt::format_to(out, "{:.1f}", trace.timeS[i]);
        for (const Channel& channel : trace.channels) {
            const double value = channel.values[i];
            text += ',';
            if (std::isfinite(value)) fmt::format_to(out, "{:.{}f}", value, decimalsOf(channel));
        }
        text += '\n';
    }
    return text;
}

} // namespace ibuki
