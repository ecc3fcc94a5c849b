// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The values of one kind in order of id, and who refers to what. A table that a second document or a view of
// its rows holds is never changed again (Document copies it first), so reading needs no lock; indexes of
// references are made when they are first asked for.

#include "core/base/id.h"
#include "core/domain/entity.h"

#include <atomic>
#include <cstddef>
#include <map>
#include <mutex>
#include <optional>
#include <span>
#include <utility>
#include <vector>

namespace ibuki {

class EntityTable {
public:
    struct Row {
        std::int64_t id;
        std::shared_ptr<const void> value;
    };
    /// A value and what one of its members refers to; 0: nothing.
    struct Related {
        std::int64_t to;
        const void* value;
    };
    /// Reads the reference that a member holds; `member` tells which of the kind's members it is.
    using ReadReference = std::int64_t (*)(const void* value, std::ptrdiff_t member);

    EntityTable() = default;
    explicit EntityTable(const EntityTable& other) : rows_(other.rows_) {}

    std::span<const Row> rows() const { return rows_; }
    const Row* find(std::int64_t id) const; ///< nullptr when there is none
    /// Values whose member refers to `to`, in order of id. Valid until the table changes.
    std::span<const Related> related(std::ptrdiff_t member, ReadReference read, std::int64_t to) const;

    void put(std::int64_t id, std::shared_ptr<const void> value);
    void erase(std::int64_t id);

    void share() const { shared_.store(true, std::memory_order_relaxed); }
    bool isShared() const { return shared_.load(std::memory_order_relaxed); }

private:
    std::vector<Row>::const_iterator place(std::int64_t id) const;
    void forgetIndexes();

    std::vector<Row> rows_;
    mutable std::atomic<bool> shared_ = false;
    mutable std::mutex indexing_;
    mutable std::map<std::ptrdiff_t, std::vector<Related>> indexes_; ///< by member, each in order of `to`
};

/// The values of one kind as they were when asked for: (id, value) in order of id.
template <class E> class Rows {
public:
    using value_type = std::pair<Id<E>, const E&>;

    class const_iterator {
    public:
        using iterator_category = std::input_iterator_tag;
        using difference_type = std::ptrdiff_t;
        using value_type = Rows::value_type;
        using reference = value_type;
        struct Arrow {
            value_type pair;
            const value_type* operator->() const { return &pair; }
        };
        using pointer = Arrow;

        const_iterator() = default;
        explicit const_iterator(const EntityTable::Row* row) : row_(row) {}
        value_type operator*() const { return {Id<E>{row_->id}, *static_cast<const E*>(row_->value.get())}; }
        Arrow operator->() const { return {**this}; }
        const_iterator& operator++() {
            ++row_;
            return *this;
        }
        const_iterator operator++(int) {
            const_iterator before = *this;
            ++row_;
            return before;
        }
        friend bool operator==(const const_iterator&, const const_iterator&) = default;

    private:
        const EntityTable::Row* row_ = nullptr;
    };

    explicit Rows(std::shared_ptr<const EntityTable> table) : table_(std::move(table)) {}
    const_iterator begin() const { return const_iterator(table_->rows().data()); }
    const_iterator end() const { return const_iterator(table_->rows().data() + size()); }
    std::size_t size() const { return table_->rows().size(); }
    bool empty() const { return table_->rows().empty(); }
    /// The newest; there must be one.
    value_type back() const { return *const_iterator(table_->rows().data() + size() - 1); }
    bool contains(Id<E> id) const { return table_->find(id.value) != nullptr; }

    friend bool operator==(const Rows& a, const Rows& b) {
        if (a.size() != b.size()) return false;
        for (std::size_t i = 0; i < a.size(); ++i)
            if (!sameValue(kindOf<E>, a.table_->rows()[i].value.get(), b.table_->rows()[i].value.get()))
                return false;
        return true;
    }

private:
    std::shared_ptr<const EntityTable> table_;
};

} // namespace ibuki
