// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/message.h"

namespace ibuki {

Message said(std::string text) { return {"said", {{"text", std::move(text)}}}; }

std::string plainly(const Message& message) { return message.code; }

} // namespace ibuki
