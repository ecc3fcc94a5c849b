// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/catalogue.h"

#include <cassert>
#include <unordered_map>
#include <vector>

namespace ibuki::words {

std::span<const std::span<const Entry>> allEntries() {
    static const std::vector<std::span<const Entry>> all{budgets(), cautions(), ageing(), edits(), errors(),
                                                         flags(),   logNotes(), plans(),  topics()};
    return all;
}

const Entry* find(std::string_view code) {
    static const auto byCode = [] {
        std::unordered_map<std::string_view, const Entry*> index;
        for (const auto entries : allEntries())
            for (const Entry& entry : entries) index.emplace(entry.code, &entry);
        return index;
    }();
    const auto found = byCode.find(code);
    return found == byCode.end() ? nullptr : found->second;
}

} // namespace ibuki::words
