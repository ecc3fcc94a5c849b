// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Values of pure functions that cost milliseconds and are asked for again with the same arguments by every
// refresh of a view. Holds a bounded number, safe from several threads.

#include <map>
#include <mutex>
#include <vector>

namespace ibuki {

class Memo {
public:
    /// make() for these arguments, once. Two threads may both make it, and agree.
    template <class Make> double operator()(std::vector<double> arguments, Make&& make) {
        {
            const std::lock_guard lock(reading_);
            if (const auto known = values_.find(arguments); known != values_.end()) return known->second;
        }
        const double value = make();
        const std::lock_guard lock(reading_);
        if (values_.size() >= most) values_.clear();
        values_.emplace(std::move(arguments), value);
        return value;
    }

private:
    static constexpr std::size_t most = 4096;
    std::mutex reading_;
    std::map<std::vector<double>, double> values_;
};

} // namespace ibuki
