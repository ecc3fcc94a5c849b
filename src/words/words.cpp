// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/words.h"

#include "words/catalogue.h"

#include <algorithm>
#include <cctype>
#include <clocale>
#include <cstdlib>
#include <fmt/args.h>
#include <fmt/format.h>
#include <fmt/ranges.h>
#include <libintl.h>

namespace ibuki::words {
namespace {

constexpr const char* domain = "ibuki";

const char* translated(const char* english) { return *english ? dgettext(domain, english) : english; }

const char* translated(const char* one, const char* many, long count) {
    return dngettext(domain, one, many, static_cast<unsigned long>(std::max(0L, count)));
}

using Store = fmt::dynamic_format_arg_store<fmt::format_context>;

/// A message inside a message: its sentences, and what mends them.
void push(Store& store, const std::string& name, const std::vector<Message>& messages) {
    std::vector<std::string> sentences;
    std::vector<std::string> mends;
    for (const Message& message : messages) {
        sentences.push_back(text(message));
        mends.push_back(mend(message));
    }
    store.push_back(fmt::arg(name.c_str(), fmt::format("{}", fmt::join(sentences, ", "))));
    store.push_back(fmt::arg((name + "_mend").c_str(), fmt::format("{}", fmt::join(mends, ", "))));
}

void push(Store& store, const Message::Field& field) {
    const char* name = field.name.c_str();
    if (const auto* number = std::get_if<double>(&field.value)) store.push_back(fmt::arg(name, *number));
    if (const auto* count = std::get_if<std::int64_t>(&field.value)) store.push_back(fmt::arg(name, *count));
    if (const auto* words = std::get_if<std::string>(&field.value)) store.push_back(fmt::arg(name, *words));
    if (const auto* word = std::get_if<Term>(&field.value)) store.push_back(fmt::arg(name, term(word->word)));
    if (const auto* texts = std::get_if<std::vector<std::string>>(&field.value))
        store.push_back(fmt::arg(name, fmt::format("{}", fmt::join(*texts, ", "))));
    if (const auto* inside = std::get_if<std::vector<Message>>(&field.value))
        push(store, field.name, *inside);
}

/// A sentence whose fields do not fit is told as it stands: a translation must not stop the program.
std::string filled(const char* sentence, const Fields& fields) {
    Store store;
    for (const Message::Field& field : fields) push(store, field);
    try {
        return fmt::vformat(sentence, store);
    } catch (const fmt::format_error&) {
        return sentence;
    }
}

long countIn(const Fields& fields) {
    for (const Message::Field& field : fields)
        if (const auto* count = std::get_if<std::int64_t>(&field.value); count && field.name == "count")
            return static_cast<long>(*count);
    return 1;
}

/// "what. mend."
std::string both(const Message& message) {
    std::string all = text(message);
    if (const std::string remedy = mend(message); !remedy.empty()) all += ". " + remedy;
    if (!all.empty() && all.back() != '.') all += '.';
    std::replace(all.begin(), all.end(), '\n', ' ');
    return all;
}

} // namespace

std::string text(const Message& message) {
    const Entry* entry = find(message.code);
    if (!entry) return filled(translated(message.code.c_str()), message.fields);
    if (!entry->many) return filled(translated(entry->text), message.fields);
    return filled(translated(entry->text, entry->many, countIn(message.fields)), message.fields);
}

std::string mend(const Message& message) {
    const Entry* entry = find(message.code);
    return entry && entry->mend ? filled(translated(entry->mend), message.fields) : std::string();
}

std::string sentence(const InputError& error) {
    std::string place = error.where.file;
    if (error.where.line) place += say(", line {line}", {{"line", *error.where.line}});
    if (error.where.column) place += say(", column {column}", {{"column", *error.where.column}});
    return (place.empty() ? "" : place + ": ") + both(error.message);
}

std::string complaint(const Message& message) { return capital(both(message)); }

std::string capital(std::string text) {
    if (!text.empty())
        text.front() = static_cast<char>(std::toupper(static_cast<unsigned char>(text.front())));
    return text;
}

std::string term(std::string_view word) { return translated(std::string(word).c_str()); }

std::string flagName(std::string_view code) {
    std::string name(code);
    std::replace(name.begin(), name.end(), '-', ' ');
    return term(name);
}

std::string say(const char* english) { return translated(english); }

std::string say(const char* english, const Fields& fields) { return filled(translated(english), fields); }

std::string sayMany(const char* one, const char* many, long count) { return sayMany(one, many, count, {}); }

std::string sayMany(const char* one, const char* many, long count, Fields fields) {
    fields.push_back({"count", count});
    return filled(translated(one, many, count), fields);
}

std::filesystem::path localeFolder() {
    if (const char* wanted = std::getenv("IBUKI_LOCALE")) return wanted;
    std::error_code none;
    const auto program = std::filesystem::read_symlink("/proc/self/exe", none);
    return program.parent_path().parent_path() / "share" / "locale";
}

void useLanguage(const std::filesystem::path& folder) {
    std::setlocale(LC_CTYPE, "");
    std::setlocale(LC_MESSAGES, "");
    bindtextdomain(domain, folder.c_str());
    bind_textdomain_codeset(domain, "UTF-8");
}

} // namespace ibuki::words
