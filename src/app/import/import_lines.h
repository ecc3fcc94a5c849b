// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the table of logs tells of each, without widgets.

#include "core/import/import.h"

#include <QString>

namespace ibuki {

/// The figure that the question compares, "room 22.3 °C" of a room probe, or what is missing for it. Empty
/// without a question.
QString steadyText(const ImportedLog& log, const ImportRow& row, const Question* question);

/// The loads of its runs, "120 W", "120 W, check" of a later look; empty for a room probe or a known log.
QString loadText(const Document& document, const ImportRow& row);

/// What to look at before the log is taken: doubt of the proposal, assumed time, flags in short.
QString doubtText(const ImportedLog& log, const ImportRow& row);
int doubtCount(const ImportedLog& log, const ImportRow& row); ///< how many things there are to look at

} // namespace ibuki
