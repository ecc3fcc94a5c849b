// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/options.h"

#include "words/words.h"

#include <CLI/CLI.hpp>
#include <cstdint>
#include <optional>

namespace ibuki {

const Option& Option::required() const {
    option_->required();
    return *this;
}

const Option& Option::excludes(const Option& other) const {
    option_->excludes(other.option_);
    return *this;
}

const Option& Option::oneOf(std::vector<std::string> words) const {
    option_->check(CLI::IsMember(std::move(words)));
    return *this;
}

const Option& Option::repeated() const {
    option_->expected(1)->take_all();
    return *this;
}

const Option& Option::tellDefault() const {
    option_->capture_default_str();
    return *this;
}

bool Option::given() const { return option_->count() > 0; }

template <typename Value>
Option Options::add(const std::string& name, Value& value, const std::string& help) {
    return Option(app_.add_option(name, value, help));
}

template Option Options::add(const std::string&, std::string&, const std::string&);
template Option Options::add(const std::string&, double&, const std::string&);
template Option Options::add(const std::string&, int&, const std::string&);
template Option Options::add(const std::string&, std::uint64_t&, const std::string&);
template Option Options::add(const std::string&, std::optional<std::string>&, const std::string&);
template Option Options::add(const std::string&, std::optional<double>&, const std::string&);
template Option Options::add(const std::string&, std::optional<int>&, const std::string&);
template Option Options::add(const std::string&, std::vector<std::string>&, const std::string&);

void Options::addFlag(const std::string& name, bool& value, const std::string& help) {
    app_.add_flag(name, value, help);
}

void Options::addJson(bool& value) { addFlag("--json", value, words::say("Print one JSON object")); }

void Options::example(const std::string& line) { app_.footer("Example:\n" + line); }

} // namespace ibuki
