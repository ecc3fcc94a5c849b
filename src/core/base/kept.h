// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Results by key, each worked out once and then shared by all who ask. Nothing is locked while one is made,
// so that a slow one holds nobody up who asks for another; two who ask for the same one at once may both make
// it, and both get what was ready first.

#include <map>
#include <memory>
#include <mutex>

namespace ibuki {

template <class Key, class Value> class Kept {
public:
    template <class Make> const Value& operator()(const Key& key, Make&& make) {
        {
            const std::lock_guard lock(looking_);
            if (const auto known = made_.find(key); known != made_.end()) return *known->second;
        }
        auto value = std::make_unique<const Value>(make());
        const std::lock_guard lock(looking_);
        return *made_.try_emplace(key, std::move(value)).first->second;
    }

private:
    std::mutex looking_;
    std::map<Key, std::unique_ptr<const Value>> made_; ///< whose addresses stay
};

} // namespace ibuki
