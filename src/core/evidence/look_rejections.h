// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Mounts that were rejected by what their joint looked like, and what the verdict would be with them: a look
// may reject a mount, but whoever reads the verdict must see what that did.

#include "core/comparison/compare.h"
#include "core/domain/document.h"
#include "core/domain/study.h"

namespace ibuki {

class Edit;

struct LookRejections {
    int mounts = 0;
    int figureKnown = 0; ///< rejected when the figure was known already
    /// The comparison as if none of them had been; nothing where it would be none.
    std::optional<Comparison> with;
};

/// Nothing when no mount of the question's study was rejected by look.
std::optional<LookRejections> lookRejections(const Document& document, const Question& question);

/// Rejects a mount with a reason, or takes that back without one; the reason it had stays on record. look: by
/// which it was decided, of this mount: whether its figure was known then is kept with it. Decided without
/// one, no look of the mount rejects it any more.
void rejectMount(Edit& edit, Id<Mount> mount, const std::string& reason,
                 std::optional<Id<JointInspection>> look = std::nullopt);

} // namespace ibuki
