// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/edit.h"

#include <algorithm>

namespace ibuki {

ChangeSet inverse(const ChangeSet& set) {
    ChangeSet back{set.title, {}};
    for (auto change = set.changes.rbegin(); change != set.changes.rend(); ++change) {
        Change reversed{change->after, change->before};
        if (!reversed.after && reversed.before && std::holds_alternative<Recording>(*reversed.before)) {
            Recording kept = std::get<Recording>(*reversed.before);
            kept.withdrawn = true;
            reversed.after = Entity(kept);
        }
        back.changes.push_back(std::move(reversed));
    }
    return back;
}

void apply(Document& document, const ChangeSet& set) {
    for (const Change& change : set.changes) {
        if (change.after) {
            std::visit(
                [&](const auto& entity) {
                    document.put(entity);
                    document.nextId = std::max(document.nextId, entity.id.value + 1);
                },
                *change.after);
        } else if (change.before) {
            std::visit([&](const auto& entity) { document.erase(entity.id); }, *change.before);
        }
    }
}

} // namespace ibuki
