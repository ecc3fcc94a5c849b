// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/trace/role.h"

#include "core/quantity/temperature.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <utility>

namespace ibuki {
namespace {

constexpr std::array<std::pair<std::string_view, Unit>, 24> unitWords{{
    {"°c", Unit::celsius},      {"degc", Unit::celsius},   {"c", Unit::celsius},
    {"celsius", Unit::celsius}, {"°f", Unit::fahrenheit},  {"degf", Unit::fahrenheit},
    {"f", Unit::fahrenheit},    {"k", Unit::kelvin},       {"kelvin", Unit::kelvin},
    {"w", Unit::watt},          {"watt", Unit::watt},      {"mw", Unit::milliwatt},
    {"mhz", Unit::megahertz},   {"ghz", Unit::gigahertz},  {"rpm", Unit::rpm},
    {"1/min", Unit::rpm},       {"%", Unit::percent},      {"db", Unit::decibel},
    {"dba", Unit::decibel},     {"db(a)", Unit::decibel},  {"s", Unit::second},
    {"sec", Unit::second},      {"ms", Unit::millisecond}, {"v", Unit::other},
}};

std::string lower(std::string_view text) {
    std::string result(text);
    for (char& c : result) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    return result;
}

std::string trimmed(std::string_view text) {
    const auto first = text.find_first_not_of(" \t");
    if (first == std::string_view::npos) return {};
    return std::string(text.substr(first, text.find_last_not_of(" \t") - first + 1));
}

std::optional<Unit> unitFromWord(const std::string& word) {
    const auto found = std::find_if(unitWords.begin(), unitWords.end(),
                                    [&](const auto& entry) { return entry.first == word; });
    if (found == unitWords.end()) return std::nullopt;
    return found->second;
}

bool has(const std::string& words, std::initializer_list<std::string_view> any) {
    return std::any_of(any.begin(), any.end(),
                       [&](std::string_view word) { return words.find(word) != std::string::npos; });
}

enum class Kind { temperature, power, clock, fan, percent, noise, time, unknown };

Kind kindOf(const Header& header) {
    switch (header.unit) {
    case Unit::celsius:
    case Unit::fahrenheit:
    case Unit::kelvin:
        return Kind::temperature;
    case Unit::watt:
    case Unit::milliwatt:
        return Kind::power;
    case Unit::megahertz:
    case Unit::gigahertz:
        return Kind::clock;
    case Unit::rpm:
        return Kind::fan;
    case Unit::percent:
        return Kind::percent;
    case Unit::decibel:
        return Kind::noise;
    case Unit::second:
    case Unit::millisecond:
        return Kind::time;
    default:
        break;
    }
    const std::string& w = header.words;
    if (has(w, {"timestamp", "date", "elapsed"}) || w.starts_with("time")) return Kind::time;
    if (has(w, {"power", "watt"})) return Kind::power;
    if (has(w, {"clock", "frequency"})) return Kind::clock;
    if (has(w, {"fan", "rpm"})) return Kind::fan;
    if (has(w, {"noise", "sound"})) return Kind::noise;
    return Kind::unknown;
}

Role temperatureRole(const std::string& w) {
    if (has(w, {"ambient", "room", "intake", "probe", "inlet air"})) return Role::ambient;
    if (has(w, {"coolant", "liquid", "water"})) return Role::coolant;
    if (has(w, {"memory", "vram", "mem "})) return Role::memory;
    if (has(w, {"vrm", "power stage", "mos"})) return Role::vrm;
    if (has(w, {"hot spot", "hotspot"})) return Role::hotspot;
    if (has(w, {"gpu", "graphics"})) return Role::gpu;
    if (has(w, {"package", "tdie"})) return Role::package;
    if (has(w, {"core"}) && !has(w, {"average", "max"})) return Role::core;
    return Role::ignore;
}

} // namespace

std::string_view roleName(Role role) { return roleWordList.at(static_cast<std::size_t>(role)); }

std::optional<Role> roleFromName(std::string_view name) {
    const auto found = std::find(roleWordList.begin(), roleWordList.end(), name);
    if (found == roleWordList.end()) return std::nullopt;
    return static_cast<Role>(found - roleWordList.begin());
}

std::string_view unitName(Unit unit) {
    switch (unit) {
    case Unit::none:
        return "";
    case Unit::celsius:
        return "degC";
    case Unit::fahrenheit:
        return "degF";
    case Unit::kelvin:
        return "K";
    case Unit::watt:
        return "W";
    case Unit::milliwatt:
        return "mW";
    case Unit::megahertz:
        return "MHz";
    case Unit::gigahertz:
        return "GHz";
    case Unit::rpm:
        return "rpm";
    case Unit::percent:
        return "%";
    case Unit::decibel:
        return "dB";
    case Unit::second:
        return "s";
    case Unit::millisecond:
        return "ms";
    case Unit::other:
        return "other";
    }
    return "";
}

bool isTemperature(Role role) {
    return isChipTemperature(role) || role == Role::coolant || role == Role::ambient;
}

bool isChipTemperature(Role role) {
    switch (role) {
    case Role::core:
    case Role::package:
    case Role::hotspot:
    case Role::gpu:
    case Role::memory:
    case Role::vrm:
        return true;
    default:
        return false;
    }
}

Header parseHeader(std::string_view column) {
    Header header;
    std::string text = trimmed(column);
    for (const auto& [open, close] : {std::pair{'[', ']'}, std::pair{'(', ')'}}) {
        const auto begin = text.rfind(open);
        if (begin == std::string::npos || text.back() != close) continue;
        const std::string word =
            lower(trimmed(std::string_view(text).substr(begin + 1, text.size() - begin - 2)));
        header.unit = unitFromWord(word).value_or(Unit::other);
        text = trimmed(std::string_view(text).substr(0, begin));
        break;
    }
    if (header.unit == Unit::none) {
        const auto comma = text.find_last_of(", ");
        if (comma != std::string::npos) {
            const std::string word = lower(trimmed(std::string_view(text).substr(comma + 1)));
            // A lone letter after a space is more often part of a name than a unit.
            if (const auto unit = unitFromWord(word); unit && (text[comma] == ',' || word.size() > 1)) {
                header.unit = *unit;
                text = trimmed(std::string_view(text).substr(0, comma));
            }
        }
    }
    header.words = lower(text);
    return header;
}

Role guessRole(const Header& header) {
    const std::string& w = header.words;
    if (has(w, {"comment", "remark"})) return Role::ignore;
    if (has(w, {"throttl", "limit"})) return has(w, {"power"}) ? Role::ignore : Role::limitFlag;
    const bool graphics = has(w, {"gpu", "graphics"});
    switch (kindOf(header)) {
    case Kind::time:
        return Role::time;
    case Kind::fan:
        return has(w, {"pump"}) ? Role::ignore : Role::fan;
    case Kind::noise:
        return Role::noise;
    case Kind::clock:
        return graphics ? Role::gpuClock : has(w, {"core"}) ? Role::clock : Role::ignore;
    case Kind::percent:
        return has(w, {"load", "usage"}) ? Role::load : Role::ignore;
    case Kind::power:
        if (has(w, {"wall", "mains", "socket"})) return Role::wallPower;
        if (graphics) return Role::gpuPower;
        return has(w, {"package", "cpu", "chip"}) ? Role::packagePower : Role::ignore;
    case Kind::temperature:
        return temperatureRole(w);
    case Kind::unknown:
        break;
    }
    if (has(w, {"score"})) return Role::score;
    if (header.unit == Unit::none
        && has(w, {"temp", "core", "package", "ambient", "room", "coolant", "hot spot"}))
        return temperatureRole(w);
    return Role::ignore;
}

double toCanonical(double value, Unit unit) {
    switch (unit) {
    case Unit::fahrenheit:
        return celsiusFromFahrenheit(value).value;
    case Unit::kelvin:
        return celsiusFromKelvinScale(value).value;
    case Unit::milliwatt:
    case Unit::millisecond:
        return value / 1000.0;
    case Unit::gigahertz:
        return value * 1000.0;
    default:
        return value;
    }
}

} // namespace ibuki
