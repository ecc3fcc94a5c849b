// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/json/json_limits.h"

#include <nlohmann/json.hpp>
#include <vector>

namespace ibuki {
namespace {

using Json = nlohmann::json;

/// Counts, and stops at the first thing that is too much.
class Counting : public nlohmann::json_sax<Json> {
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

} // namespace

bool isSoundJson(std::string_view text) {
    Counting counting;
    return Json::sax_parse(text, &counting);
}

} // namespace ibuki
