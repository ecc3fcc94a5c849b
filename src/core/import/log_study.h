// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A study made from logs that nobody asked a question for: somebody drops two logs on an empty window and
// wants to see them beside each other.

#include "core/domain/edit.h"
#include "core/domain/study.h"
#include "core/import/import_rows.h"

namespace ibuki {

struct LogStudy {
    Id<Bench> bench;
    Id<Study> study;
};

/// What is brought in for a study that nobody planned.
struct LogStudyWish {
    std::optional<Id<Bench>> bench; ///< nothing: one of the kind that the logs' channels show is made
    std::string benchName;          ///< of that one
    std::string studyName;
    Wording wording = plainly;
    Instant now;
};

/// A study that compares the levels that are stated of the logs, in their order; of a log of which nothing is
/// stated, its file's name. Names that are materials of the shelf become those. Room probes are no level. It
/// has no loads: what is brought in brings them. Judged by the hottest core where one of the logs has it,
/// else by the first of package, gpu, hotspot that all have.
LogStudy addStudyOfLogs(Edit& edit, const LogStudyWish& wish, const std::vector<ImportedLog>& logs,
                        const std::vector<StatedRow>& stated);

} // namespace ibuki
