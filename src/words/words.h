// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Codes and fields become sentences in the reader's language here, and nowhere else: window, command and
// report ask this room. The catalogue is GNU gettext's; without a translation the English of src/words is
// told.

#include "core/base/flag.h"
#include "core/base/input_error.h"
#include "core/base/message.h"

#include <filesystem>
#include <string>
#include <string_view>

namespace ibuki::words {

/// The sentence of a message. A code that the catalogue does not know is its own sentence.
std::string text(const Message& message);

/// Of an error's message: what the user can do about it; empty where the catalogue has none.
std::string mend(const Message& message);

/// "file, line 3, column 2: what is wrong. What mends it." on one line, parts that are not known left out.
std::string sentence(const InputError& error);

/// "What is wrong. What mends it.", without a place.
std::string complaint(const Message& message);

/// With a large first letter.
std::string capital(std::string text);

/// The word of a choice ("gap pad") in the reader's language.
std::string term(std::string_view word);

/// A flag in two or three words, by its code: "stuck sensor".
std::string flagName(std::string_view code);

/// A sentence that stands where it is used, in the reader's language. xgettext finds it by this name.
std::string say(const char* english);
std::string say(const char* english, const Fields& fields);
std::string sayMany(const char* one, const char* many, long count);
std::string sayMany(const char* one, const char* many, long count, Fields fields);

/// A sentence in a table of constants; what reads the table says it.
constexpr const char* mark(const char* english) { return english; }

/// Where translations stand: beside the program, or the folder that IBUKI_LOCALE names for who is
/// translating.
std::filesystem::path localeFolder();

/// Makes the locale of the environment the language, with translations from a folder of gettext's layout
/// (<folder>/<language>/LC_MESSAGES/ibuki.mo). Numbers keep their point.
void useLanguage(const std::filesystem::path& folder = localeFolder());

} // namespace ibuki::words
