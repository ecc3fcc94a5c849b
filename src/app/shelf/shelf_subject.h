// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the pages of Shelf talk about, from what is selected.

#include "app/session/session.h"
#include "core/caution/caution.h"
#include "core/domain/bench.h"

namespace ibuki {

/// The site that Shelf prices and doses for: the chosen one of the selected bench, else the question's, else
/// its first; nullptr without a bench.
const Site* shelfSite(const Session& session);

/// What every page of Shelf is about: chosen material and lot, site, and the bench as it is now.
CautionSubject shelfSubject(const Session& session);

} // namespace ibuki
