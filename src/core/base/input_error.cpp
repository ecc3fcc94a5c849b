// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"

#include <algorithm>
#include <fmt/format.h>

namespace ibuki {

std::string sentence(const InputError& error) {
    std::string place = error.where.file;
    if (error.where.line) place += fmt::format(", line {}", *error.where.line);
    if (error.where.column) place += fmt::format(", column {}", *error.where.column);
    std::string text = place.empty() ? "" : place + ": ";
    text += error.what();
    if (!error.mend.empty()) text += ". " + error.mend;
    if (!text.empty() && text.back() != '.') text += '.';
    std::replace(text.begin(), text.end(), '\n', ' ');
    return text;
}

} // namespace ibuki
