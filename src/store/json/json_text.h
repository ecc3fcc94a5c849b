// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// JSON for others to read: indented, and whole even where a text from outside is no UTF-8.

#include <nlohmann/json.hpp>
#include <string>

namespace ibuki {

/// With a new line at its end. Takes the ordered kind too.
template <class Json> std::string jsonText(const Json& json) {
    return json.dump(2, ' ', false, Json::error_handler_t::replace) + '\n';
}

} // namespace ibuki
