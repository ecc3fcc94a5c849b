// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/log_import.h"

#include "core/import/header_roles.h"

namespace ibuki {
namespace {

/// What the user said of the columns goes along in the same action.
void addRemembered(ChangeSet& set, const Document& document, const LogBatch& batch) {
    Document after = document;
    apply(after, set);
    Edit edit(after, set.title);
    for (const LogSource& source : batch.sources)
        if (!source.options.roles.empty())
            rememberRoles(edit, source.report.fingerprint, source.options.roles);
    const ChangeSet more = edit.finish();
    set.changes.insert(set.changes.end(), more.changes.begin(), more.changes.end());
}

} // namespace

LogImport importOf(const Document& document, Id<Study> study, const LogBatch& batch,
                   const std::vector<ImportRow>& rows) {
    ImportChanges changes = importChanges(document, study, batch.logs, rows);
    addRemembered(changes.set, document, batch);
    LogImport made;
    made.set = std::move(changes.set);
    made.recordingOf = changes.recordings;
    for (const auto& [index, id] : changes.recordings) {
        if (batch.logs[index].figures) continue; // there is nothing to keep
        const LogSource& source = batch.sources[index];
        made.acquired.recordings.push_back({id, batch.logs[index].trace});
        made.toKeep.push_back(
            {id, source.path, batch.logs[index].sha256, source.options, source.keptRows, source.stamp});
    }
    return made;
}

} // namespace ibuki
