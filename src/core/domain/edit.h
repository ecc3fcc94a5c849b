// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// One user action as a value: what each touched entity was before and is after. The project applies it in one
// transaction, the window can undo it, the history tells it.

#include "core/base/message.h"
#include "core/domain/document.h"

#include <set>
#include <string>
#include <vector>

namespace ibuki {

struct Change {
    std::optional<Entity> before;
    std::optional<Entity> after;
    bool operator==(const Change&) const = default;

    const Entity& known() const { return after ? *after : *before; }
};

struct ChangeSet {
    Message title; ///< what the undo menu says: "Rename Tern 11"
    std::vector<Change> changes;

    bool empty() const { return changes.empty(); }
};

/// The change set that takes this one back. A recording is never removed: taking back its import withdraws
/// it.
/// Both as one: each value as it was before the first and after the second. The title is the first one's.
ChangeSet joined(const ChangeSet& first, const ChangeSet& second);

ChangeSet inverse(const ChangeSet& set);

void apply(Document& document, const ChangeSet& set);

/// Collects an action against a document. Several puts of one entity become one change.
class Edit {
public:
    Edit(const Document& document, Message title);
    Edit(const Document& document, const char* title) : Edit(document, Message{title, {}}) {}

    /// Gives the entity the next id and adds it.
    template <class E>
    requires IsEntity<E> Id<E> add(E entity) {
        entity.id = Id<E>{working_.nextId++};
        const Id<E> id = entity.id;
        put(std::move(entity));
        return id;
    }
    template <class E>
    requires IsEntity<E>
    void put(E entity) { put(Entity(std::move(entity))); }
    void put(const Entity& entity);
    template <class E> void remove(Id<E> id) { remove(kindOf<E>, id.value); }
    void remove(EntityKind kind, std::int64_t id);

    const Message& title() const { return title_; }
    /// As it will be. What it points to stays as long as the edit, with the members it had when it was asked
    /// for.
    const Document& document() const { return working_; }

    /// The net changes in the order in which entities were first touched; untouched ones are left out.
    ChangeSet finish() const;

private:
    using Key = std::pair<EntityKind, std::int64_t>;

    void touch(const Key& key);

    Document before_;
    Document working_;
    Message title_;
    std::vector<Key> touched_; ///< in the order in which they were
    std::set<Key> known_;
    std::vector<Entity> replaced_; ///< what pointers into document() may still refer to
};

} // namespace ibuki
