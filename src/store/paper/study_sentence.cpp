// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/sentences.h"

#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/evidence/response.h"
#include "words/words.h"

#include <fmt/format.h>

namespace ibuki {
namespace {

std::string counted(std::size_t count, Factor factor) {
    const auto n = static_cast<long>(count);
    using words::sayMany;
    switch (factor) {
    case Factor::material:
        return sayMany("{count} material", "{count} materials", n);
    case Factor::amount:
        return sayMany("{count} amount", "{count} amounts", n);
    case Factor::pattern:
        return sayMany("{count} pattern", "{count} patterns", n);
    case Factor::torque:
        return sayMany("{count} torque", "{count} torques", n);
    case Factor::lidState:
        return sayMany("{count} lid state", "{count} lid states", n);
    case Factor::cooler:
        return sayMany("{count} cooler", "{count} coolers", n);
    case Factor::supplier:
        return sayMany("{count} supplier", "{count} suppliers", n);
    case Factor::age:
        return sayMany("{count} age", "{count} ages", n);
    case Factor::beforeAfter:
        return sayMany("{count} state", "{count} states", n);
    }
    return {};
}

/// A sentence of which some parts can be edited where it is shown, wherever the reader's language puts them:
/// they are worded as marks and put in afterwards.
class EditableSentence {
public:
    std::string part(std::string text, AskedPart of) {
        parts_.push_back({std::move(text), of});
        return {mark, static_cast<char>(parts_.size())};
    }
    std::vector<SentencePiece> cut(const std::string& sentence) const {
        std::vector<SentencePiece> pieces;
        std::size_t from = 0;
        for (std::size_t at = sentence.find(mark); at != std::string::npos; at = sentence.find(mark, from)) {
            if (at > from) pieces.push_back({sentence.substr(from, at - from), AskedPart::plain});
            pieces.push_back(parts_.at(static_cast<std::size_t>(sentence.at(at + 1)) - 1));
            from = at + 2;
        }
        if (from < sentence.size()) pieces.push_back({sentence.substr(from), AskedPart::plain});
        return pieces;
    }

private:
    static constexpr char mark = '\x1f';
    std::vector<SentencePiece> parts_;
};

std::string loadWords(const Document& document, const Question& question) {
    if (const Load* compared = document.find(question.load)) return compared->name;
    const auto loads = loadsOf(document, question.study);
    if (loads.empty()) return words::say("any load");
    if (loads.size() == 1) return loads.front()->name;
    return words::sayMany("{count} load", "{count} loads", static_cast<long>(loads.size()));
}

} // namespace

std::vector<SentencePiece> studySentencePieces(const Document& document, const Question& question) {
    using enum AskedPart;
    const Study* study = document.find(question.study);
    const Bench* at = study ? document.find(study->bench) : nullptr;
    const Site* where = document.find(question.site);
    EditableSentence asked;
    const std::string compared =
        asked.part(counted(levelsOf(document, question.id).size(), question.factor), levels);
    const bool raw = question.normalisation == Normalisation::raw;
    const Level* held = referenceLevelOf(document, question);
    const Fields fields{
        {"bench", asked.part(at ? at->name : words::say("a bench"), bench)},
        {"site", asked.part(where ? where->name : words::say("a site"), site)},
        {"levels",
         !question.secondFactor
             ? compared
             : words::say("{levels} with {second}",
                          {{"levels", compared},
                           {"second", asked.part(counted(secondLevelsOf(document, question.id).size(),
                                                         *question.secondFactor),
                                                 secondLevels)}})},
        {"metric", asked.part(words::term(metricTitle(question.metric)), metric)},
        {"reference", asked.part(words::term(word(question.reference)), reference)},
        {"taken", raw ? std::string() : ", " + asked.part(words::term(word(question.normalisation)), taken)},
        {"loads", asked.part(loadWords(document, question), loads)},
        {"margin", asked.part(amountText(question.margin.value, responseUnit(question)), margin)},
        {"confidence", asked.part(fmt::format("{:.0f} %", 100 * question.confidence), confidence)},
        {"against",
         held ? ", " + words::say("against {level}", {{"level", asked.part(held->name, heldAgainst)}})
              : std::string()}};
    return asked.cut(
        question.goal == Goal::equivalence
            ? words::say("On {bench}, at {site}, show whether {levels} are the same by {metric} over "
                         "{reference}{taken} under {loads}; a difference of {margin} matters, "
                         "{confidence} sure{against}.",
                         fields)
            : words::say("On {bench}, at {site}, compare {levels} by {metric} over {reference}{taken} "
                         "under {loads}; a difference of {margin} matters, {confidence} sure{against}.",
                         fields));
}

std::string studySentence(const Document& document, const Question& question) {
    std::string text;
    for (const SentencePiece& piece : studySentencePieces(document, question)) text += piece.text;
    return text;
}

} // namespace ibuki
