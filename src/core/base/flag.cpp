// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/flag.h"

#include <algorithm>
#include <utility>

namespace ibuki {

Flag makeFlag(Severity severity, const std::string& messageCode, Fields fields) {
    return {codeOf(messageCode), severity, {messageCode, std::move(fields)}};
}

std::string_view severityName(Severity severity) {
    switch (severity) {
    case Severity::info:
        return "info";
    case Severity::warn:
        return "warn";
    case Severity::reject:
        return "reject";
    }
    return "";
}

bool hasFlag(const std::vector<Flag>& flags, std::string_view code) {
    return std::any_of(flags.begin(), flags.end(), [&](const Flag& flag) { return flag.code == code; });
}

void addFlag(std::vector<Flag>& flags, Flag flag) {
    if (std::find(flags.begin(), flags.end(), flag) == flags.end()) flags.push_back(std::move(flag));
}

} // namespace ibuki
