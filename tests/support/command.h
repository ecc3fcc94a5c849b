// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The command as a function, for tests of its verbs.

#include "cli/run_cli.h"

#include <sstream>
#include <string>
#include <vector>

namespace ibuki::story {

struct Outcome {
    int code = 0;
    std::string out;
    std::string err;
};

inline Outcome run(const std::vector<std::string>& arguments) {
    std::ostringstream out;
    std::ostringstream err;
    const int code = runCli(arguments, out, err);
    return {code, out.str(), err.str()};
}

} // namespace ibuki::story
