// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// One user action as a value: what each touched entity was before and is after. The project applies it in one
// transaction, the window can undo it, the history tells it.

#include "core/domain/document.h"

#include <string>
#include <vector>

namespace ibuki {

struct Change {
    std::optional<Entity> before;
    std::optional<Entity> after;
    bool operator==(const Change&) const = default;
};

struct ChangeSet {
    std::string title; ///< "Rename Tern 11", as the undo menu says it
    std::vector<Change> changes;

    bool empty() const { return changes.empty(); }
};

/// The change set that takes this one back. A recording is never removed: taking back its import withdraws
/// it.
ChangeSet inverse(const ChangeSet& set);

void apply(Document& document, const ChangeSet& set);

/// Collects an action against a document. Several puts of one entity become one change.
class Edit {
public:
    Edit(const Document& document, std::string title)
        : document_(document), working_(document), title_(std::move(title)) {}

    /// Gives the entity the next id and adds it.
    template <class E> Id<E> add(E entity) {
        entity.id = Id<E>{working_.nextId++};
        note<E>(entity.id);
        working_.put(entity);
        return entity.id;
    }
    template <class E> void put(const E& entity) {
        note<E>(entity.id);
        working_.put(entity);
    }
    template <class E> void remove(Id<E> id) {
        note<E>(id);
        working_.erase(id);
    }

    const std::string& title() const { return title_; }
    const Document& document() const { return working_; } ///< as it will be

    /// The net changes in the order in which entities were first touched; untouched ones are left out.
    ChangeSet finish() const {
        ChangeSet set{title_, {}};
        for (const auto& touched : touched_) {
            Change change = std::visit([&](const auto& key) { return changeOf(key); }, touched);
            if (change.before != change.after) set.changes.push_back(std::move(change));
        }
        return set;
    }

private:
    template <class List> struct KeysOf;
    template <class... E> struct KeysOf<EntityList<E...>> { using Variant = std::variant<Id<E>...>; };
    using Key = KeysOf<Entities>::Variant;

    template <class E> void note(Id<E> id) {
        for (const Key& key : touched_)
            if (key == Key(id)) return;
        touched_.push_back(Key(id));
    }

    template <class E> Change changeOf(Id<E> id) const {
        Change change;
        if (const E* old = document_.find(id)) change.before = Entity(*old);
        if (const E* now = working_.find(id)) change.after = Entity(*now);
        return change;
    }

    const Document& document_;
    Document working_;
    std::string title_;
    std::vector<Key> touched_;
};

} // namespace ibuki
