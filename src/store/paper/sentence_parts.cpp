// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/sentence_parts.h"

#include "core/evidence/response.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace ibuki {
namespace {

/// Without the sign where nothing but noughts is left. plus: of what is above 0.
std::string digitsOf(double value, int decimals, const char* plus) {
    const std::string digits = fmt::format("{:.{}f}", std::abs(value), decimals);
    const bool isZero = digits.find_first_not_of("0.") == std::string::npos;
    return isZero ? digits : (value < 0 ? "−" : plus) + digits;
}

std::string plainAmount(double value, std::string_view unit) {
    return digitsOf(value, responseDigits(unit).reported, "");
}

} // namespace

std::string amountText(double value, std::string_view unit) {
    return plainAmount(value, unit) + " " + std::string(unit);
}

std::string signedAmountText(double value, std::string_view unit, std::optional<int> decimals) {
    return digitsOf(value, decimals.value_or(responseDigits(unit).reported), "+");
}

std::string rangeText(const Interval& ci, double sign, std::string_view unit) {
    const double a = sign * ci.lo;
    const double b = sign * ci.hi;
    return words::say("{low} to {high}", {{"low", plainAmount(std::min(a, b), unit)},
                                          {"high", amountText(std::max(a, b), unit)}});
}

std::string listed(const std::vector<std::string>& texts) {
    if (texts.size() < 2) return fmt::format("{}", fmt::join(texts, ""));
    return words::say(
        "{others} and {last}",
        {{"others", std::vector<std::string>(texts.begin(), texts.end() - 1)}, {"last", texts.back()}});
}

std::string furtherText(const PairComparison& pair) {
    std::string text = " ";
    text += pair.furtherMounts
                ? words::sayMany("About {count} more mount of each would settle it.",
                                 "About {count} more mounts of each would settle it.", *pair.furtherMounts)
                : words::say("Mounting them again will not settle it: widen the margin or calm the bench.");
    return text;
}

} // namespace ibuki
