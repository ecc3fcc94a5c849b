// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/log_name.h"

#include <algorithm>
#include <charconv>

namespace ibuki {
namespace {

constexpr double oldestH = 1e6; ///< a century

/// ASCII only: a letter beyond it stays as it is, whatever the locale.
char lower(char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c; }
bool isDigit(char c) { return c >= '0' && c <= '9'; }
bool parts(char c) { return c == ' ' || c == '_' || c == '-' || c == '.' || c == ','; }

std::string lowered(std::string_view text) {
    std::string result(text);
    std::transform(result.begin(), result.end(), result.begin(), lower);
    return result;
}

bool isNumber(std::string_view text) {
    return !text.empty() && std::all_of(text.begin(), text.end(), isDigit);
}

/// A whole number of at most eight digits.
std::optional<int> wholeOf(std::string_view text) {
    int number = 0;
    if (!isNumber(text) || text.size() > 8) return std::nullopt;
    std::from_chars(text.data(), text.data() + text.size(), number);
    return number;
}

/// The number of "m2" behind one of the words before it.
std::optional<int> numberBehind(std::string_view token, std::initializer_list<std::string_view> words) {
    for (const std::string_view word : words)
        if (token.starts_with(word))
            if (const auto number = wholeOf(token.substr(word.size()))) return number;
    return std::nullopt;
}

/// The tokens of a name, taken off one after the other.
class NameReader {
public:
    NameReader(std::string_view stem, StatedRow& row) : row_(row), written_(writtenTokens(stem)) {
        for (const std::string& token : written_) tokens_.push_back(lowered(token));
        free_.assign(tokens_.size(), true);
    }

    void takeLevel(const std::vector<std::string>& names) {
        if (const auto run = longestRun(names)) row_.level = take(*run);
    }
    void takeLoad(const std::vector<std::string>& names) {
        if (!row_.nominalW)
            if (const auto run = longestRun(names)) row_.load = take(*run);
    }

    void takeTime(bool isKnown) {
        for (std::size_t i = 0; i < tokens_.size(); ++i) {
            std::size_t used = 0;
            const auto day = dateAt(i, used);
            if (!day) continue;
            std::optional<Instant> moment = day;
            if (const auto ms = timeAt(i + used)) {
                moment = Instant{day->ms + *ms};
                used += 2;
            }
            take({i, used});
            if (!isKnown) row_.when = moment;
            return;
        }
    }

    /// NNNw, NNN w.
    void takePower() {
        for (std::size_t i = 0; i < tokens_.size(); ++i) {
            if (!free_[i]) continue;
            const std::string& token = tokens_[i];
            const bool joined = token.size() > 1 && token.back() == 'w';
            const bool apart = i + 1 < tokens_.size() && free_[i + 1] && tokens_[i + 1] == "w";
            const auto watts = wholeOf(joined ? std::string_view(token).substr(0, token.size() - 1) : token);
            if (!watts || *watts == 0 || !(joined || apart)) continue;
            row_.nominalW = *watts;
            take({i, joined ? 1U : 2U});
            return;
        }
    }

    void takeMount() {
        if (const auto number = takeNumber({"mount", "m", "#"}, {"mount", "#"}))
            row_.mount = std::to_string(*number);
    }
    void takeRun() { row_.run = takeNumber({"run", "r"}, {"run"}); }

    /// day N, +Nd, Nh, +Nh.
    void takeAge() {
        if (const auto day = takeNumber({"day"}, {"day"})) return setAge(24.0 * (*day - 1), *day > 1);
        for (std::size_t i = 0; i < tokens_.size(); ++i) {
            std::string_view token = tokens_[i];
            if (!free_[i] || token.size() < 2) continue;
            const bool plus = token.front() == '+';
            if (plus) token.remove_prefix(1);
            const char unit = token.empty() ? ' ' : token.back();
            const auto number = token.empty() ? std::nullopt : wholeOf(token.substr(0, token.size() - 1));
            if (!number || (unit != 'h' && !(unit == 'd' && plus))) continue;
            take({i, 1});
            return setAge((unit == 'd' ? 24.0 : 1.0) * *number, true);
        }
    }

    /// A number that is left at the end.
    void takeLastNumber() {
        if (!row_.mount.empty()) return;
        for (std::size_t i = tokens_.size(); i-- > 0;) {
            if (!free_[i]) continue;
            if (const auto number = wholeOf(tokens_[i])) {
                row_.mount = std::to_string(*number);
                take({i, 1});
            }
            return;
        }
    }

    /// What is left, as it is written.
    void takeRest() {
        if (!row_.level.empty()) return;
        for (std::size_t i = 0; i < tokens_.size(); ++i)
            if (free_[i]) row_.level += (row_.level.empty() ? "" : " ") + written_[i];
    }

private:
    struct Run {
        std::size_t first = 0;
        std::size_t count = 0;
    };

    std::string take(const Run& run) {
        std::string text;
        for (std::size_t i = run.first; i < run.first + run.count; ++i) {
            free_[i] = false;
            text += (text.empty() ? "" : " ") + written_[i];
        }
        return text;
    }

    void setAge(double hours, bool isLater) {
        if (hours > oldestH) return; // a number that means something else
        row_.ageH = hours;
        row_.purpose = isLater ? StatedPurpose::check : StatedPurpose::fresh;
    }

    bool standsAt(std::size_t at, const std::vector<std::string>& tokens) const {
        if (tokens.empty() || at + tokens.size() > tokens_.size()) return false;
        for (std::size_t i = 0; i < tokens.size(); ++i)
            if (!free_[at + i] || tokens_[at + i] != tokens[i]) return false;
        return true;
    }

    /// The longest neighbouring tokens that are one of the names; the first of several.
    std::optional<Run> longestRun(const std::vector<std::string>& names) const {
        std::optional<Run> longest;
        for (const std::string& name : names) {
            const auto tokens = nameTokens(name);
            for (std::size_t at = 0; at < tokens_.size(); ++at) {
                if (!standsAt(at, tokens)) continue;
                const bool better = !longest || tokens.size() > longest->count
                                    || (tokens.size() == longest->count && at < longest->first);
                if (better) longest = Run{at, tokens.size()};
            }
        }
        return longest;
    }

    /// "m2" by one of `joined`, else "mount 2" by one of `apart`.
    std::optional<int> takeNumber(std::initializer_list<std::string_view> joined,
                                  std::initializer_list<std::string_view> apart) {
        for (std::size_t i = 0; i < tokens_.size(); ++i) {
            if (!free_[i]) continue;
            if (const auto number = numberBehind(tokens_[i], joined)) {
                take({i, 1});
                return number;
            }
            const bool isWord = std::find(apart.begin(), apart.end(), tokens_[i]) != apart.end();
            if (!isWord || i + 1 >= tokens_.size() || !free_[i + 1]) continue;
            if (const auto number = wholeOf(tokens_[i + 1])) {
                take({i, 2});
                return number;
            }
        }
        return std::nullopt;
    }

    std::optional<int> numberAt(std::size_t i, std::size_t least, std::size_t most) const {
        if (i >= tokens_.size() || !free_[i] || tokens_[i].size() < least || tokens_[i].size() > most)
            return std::nullopt;
        return wholeOf(tokens_[i]);
    }

    static std::optional<Instant> day(int year, int month, int date) {
        if (year < 1970 || year > 2199 || month < 1 || date < 1) return std::nullopt;
        return makeInstant(year, static_cast<unsigned>(month), static_cast<unsigned>(date));
    }

    /// 2031-03-04, 20310304 or 4.3.2031 from the token on; used: how many tokens it takes.
    std::optional<Instant> dateAt(std::size_t i, std::size_t& used) const {
        used = 1;
        if (const auto whole = numberAt(i, 8, 8))
            return day(*whole / 10'000, *whole / 100 % 100, *whole % 100);
        used = 3;
        const auto year = numberAt(i, 4, 4);
        const auto month = numberAt(i + 1, 1, 2);
        const auto date = numberAt(i + 2, 1, 2);
        if (year && month && date) return day(*year, *month, *date);
        const auto first = numberAt(i, 1, 2);
        const auto last = numberAt(i + 2, 4, 4);
        return first && month && last ? day(*last, *month, *first) : std::nullopt;
    }

    /// HH-MM, milliseconds into the day.
    std::optional<std::int64_t> timeAt(std::size_t i) const {
        const auto hour = numberAt(i, 2, 2);
        const auto minute = numberAt(i + 1, 2, 2);
        if (!hour || !minute || *hour > 23 || *minute > 59) return std::nullopt;
        return (std::int64_t{*hour} * 60 + *minute) * 60'000;
    }

    StatedRow& row_;
    std::vector<std::string> written_;
    std::vector<std::string> tokens_; ///< the same in lower case
    std::vector<bool> free_;          ///< nothing was made of it yet
};

} // namespace

std::vector<std::string> writtenTokens(std::string_view name) {
    std::vector<std::string> words(1);
    for (const char c : name) {
        if (!parts(c))
            words.back() += c;
        else if (!words.back().empty())
            words.emplace_back();
    }
    if (words.back().empty()) words.pop_back();
    return words;
}

std::vector<std::string> nameTokens(std::string_view name) {
    std::vector<std::string> tokens = writtenTokens(name);
    for (std::string& token : tokens) token = lowered(token);
    if (tokens.empty() && !name.empty()) tokens.push_back(lowered(name)); // of signs alone
    return tokens;
}

StatedRow statedByName(std::string_view fileName, const KnownNames& known, bool hasTime) {
    const std::size_t dot = fileName.rfind('.');
    const std::string_view stem =
        dot == std::string_view::npos || dot == 0 ? fileName : fileName.substr(0, dot);
    StatedRow row;
    NameReader reader(stem, row);
    reader.takeLevel(known.levels);
    reader.takeTime(hasTime);
    reader.takePower();
    reader.takeLoad(known.loads);
    reader.takeMount();
    reader.takeRun();
    reader.takeAge();
    reader.takeLastNumber();
    reader.takeRest();
    return row;
}

} // namespace ibuki
