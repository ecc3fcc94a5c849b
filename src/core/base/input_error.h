// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The one exception for unusable input from outside. The core names the trouble by a code and fields; the
// edge (window or command) makes the sentence (words::sentence), so that it can be translated. Programming
// mistakes are assertions; doubtful data are flags (core/base/flag.h), never an InputError.

#include "core/base/message.h"

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

    /// messageCode: of the sentence in src/words that says what is wrong and what the user can do about it,
    /// such as "log-no-header"; what stands behind a "." tells sentences of one trouble apart.
    InputError(const std::string& messageCode, Where place, Fields fields = {})
        : InputError(std::move(place), Message{messageCode, std::move(fields)}) {}

    InputError(Where place, Message wrong)
        : std::runtime_error(wrong.code),
          code(codeOf(wrong.code)),
          where(std::move(place)),
          message(std::move(wrong)) {}

    std::string code; ///< the trouble, without the variant of its sentence
    Where where;
    Message message;
};

} // namespace ibuki
