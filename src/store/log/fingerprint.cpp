// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/fingerprint.h"

#include "store/digest.h"
#include "store/log/text.h"

#include <algorithm>
#include <cctype>
#include <vector>

namespace ibuki {

std::string headerFingerprint(std::span<const std::string> columns) {
    std::vector<std::string> names;
    for (const std::string& column : columns) {
        names.emplace_back(trim(column));
        for (char& c : names.back()) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    }
    std::sort(names.begin(), names.end());
    std::string all;
    for (const std::string& name : names) all += name + '\n';
    return sha256(all).substr(0, 16);
}

} // namespace ibuki
