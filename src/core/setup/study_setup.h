// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A study as it begins: from a kind of study, or from another one. Kinds say which factor,
// which levels, what is to be shown, what comes back later.

#include "core/base/message.h"
#include "core/domain/edit.h"
#include "core/domain/study.h"

#include <vector>

namespace ibuki {

struct StudyTemplateInfo {
    StudyTemplate which;
    Factor factor;
    int leastMaterials; ///< to choose from the shelf
    int mostMaterials;
};

/// In the order of the choice; names are the words of StudyTemplate, purposeOf says in one line what it is
/// for.
const std::vector<StudyTemplateInfo>& studyTemplates();
const StudyTemplateInfo& templateInfo(StudyTemplate which);
Message purposeOf(StudyTemplate which);

struct NewStudy {
    StudyTemplate which = StudyTemplate::rankMaterials;
    Id<Bench> bench;
    std::string name;
    std::vector<Id<Material>> materials;
    Wording wording = plainly; ///< how the names and remarks that a kind begins with are told
};

/// Study, question with levels, one load, a plan. Throws InputError (study-materials, study-bench,
/// study-site, study-lots) saying what the kind needs.
Id<Study> addStudy(Edit& edit, const NewStudy& wanted, Instant now);

/// What a study of a kind on these materials may be called: their names, else how many they are. `kind` is
/// how the kind is told; a name that another study has gets a number.
std::string proposedName(const Document& document, const std::string& kind,
                         const std::vector<std::string>& materials);

/// The same questions, levels, loads, plan and protocol under a new name, without mounts or slots and not yet
/// fixed.
Id<Study> duplicateStudy(Edit& edit, Id<Study> study);

} // namespace ibuki
