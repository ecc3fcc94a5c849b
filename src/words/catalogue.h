// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The sentence of every code. English stands here and is the key under which gettext finds a translation.
// Fields are named in braces as in {fmt}: "{moved:.1f} K". A field that is a message itself is told as its
// sentence, and as {name_mend} what can be done about it.

#include <span>
#include <string_view>

namespace ibuki::words {

struct Entry {
    std::string_view code;
    const char* text = nullptr;
    const char* many = nullptr; ///< for another {count} than one
    const char* mend = nullptr; ///< of an error: what the user can do about it
};

constexpr Entry one(std::string_view code, const char* text) { return {code, text, nullptr, nullptr}; }
constexpr Entry many(std::string_view code, const char* text, const char* more) {
    return {code, text, more, nullptr};
}
constexpr Entry wrong(std::string_view code, const char* text, const char* mend) {
    return {code, text, nullptr, mend};
}
constexpr Entry wrongMany(std::string_view code, const char* text, const char* more, const char* mend) {
    return {code, text, more, mend};
}

std::span<const Entry> budgets();
std::span<const Entry> cautions();
std::span<const Entry> ageing();
std::span<const Entry> edits();
std::span<const Entry> errors();
std::span<const Entry> flags();
std::span<const Entry> logNotes();
std::span<const Entry> plans();
std::span<const Entry> topics();

/// Every word that a choice is made from, as stored in a project; each is told in the reader's language.
std::span<const char* const> terms();

/// The entry of a code, or nullptr.
const Entry* find(std::string_view code);

/// All of them, for whoever checks them.
std::span<const std::span<const Entry>> allEntries();

} // namespace ibuki::words
