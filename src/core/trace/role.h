// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a logged channel reads, and how a role is guessed from the words of its header.

#include <array>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace ibuki {

enum class Role {
    core,
    package,
    hotspot,
    gpu,
    memory,
    vrm,
    coolant,
    ambient,
    packagePower,
    gpuPower,
    wallPower,
    clock,
    gpuClock,
    fan,
    limitFlag,
    noise,
    score,
    load,
    time,
    ignore
};

enum class Unit {
    none,
    celsius,
    fahrenheit,
    kelvin,
    watt,
    milliwatt,
    megahertz,
    gigahertz,
    rpm,
    percent,
    decibel,
    second,
    millisecond,
    other,
    microsecond,
    volt
};

/// In the enumeration's order.
inline constexpr std::array<std::string_view, 20> roleWordList{
    "core",       "package",       "hotspot",   "gpu",        "memory", "vrm",       "coolant",
    "ambient",    "package-power", "gpu-power", "wall-power", "clock",  "gpu-clock", "fan",
    "limit-flag", "noise",         "score",     "load",       "time",   "ignore"};

/// In the enumeration's order; empty for none.
inline constexpr std::array<std::string_view, 16> unitWordList{
    "", "degC", "degF", "K", "W", "mW", "MHz", "GHz", "rpm", "%", "dB", "s", "ms", "other", "us", "V"};

std::string_view roleName(Role role); ///< the word used in files and by the command: "package-power"
std::optional<Role> roleFromName(std::string_view name);
std::string_view unitName(Unit unit); ///< "degC", "W", …; empty for none
std::optional<Unit> unitFromName(std::string_view name);

bool isTemperature(Role role);
bool isChipTemperature(Role role); ///< a temperature other than coolant and ambient

/// A header such as "CPU Core #1 Temp [°C]" taken apart.
struct Header {
    std::string words; ///< lower case, without the unit
    Unit unit = Unit::none;
};
Header parseHeader(std::string_view column);

/// A unit written alone, as under a header or behind a number: "[°C]", "W"; nothing for other words.
std::optional<Unit> unitFromText(std::string_view text);

struct RoleGuess {
    Role role = Role::ignore;
    double confidence = 0; ///< 0 to 1: of words alone less than of words with a unit
    bool operator==(const RoleGuess&) const = default;
};

/// The role that the words (English, German, Japanese, Chinese, Spanish) and the unit speak for;
/// Role::ignore when nothing does.
RoleGuess guessRole(const Header& header);

/// A log has one package, one coolant, …: of several columns that claim such a role the surest keeps it.
void settleRoles(std::vector<RoleGuess>& guesses);

/// Value in the canonical unit of its kind (°C, W, MHz, rpm, s) from a value in `unit`.
double toCanonical(double value, Unit unit);
/// The unit that such a value then is in.
Unit canonicalUnit(Unit unit);

/// Roles stated by the user: column header (as in the file, or without its unit) → role.
using RoleMap = std::map<std::string, Role, std::less<>>;

} // namespace ibuki
