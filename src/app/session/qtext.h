// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Text of the core as the window shows it.

#include <QString>
#include <string>
#include <string_view>

namespace ibuki {

inline QString qtext(std::string_view text) {
    return QString::fromUtf8(text.data(), static_cast<int>(text.size()));
}
inline QString qtext(const std::string& text) { return QString::fromStdString(text); }

} // namespace ibuki
