// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Doubt about data that is carried with the result to the verdict and the report; never an error.

#include "core/base/message.h"

#include <string>
#include <string_view>
#include <vector>

namespace ibuki {

enum class Severity { info, warn, reject };

struct Flag {
    std::string code; ///< stable word, "ambient-drift"
    Severity severity = Severity::info;
    Message message; ///< its sentence; the message's code is the flag's, with a variant where it has several
    bool operator==(const Flag&) const = default;
};

/// The flag of a message: its code is the message's without the variant.
Flag makeFlag(Severity severity, const std::string& messageCode, Fields fields = {});

std::string_view severityName(Severity severity);
bool hasFlag(const std::vector<Flag>& flags, std::string_view code);

/// Adds the flag unless the same is there already; a second one of its code with other fields is news.
void addFlag(std::vector<Flag>& flags, Flag flag);

} // namespace ibuki
