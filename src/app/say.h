// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The sentences of the window, in the reader's language (src/words). A sentence stands where it is used,
// inside say(); what is no sentence (names of settings, styles, objects) is a QStringLiteral or goes to Qt as
// it is. A test fails on a literal that a person would read and that bypasses say().

#include "words/words.h"

#include <QString>

namespace ibuki {

inline QString say(const char* english) { return QString::fromStdString(words::say(english)); }
inline QString say(const char* english, const Fields& fields) {
    return QString::fromStdString(words::say(english, fields));
}

/// one: for a count of one; {count} is the count.
inline QString sayMany(const char* one, const char* many, qint64 count) {
    return QString::fromStdString(words::sayMany(one, many, static_cast<long>(count)));
}

inline QString sayTerm(std::string_view word) { return QString::fromStdString(words::term(word)); }
inline QString saySentence(const InputError& error) { return QString::fromStdString(words::sentence(error)); }
inline QString sayText(const Message& message) { return QString::fromStdString(words::text(message)); }

/// What an edit does, for the undo menu and the history; told when it is shown.
inline Message titled(const char* english, Fields fields = {}) { return {english, std::move(fields)}; }

} // namespace ibuki
