// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/edit.h"

#include "core/domain/mount.h"

#include <algorithm>
#include <map>

namespace ibuki {

ChangeSet inverse(const ChangeSet& set) {
    ChangeSet back{set.title, {}};
    for (auto change = set.changes.rbegin(); change != set.changes.rend(); ++change) {
        Change reversed{change->after, change->before};
        const auto* recording = reversed.before ? reversed.before->as<Recording>() : nullptr;
        if (!reversed.after && recording) {
            Recording kept = *recording;
            kept.withdrawn = true;
            reversed.after = Entity(kept);
        }
        back.changes.push_back(std::move(reversed));
    }
    return back;
}

ChangeSet joined(const ChangeSet& first, const ChangeSet& second) {
    ChangeSet both = first;
    const auto keyOf = [](const Change& change) {
        return std::pair(change.known().kind(), change.known().id());
    };
    std::map<std::pair<EntityKind, std::int64_t>, std::size_t> places;
    for (std::size_t i = 0; i < both.changes.size(); ++i) places.emplace(keyOf(both.changes[i]), i);
    for (const Change& change : second.changes) {
        const auto [place, isNew] = places.try_emplace(keyOf(change), both.changes.size());
        if (isNew)
            both.changes.push_back(change);
        else
            both.changes[place->second].after = change.after;
    }
    std::erase_if(both.changes, [](const Change& change) { return change.before == change.after; });
    return both;
}

void apply(Document& document, const ChangeSet& set) {
    for (const Change& change : set.changes) {
        if (change.after) {
            document.put(*change.after);
            document.nextId = std::max(document.nextId, change.after->id() + 1);
        } else if (change.before) {
            document.erase(change.before->kind(), change.before->id());
        }
    }
}

Edit::Edit(const Document& document, Message title)
    : before_(document), working_(document), title_(std::move(title)) {}

void Edit::put(const Entity& entity) {
    touch({entity.kind(), entity.id()});
    working_.put(entity);
}

void Edit::remove(EntityKind kind, std::int64_t id) {
    touch({kind, id});
    working_.erase(kind, id);
}

ChangeSet Edit::finish() const {
    ChangeSet set{title_, {}};
    for (const auto& [kind, id] : touched_) {
        Change change{before_.entity(kind, id), working_.entity(kind, id)};
        if (change.before != change.after) set.changes.push_back(std::move(change));
    }
    return set;
}

void Edit::touch(const Key& key) {
    if (auto now = working_.entity(key.first, key.second)) replaced_.push_back(std::move(*now));
    if (known_.insert(key).second) touched_.push_back(key);
}

} // namespace ibuki
