// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Questions of a study and their levels: the same mounts may answer several.

#include "core/domain/edit.h"
#include "core/domain/study.h"

namespace ibuki {

/// Another question for the same mounts. shared: judges the levels of `like`; else it has its own, at another
/// site, none to begin with. Returns it.
Id<Question> addQuestion(Edit& edit, Id<Question> like, Id<Site> site, bool shared);

/// The response is fixed from the first measured mount on; the other way for a question that was copied.
void freezeResponse(Question& question);
void thawResponse(Question& question);

/// Takes the question with its own levels out of the study; the first one stays: nothing happens.
void removeQuestion(Edit& edit, Id<Question> question);

/// Adds a level named for what the factor varies; returns it.
Id<Level> addLevel(Edit& edit, Level level);

/// With its planned slots. The caller has seen that no mount was made of it.
void removeUnusedLevel(Edit& edit, Id<Level> level);

} // namespace ibuki
