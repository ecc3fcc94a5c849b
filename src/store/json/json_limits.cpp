// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/json/json_limits.h"

#include <algorithm>
#include <vector>

namespace ibuki {
namespace {

/// Counts, and stops at the first thing that is too much.
class Counting : public nlohmann::json_sax<nlohmann::json> {
public:
    bool null() override { return true; }
    bool boolean(bool) override { return true; }
    bool number_integer(std::int64_t) override { return true; }
    bool number_unsigned(std::uint64_t) override { return true; }
    bool number_float(double, const std::string&) override { return true; }
    bool string(std::string&) override { return true; }
    bool binary(binary_t&) override { return true; }
    bool start_object(std::size_t) override { return enter(); }
    bool key(std::string&) override { return ++keys_.back() <= mostJsonKeys; }
    bool end_object() override { return leave(); }
    bool start_array(std::size_t) override { return enter(); }
    bool end_array() override { return leave(); }
    bool parse_error(std::size_t, const std::string&, const nlohmann::detail::exception&) override {
        return false;
    }

private:
    bool enter() {
        keys_.push_back(0);
        return static_cast<int>(keys_.size()) <= deepestJson;
    }
    bool leave() {
        keys_.pop_back();
        return true;
    }

    std::vector<long> keys_; ///< so far, of each object or list that is open
};

/// Told from its brackets and colons alone, those inside texts counted too.
bool isPlainlyWithin(std::string_view text) {
    long colons = 0;
    int depth = 0;
    int deepest = 0;
    for (const char c : text) {
        colons += c == ':' ? 1 : 0;
        if (c == '[' || c == '{') deepest = std::max(deepest, ++depth);
        if (c == ']' || c == '}') --depth;
    }
    return colons <= mostJsonKeys && deepest <= deepestJson;
}

} // namespace

std::optional<nlohmann::ordered_json> soundJson(std::string_view text) {
    if (!isPlainlyWithin(text) && !isSoundJson(text)) return std::nullopt;
    auto json = nlohmann::ordered_json::parse(text, nullptr, false);
    return json.is_discarded() ? std::nullopt : std::optional(std::move(json));
}

bool isSoundJson(std::string_view text) {
    Counting counting;
    return nlohmann::json::sax_parse(text, &counting);
}

} // namespace ibuki
