// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/trace/role.h"

#include <string>

namespace ibuki {

/// A channel without its values.
struct ChannelInfo {
    std::string column;
    Role role = Role::ignore;
    int index = 0; ///< among those of the role
    Unit unit = Unit::none;
    bool operator==(const ChannelInfo&) const = default;
};

} // namespace ibuki
