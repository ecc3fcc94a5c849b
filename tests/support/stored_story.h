// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The story's measured study in a project file.

#include "core/domain/ageing.h"
#include "core/domain/joint_inspection.h"
#include "core/domain/plan.h"
#include "core/domain/run_reduction.h"
#include "store/project/project.h"
#include "support/story.h"

namespace ibuki::story {

/// All values of a document, as one change.
inline ChangeSet everythingOf(const Document& document) {
    ChangeSet everything{said("everything"), {}};
    Entities::each([&]<class E>() {
        for (const auto& [id, entity] : document.all<E>())
            everything.changes.push_back({std::nullopt, Entity(entity)});
    });
    return everything;
}

/// With its nine recordings. Returns the study.
inline Id<Study> storeMeasured(const std::filesystem::path& path) {
    Project project = Project::create(path);
    const auto asked = ask();
    project.apply(everythingOf(asked.document));
    const auto logs = nineLogs();
    const auto changes = importChanges(project.document(), asked.study, logs,
                                       proposeImport(project.document(), asked.study, logs));
    Acquired acquired;
    for (const auto& [index, id] : changes.recordings) acquired.recordings.push_back({id, logs[index].trace});
    project.apply(changes.set, acquired);
    return asked.study;
}

} // namespace ibuki::story
