// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A comparison in words (docs/methods.md, "Sentences"): what is settled, what is not, how many more mounts
// would settle it, which caveats weigh. The window and the reports show the same sentences.

#include "core/caution/caution.h"
#include "core/domain/study.h"
#include "core/evidence/evidence.h"
#include "store/paper/sentence_parts.h"

#include <optional>
#include <string>
#include <vector>

namespace ibuki {

enum class SentenceKind { settled, provisional, practical, open, caveat };

/// Which page of the verdict has a sentence's evidence.
enum class EvidenceOn { ladder, responses, factors, checks };

struct VerdictSentence {
    SentenceKind kind = SentenceKind::settled;
    std::string text;
    std::optional<std::size_t> pair; ///< index into Comparison::pairs: its evidence
    EvidenceOn page = EvidenceOn::ladder;
};

/// Settled pairs first (best group against the others, then the rest), then practical, open, caveats.
std::vector<VerdictSentence> verdictSentences(const Evidence& evidence, const Question& question);

/// Which part of the question a piece of its sentence stands for; each can be edited where the sentence is
/// shown.
enum class AskedPart {
    plain,
    bench,
    site,
    levels,
    secondLevels,
    metric,
    reference,
    taken,
    loads,
    margin,
    confidence,
    heldAgainst
};
struct SentencePiece {
    std::string text;
    AskedPart part = AskedPart::plain;
};
std::vector<SentencePiece> studySentencePieces(const Document& document, const Question& question);
/// The pieces in one: "On node-2, at lid–plate, compare 5 materials by hottest core over room; a difference
/// of 1.0 K matters, 95 % sure."
std::string studySentence(const Document& document, const Question& question);

/// Whether a rule speaks of one tube or sheet rather than of the material.
bool isAboutLot(const CautionRule& rule);

/// "Gallium creeps … Never together. …"
std::string reasonAndAdvice(const CautionRule& rule);

/// "Stop: Gallium creeps … Never together. …", or the questions that would settle it.
std::string cautionText(const Caution& caution);

/// The cautions for the question's materials at its site and for the lots that mounts took from, gravest
/// first, with who has read them; the last defers to the manufacturers' instructions and local rules.
std::vector<std::string> cautionSentences(const Document& document, const Question& question, Instant now);

/// How far a ranking out of nothing would spread; empty for fewer than three groups.
std::string spreadSentence(const Comparison& comparison, std::string_view unit);

} // namespace ibuki
