// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the user said the columns of logs are, told again by the fingerprint of their header.

#include "core/domain/edit.h"
#include "core/trace/role.h"

#include <map>
#include <string>

namespace ibuki {

/// Stores what the user said the columns of such logs are, in place of what was said before.
void rememberRoles(Edit& edit, const std::string& fingerprint, const RoleMap& roles);
/// All that is remembered: fingerprint → column → role.
std::map<std::string, RoleMap> rememberedRoles(const Document& document);

} // namespace ibuki
