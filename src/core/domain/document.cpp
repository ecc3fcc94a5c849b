// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/document.h"

namespace ibuki {

Document::Document() {
    for (auto& table : tables_) table = std::make_shared<EntityTable>();
}

Document::Document(const Document& other)
    : nextId(other.nextId), tables_(other.tables_), results_(other.results_) {
    shareAll();
}

Document& Document::operator=(const Document& other) {
    if (this == &other) return *this;
    nextId = other.nextId;
    tables_ = other.tables_;
    results_ = other.results_;
    shareAll();
    return *this;
}

void Document::shareAll() const {
    for (const auto& table : tables_) table->share();
}

EntityTable& Document::writable(EntityKind kind) {
    results_.reset();
    auto& table = tables_[indexOf(kind)];
    if (table->isShared()) table = std::make_shared<EntityTable>(*table);
    return *table;
}

std::optional<Entity> Document::entity(EntityKind kind, std::int64_t id) const {
    const EntityTable::Row* row = tables_[indexOf(kind)]->find(id);
    return row ? std::optional(Entity(kind, id, row->value)) : std::nullopt;
}

const void* Document::findValue(EntityKind kind, std::int64_t id) const {
    const EntityTable::Row* row = tables_[indexOf(kind)]->find(id);
    return row ? row->value.get() : nullptr;
}

void Document::put(const Entity& entity) { writable(entity.kind()).put(entity.id(), entity.value()); }

void Document::erase(EntityKind kind, std::int64_t id) { writable(kind).erase(id); }

} // namespace ibuki
