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

/// Of a canonical unit.
std::string_view shownUnit(Unit unit) {
    switch (unit) {
    case Unit::celsius:
        return "°C";
    case Unit::watt:
        return "W";
    case Unit::megahertz:
        return "MHz";
    case Unit::rpm:
        return "RPM";
    case Unit::volt:
        return "V";
    case Unit::percent:
        return "%";
    case Unit::decibel:
        return "dB";
    default:
        return {};
    }
}

std::string quoted(const std::string& field) {
    if (field.find_first_of(",\"\r\n") == std::string::npos) return field;
    std::string text = "\"";
    for (char c : field) text += c == '"' ? std::string("\"\"") : std::string(1, c);
    return text + '"';
}

/// The column with the unit of its values, where the name says another or none.
std::string columnWithUnit(const Channel& channel) {
    const Unit values = canonicalUnit(channel.fileUnit);
    const std::string_view unit = shownUnit(values);
    const Unit reported = parseHeader(channel.column).unit;
    if (unit.empty() || reported == values) return channel.column;
    std::string name = channel.column;
    if (reported != Unit::none)
        if (const std::size_t at = name.find_last_of("[("); at != std::string::npos && at > 0) name.erase(at);
    while (!name.empty() && name.back() == ' ') name.pop_back();
    return fmt::format("{} [{}]", name, unit);
}

} // namespace

std::string exactLogText(const Trace& trace) {
    std::string text = "Time [s]";
    for (const Channel& channel : trace.channels) {
        text += ',';
        text += quoted(columnWithUnit(channel));
    }
    text += '\n';
    auto out = std::back_inserter(text);
    for (std::size_t i = 0; i < trace.samples(); ++i) {
        fmt::format_to(out, "{}", trace.timeS[i]);
        for (const Channel& channel : trace.channels) {
            text += ',';
            if (i < channel.values.size() && std::isfinite(channel.values[i]))
                fmt::format_to(out, "{}", channel.values[i]);
            else if (i < channel.words.size())
                text += quoted(channel.words[i]);
        }
        text += '\n';
    }
    return text;
}

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
