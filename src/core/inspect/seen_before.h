// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/message.h"
#include "core/domain/document.h"

#include <vector>

namespace ibuki {

/// What looks on a bench have shown that whoever takes the next cooler off should know, gravest first.
std::vector<Message> seenBefore(const Document& document, Id<Bench> bench);

} // namespace ibuki
