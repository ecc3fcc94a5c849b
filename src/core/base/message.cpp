// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/message.h"

namespace ibuki {

Message said(std::string text) { return {"said", {{"text", std::move(text)}}}; }

std::string plainly(const Message& message) { return message.code; }

std::string codeOf(std::string_view messageCode) {
    return std::string(messageCode.substr(0, messageCode.find('.')));
}

} // namespace ibuki
