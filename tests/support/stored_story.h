// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The story's measured study in a project file.

#include "core/domain/plan.h"
#include "core/domain/run_reduction.h"
#include "store/project/project.h"
#include "support/story.h"

namespace ibuki::story {

/// With its nine recordings. Returns the study.
inline Id<Study> storeMeasured(const std::filesystem::path& path) {
    Project project = Project::create(path);
    const auto asked = ask();
    ChangeSet everything{said("ask"), {}};
    Entities::each([&]<class E>() {
        for (const auto& [id, entity] : asked.document.all<E>())
            everything.changes.push_back({std::nullopt, Entity(entity)});
    });
    project.apply(everything);
    const auto logs = nineLogs();
    const auto changes = importChanges(project.document(), asked.study, logs,
                                       proposeImport(project.document(), asked.study, logs));
    Acquired acquired;
    for (const auto& [index, id] : changes.recordings) acquired.recordings.push_back({id, logs[index].trace});
    project.apply(changes.set, acquired);
    return asked.study;
}

} // namespace ibuki::story
