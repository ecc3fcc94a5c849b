// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <memory>
#include <string>

namespace ibuki {

/// A file's content carried along in a value: copies share it, equality compares it.
class Bytes {
public:
    Bytes() = default;
    explicit Bytes(std::string content) : content_(std::make_shared<const std::string>(std::move(content))) {}

    const std::string& content() const {
        static const std::string none;
        return content_ ? *content_ : none;
    }
    bool empty() const { return content().empty(); }
    friend bool operator==(const Bytes& a, const Bytes& b) {
        return a.content_ == b.content_ || a.content() == b.content();
    }

private:
    std::shared_ptr<const std::string> content_;
};

} // namespace ibuki
