// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a verb declares its options with. The parser's headers cost ten seconds wherever they are included, so
// they are included in options.cpp and run_cli.cpp only.

#include <string>
#include <vector>

namespace CLI {
class App;
class Option;
} // namespace CLI

namespace ibuki {

class Option {
public:
    explicit Option(CLI::Option* option) : option_(option) {}

    const Option& required() const;
    const Option& excludes(const Option& other) const;
    const Option& oneOf(std::vector<std::string> words) const;
    const Option& repeated() const;    ///< each use adds one value
    const Option& tellDefault() const; ///< in the help
    bool given() const;                ///< after parsing

private:
    CLI::Option* option_;
};

class Options {
public:
    explicit Options(CLI::App& app) : app_(app) {}

    /// Text, whole and other numbers, each of them optional, and lists of text. A name without dashes is an
    /// argument; `value` must live until the verb has run.
    template <typename Value> Option add(const std::string& name, Value& value, const std::string& help);
    void addFlag(const std::string& name, bool& value, const std::string& help);
    void addJson(bool& value); ///< --json
    void example(const std::string& line);

private:
    CLI::App& app_;
};

} // namespace ibuki
