// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A value that stays in its stored form until somebody asks for it. Copies share what was made.

#include <memory>
#include <mutex>
#include <optional>
#include <string>

namespace ibuki {

template <class T> class Lazy {
public:
    using Decode = T (*)(const std::string& stored); ///< may throw; asked again then

    Lazy() : Lazy(T{}) {}
    Lazy(T value) : state_(std::make_shared<State>()) { state_->value = std::move(value); }
    Lazy(std::string&& stored, Decode decode) : state_(std::make_shared<State>()) {
        state_->stored = std::move(stored);
        state_->decode = decode;
    }

    /// Several threads may ask at once.
    const T& operator*() const {
        const std::lock_guard lock(state_->making);
        if (!state_->value) {
            state_->value = state_->decode(state_->stored);
            state_->stored.clear();
            state_->stored.shrink_to_fit();
        }
        return *state_->value;
    }
    const T* operator->() const { return &**this; }

    /// Another value in the place of this one; copies keep theirs.
    template <class Change> void change(Change&& change) {
        T value = **this;
        change(value);
        *this = Lazy(std::move(value));
    }

    bool operator==(const Lazy& other) const { return state_ == other.state_ || **this == *other; }

private:
    struct State {
        std::mutex making;
        std::optional<T> value;
        std::string stored;
        Decode decode = nullptr;
    };
    std::shared_ptr<State> state_; ///< never nullptr, but of a value that was moved from
};

} // namespace ibuki
