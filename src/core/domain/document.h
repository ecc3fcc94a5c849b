// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Everything a project knows, as plain values by id: a snapshot. Copying one is cheap, since copies share
// their values and only a table that is changed is copied; whoever needs what it points to for longer than
// the next change keeps a copy. Traces and pictures stay in the project file and are read on demand. Needs
// the definition of the kinds that are asked for only (core/domain/*.h).

#include "core/domain/entity_table.h"

#include <array>
#include <bit>
#include <map>
#include <mutex>
#include <typeindex>
#include <vector>

namespace ibuki {

class Document {
public:
    Document();
    Document(const Document& other);
    Document& operator=(const Document& other);
    Document(Document&&) noexcept = default; ///< what is left may only be assigned to
    Document& operator=(Document&&) noexcept = default;
    ~Document() = default;

    template <class E> Rows<E> all() const {
        const auto& table = tables_[indexOf(kindOf<E>)];
        table->share();
        return Rows<E>(table);
    }

    template <class E> const E* find(Id<E> id) const {
        return static_cast<const E*>(findValue(kindOf<E>, id.value));
    }
    template <class E> const E* find(std::optional<Id<E>> id) const { return id ? find(*id) : nullptr; }

    /// Values for which a member equals `value`, in order of id. References are looked up in an index.
    template <class E, class Member, class Value>
    std::vector<const E*> where(Member E::*member, const Value& value) const {
        std::vector<const E*> found;
        for (const auto& row : tables_[indexOf(kindOf<E>)]->rows())
            if (const auto* entity = static_cast<const E*>(row.value.get()); entity->*member == value)
                found.push_back(entity);
        return found;
    }
    template <class E, class To> std::vector<const E*> where(Id<To> E::*member, Id<To> to) const {
        return related<E>(member, to.value);
    }
    template <class E, class To>
    std::vector<const E*> where(std::optional<Id<To>> E::*member, std::optional<Id<To>> to) const {
        return related<E>(member, to ? to->value : 0);
    }
    template <class E, class To>
    std::vector<const E*> where(std::optional<Id<To>> E::*member, Id<To> to) const {
        return related<E>(member, to.value);
    }

    std::optional<Entity> entity(EntityKind kind, std::int64_t id) const;
    template <class E>
    requires IsEntity<E>
    void put(E value) { put(Entity(std::move(value))); }
    void put(const Entity& entity);
    template <class E> void erase(Id<E> id) { erase(kindOf<E>, id.value); }
    void erase(EntityKind kind, std::int64_t id);

    /// What make() works out from this snapshot, once until something changes; copies share it. Tells results
    /// apart by their type, so that each has a type of its own. Valid as long as the snapshot. Nothing is
    /// locked while a result is made, so that a slow one on a worker holds nobody up who asks for another;
    /// two who ask for the same one at once may both make it, and both get what was ready first.
    template <class T, class Make> const T& once(Make&& make) const {
        if (!results_) results_ = std::make_shared<Results>();
        {
            const std::lock_guard lock(results_->looking);
            if (const auto known = results_->byType.find(typeid(T)); known != results_->byType.end())
                return *static_cast<const T*>(known->second.get());
        }
        auto made = std::make_shared<const T>(make());
        const std::lock_guard lock(results_->looking);
        const auto kept = results_->byType.try_emplace(typeid(T), std::move(made)).first;
        return *static_cast<const T*>(kept->second.get());
    }

    /// Next id of the project; every kind draws from one sequence.
    std::int64_t nextId = 1;

private:
    static std::int64_t plain(std::int64_t id) { return id; }
    template <class To> static std::int64_t plain(Id<To> id) { return id.value; }
    template <class To> static std::int64_t plain(const std::optional<Id<To>>& id) {
        return id ? id->value : 0;
    }

    template <class E, class Member> std::vector<const E*> related(Member E::*member, std::int64_t to) const {
        static_assert(sizeof(member) == sizeof(std::ptrdiff_t));
        const auto read = [](const void* value, std::ptrdiff_t which) {
            return plain(static_cast<const E*>(value)->*std::bit_cast<Member E::*>(which));
        };
        std::vector<const E*> found;
        for (const auto& one :
             tables_[indexOf(kindOf<E>)]->related(std::bit_cast<std::ptrdiff_t>(member), read, to))
            found.push_back(static_cast<const E*>(one.value));
        return found;
    }

    struct Results {
        std::mutex looking;
        std::map<std::type_index, std::shared_ptr<const void>> byType;
    };

    const void* findValue(EntityKind kind, std::int64_t id) const; ///< nullptr when there is none
    void shareAll() const;
    EntityTable& writable(EntityKind kind);

    std::array<std::shared_ptr<EntityTable>, Entities::size> tables_;
    mutable std::shared_ptr<Results> results_; ///< none as long as nothing was asked for
};

} // namespace ibuki
