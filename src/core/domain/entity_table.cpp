// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/entity_table.h"

#include <algorithm>

namespace ibuki {

std::vector<EntityTable::Row>::const_iterator EntityTable::place(std::int64_t id) const {
    return std::lower_bound(rows_.begin(), rows_.end(), id,
                            [](const Row& row, std::int64_t wanted) { return row.id < wanted; });
}

const EntityTable::Row* EntityTable::find(std::int64_t id) const {
    const auto at = place(id);
    return at != rows_.end() && at->id == id ? &*at : nullptr;
}

void EntityTable::put(std::int64_t id, std::shared_ptr<const void> value) {
    forgetIndexes();
    const auto at = rows_.begin() + (place(id) - rows_.cbegin());
    if (at != rows_.end() && at->id == id)
        at->value = std::move(value);
    else
        rows_.insert(at, {id, std::move(value)});
}

void EntityTable::erase(std::int64_t id) {
    const auto at = place(id);
    if (at == rows_.end() || at->id != id) return;
    forgetIndexes();
    rows_.erase(at);
}

void EntityTable::forgetIndexes() { indexes_.clear(); }

std::span<const EntityTable::Related> EntityTable::related(std::ptrdiff_t member, ReadReference read,
                                                           std::int64_t to) const {
    const std::lock_guard lock(indexing_);
    auto [index, isNew] = indexes_.try_emplace(member);
    std::vector<Related>& all = index->second;
    const auto byTarget = [](const Related& a, const Related& b) { return a.to < b.to; };
    if (isNew) {
        all.reserve(rows_.size());
        for (const Row& row : rows_) all.push_back({read(row.value.get(), member), row.value.get()});
        std::stable_sort(all.begin(), all.end(), byTarget);
    }
    const auto [from, until] = std::equal_range(all.begin(), all.end(), Related{to, nullptr}, byTarget);
    return {from, until};
}

} // namespace ibuki
