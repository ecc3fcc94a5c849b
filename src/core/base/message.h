// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What is to be said to a person, before it is a sentence: a stable code and typed fields. src/words has the
// sentence of each code and words it at the edge, in the reader's language.

#include <concepts>
#include <cstdint>
#include <functional>
#include <string>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

namespace ibuki {

/// A word of one of the lists that a choice is made from ("gap pad"): told in the reader's language, unlike a
/// name.
struct Term {
    std::string word;

    explicit Term(std::string_view of) : word(of) {}
    bool operator==(const Term&) const = default;
};

struct Message {
    struct Field;

    std::string code; ///< stable, "load-short"; with a variant where one trouble has several sentences,
                      ///< "order-levels.none"
    std::vector<Field> fields;

    bool operator==(const Message&) const = default;
};

struct Message::Field {
    /// A name or text as it stands, a number, a count, a term, several texts, or messages inside the message.
    using Value =
        std::variant<std::string, double, std::int64_t, Term, std::vector<std::string>, std::vector<Message>>;

    std::string name; ///< as the sentence calls it, "margin"
    Value value;

    Field(std::string called, std::string text) : name(std::move(called)), value(std::move(text)) {}
    Field(std::string called, std::string_view text) : name(std::move(called)), value(std::string(text)) {}
    Field(std::string called, const char* text) : name(std::move(called)), value(std::string(text)) {}
    Field(std::string called, std::floating_point auto number)
        : name(std::move(called)), value(static_cast<double>(number)) {}
    Field(std::string called, std::integral auto count)
        : name(std::move(called)), value(static_cast<std::int64_t>(count)) {}
    Field(std::string called, Term term) : name(std::move(called)), value(std::move(term)) {}
    Field(std::string called, std::vector<std::string> texts)
        : name(std::move(called)), value(std::move(texts)) {}
    Field(std::string called, Message message)
        : name(std::move(called)), value(std::vector<Message>{std::move(message)}) {}
    Field(std::string called, std::vector<Message> messages)
        : name(std::move(called)), value(std::move(messages)) {}

    bool operator==(const Field&) const = default;
};

using Fields = std::vector<Message::Field>;

/// Words of a person or of another program, carried as they are: their own sentence.
Message said(std::string text);

/// How the edge tells a message. The core writes names and remarks into a project with the one it is given.
using Wording = std::function<std::string(const Message&)>;

/// The code as it stands: for names that are their own English.
std::string plainly(const Message& message);

/// The code without its variant: "order-levels" of "order-levels.none".
inline std::string codeOf(std::string_view messageCode) {
    return std::string(messageCode.substr(0, messageCode.find('.')));
}

} // namespace ibuki
