// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A study made from logs that nobody asked a question for: somebody drops two logs on an empty window and
// wants to see them beside each other.

#include "core/domain/edit.h"
#include "core/domain/study.h"
#include "core/import/import_rows.h"

namespace ibuki {

/// What a log's file calls its level: without the ending and the number of a mount or run behind it,
/// "tern-11_2.csv" is "tern-11".
std::string levelNameOf(const std::string& fileName);

struct LogStudy {
    Id<Bench> bench;
    Id<Study> study;
};

/// A bench of the kind that the logs' channels show, unless there is one, and a study that compares what the
/// files' names tell apart, in their order. Room probes are no level. At least one log must read a chip.
LogStudy addStudyOfLogs(Edit& edit, std::optional<Id<Bench>> bench, const std::vector<ImportedLog>& logs,
                        const std::string& benchName, const std::string& studyName, const Wording& wording,
                        Instant now);

} // namespace ibuki
