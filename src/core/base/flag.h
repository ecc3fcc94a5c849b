// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Doubt about data that is carried with the result to the verdict and the report; never an error.

#include <string>
#include <vector>

namespace ibuki {

enum class Severity { info, warn, reject };

struct Flag {
    std::string code; ///< stable word, "ambient-drift"
    Severity severity = Severity::info;
    std::string message;
    bool operator==(const Flag&) const = default;
};

std::string_view severityName(Severity severity);
bool hasFlag(const std::vector<Flag>& flags, std::string_view code);

/// Adds the flag unless the same is there already; a second one of its code with other words is news.
void raise(std::vector<Flag>& flags, Flag flag);

} // namespace ibuki
