// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The one exception for unusable input from outside. The core names the trouble by a code and fields; the
// edge (window or command) makes the sentence, so that it can be translated. Programming mistakes are
// assertions; doubtful data are flags (core/reduce/flag.h), never an InputError.

#include <optional>
#include <stdexcept>
#include <string>

namespace ibuki {

struct InputError : std::runtime_error {
    struct Where {
        std::string file;
        std::optional<long> line;   ///< 1-based
        std::optional<long> column; ///< 1-based field number, not character
    };

    /// code: a stable word such as "log-no-header"; what: the trouble; mend: what the user can do about it.
    InputError(std::string codeWord, Where place, const std::string& whatIsWrong, std::string howToMend)
        : std::runtime_error(whatIsWrong),
          code(std::move(codeWord)),
          where(std::move(place)),
          mend(std::move(howToMend)) {}

    std::string code;
    Where where;
    std::string mend;
};

/// "file:line, column n: what; mend." on one line, parts that are not known left out.
std::string sentence(const InputError& error);

} // namespace ibuki
