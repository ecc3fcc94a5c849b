// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// One value of a project, of whatever kind: shared and never changed, so that snapshots and changes can hold
// it without copying it.

#include "core/domain/entities.h"

#include <cstdint>
#include <memory>

namespace ibuki {

/// Moves the value to where it can be shared. Defined for the kinds of Entities.
template <class E> std::shared_ptr<const void> shareValue(E value);

class Entity {
public:
    template <class E>
    requires IsEntity<E>
    explicit Entity(E value) : kind_(kindOf<E>), id_(value.id.value), value_(shareValue(std::move(value))) {}
    /// value: of the kind, with the id.
    Entity(EntityKind kind, std::int64_t id, std::shared_ptr<const void> value)
        : kind_(kind), id_(id), value_(std::move(value)) {}

    EntityKind kind() const { return kind_; }
    std::int64_t id() const { return id_; }
    const std::shared_ptr<const void>& value() const { return value_; }
    /// nullptr when it is of another kind.
    template <class E> const E* as() const {
        return kind_ == kindOf<E> ? static_cast<const E*>(value_.get()) : nullptr;
    }

    /// Equal when of one kind with equal members.
    friend bool operator==(const Entity& a, const Entity& b);

private:
    EntityKind kind_;
    std::int64_t id_;
    std::shared_ptr<const void> value_;
};

/// Whether two values of the kind have equal members.
bool sameValue(EntityKind kind, const void* a, const void* b);

} // namespace ibuki
