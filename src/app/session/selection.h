// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the window is about right now; one value for strip, tape and every view.

#include "core/domain/document.h"
#include "core/domain/plan.h"

namespace ibuki {

struct Selection {
    std::optional<Id<Bench>> bench;
    std::optional<Id<Study>> study;
    std::optional<Id<Question>> question; ///< of the study; nothing: its first
    std::optional<Id<Mount>> mount;
    std::optional<Id<Mount>> beside;      ///< held beside the mount on the strip
    std::optional<Id<Slot>> slot;         ///< a planned tile; then no mount is selected
    std::optional<Id<FollowUp>> followUp; ///< a tile to come back to
    std::optional<Id<Material>> material;
    std::optional<Id<Lot>> lot;
    std::optional<Id<Site>> site;    ///< whose path the strip shows; nothing: the question's
    std::optional<std::size_t> pair; ///< index into the comparison's pairs
    bool operator==(const Selection&) const = default;
};

/// The selection with everything that is no longer in the document left out, and a bench and study chosen
/// when there are any.
Selection valid(Selection selection, const Document& document);

} // namespace ibuki
