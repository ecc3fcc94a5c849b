// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// For who publishes: what these mounts let one say, what has to be said with it, and what they do not let one
// say (docs/methods.md, "What may be said").

#include "core/evidence/side_responses.h"
#include "store/paper/sentences.h"

namespace ibuki {

enum class ClaimKind { may, with, mayNot };

struct Claim {
    ClaimKind kind = ClaimKind::may;
    std::string text;
    std::string because; ///< of what may not be said
};

/// In the order of the kinds. Nothing where nothing is compared yet.
std::vector<Claim> claimsOf(const Document& document, const Question& question, const Evidence& evidence);

/// What may be said with what has to be said with it, one a line.
std::string publishable(const std::vector<Claim>& claims);

/// One row a claim.
std::string claimsCsv(const std::vector<Claim>& claims);

} // namespace ibuki
