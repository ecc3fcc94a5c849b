// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Messages as a project keeps them: {"code": …, "fields": {…}}. A count is a whole number, a number has a
// point, a term is {"term": …}, several texts or messages are lists.

#include "core/base/flag.h"
#include "core/base/message.h"

#include <nlohmann/json.hpp>
#include <string>

namespace ibuki {

nlohmann::ordered_json toJson(const Message& message);
Message messageFromJson(const nlohmann::ordered_json& json); ///< throws nlohmann::json::exception

std::string
messageText(const Message& message); ///< the JSON on one line, for a cell of a table; empty for no message
Message messageFromText(const std::string& text); ///< throws InputError (project-damaged)

/// Flags with their messages as a project keeps them.
nlohmann::ordered_json storedJson(const std::vector<Flag>& flags);
std::vector<Flag> flagsFromJson(const nlohmann::ordered_json& json); ///< throws nlohmann::json::exception

/// The same with each message told as a sentence, wherever a "flags" stands in it: what a person or a program
/// is given.
nlohmann::ordered_json reported(nlohmann::ordered_json json);

} // namespace ibuki
